/*
 * What a number field holds that its value does not: the text while it is typed, and an entry that was
 * rejected, which stays until it is corrected, Escape is pressed, or the value changes by other means.
 */
export interface NumberEntry {
  /** The typed text; null while the field shows its value. */
  readonly text: string | null;
  /** Why the text, or the last step by key, wheel or drag, was rejected; null where it was not. */
  readonly problem: string | null;
  /** Whether the problem is shown as a sentence; while the user types, the field is only marked. */
  readonly isShown: boolean;
  /** The value that the field had when it was left with a rejected entry; null where there is none. */
  readonly leftAt: number | null;
}

export const emptyEntry: NumberEntry = { text: null, problem: null, isShown: false, leftAt: null };

/** The field gets the focus: a rejected entry continues, any other starts with the value's text. */
export const focusEntry = (entry: NumberEntry, valueText: string): NumberEntry =>
  entry.leftAt === null ? { ...emptyEntry, text: valueText } : { ...entry, leftAt: null };

/** The user typed a text, which may have a problem. */
export const typeEntry = (text: string, problem: string | null): NumberEntry => ({ ...emptyEntry, text, problem });

/** The value was stepped by key, wheel or drag; a rejected step says why at once. */
export const stepEntry = (problem: string | null): NumberEntry => ({
  ...emptyEntry,
  problem,
  isShown: problem !== null,
});

/** Enter: a rejected entry shows why. */
export const showProblem = (entry: NumberEntry): NumberEntry => ({ ...entry, isShown: entry.problem !== null });

/** The field loses the focus: a rejected text stays, any other is dropped. */
export const leaveEntry = (entry: NumberEntry, value: number): NumberEntry =>
  entry.text !== null && entry.problem !== null ? { ...entry, isShown: true, leftAt: value } : emptyEntry;

/** Drops a rejected entry once the value of an unfocused field has changed. */
export const entryAt = (entry: NumberEntry, value: number): NumberEntry =>
  entry.leftAt !== null && !Object.is(entry.leftAt, value) ? emptyEntry : entry;
