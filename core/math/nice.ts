/*
 * Numbers that read well on a scale: 1, 2 or 5 times a power of ten.
 */

/** The largest nice number that is at most `most`, which is above 0. */
export function niceBelow(most: number): number {
  const power = 10 ** Math.floor(Math.log10(most));
  return [5, 2, 1].map((k) => tidy(k * power)).find((v) => v <= most) ?? tidy(power / 2);
}

/** The smallest nice number that is at least `least`, which is above 0. */
export function niceAbove(least: number): number {
  const power = 10 ** Math.floor(Math.log10(least));
  return [1, 2, 5].map((k) => tidy(k * power)).find((v) => v >= least) ?? tidy(10 * power);
}

/** The nice number nearest to a value above 0 on a logarithmic scale. */
export function niceNear(value: number): number {
  const [below, above] = [niceBelow(value), niceAbove(value)];
  return value / below < above / value ? below : above;
}

/** 10 ** −3 times 5 is 0.005 and not 0.005000000000000001. */
const tidy = (v: number): number => Number(v.toPrecision(1));
