import type { Tone } from '../../formats/project';

export const toneOrder: readonly Tone[] = ['stone', 'white', 'dark', 'roof', 'glass'];

export type Color = readonly [number, number, number];

export interface Palette {
  readonly page: Color;
  readonly sky: Color;
  readonly water: Color;
  readonly beyond: Color;
  readonly grid: Color;
  readonly rule: Color;
  readonly ink: Color;
  readonly ink2: Color;
  readonly plate: Color;
  readonly teal: Color;
  /** Four tones for each of `toneOrder`, lit to shade. */
  readonly tones: readonly Color[];
}

const token = (style: CSSStyleDeclaration, name: string): Color => {
  const hex = style.getPropertyValue(`--${name}`).trim();
  return [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16) / 255) as unknown as Color;
};

const palettes = new Map<string, Palette>();

/** The palette of a theme that is in force, read from the page's own tokens once. */
export function paletteOf(theme: string, element: Element): Palette {
  const known = palettes.get(theme);
  if (known) return known;
  const style = getComputedStyle(element);
  const get = (name: string) => token(style, name);
  const palette = {
    page: get('bg'),
    sky: get('sky'),
    water: get('water'),
    beyond: get('water2'),
    grid: get('grat'),
    rule: get('hair'),
    ink: get('ink'),
    ink2: get('ink2'),
    plate: get('plate'),
    teal: get('teal'),
    tones: toneOrder.flatMap((tone) => [0, 1, 2, 3].map((i) => get(`${tone}${i}`))),
  };
  palettes.set(theme, palette);
  return palette;
}
