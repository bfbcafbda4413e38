/** A signed axis as it is typeset: −x. */
export const sign = (axis: string): string => axis.replace('-', '\u2212');
