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
  // In a typed array: whole numbers of 32 bits in variables may be put on the heap at every step.
  const state = Int32Array.of(fill(), fill(), fill(), fill());
  const rotate = (x: number, k: number) => (x << k) | (x >>> (32 - k));
  const next = () => {
    const b = state[1]!;
    const c = state[2]! ^ state[0]!;
    const d = state[3]! ^ b;
    state[0]! ^= d;
    state[1] = b ^ c;
    state[2] = c ^ (b << 9);
    state[3] = rotate(d, 11);
    return Math.imul(rotate(Math.imul(b, 5), 7), 9) >>> 0;
  };
  return () => ((next() >>> 5) * 67108864 + (next() >>> 6)) / 9007199254740992;
}
