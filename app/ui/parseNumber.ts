import { Parser } from 'expr-eval-fork';

const parser = new Parser({
  operators: { assignment: false, logical: false, comparison: false, in: false, conditional: false },
});
const constants = { pi: Math.PI, tau: 2 * Math.PI, e: Math.E };

/** The units a field may be given in, each as how many of the field's own unit it is. */
export type Units = Readonly<Record<string, number>>;
export const lengths: Units = { mm: 0.001, cm: 0.01, m: 1, km: 1000 };
export const anglesIn = (unit: 'degrees' | 'radians'): Units => {
  const degree = unit === 'degrees' ? 1 : Math.PI / 180;
  return { deg: degree, '°': degree, rad: degree * (180 / Math.PI), turn: degree * 360 };
};
export const pixels: Units = { px: 1 };

/** A number or a small sum as it was typed, with a unit behind it if the field knows one; null when it is neither, or not finite. */
export function parseNumber(text: string, units: Units = {}): number | null {
  let rest = text.trim().replaceAll('\u2212', '-').replaceAll('×', '*').replaceAll('÷', '/');
  let factor = 1;
  const unit = /([a-z°]+)$/i.exec(rest)?.[1];
  if (unit && unit in units && /[\d.)\s]$/.test(rest.slice(0, -unit.length))) {
    factor = units[unit]!;
    rest = rest.slice(0, -unit.length);
  }
  if (!rest) return null;
  try {
    const value: unknown = parser.parse(rest).evaluate(constants);
    return typeof value === 'number' && Number.isFinite(value) ? value * factor : null;
  } catch {
    return null;
  }
}
