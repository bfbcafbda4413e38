/**
 * Uniform numbers in 0…1 (1 left out), 53 bits each, the same from one seed on every machine:
 * 32-bit whole-number arithmetic alone.
 */
export type Random = () => number;

/** xoshiro128** (Blackman and Vigna 2018), its state filled from the seed by splitmix32. */
export function randomFrom(seed: number): Random {
  let mix = seed | 0;
  const fill = () => {
    mix = (mix + 0x9e3779b9) | 0;
    let z = mix;
    z = Math.imul(z ^ (z >>> 16), 0x85ebca6b);
    z = Math.imul(z ^ (z >>> 13), 0xc2b2ae35);
    return (z ^ (z >>> 16)) | 0;
  };
  let [a, b, c, d] = [fill(), fill(), fill(), fill()];
  const rotate = (x: number, k: number) => (x << k) | (x >>> (32 - k));
  const next = () => {
    const result = Math.imul(rotate(Math.imul(b, 5), 7), 9) >>> 0;
    const t = b << 9;
    c ^= a;
    d ^= b;
    b ^= c;
    a ^= d;
    c ^= t;
    d = rotate(d, 11);
    return result;
  };
  return () => ((next() >>> 5) * 67108864 + (next() >>> 6)) / 9007199254740992;
}
