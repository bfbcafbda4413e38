import type * as z from 'zod';
import type { Problem } from '../reasons';

/** A path of keys and indices as it is written in a problem: `bodies[2].shape.radius`. */
export const pathText = (path: readonly PropertyKey[]): string =>
  path.reduce<string>(
    (text, key) => (typeof key === 'number' ? `${text}[${key}]` : text ? `${text}.${String(key)}` : String(key)),
    '',
  );

type Issue = z.core.$ZodIssue;

/**
 * What a schema found wrong, as sentences that name the field and the mend: at most `most` of them,
 * where many would be wrong in the same way.
 */
export function problemsOf(error: z.ZodError, most = Infinity): Problem[] {
  const found: Problem[] = [];
  for (const issue of error.issues) {
    if (found.length >= most) break;
    if (issue.code === 'custom' && issue.params?.['more']) continue;
    for (const problem of explain(issue as Issue, [])) found.push(problem);
  }
  return found;
}

function explain(issue: Issue, above: readonly PropertyKey[]): Problem[] {
  const path = [...above, ...issue.path];
  const at = pathText(path);
  const name = at || 'The document';
  const say = (message: string): Problem[] => [{ path: at, message }];
  switch (issue.code) {
    case 'invalid_type': {
      // In a projection, null is an infinite far plane.
      const isFar = path.at(-1) === 'far' && path.at(-2) === 'projection';
      const wanted = `${article(issue.expected)}${isFar ? ', or null for infinity' : ''}`;
      return issue.input === undefined && path.length
        ? say(`${name} is missing; it must be ${wanted}.`)
        : say(`${name} must be ${wanted}, not ${describe(issue.input)}.`);
    }
    case 'invalid_value':
      return say(`${name} is ${describe(issue.input)}; it must be ${listed(issue.values)}.`);
    case 'invalid_union': {
      const discriminator = (issue as { discriminator?: string }).discriminator;
      if (discriminator || !issue.errors.length) {
        const options = (issue as { options?: readonly unknown[] }).options;
        return say(`${name} is not one of the kinds known here${options ? `: ${listed(options)}` : ''}.`);
      }
      // The branch that the writer most likely meant: the one that misses the least.
      const cost = (branch: readonly Issue[]) =>
        branch.reduce((sum, one) => sum + (one.input === undefined && one.code === 'invalid_type' ? 3 : 1), 0);
      const likeliest = [...issue.errors].sort((a, b) => cost(a as Issue[]) - cost(b as Issue[]))[0]!;
      return likeliest.flatMap((inner) => explain(inner as Issue, path));
    }
    case 'too_small':
      if (issue.origin === 'array') return say(`${name} must have ${issue.minimum} entries.`);
      if (issue.origin === 'string') return say(`${name} must not be empty.`);
      return say(
        `${name} is ${describe(issue.input)}; it must be ${issue.inclusive ? 'at least' : 'above'} ${issue.minimum}.`,
      );
    case 'too_big':
      if (issue.origin === 'array') return say(`${name} must have ${issue.maximum} entries.`);
      return say(
        `${name} is ${describe(issue.input)}; it must be ${issue.inclusive ? 'at most' : 'below'} ${issue.maximum}.`,
      );
    default:
      return say(`${name}: ${issue.message}.`);
  }
}

const article = (type: string) =>
  ({
    number: 'a number',
    string: 'a text',
    array: 'a list',
    tuple: 'a list',
    object: 'an object',
    boolean: 'true or false',
    int: 'a whole number',
  })[type] ?? type;

const describe = (input: unknown): string => {
  if (input === undefined) return 'missing';
  if (Array.isArray(input)) return 'a list';
  if (typeof input === 'object' && input !== null) return 'an object';
  if (typeof input === 'number' && !Number.isFinite(input)) return 'a number beyond the range of doubles';
  const text = JSON.stringify(input) ?? String(input);
  return text.length > 40 ? `${text.slice(0, 39)}…` : text;
};

const listed = (values: readonly unknown[]) => {
  const texts = values.map((v) => JSON.stringify(v));
  return texts.length > 1 ? `${texts.slice(0, -1).join(', ')} or ${texts.at(-1)}` : texts.join('');
};

/**
 * Finds the paths of keys that the input has and the parsed value does not, at most `most` of them. Skips lists of
 * plain numbers, so that a million points cost one test each.
 */
export function unknownKeys(given: unknown, understood: unknown, most = Infinity): string[] {
  const found: string[] = [];
  const walk = (a: unknown, b: unknown, path: readonly PropertyKey[]): void => {
    if (found.length >= most || typeof a !== 'object' || a === null || typeof b !== 'object' || b === null) return;
    if (Array.isArray(a)) {
      if (!Array.isArray(b)) return;
      for (let i = 0; i < a.length && found.length < most; i++) {
        const one: unknown = a[i];
        if (typeof one !== 'object' || one === null) {
          if (i === 0) return;
          continue;
        }
        if (Array.isArray(one) && typeof one[0] !== 'object') continue;
        walk(one, b[i], [...path, i]);
      }
      return;
    }
    for (const [key, value] of Object.entries(a)) {
      if (Object.hasOwn(b, key)) walk(value, (b as Record<string, unknown>)[key], [...path, key]);
      else if (found.length < most) found.push(pathText([...path, key]));
    }
  };
  walk(given, understood, []);
  return found;
}

/** How many letters are to be put in, left out, changed or exchanged with their neighbours. */
function editDistance(a: string, b: string): number {
  let [before, last] = [[] as number[], Array.from({ length: b.length + 1 }, (_, j) => j)];
  for (let i = 1; i <= a.length; i++) {
    const row = [i];
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1];
      row[j] = Math.min(last[j]! + 1, row[j - 1]! + 1, last[j - 1]! + (same ? 0 : 1));
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        row[j] = Math.min(row[j]!, before[j - 2]! + 1);
    }
    [before, last] = [last, row];
  }
  return last[b.length]!;
}

/** Returns the key that a wrong one is nearest to by its letters; null where none is near. */
export function nearestKey(wrong: string, keys: readonly string[]): string | null {
  const most = Math.max(1, Math.floor(wrong.length / 3));
  const ranked = keys
    .map((key) => ({ key, by: editDistance(wrong.slice(0, 40).toLowerCase(), key.toLowerCase()) }))
    .filter(({ by }) => by <= most)
    .sort((a, b) => a.by - b.by);
  return ranked[0]?.key ?? null;
}
