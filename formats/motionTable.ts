import type { Problem } from '../core/reasons';
import { faultOf, lineOf, mostProblems, tabulate } from './csv';

/** A moment of a motion as it stands in a file, in whatever conventions. */
export interface MotionRow {
  readonly time: number;
  /** x, y, z; on a flat world two of them. */
  readonly place: readonly number[];
  readonly yaw: number | null;
  readonly pitch: number | null;
  readonly roll: number | null;
  readonly fov: number | null;
}
export type ReadMotion =
  | { readonly ok: true; readonly rows: readonly MotionRow[] }
  | { readonly ok: false; readonly problems: readonly Problem[] };

/** Headings by what they are taken for. */
const headings: Readonly<Record<string, RegExp>> = {
  time: /^(time|t|s|sec|secs|seconds?)$/,
  yaw: /^(yaw|heading|azimuth)$/,
  pitch: /^(pitch|elevation)$/,
  roll: /^(roll|bank)$/,
  fov: /^(fov|vertical_?fov|fovy|fov_?y|field_?of_?view)$/,
};
/** A heading as it is looked up: without its unit in brackets, in lower case. */
const named = (heading: string): string =>
  heading
    .toLowerCase()
    .replace(/[([].*$/, '')
    .trim()
    .replace(/[\s-]+/g, '_');

/**
 * A motion from a table with a line of headings, divided and written in any manner that points are: the time in seconds,
 * the coordinates by their letters (a heading may say more before or after the letter, as pos_x), and
 * yaw, pitch, roll and the vertical field of view where there are such columns. Times must be 0 or more
 * and rise. What is wrong is a problem of its line (path `line 3`), and nothing is taken then.
 */
export function readMotion(text: string, letters: readonly string[]): ReadMotion {
  const table = tabulate(text);
  if (!('rows' in table)) return { ok: false, problems: [table] };
  const heads = table.columns.map(({ heading }) => named(heading ?? ''));
  const column = (name: string) => heads.findIndex((head) => headings[name]!.test(head));
  const time = column('time');
  const places = letters.map((letter) => heads.findIndex((head) => head === letter || head.endsWith(`_${letter}`) || head.startsWith(`${letter}_`))); // prettier-ignore
  const missing = [...(time < 0 ? ['time'] : []), ...letters.filter((_, i) => places[i]! < 0)];
  if (missing.length) {
    const message = `There is no column for ${missing.join(' and ')}. Head the columns time, ${letters.join(', ')}, and yaw, pitch, roll, fov where there are such.`;
    return { ok: false, problems: [{ path: lineOf(1), message }] };
  }
  const problems: Problem[] = [];
  let before = -Infinity;
  const rows = table.rows.map(({ cells, line }): MotionRow => {
    const path = lineOf(line);
    const number = (at: number, name: string): number => {
      const cell = cells[at]?.trim() ? cells[at] : undefined;
      const value = cell === undefined ? null : table.number(cell);
      if (value !== null) return value;
      problems.push({ path, message: faultOf(cell, name) });
      return NaN;
    };
    const optional = (name: string): number | null => {
      const at = column(name);
      // Left blank where there is none: a parallel camera has no field of view.
      return at < 0 || !cells[at]?.trim() ? null : number(at, name);
    };
    const at = number(time, 'time');
    if (at < 0) problems.push({ path, message: `The time ${at} lies before 0, where a motion begins.` });
    else if (at <= before) problems.push({ path, message: `The time ${at} does not come after ${before}; times rise from line to line.` }); // prettier-ignore
    if (!Number.isNaN(at)) before = at;
    return {
      time: at,
      place: places.map((p, k) => number(p, letters[k]!)),
      ...{ yaw: optional('yaw'), pitch: optional('pitch'), roll: optional('roll'), fov: optional('fov') },
    };
  });
  return problems.length ? { ok: false, problems: problems.slice(0, mostProblems) } : { ok: true, rows };
}
