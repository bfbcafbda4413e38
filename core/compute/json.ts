import { Series } from '../quantities/series';

/**
 * A value as JSON, in pieces: what `JSON.stringify` gives with the same indent (0 is one line), for
 * values of plain objects, lists and series, as deep as those stand (three levels). Indented matrices (lists of
 * sixteen numbers) have four lines.
 */
export function* writeJson(value: unknown, indent = 0, above = ''): Generator<string> {
  const line = indent ? '\n' : '';
  const inner = indent ? above + ' '.repeat(indent) : '';
  if (value instanceof Series) {
    if (!value.length) return yield '[]';
    let first = true;
    yield '[';
    for (const part of value.parts()) {
      // A part at once, without its brackets and what stands between them and the entries.
      const text = withMatrixLines(JSON.stringify(part, null, indent), indent);
      const entries = indent ? text.slice(2 + indent, -2).replaceAll('\n', `\n${above}`) : text.slice(1, -1);
      yield `${first ? '' : ','}${line}${inner}${entries}`;
      first = false;
    }
    return yield `${line}${above}]`;
  }
  if (!holdsSeries(value)) {
    const text = withMatrixLines(JSON.stringify(value, null, indent), indent);
    return yield indent ? text.replaceAll('\n', `\n${above}`) : text;
  }
  const list = Array.isArray(value);
  const entries: [string, unknown][] = list
    ? value.map((one): [string, unknown] => ['', one])
    : Object.entries(value as object).filter(([, one]) => one !== undefined);
  let first = true;
  yield list ? '[' : '{';
  for (const [key, one] of entries) {
    yield `${first ? '' : ','}${line}${inner}${list ? '' : `${JSON.stringify(key)}:${indent ? ' ' : ''}`}`;
    yield* writeJson(one, indent, inner);
    first = false;
  }
  yield `${line}${above}${list ? ']' : '}'}`;
}

const sixteenNumbers = /^( *)(.*\[)\n((?: *-?[\d.eE+-]+,?\n){16}) *\]/gm;

/** Lays out lists of sixteen numbers, matrices, as four lines of four. */
function withMatrixLines(text: string, indent: number): string {
  if (!indent) return text;
  return text.replace(sixteenNumbers, (_, margin: string, head: string, body: string) => {
    const numbers = body.trim().split(/,?\s+/);
    const rows = [0, 4, 8, 12].map((i) => `${margin}${' '.repeat(indent)}${numbers.slice(i, i + 4).join(', ')}`);
    return `${margin}${head}\n${rows.join(',\n')}\n${margin}]`;
  });
}

/** Whether a lazy list stands in it, three levels down: answer, results, result. */
function holdsSeries(value: unknown, depth = 3): boolean {
  if (value instanceof Series) return true;
  if (!depth || typeof value !== 'object' || value === null) return false;
  return Object.values(value).some((one) => holdsSeries(one, depth - 1));
}
