import { parse, printParseErrorCode, type ParseError } from 'jsonc-parser';

/** Sentences by the error of the parser. */
const sentences: Readonly<Record<string, string>> = {
  InvalidSymbol: 'this is not a value',
  InvalidNumberFormat: 'this is not a number',
  PropertyNameExpected: 'a key in double quotes is expected',
  ValueExpected: 'a value is expected',
  ColonExpected: 'a colon is expected after the key',
  CommaExpected: 'a comma is expected',
  CloseBraceExpected: 'a closing brace } is expected',
  CloseBracketExpected: 'a closing bracket ] is expected',
  EndOfFileExpected: 'the document should end here',
  InvalidCommentToken: 'JSON has no comments',
  UnexpectedEndOfComment: 'JSON has no comments',
  UnexpectedEndOfString: 'the text is not closed by a double quote',
  UnexpectedEndOfNumber: 'the number is not complete',
  InvalidUnicode: 'the escape \\u needs four hexadecimal digits',
  InvalidEscapeCharacter: 'this escape is not known',
  InvalidCharacter: 'this character is not allowed in a text',
};

/** Characters of the text that a message shows. */
const shown = 24;

/**
 * Says where a text is not JSON, and why.
 *
 * @param text - text that `JSON.parse` rejects
 * @returns “line 3, column 14: a comma is expected, at “near”: 0.5”
 */
export function jsonProblem(text: string): string {
  const errors: ParseError[] = [];
  parse(text, errors, { disallowComments: true, allowTrailingComma: false, allowEmptyContent: false });
  const [first] = errors;
  const offset = first?.offset ?? text.length;
  const before = text.slice(0, offset).split('\n');
  const rest = text.slice(offset).split('\n')[0]!.trim();
  const excerpt = rest.length > shown ? `${rest.slice(0, shown - 1)}…` : rest;
  const why = (first && sentences[printParseErrorCode(first.error)]) ?? 'this is not JSON';
  return `line ${before.length}, column ${before.at(-1)!.length + 1}: ${why}${excerpt ? `, at ${excerpt}` : ', at the end'}`;
}

/** Reads JSON, or says where the text is wrong. */
export function readJsonText(text: string): { readonly value: unknown } | { readonly problem: string } {
  try {
    return { value: JSON.parse(text) as unknown };
  } catch {
    return { problem: jsonProblem(text) };
  }
}
