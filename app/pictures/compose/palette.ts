import type { Tone } from '../../../formats/project';
import { themes, type Colour, type Theme } from '../../ui/themes';
import { tints, type Tint } from './contract';

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
  /** Four tones for each of `tints`, lit to shade. */
  readonly tintTones: readonly Color[];
}

const rgb = (hex: string): Color => [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16) / 255) as unknown as Color;

/** The colours of a tint's four tones. */
const tintTokens: Readonly<Record<Tint, readonly [Colour, Colour, Colour, Colour]>> = {
  none: ['stone0', 'stone1', 'stone2', 'stone3'],
  inside: ['in0', 'in1', 'in2', 'in3'],
  crosses: ['cr0', 'cr1', 'cr2', 'cr3'],
  outside: ['out0', 'out1', 'out2', 'out3'],
  dimmed: ['plate', 'sunk', 'bg', 'hair'],
  chosen: ['brassw', 'brass', 'brass', 'brasst'],
  fault: ['verm', 'verm', 'verm', 'verm'],
  sheet: ['field', 'field', 'field', 'field'],
  ink: ['ink', 'ink', 'ink', 'ink'],
  region: ['in1', 'in2', 'in3', 'teal'],
  shade: ['stone3', 'ink2', 'ink2', 'ink'],
};

function createPalette(theme: Theme): Palette {
  const get = (name: Colour) => rgb(themes[theme][name]);
  return {
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
    tones: toneOrder.flatMap((tone) => ([0, 1, 2, 3] as const).map((i) => get(`${tone}${i}`))),
    tintTones: tints.flatMap((tint) => tintTokens[tint].map(get)),
  };
}

/** The colours of drawn surfaces by theme. */
export const palettes: Readonly<Record<Theme, Palette>> = {
  paper: createPalette('paper'),
  night: createPalette('night'),
};

/** The colour that a tint has where it is one line or one area: its deepest tone. */
export const tintColor = (palette: Palette, tint: Tint): Color => palette.tintTones[4 * tints.indexOf(tint) + 3]!;
