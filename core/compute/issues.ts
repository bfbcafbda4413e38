import type { z } from 'zod';
import type { Problem } from '../reasons';

/** A path of keys and indices as it is written in a problem: `bodies[2].shape.radius`. */
export const pathText = (path: readonly PropertyKey[]): string =>
  path.reduce<string>(
    (text, key) => (typeof key === 'number' ? `${text}[${key}]` : text ? `${text}.${String(key)}` : String(key)),
    '',
  );

type Issue = z.core.$ZodIssue;

/** What a schema found wrong, as sentences that name the field and the mend. */
export function problemsOf(error: z.ZodError): Problem[] {
  return error.issues.flatMap((issue) => explain(issue as Issue, []));
}

function explain(issue: Issue, above: readonly PropertyKey[]): Problem[] {
  const path = [...above, ...issue.path];
  const at = pathText(path);
  const name = at || 'The document';
  const say = (message: string): Problem[] => [{ path: at, message }];
  switch (issue.code) {
    case 'invalid_type': {
      const wanted = article(issue.expected);
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
  const text = JSON.stringify(input) ?? String(input);
  return text.length > 40 ? `${text.slice(0, 39)}…` : text;
};

const listed = (values: readonly unknown[]) => {
  const texts = values.map((v) => JSON.stringify(v));
  return texts.length > 1 ? `${texts.slice(0, -1).join(', ')} or ${texts.at(-1)}` : texts.join('');
};

/** Paths present in what was given but not in what was understood: kept out of the answer, and worth a warning. */
export function unknownPaths(given: unknown, understood: unknown, path: readonly PropertyKey[] = []): string[] {
  if (Array.isArray(given))
    return Array.isArray(understood)
      ? given
          .slice(0, 1000)
          .flatMap((one, i) => (typeof one === 'object' ? unknownPaths(one, understood[i], [...path, i]) : []))
      : [];
  if (typeof given !== 'object' || given === null || typeof understood !== 'object' || understood === null) return [];
  return Object.entries(given).flatMap(([key, value]) =>
    key in understood
      ? unknownPaths(value, (understood as Record<string, unknown>)[key], [...path, key])
      : [pathText([...path, key])],
  );
}
