import * as z from 'zod';

// A page's security policy forbids compiling code from text, which the schema library tries otherwise. Set here,
// where the first schema is created.
z.config({ jitless: true });

/**
 * Largest magnitude of an input number: products of a few larger ones leave the range of doubles. Lengths that are
 * divided by are at least its inverse.
 */
export const largest = 1e30;

export const number = z.number().min(-largest).max(largest);
export const positive = z
  .number()
  .positive()
  .min(1 / largest)
  .max(largest);

export const vec2Schema = z.tuple([number, number]);
export const vec3Schema = z.tuple([number, number, number]);
export const quatSchema = z.tuple([number, number, number, number]);

/** How many issues of one list are kept. */
const mostIssues = 1_000;

interface AnyIssue {
  readonly code?: string | undefined;
  readonly params?: Record<string, unknown> | undefined;
}

/** Counts what one issue stands for: itself, or all issues of a list beyond those that were kept. */
const countOf = (issue: AnyIssue): number =>
  issue.code === 'custom' && typeof issue.params?.['more'] === 'number' ? issue.params['more'] : 1;

/** Counts issues, including those that were not kept. */
export const issueCount = (issues: readonly AnyIssue[]): number =>
  issues.reduce((sum, issue) => sum + countOf(issue), 0);

/** Keeps the first of many issues, with one that stands for the others. Changes the list it receives. */
function shorten(issues: z.core.$ZodRawIssue[]): void {
  if (issues.length <= mostIssues) return;
  const beyond = issues.splice(mostIssues);
  issues.push({
    code: 'custom',
    path: [],
    input: undefined,
    message: 'more of the same',
    params: { more: issueCount(beyond) },
  });
}

/** Returns whether a test holds for every entry, holes of a sparse list included (`every` passes over them). */
function fitsAll(list: readonly unknown[], fits: (value: unknown) => boolean): boolean {
  for (let i = 0; i < list.length; i++) if (!fits(list[i])) return false;
  return true;
}

/**
 * Creates the schema of a list of any length.
 *
 * Lists the first issues and counts the others (`issueCount`): the schema library passes issues on as arguments
 * of one call, which cannot take a hundred thousand.
 *
 * @param fits - where it holds for every entry, the list is used as it is; the library would visit and copy each
 *   of perhaps a million entries
 */
export function listOf<Entry extends z.ZodType>(entry: Entry, fits?: (value: unknown) => boolean): z.ZodArray<Entry> {
  const list = z.array(entry);
  const { run } = list._zod;
  list._zod.run = (payload, context) => {
    if (fits && Array.isArray(payload.value) && fitsAll(payload.value, fits)) return payload as never;
    const ran = run(payload, context);
    if (!(ran instanceof Promise)) shorten(ran.issues);
    return ran;
  };
  return list;
}

/** Returns whether a value is a list of numbers of a length, each within the largest magnitude. */
export function areNumbers(value: unknown, least: number, most: number): boolean {
  if (!Array.isArray(value) || value.length < least || value.length > most) return false;
  for (const one of value) if (typeof one !== 'number' || !(Math.abs(one) <= largest)) return false;
  return true;
}
