/**
 * A list of an answer that is worked out when it is written, a part at a time: of a million entries
 * no more than a part is ever held.
 */
export class Lazy<T> {
  /** `part` gives the entries from one place up to, not including, another. */
  constructor(
    readonly length: number,
    readonly part: (from: number, to: number) => readonly T[],
  ) {}

  /** All of it, for who wants a list. */
  whole(): T[] {
    const all: T[] = [];
    for (const part of this.parts()) for (const one of part) all.push(one);
    return all;
  }

  *parts(): Generator<readonly T[]> {
    for (let from = 0; from < this.length; from += partLength)
      yield this.part(from, Math.min(this.length, from + partLength));
  }
}
const partLength = 512;

/** What is asked of each entry of a list, worked out when it is written. */
export const lazily = <From, To>(list: readonly From[], each: (one: From, i: number) => To): Lazy<To> =>
  new Lazy(list.length, (from, to) => list.slice(from, to).map((one, i) => each(one, from + i)));

/**
 * A value as JSON, in pieces: what `JSON.stringify` gives with the same indent (0 is one line), for
 * values of plain objects, lists and `Lazy` lists, as deep as those stand (three levels).
 */
export function* writeJson(value: unknown, indent = 0, above = ''): Generator<string> {
  const line = indent ? '\n' : '';
  const inner = indent ? above + ' '.repeat(indent) : '';
  if (value instanceof Lazy) {
    if (!value.length) return yield '[]';
    let first = true;
    yield '[';
    for (const part of value.parts()) {
      // A part at once, without its brackets and what stands between them and the entries.
      const text = JSON.stringify(part, null, indent);
      const entries = indent ? text.slice(2 + indent, -2).replaceAll('\n', `\n${above}`) : text.slice(1, -1);
      yield `${first ? '' : ','}${line}${inner}${entries}`;
      first = false;
    }
    return yield `${line}${above}]`;
  }
  if (!holdsLazy(value)) {
    const text = JSON.stringify(value, null, indent);
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

/** Whether a lazy list stands in it, three levels down: answer, results, result. */
function holdsLazy(value: unknown, depth = 3): boolean {
  if (value instanceof Lazy) return true;
  if (!depth || typeof value !== 'object' || value === null) return false;
  return Object.values(value).some((one) => holdsLazy(one, depth - 1));
}
