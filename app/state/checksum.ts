/**
 * A number that is the same for the same numbers on any thread: tells whether what was worked out
 * on one is of what another shows.
 */
export function checksum(...lists: readonly ArrayLike<number>[]): number {
  let sum = 0;
  for (const list of lists)
    for (let i = 0; i < list.length; i++) sum = (sum * 1.0000001 + list[i]! * (1 + (i % 97))) % 1e15;
  return sum;
}
