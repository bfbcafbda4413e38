import { Series } from '../quantities/series';

/**
 * A value as JSON, in pieces: what `JSON.stringify` gives with the same indent (0 is one line), for
 * values of plain objects, lists and series, as deep as those stand (three levels).
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
      const text = JSON.stringify(part, null, indent);
      const entries = indent ? text.slice(2 + indent, -2).replaceAll('\n', `\n${above}`) : text.slice(1, -1);
      yield `${first ? '' : ','}${line}${inner}${entries}`;
      first = false;
    }
    return yield `${line}${above}]`;
  }
  if (!holdsSeries(value)) {
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
function holdsSeries(value: unknown, depth = 3): boolean {
  if (value instanceof Series) return true;
  if (!depth || typeof value !== 'object' || value === null) return false;
  return Object.values(value).some((one) => holdsSeries(one, depth - 1));
}
