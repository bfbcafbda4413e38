import { describe, expect, it } from 'vitest';
import { inkOf, inkRoles, inkStyles, type InkRole } from '../pictures/compose/inks';
import { themes, type Colour, type Theme } from './themes';

/*
 * Contrast by WCAG 2.2, 1.4.3 and 1.4.11: text on every ground that it is set on, and every ink of the
 * pictures on every surface under marks, in both themes.
 */

type Rgb = readonly [number, number, number];
const rgb = (hex: string): Rgb => [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16) / 255) as unknown as Rgb;
const luminance = (colour: Rgb): number => {
  const [r, g, b] = colour.map((v) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4));
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
};
const contrast = (a: Rgb, b: Rgb): number => {
  const [low, high] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (high! + 0.05) / (low! + 0.05);
};
/** A colour painted over a ground. */
const over = (colour: Rgb, ground: Rgb, opacity: number): Rgb =>
  colour.map((v, i) => v * opacity + ground[i]! * (1 - opacity)) as unknown as Rgb;

const pageGrounds: readonly Colour[] = ['bg', 'plate', 'sunk', 'field'];
const textColours: readonly Colour[] = ['ink', 'ink2', 'brasst', 'verm', 'teal', 'plum'];
/** Borders of fields and lines that carry meaning. */
const lineColours: readonly Colour[] = ['hair2', 'brass', 'grat'];
/** The surfaces of the pictures that marks without a halo are drawn on. */
const pictureGrounds: readonly Colour[] = ['plate', 'sky', 'water', 'water2'];

/** Light areas that an edge of another ink bounds, and rims that separate a mark from its surroundings. */
const areas: readonly InkRole[] = [
  'frustum-fill',
  'region',
  'range-note',
  'fault-fill',
  'panel-field',
  'plate-field',
  'ruler-ground',
  'probe-halo',
];

describe.each(Object.keys(themes) as Theme[])('contrast of the %s theme', (theme) => {
  const colour = (name: Colour) => rgb(themes[theme][name]);

  it.each(textColours)('text in %s can be read on every ground', (ink) => {
    for (const ground of pageGrounds)
      expect(contrast(colour(ink), colour(ground)), `${ink} on ${ground}`).toBeGreaterThanOrEqual(4.5);
  });
  it.each(lineColours)('lines in %s can be seen on every ground', (line) => {
    for (const ground of pageGrounds)
      expect(contrast(colour(line), colour(ground)), `${line} on ${ground}`).toBeGreaterThanOrEqual(3);
  });
  it('marks can be read on the highlight', () => {
    for (const ink of ['ink', 'brasst'] as const)
      expect(contrast(colour(ink), colour('brassw')), ink).toBeGreaterThanOrEqual(4.5);
  });

  it.each(inkRoles.filter((role) => inkStyles[role].font))('text in the ink %s can be read', (role) => {
    for (const ground of ['plate', 'water'] as const) {
      const ink = inkOf(theme, ground, role);
      const fill = rgb(ink.fill!);
      // A halo is the ground of its text; a tag's figure is set on its box.
      const grounds = ink.stroke
        ? [rgb(ink.stroke)]
        : role === 'tag-figure'
          ? [rgb(inkOf(theme, ground, 'tag-box').fill!)]
          : pictureGrounds.map(colour);
      for (const one of grounds) expect(contrast(fill, one), role).toBeGreaterThanOrEqual(4.5);
    }
  });

  it.each(inkRoles.filter((role) => !inkStyles[role].font && !areas.includes(role)))(
    'marks in the ink %s can be seen',
    (role) => {
      for (const ground of pictureGrounds) {
        const ink = inkOf(theme, 'plate', role);
        const seen = [ink.fill, ink.stroke].flatMap((one) =>
          one ? [over(rgb(one), colour(ground), ink.opacity)] : [],
        );
        const best = Math.max(...seen.map((one) => contrast(one, colour(ground))));
        expect(best, `${role} on ${ground}`).toBeGreaterThanOrEqual(3);
      }
    },
  );
});
