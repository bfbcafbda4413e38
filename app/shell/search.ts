import { defaultFilter } from 'cmdk';

/** What can be found: its name, other words for it, where it is, whether there is one for every body. */
export interface Findable {
  readonly name: string;
  readonly words?: string;
  readonly where?: string;
  readonly ofBody?: boolean;
}

/** Words longer than this are a passage, in which nearly anything stands somewhere. */
const passage = 200;

const wordsIn = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);

/**
 * How well something fits what is typed, 0 (not at all) to 1 (its name): by its name, letters left
 * out allowed, or by words that all begin as the typed ones do, whole words before beginnings and
 * other words of the trade before those of a passage. What there is for every body comes after all
 * else, unless it is named in full.
 */
export function scoreOf({ name, words = '', ofBody }: Findable, typed: string): number {
  const search = typed.trim().toLowerCase();
  if (name.toLowerCase() === search) return 1;
  const there = wordsIn(words);
  const wanted = wordsIn(search);
  const whole = wanted.every((one) => there.includes(one));
  const begun = whole || wanted.every((one) => there.some((word) => word.startsWith(one)));
  const weight = words.length > passage ? 0.1 : 1;
  const byWords = wanted.length && begun ? (whole ? 0.85 : 0.6) * weight : 0;
  const score = Math.max(defaultFilter(name, search), byWords);
  return ofBody ? score / 100 : score;
}

/**
 * What fits, best first, each under the title that tells it apart; all of it in its order where
 * nothing is typed, and without what there is for every body until that is wanted.
 */
export function found<T extends Findable>(
  all: readonly T[],
  typed: string,
  withBodies: boolean,
): readonly (T & { readonly title: string })[] {
  const titled = all
    .filter(({ ofBody }) => withBodies || !ofBody)
    .map((one) => ({ ...one, title: one.where ? `${one.name}, ${one.where}` : one.name }));
  if (!typed.trim()) return titled;
  return titled
    .map((one) => ({ one, score: scoreOf(one, typed) }))
    .filter(({ score }) => score > 0)
    .sort((a, b) => b.score - a.score)
    .map(({ one }) => one);
}
