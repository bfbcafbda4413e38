/** An entry of the search: a command, a field, a passage of the help. */
export interface SearchEntry {
  readonly name: string;
  /** Other words that it is found by. */
  readonly words?: string;
  /** Where it is, for entries that are shown rather than run. */
  readonly where?: string;
  /** Whether there is one for every body. */
  readonly ofBody?: boolean;
}

/** Texts longer than this are passages, which have nearly every word somewhere. */
const passageLength = 200;

/** Words of one meaning in the trade: each is found by the others. */
const synonyms: readonly (readonly string[])[] = [
  ['delete', 'remove', 'erase'],
  ['copy', 'clipboard'],
  ['new', 'create'],
  ['move', 'translate', 'translation', 'offset'],
  ['rotate', 'rotation', 'turn'],
  ['size', 'scale'],
  ['cull', 'culling', 'frustum'],
  ['lod', 'detail'],
  ['sprite', 'billboard'],
  ['tile', 'tilemap', 'tiles'],
  ['mvp', 'viewprojection'],
  ['screenshot', 'pictures', 'png'],
  ['settings', 'preferences', 'options'],
  ['ortho', 'orthographic'],
  ['fov', 'fovy', 'vfov'],
  ['jitter', 'shimmer'],
  ['parallax', 'layers'],
];
/** Words that say nothing about an entry when others are typed. */
const fillers = new Set(['a', 'an', 'and', 'by', 'for', 'from', 'in', 'into', 'of', 'on', 'the', 'to', 'with']);

/** Splits a text into words in lower case; `screenToWorld` is one word and its three parts. */
function wordsIn(text: string): string[] {
  return text.split(/[^\p{L}\p{N}]+/u).flatMap((word) => {
    const parts = word.split(/(?<=\p{Ll})(?=\p{Lu})/u);
    return (parts.length > 1 ? [word, ...parts] : parts).filter(Boolean).map((one) => one.toLowerCase());
  });
}
const meaningOf = (word: string): readonly string[] => synonyms.filter((group) => group.includes(word)).flat();

/** Scores one typed word against the words of a text: 1 for the word, less for its beginning or a synonym, 0 for none. */
function wordScore(words: readonly string[], typed: string): number {
  if (words.includes(typed)) return 1;
  if (words.some((word) => word.startsWith(typed))) return 0.8;
  return meaningOf(typed).some((other) => words.includes(other)) ? 0.6 : 0;
}

/**
 * Scores an entry for typed text, from 0 (does not match) to 1 (has that name). Every typed word must be in the name or
 * in the other words, by itself, by its beginning or by a synonym; words in names count more than others, those of
 * passages least. Entries of single bodies come after all others.
 */
export function scoreOf({ name, words = '', ofBody }: SearchEntry, typed: string): number {
  const text = typed.trim().toLowerCase();
  if (name.toLowerCase() === text) return 1;
  const all = text.split(/[^\p{L}\p{N}]+/u).filter(Boolean);
  const telling = all.filter((word) => !fillers.has(word));
  const wanted = [...new Set(telling.length ? telling : all)];
  if (!wanted.length) return 0;
  const [inName, inWords] = [wordsIn(name), wordsIn(words)];
  const weight = words.length > passageLength ? 0.05 : 0.7;
  let [sum, named] = [0, 0];
  for (const word of wanted) {
    const [byName, byWords] = [0.95 * wordScore(inName, word), weight * wordScore(inWords, word)];
    const score = Math.max(byName, byWords);
    if (!score) return 0;
    sum += score;
    if (byName >= byWords) named++;
  }
  // Among names with the same words, the shortest is the closest.
  const score = sum / wanted.length - (named ? Math.min(0.04, inName.length / 250) : 0);
  return ofBody ? score / 100 : score;
}

/**
 * Returns the matching entries, best first, each under a title of its own. Without typed text, all entries in their
 * order; those of single bodies only with `withBodies`.
 */
export function findEntries<T extends SearchEntry>(
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
