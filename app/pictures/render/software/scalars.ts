/* Functions of the shading language. */

/** Returns a value within limits. */
export const clamp = (v: number, low: number, high: number): number => (v < low ? low : v > high ? high : v);

/** Returns the remainder with the sign of the divisor. */
export const mod = (v: number, by: number): number => v - by * Math.floor(v / by);

/** Returns the part behind the point. */
export const fract = (v: number): number => v - Math.floor(v);
