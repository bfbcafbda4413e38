import { distance } from '../math/vec3';
import { footOf, type PlacedBody } from '../bodies/body';
import type { CameraFrame } from '../camera/frame';
import { projectPoint, worldToViewRuf } from '../convert/project';

export type SortKey = 'ahead' | 'distance' | 'worldUp' | 'screenHeight';

export interface DrawOrder {
  /** Ids, far to near; equal keys in the order given. */
  readonly order: readonly string[];
  /**
   * Pairs, the farther by this key first, that the distance ahead orders the other way: the first
   * in the order drawn, at most `mostConflicts`.
   */
  readonly conflicts: readonly (readonly [string, string])[];
  /** How many pairs there are. */
  readonly conflictCount: number;
}

/**
 * Numbers rounded to a billionth of the largest: keys that differ by rounding alone, as those of bodies at one height
 * that are placed in different ways, are equal.
 */
function snapped(values: readonly number[]): readonly number[] {
  const largest = values.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
  return largest > 0 ? values.map((v) => Math.round((v / largest) * 1e9)) : values;
}

/** The most pairs that are listed. */
export const mostConflicts = 1000;

interface Item {
  readonly id: string;
  /** Drawn in falling order of it. */
  readonly value: number;
  readonly ahead: number;
}

/**
 * Returns the number by which a key sorts a body; larger ones are farther.
 *
 * @returns scene units for `ahead`, `distance` and `worldUp`; for `screenHeight` NDC y upwards, or null where
 *   the body's foot has no picture
 */
export function sortValue(frame: CameraFrame, placed: PlacedBody, key: SortKey): number | null {
  const foot = footOf(placed);
  switch (key) {
    case 'ahead':
      return worldToViewRuf(frame, foot)[2];
    case 'distance':
      return distance(foot, frame.eye);
    case 'worldUp':
      return foot[1];
    case 'screenHeight': {
      const { picture } = projectPoint(frame, foot);
      return picture.ok ? picture.value.upward : null;
    }
  }
}

/**
 * The order in which a key would draw bodies by their feet (`footOf`), and the pairs that it gets otherwise
 * than the distance ahead does. `screenHeight` has what stands higher on the screen be farther;
 * bodies without a picture stand first, far to near, and conflict with every body that has one.
 * Keys, and distances ahead, that differ by less than a billionth of the largest are equal, and equal ones never conflict.
 * Pairs are counted without being looked at one by one, by a tree of sums over the ranks of the
 * distances (P. M. Fenwick, 1994).
 */
export function drawOrder(frame: CameraFrame, placed: readonly PlacedBody[], key: SortKey): DrawOrder {
  const unseen: Item[] = [];
  const items: Item[] = [];
  for (const one of placed) {
    const ahead = worldToViewRuf(frame, footOf(one))[2];
    const { id } = one.body;
    const value = sortValue(frame, one, key);
    if (value === null) unseen.push({ id, value: ahead, ahead });
    else items.push({ id, value, ahead });
  }
  for (const list of [unseen, items]) {
    const [values, aheads] = [snapped(list.map(({ value }) => value)), snapped(list.map(({ ahead }) => ahead))];
    for (const [i, one] of list.entries()) list[i] = { ...one, value: values[i]!, ahead: aheads[i]! };
    // Sorting is stable: ties stay in the order given.
    list.sort((a, b) => b.value - a.value);
  }

  const conflicts: [string, string][] = [];
  const note = (far: Item, near: Item) => void (conflicts.length < mostConflicts && conflicts.push([far.id, near.id]));
  for (const far of unseen) {
    if (conflicts.length >= mostConflicts) break;
    for (const near of items) note(far, near);
  }
  const counts = inversions(items);
  let conflictCount = unseen.length * items.length;
  counts.forEach((count, i) => {
    conflictCount += count;
    if (!count || conflicts.length >= mostConflicts) return;
    const far = items[i]!;
    for (let j = i + 1; j < items.length; j++) {
      const near = items[j]!;
      if (near.value < far.value && near.ahead > far.ahead) note(far, near);
    }
  });
  return { order: [...unseen, ...items].map(({ id }) => id), conflicts, conflictCount };
}

/**
 * Of items in falling order of their values: how many after each have a smaller value and lie
 * farther ahead than it.
 */
function inversions(items: readonly Item[]): number[] {
  const n = items.length;
  const distances = Float64Array.from(new Set(items.map(({ ahead }) => ahead))).sort();
  const rankOf = new Map([...distances].map((ahead, rank) => [ahead, rank]));
  const sums = new Int32Array(distances.length + 1);
  const counts = new Array<number>(n).fill(0);
  let taken = 0;
  // From the last: those of one value are asked before any of them is taken in.
  for (let end = n; end > 0;) {
    let start = end - 1;
    while (start > 0 && items[start - 1]!.value === items[end - 1]!.value) start--;
    for (let i = start; i < end; i++) {
      let notFarther = 0;
      for (let k = rankOf.get(items[i]!.ahead)! + 1; k > 0; k -= k & -k) notFarther += sums[k]!;
      counts[i] = taken - notFarther;
    }
    for (let i = start; i < end; i++, taken++)
      for (let k = rankOf.get(items[i]!.ahead)! + 1; k < sums.length; k += k & -k) sums[k]!++;
    end = start;
  }
  return counts;
}
