/** A delay that the eye notices while it follows the pointer, in milliseconds. */
const slow = 50;
/** A delay that leaves room for four times the pixels, in milliseconds. */
const quick = 12;
/** How many delays in a row change the resolution. */
const [slowCount, quickCount] = [3, 30];

/**
 * Chooses the resolution of surfaces while something moves: half of it on a GPU that cannot follow the pointer.
 * When nothing moves, surfaces have all their pixels.
 */
export function dragResolution() {
  let share = 1;
  let count = 0;
  return {
    /** Returns the share of the device pixels on each axis. */
    share: (): number => share,
    /** Notes how long the page waited for a picture, in milliseconds. */
    note(delay: number): void {
      const isOff = share === 1 ? delay > slow : delay < quick;
      count = isOff ? count + 1 : 0;
      if (count < (share === 1 ? slowCount : quickCount)) return;
      share = share === 1 ? 0.5 : 1;
      count = 0;
    },
  };
}
