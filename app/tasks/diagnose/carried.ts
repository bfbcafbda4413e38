import type { Correction } from './kept';

/** What was said of a text, carried over to the text that it has become: what stands before and behind the change stays. */
export function carried(corrections: readonly Correction[], before: string, after: string): Correction[] {
  const most = Math.min(before.length, after.length);
  let head = 0;
  while (head < most && before[head] === after[head]) head++;
  let tail = 0;
  while (tail < most - head && before[before.length - 1 - tail] === after[after.length - 1 - tail]) tail++;
  return corrections.flatMap((one) => {
    if (one.from < head) return [one];
    return one.from >= before.length - tail ? [{ ...one, from: one.from + after.length - before.length }] : [];
  });
}
