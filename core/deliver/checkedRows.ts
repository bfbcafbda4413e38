import { outputNames, type VectorKind } from './vectorKinds';
import type { VectorRow } from './vectorRow';

/** Tolerances of a check. */
export interface Tolerances {
  /** A share of each number's size (`VectorRow.scale`). */
  readonly relative: number;
  /** A difference that is always allowed, in the number's own unit. */
  readonly absolute: number;
  /** Shares for some kinds, instead of `relative`. */
  readonly byKind: Readonly<Partial<Record<VectorKind, number>>>;
}

/** The result of a row. */
export interface CheckedRow {
  readonly id: string;
  readonly kind: VectorKind;
  readonly ok: boolean;
  /** The wrong number beside the right one, in a sentence; empty for a right answer. */
  readonly says: string;
  /** The largest deviation, as a share of the number's size; null where there are no numbers to compare. */
  readonly deviation: number | null;
}

/** An engine's own answers, by the id of the row; null for no picture. */
export type Answers = ReadonlyMap<string, readonly number[] | null>;

/** The sizes that tolerances are a share of, where a file has none: the largest output. */
function scaleOf({ kind, expected, scale }: VectorRow, count: number): readonly number[] {
  if (scale && scale.length >= count) return scale;
  const values = expected ?? [];
  const largest = Math.max(1e-3, ...values.slice(0, kind === 'worldToScreen' ? 2 : 16).map(Math.abs));
  return values.map((v, i) => (kind === 'worldToScreen' && i > 1 ? Math.max(Math.abs(v), 1e-3) : largest));
}

/**
 * Compares an engine's answer with a row.
 *
 * @param given - null for no picture, undefined for a row without an answer
 * @param tolerance - a share of each number's size, or several tolerances
 */
export function checkedRow(
  row: VectorRow,
  given: readonly number[] | null | undefined,
  tolerance: number | Tolerances,
): CheckedRow {
  const { id, kind, expected } = row;
  const fails = (says: string, deviation: number | null = null): CheckedRow => ({ id, kind, ok: false, says, deviation }); // prettier-ignore
  const passes = (deviation: number | null): CheckedRow => ({ id, kind, ok: true, says: '', deviation });
  if (given === undefined) return fails('This row has no answer.');
  if (expected === null) return given === null ? passes(null) : fails('This point is behind the eye and has no picture, but the answer has one.'); // prettier-ignore
  if (given === null) return fails('The answer has no numbers where some are expected.');
  const wanted = kind === 'worldToScreen' ? expected.slice(0, Math.max(2, given.length)) : expected;
  if (given.length !== wanted.length) return fails(`The answer has ${given.length} numbers instead of ${wanted.length}.`); // prettier-ignore
  const names = outputNames(kind, expected.length);
  const nameAt = (i: number) => (expected.length > 1 ? (names[i] ?? `number ${i + 1}`) : (names[0] ?? 'the number'));
  const sentence = (i: number) => `${nameAt(i)} is ${given[i]} instead of ${wanted[i]}.`;
  const odd = given.findIndex((v) => !Number.isFinite(v));
  if (odd >= 0) return fails(sentence(odd));
  const { relative, absolute, byKind } = typeof tolerance === 'number' ? { relative: tolerance, absolute: 0, byKind: {} as Tolerances['byKind'] } : tolerance; // prettier-ignore
  const share = byKind[kind] ?? relative;
  const scale = scaleOf(row, wanted.length);
  const deviations = wanted.map((v, i) => Math.abs(given[i]! - v) / scale[i]!);
  const excess = wanted.map((v, i) => Math.abs(given[i]! - v) / Math.max(share * scale[i]!, absolute));
  const worst = excess.indexOf(Math.max(...excess));
  const deviation = Math.max(...deviations);
  return excess[worst]! <= 1 ? passes(deviation) : fails(sentence(worst), deviation);
}

/** Compares an engine's answers with rows. */
export const checkedRows = (rows: readonly VectorRow[], answers: Answers, tolerance: number | Tolerances): readonly CheckedRow[] =>
  rows.map((row) => checkedRow(row, answers.get(row.id), tolerance)); // prettier-ignore
