/** Radians of an angle in degrees: the way back of `degrees`. */
export const radians = (angle: number): number => (angle * Math.PI) / 180;

/** Degrees of an angle in radians: the way back of `radians`. */
export const degrees = (angle: number): number => (angle * 180) / Math.PI;

/**
 * Degrees with the rounding of the way there taken off, so that a number that was typed comes back
 * as it was typed: fourteen digits, and 0 never as −0.
 */
export const tidyDegrees = (angle: number): number => Number(degrees(angle).toPrecision(14)) || 0;
