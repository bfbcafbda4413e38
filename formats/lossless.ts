/**
 * A value as a schema gives it, with everything put back that the schema does not know: keys of
 * objects at any depth, and of objects in lists at the same place. What was written by a newer
 * version survives being opened and saved by this one. A list whose length the schema changed keeps
 * what the schema says. Neither value is changed; parts that lack nothing are shared.
 */
export function keepUnknown<T>(parsed: T, given: unknown): T {
  return merged(parsed, given) as T;
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

function merged(parsed: unknown, given: unknown): unknown {
  if (Array.isArray(parsed)) {
    if (!Array.isArray(given) || given.length !== parsed.length) return parsed;
    // Numbers are most of what lists hold.
    if (!given.some((one) => typeof one === 'object' && one !== null)) return parsed;
    let same = true;
    const out = parsed.map((one, i) => {
      const kept = merged(one, given[i]);
      if (kept !== one) same = false;
      return kept;
    });
    return same ? parsed : out;
  }
  if (!isRecord(parsed) || !isRecord(given)) return parsed;
  const entries: [string, unknown][] = [];
  let same = true;
  for (const [key, value] of Object.entries(parsed)) {
    const kept = Object.hasOwn(given, key) ? merged(value, given[key]) : value;
    if (kept !== value) same = false;
    entries.push([key, kept]);
  }
  for (const [key, value] of Object.entries(given))
    if (!Object.hasOwn(parsed, key)) {
      same = false;
      entries.push([key, value]);
    }
  // From entries, so that a key like `__proto__` is a key and nothing else.
  return same ? parsed : Object.fromEntries(entries);
}
