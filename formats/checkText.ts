import * as z from 'zod';
import type { CheckedRow } from '../core/deliver/checkedRows';
import type { Checked, Explanation } from '../core/deliver/checkVectors';
import { escaped } from './escaped';

/* Results of `astrolabe check` as text, JSON and JUnit, and compared with an earlier run. */

/** The most wrong rows that the text lists. */
export const listedRows = 20;

/** How the rows of a check changed since an earlier one. */
export interface CheckChanges {
  /** Rows that are wrong now and were not before. */
  readonly newlyWrong: readonly string[];
  /** Rows that are right now and were wrong before. */
  readonly fixed: readonly string[];
  /** The number of rows that are wrong in both. */
  readonly stillWrong: number;
}

const plural = (count: number, noun: string): string => `${count} ${noun}${count === 1 ? '' : 's'}`;
const share = (deviation: number): string => deviation.toExponential(1);

const explanationText = ({ text, kinds, rows }: Explanation): string =>
  `Explanation: ${text} It explains ${plural(rows, 'wrong row')} (${kinds.join(', ')}).\n`;

/**
 * Writes a check for people: explanations, changes since an earlier run, at most twenty wrong rows, the largest
 * deviation of each kind, and the sum as the last line.
 *
 * @param quiet - explanations and the sum alone
 */
export function checkText(checked: Checked, changes: CheckChanges | null, quiet: boolean): string {
  const { rows, wrong, kinds, explanations } = checked;
  const failing = rows.filter(({ ok }) => !ok);
  const lines = explanations.map(explanationText);
  if (changes) {
    const { newlyWrong, fixed, stillWrong } = changes;
    lines.push(`Since the earlier run: ${newlyWrong.length} newly wrong, ${fixed.length} fixed, ${stillWrong} still wrong.\n`); // prettier-ignore
    if (!quiet) lines.push(...newlyWrong.slice(0, listedRows).map((id) => `newly wrong: ${id}\n`));
  }
  if (!quiet) {
    lines.push(...failing.slice(0, listedRows).map(({ id, says }) => `${id}: ${says}\n`));
    if (failing.length > listedRows) lines.push(`${failing.length - listedRows} more wrong rows.\n`);
    for (const { kind, rows: count, wrong: off, worst } of kinds)
      lines.push(`${kind}: ${count - off} of ${count} right${worst ? `, largest deviation ${share(worst.deviation)} of its size (${worst.id})` : ''}\n`); // prettier-ignore
  }
  lines.push(`${rows.length - wrong} right, ${wrong} wrong\n`);
  return lines.join('');
}

/** Returns a check as a JSON value; an earlier one is what `--baseline` reads. */
export const checkJson = (checked: Checked, changes: CheckChanges | null) => ({
  astrolabeCheck: 1,
  right: checked.rows.length - checked.wrong,
  wrong: checked.wrong,
  explanations: checked.explanations,
  kinds: checked.kinds,
  ...(changes && { changes }),
  rows: checked.rows,
});

const baselineSchema = z.object({
  astrolabeCheck: z.literal(1),
  rows: z.array(z.object({ id: z.string(), ok: z.boolean() })),
});

/**
 * Compares a check with an earlier one by the ids of the rows. Rows that the earlier one did not have count as right
 * before.
 *
 * @param earlier - the JSON value that `check --json` wrote
 * @returns the changes, or a sentence for a value of another form
 */
export function changesSince(earlier: unknown, { rows }: Checked): CheckChanges | string {
  const read = baselineSchema.safeParse(earlier);
  if (!read.success) return 'The baseline is not a result of “astrolabe check --json”.';
  const wasWrong = new Set(read.data.rows.flatMap(({ id, ok }) => (ok ? [] : [id])));
  const ids = (keep: (row: CheckedRow) => boolean) => rows.filter(keep).map(({ id }) => id);
  return {
    newlyWrong: ids(({ id, ok }) => !ok && !wasWrong.has(id)),
    fixed: ids(({ id, ok }) => ok && wasWrong.has(id)),
    stillWrong: ids(({ id, ok }) => !ok && wasWrong.has(id)).length,
  };
}

/**
 * Writes a check as JUnit XML: a suite for each kind, a case for each row, explanations in the failures that they
 * explain.
 *
 * @param seconds - time that the check took, shared evenly by the rows
 */
export function junitOf({ rows, wrong, kinds, explanations }: Checked, seconds: number): string {
  const each = rows.length ? seconds / rows.length : 0;
  const time = (count: number) => (each * count).toFixed(6);
  const because = new Map(kinds.map(({ kind }) => [kind, explanations.filter((one) => one.kinds.includes(kind)).map(({ text }) => text).join('\n')])); // prettier-ignore
  const failure = ({ kind, says }: CheckedRow) =>
    `<failure type="wrong" message="${escaped(says)}">${escaped([because.get(kind) ?? '', says].filter(Boolean).join('\n'))}</failure>`;
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<testsuites name="astrolabe check" tests="${rows.length}" failures="${wrong}" errors="0" time="${time(rows.length)}">`,
    ...kinds.flatMap(({ kind, rows: count, wrong: off }) => [
      `  <testsuite name="${kind}" tests="${count}" failures="${off}" errors="0" skipped="0" time="${time(count)}">`,
      ...rows
        .filter((row) => row.kind === kind)
        .map((row) => `    <testcase classname="${kind}" name="${escaped(row.id)}" time="${time(1)}"${row.ok ? '/>' : `>${failure(row)}</testcase>`}`), // prettier-ignore
      '  </testsuite>',
    ]),
    '</testsuites>',
    '',
  ].join('\n');
}
