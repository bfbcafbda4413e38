import { indexOf, signOf, type AxisFrame } from '../conventions/axes';

/* Numbers and vectors as texts of the language of `program.ts`. */

export const letters = ['x', 'y', 'z'] as const;
export type Texts = readonly [string, string, string];
export const negated = (text: string): string => (text === '0' ? '0' : text.startsWith('-') ? text.slice(1) : /^[\w.]+$/.test(text) || /^[\w.]+\(.*\)$/.test(text) ? `-${text}` : `-(${text})`); // prettier-ignore
/** Coefficients of right, up and ahead as the coordinates of a frame's letters. */
export function placed(axes: AxisFrame, [r, u, f]: Texts): Texts {
  const out: [string, string, string] = ['0', '0', '0'];
  for (const [name, text] of [['right', r], ['up', u], ['forward', f]] as const) out[indexOf(axes[name])] = signOf(axes[name]) < 0 ? negated(text) : text; // prettier-ignore
  return out;
}
export const vec = (of: Texts): string => `vec3(${of.join(', ')})`;
/** A number as a literal; nothing has no sign. */
export const plain = (v: number): string => (v < 0 ? `-${-v}` : String(v === 0 ? 0 : v)).replace('e+', 'e');
export const signed = (axes: AxisFrame): string => `${axes.right} right, ${axes.up} up, ${axes.forward} ahead`;
