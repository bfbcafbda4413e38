/*
 * Text out of logs, debuggers and source, as a tree: numbers, words, and what brackets hold. What a
 * log puts before its lines (times, levels, sources, threads) is set aside.
 */

/** A number with where it stands in the text, as it was printed. */
export interface PrintedNumber {
  readonly kind: 'number';
  readonly value: number;
  /** What one unit of its last printed figure is worth; 0 where all its digits are there. */
  readonly step: number;
  readonly from: number;
  readonly to: number;
  /** Eight hexadecimal digits: a number only among others of the kind, as the bits of a float. */
  readonly bits?: true;
}
export interface Word {
  readonly kind: 'word' | 'arrow' | 'line' | 'end';
  readonly text: string;
  readonly from: number;
  readonly to: number;
}
export interface Group {
  readonly kind: 'group';
  readonly children: readonly Node[];
  readonly from: number;
  readonly to: number;
}
export type Node = PrintedNumber | Word | Group;

const clock = String.raw`\d{1,2}:\d{2}:\d{2}(?:[.,:]\d+)?`;
const date = String.raw`\d{4}[-/.]\d{2}[-/.]\d{2}(?:[T ]${clock}(?:Z|[-+]\d{2}:?\d{2})?)?`;
// Tried at the beginning of a run alone: from every place in it a long run would take quadratic time.
const source = String.raw`(?<![\w./\\-])[\w./\\-]+\.(?:cpp|cxx|cc|hpp|hh|c|h|rs|go|ts|tsx|js|py|java|cs|lua|swift|kt|zig|glsl|hlsl|wgsl)(?::\d+){1,2}`;
const level = String.raw`(?:TRACE|DEBUG|DBG|INFO|WARN(?:ING)?|ERROR|ERR|LOG|VERBOSE|[VDIWE]\/\w+)\b:?`;
/** What a log puts at the beginning of a line. */
const prefix = new RegExp(
  String.raw`^[ \t]*(?:(?:${date}|${clock}|\[(?:${date}|${clock})\]|\[\s*\d+\.\d+\](?=\s+[A-Za-z[])|\[?${level}\]?|\[[A-Za-z][\w .:/#-]*\](?=\s)|\[(?:(?:t|[A-Za-z_]{2,})=[\w.:/#-]+[ ,]{0,2}){1,4}\](?=[ \t]+\S)|${source}:?|\(\d+\)|[|>](?=\s))[ \t]*)+`,
  'gim',
);
/** Numbers that are none of a matrix or a point: what they say of is known by their form. */
const asides = [
  new RegExp(date, 'g'),
  new RegExp(clock, 'g'),
  new RegExp(source, 'g'),
  /\b(?:frame|tick|line|thread|tid|pid|id|draw ?call|pass|step|seq|index|idx|iteration)\b\s{0,8}(?:no\.?)?[ #=:]{0,8}\d+\b(?!\.\d)/gi,
  /[+-]?\b\d+(?:\.\d+)?\s?(?:ms|us|µs|ns|fps|hz|khz|mhz|kb|mb|gb|kib|mib|bytes|%)(?![\w])/gi,
  /\$\d+/g,
  /#\d+/g,
  /@\s*0x[0-9a-f]+\b/gi,
  // The size of an array after its name, and the indices of an element that is set.
  /(?<=[\w>\])])\s{0,8}(?:\[\s{0,8}\d+\s{0,8}\]){1,4}(?=\s{0,8}(?:[=:{;,)]|$))/gm,
  /(?:^|(?<=[\s,({]))\[\s*\d+\s*\](?:\[\s*\d+\s*\])?\s*[:=]/gm,
  /^[ \t]*\[\s*\d{1,2}\s*\](?=\s+[-+\d.[(])/gm,
  // The same in round brackets, and the length of an array before its elements.
  /(?<=[\w)])\(\s{0,4}\d\s{0,4},\s{0,4}\d\s{0,4}\)(?=\s{0,8}[:=])/g,
  /(?<=\w)\(\d{1,3}\)(?=\s{0,8}[[{])/g,
  // Numbers as keys: {"0": 1, "1": 0}.
  /(?<=[{,\s])["']?\d{1,2}["']?\s*:(?=\s*[-+\d.])/g,
  /\b(?:row|col|column|r|c)[ _-]?\d\b\s*[:=]?/gi,
  /\bdtype\s*=\s*[\w.'"]+/g,
];

const number = /[-+−]?(?:0x[0-9a-f]*(?:\.[0-9a-f]*)?p[-+]?\d+|(?:\d+(?:\.\d*)?|\.\d+)(?:e[-+]?\d+|d(?:[-+]\d+|\d\d))?|(?:inf(?:inity)?|nan)\b)(?:_?f(?:32|64)?|[dl])?(?!\w|\.\d)/iy; // prettier-ignore
const padded = /0\d+(?![\w.,])/y;
const bits = /0x([0-9a-f]{8})\b/iy;
const repeats = /\s{0,8}<repeats (\d+) times>/y;
const word = /[A-Za-z_$][\w$]*(?:[.-](?=[A-Za-z_])[\w$]+|::[\w$]+)*/y;
const arrow = /->|=>|→|-->|↦/y;

const value = new DataView(new ArrayBuffer(4));
/** A hexadecimal float of C: 0x1.8p+3. */
function hexFloat(text: string): number {
  const [, sign, whole, share = '', power] = /^([-+]?)0x([0-9a-f]*)\.?([0-9a-f]*)p([-+]?\d+)/i.exec(text)!;
  const digits = Number.parseInt(`${whole}${share}` || '0', 16);
  return (sign === '-' ? -1 : 1) * digits * 2 ** (Number(power) - 4 * share.length);
}
/** A printed number: its value, and what one unit of its last figure is worth. */
function readNumber(text: string): { value: number; step: number } {
  if (/^[-+]?\d+(?:\.\d*)?$/.test(text)) {
    const point = text.indexOf('.');
    return { value: Number(text), step: point < 0 ? 0 : 10 ** (point + 1 - text.length) };
  }
  const plain = text.replace('−', '-').replace(/_?f(?:32|64)?$|[dl]$/i, (end) => (/^[-+]?0x/i.test(text) ? end : ''));
  if (/0x/i.test(plain)) return { value: hexFloat(plain), step: 0 };
  if (/nan/i.test(plain)) return { value: NaN, step: 0 };
  if (/inf/i.test(plain)) return { value: plain.startsWith('-') ? -Infinity : Infinity, step: 0 };
  const [mantissa = '', exponent = '0'] = plain.toLowerCase().split(/[ed]/);
  const decimals = mantissa.split('.')[1]?.length ?? 0;
  // A whole number without a point is itself.
  const step = mantissa.includes('.') || exponent !== '0' ? 10 ** (Number(exponent) - decimals) : 0;
  return { value: Number(plain.replace(/d/i, 'e')), step };
}

/** Brackets nested deeper than this are passed over. */
export const deepest = 32;

/** Brackets that stand for one another; what points out of nothing or closes nothing is no bracket. */
const closing: Readonly<Record<string, string>> = { '(': ')', '[': ']', '{': '}' };

/** Numbers of a line that have a decimal comma, where they can have: a comma between digits, one in a number. */
const commaNumbers = (line: string): readonly string[] | null => {
  if (/\d\.\d|,(?!\d)|(?<!\d),/.test(line)) return null;
  const found = line.match(/\d+(?:,\d+)+/g) ?? [];
  return found.every((one) => one.indexOf(',') === one.lastIndexOf(',')) ? found : null;
};
/**
 * The text with decimal commas as points: on lines with four such numbers or more, most of them to three decimals or
 * more, and then on other lines that allow it. A list of integers parted by commas is none.
 */
function withDecimalPoints(text: string): string {
  if (!/\d,\d{3}/.test(text)) return text;
  const lines = text.split('\n');
  const numbers = lines.map(commaNumbers);
  const isSure = (found: readonly string[] | null) =>
    found !== null && found.length > 3 && 2 * found.filter((one) => /,\d{3}/.test(one)).length > found.length;
  if (!numbers.some(isSure)) return text;
  return lines.map((line, i) => (numbers[i] ? line.replace(/(?<=\d),(?=\d)/g, '.') : line)).join('\n');
}

/** A factor of all numbers of the block under it: `1.0e+03 *` on a line by itself. */
export interface Factor {
  readonly value: number;
  /** Where it ends. */
  readonly to: number;
}
const factorLine = /^[ \t]*([-+]?\d+(?:\.\d*)?(?:e[-+]?\d+)?)[ \t]*[*×][ \t]*$/gim;
export const factorsOf = (text: string): readonly Factor[] =>
  [...text.matchAll(factorLine)].map((found) => ({ value: Number(found[1]), to: found.index + found[0].length }));

/** The text without what a log adds, its places kept: blanks stand for it. Decimal commas become points. */
export function setAside(text: string): string {
  const blank = (found: string) => found.replace(/[^\n]/g, ' ');
  let left = withDecimalPoints(text).replace(prefix, blank).replace(factorLine, blank);
  for (const aside of asides) left = left.replace(aside, blank);
  return left;
}

export interface TextTree {
  readonly nodes: readonly Node[];
  /** Offset of the first bracket that is nested too deep to be read; null where there is none. */
  readonly tooDeepAt: number | null;
}

/** Parses a text that `setAside` has been over. */
export function treeOf(text: string): TextTree {
  let tooDeepAt: number | null = null;
  type Open = { readonly close: string; readonly from: number; readonly children: Node[] };
  const stack: Open[] = [{ close: '', from: 0, children: [] }];
  const put = (node: Node) => void stack.at(-1)!.children.push(node);
  /** Gives what an unclosed bracket holds to the one around it. */
  const unwrap = () => stack.pop()!.children.forEach(put);
  /** The match of a sticky pattern at a place. The pattern is not run where its first character rules it out. */
  const take = (pattern: RegExp, first: RegExp, at: number): RegExpExecArray | null => {
    if (!first.test(text.charAt(at))) return null;
    pattern.lastIndex = at;
    return pattern.exec(text);
  };
  /** Ends the innermost bracket; one that was never closed gives what it holds to the one around it. */
  const shut = (close: string, to: number) => {
    const depth = stack.findLastIndex((open) => open.close === close);
    if (depth < 1) return;
    while (stack.length > depth + 1) unwrap();
    const { from, children } = stack.pop()!;
    put({ kind: 'group', children, from, to });
  };
  for (let at = 0; at < text.length;) {
    const letter = text[at]!;
    const found = take(arrow, /[-=→↦]/, at);
    if (found) {
      put({ kind: 'arrow', text: found[0], from: at, to: (at += found[0].length) });
      continue;
    }
    const pattern = take(bits, /0/, at);
    if (pattern) {
      value.setUint32(0, Number.parseInt(pattern[1]!, 16));
      put({ ...{ kind: 'number', value: value.getFloat32(0), step: 0, bits: true }, from: at, to: (at += pattern[0].length) }); // prettier-ignore
      continue;
    }
    // An integer with zeros before it is part of a code or of a dump.
    const code = take(padded, /0/, at);
    if (code) {
      put({ kind: 'word', text: 'code', from: at, to: (at += code[0].length) });
      continue;
    }
    const printed = take(number, /[-+−.\din]/i, at);
    if (printed) {
      const to = at + printed[0].length;
      const again = take(repeats, /[\s<]/, to);
      for (let i = 0; i < (again ? Math.min(64, Number(again[1])) : 1); i++) put({ kind: 'number', ...readNumber(printed[0]), from: at, to }); // prettier-ignore
      at = to + (again?.[0].length ?? 0);
      continue;
    }
    const name = take(word, /[A-Za-z_$]/, at);
    if (name) {
      put({ kind: 'word', text: name[0], from: at, to: (at += name[0].length) });
      continue;
    }
    if (letter === '\n') put({ kind: 'line', text: '\n', from: at, to: at + 1 });
    else if (letter === ';') put({ kind: 'end', text: ';', from: at, to: at + 1 });
    else if (closing[letter]) {
      // Deeper brackets hold no matrix; they are passed over.
      if (stack.length <= deepest) stack.push({ close: closing[letter], from: at, children: [] });
      else tooDeepAt ??= at;
    } else if (/[)\]}]/.test(letter)) shut(letter, at + 1);
    else if (/[\w.]/.test(letter)) {
      // What is neither a number nor a word ("4x", "1.2.3") is passed over whole.
      while (at < text.length && /[\w.]/.test(text[at]!)) at++;
      continue;
    }
    at++;
  }
  while (stack.length > 1) unwrap();
  return { nodes: stack[0]!.children, tooDeepAt };
}
