import { themes, typefaces, type Colour, type Theme, type Typeface } from '../../ui/themes';

/*
 * How every mark over a picture looks, by its role. The style sheet's classes (`ink-<role>`), the canvas, SVG
 * and PNG read this table.
 */

/** The surface under a picture's marks. Halos of text have its colour. */
export type MarkGround = 'plate' | 'water';

interface Font {
  readonly face: Typeface;
  /** Pixels of the page. */
  readonly size: number;
  readonly weight?: 400 | 500 | 600;
  readonly italic?: boolean;
}

/** A colour of the theme, or the surface under the marks. */
type InkColour = Colour | 'ground';

interface InkStyle {
  readonly fill?: InkColour;
  readonly stroke?: InkColour;
  /** Of the stroke, in pixels of the page. */
  readonly width?: number;
  /** Lengths of strokes and gaps in turn, in pixels of the page. */
  readonly dash?: readonly number[];
  readonly join?: 'round';
  readonly opacity?: number;
  /** The stroke is painted below the fill. */
  readonly isStrokeBelow?: boolean;
  /** Text only. */
  readonly font?: Font;
  readonly underline?: { readonly colour: Colour; readonly width: number; readonly below: number };
}

const sans: Font = { face: 'sans', size: 11.5 };
const bold: Font = { ...sans, weight: 600 };
const mono: Font = { face: 'mono', size: 11.5 };
const serif: Font = { face: 'serif', size: 12.5, italic: true };

/** Text with a rim in the colour of its ground. */
const halo = { stroke: 'ground', width: 3, join: 'round', isStrokeBelow: true } as const;
const line = (stroke: Colour, width: number, more: InkStyle = {}): InkStyle => ({ stroke, width, ...more });

const table = {
  // Names and figures.
  name: { fill: 'ink', font: sans, ...halo },
  'name-chosen': { fill: 'ink', font: bold, ...halo, underline: { colour: 'brass', width: 1.5, below: 3 } },
  'name-strong': { fill: 'ink', font: bold, ...halo },
  'name-muted': { fill: 'ink2', font: sans },
  note: { fill: 'ink', font: serif, ...halo },
  'note-muted': { fill: 'ink2', font: serif, ...halo },
  'note-bare': { fill: 'ink', font: serif },
  'note-bare-muted': { fill: 'ink2', font: serif },
  figure: { fill: 'ink', font: mono, ...halo },
  'figure-water': { fill: 'ink', font: mono, ...halo, stroke: 'water' },
  'figure-brass': { fill: 'brasst', font: mono, ...halo },
  'figure-muted': { fill: 'ink2', font: mono, ...halo },
  'figure-bare': { fill: 'ink', font: mono },
  'figure-bare-muted': { fill: 'ink2', font: mono },
  'ruler-figure': { fill: 'ink2', font: mono },
  'ruler-unit': { fill: 'ink2', font: { ...serif, size: 12 } },
  'tag-figure': { fill: 'plate', font: { ...mono, weight: 500 } },
  'figure-fault': { fill: 'verm', font: mono, ...halo },
  sounding: { fill: 'ink2', font: mono },
  'error-note': { fill: 'verm', font: serif, ...halo },
  // Leaders and arrows of names.
  leader: line('ink', 0.75),
  'leader-dot': { fill: 'ink' },
  'edge-arrow': { fill: 'plum' },
  'edge-ring': line('plum', 1.35, { fill: 'plate' }),
  // Frames, rulers and scale bars.
  'plate-field': { fill: 'plate' },
  'plate-outer': line('ink', 1.5),
  'plate-inner': line('ink', 0.75),
  'neat-line': line('ink', 1),
  'ruler-ground': { fill: 'plate' },
  'ruler-blocks': { fill: 'ink' },
  'ruler-border': line('ink', 0.75),
  'ruler-ticks': line('ink', 0.75),
  'scale-bar': { fill: 'ink' },
  'scale-bar-border': line('ink', 0.75, { fill: 'plate' }),
  'panel-field': { fill: 'sunk' },
  'panel-viewport': line('ink', 1, { fill: 'plate' }),
  'screen-bars': { fill: 'ink' },
  // The camera's picture.
  horizon: line('ink', 0.9),
  'far-line': line('ink2', 1, { dash: [7, 3, 1, 3], opacity: 0.8 }),
  hairline: line('ink', 1, { dash: [1, 2], opacity: 0.75 }),
  'hair-cross': line('ink', 1),
  'range-note': { fill: 'plate', opacity: 0.88 },
  'tag-box': { fill: 'ink' },
  anchor: line('brass', 1.25),
  'turn-handle': line('brass', 1, { fill: 'plate' }),
  // Cameras seen from outside.
  'frustum-fill': { fill: 'brass', opacity: 0.09 },
  'frustum-line': line('brass', 1.25, { join: 'round' }),
  'frustum-ray': line('brass', 0.75, { dash: [2, 2] }),
  'gaze-axis': line('ink2', 0.75, { dash: [9, 3, 2, 3] }),
  eye: line('plate', 1, { fill: 'ink', isStrokeBelow: true }),
  'other-frustum': line('brass', 0.75, { opacity: 0.85 }),
  'other-eye': line('brass', 1.25, { fill: 'plate' }),
  // Dimensions.
  dimension: line('ink', 0.75),
  'dimension-head': { fill: 'ink' },
  extension: line('ink2', 0.6),
  'sight-line': line('brass', 1, { dash: [5, 2] }),
  // The probe.
  'probe-halo': line('plate', 4),
  'probe-line': line('brass', 1.6),
  'probe-dot': { fill: 'brass' },
  // Verdicts.
  inside: { fill: 'teal' },
  crosses: { fill: 'brass' },
  outside: line('plum', 1.35),
  // Marks of tasks.
  'body-rectangle': line('brass', 1, { dash: [5, 3] }),
  'edge-marker': line('plate', 1.5, { fill: 'plum' }),
  'engine-way': line('plum', 1, { dash: [3, 3] }),
  'engine-pointer': line('plum', 1.75),
  ray: line('ink', 1),
  'ray-head': { fill: 'ink' },
  ghost: line('ink2', 1, { dash: [3, 3] }),
  fault: line('verm', 1.25, { dash: [5, 3] }),
  'fault-fill': { fill: 'verm', opacity: 0.09 },
  'fault-dot': { fill: 'verm' },
  region: { fill: 'teal', opacity: 0.14 },
  'region-edge': line('teal', 1.25),
  foot: line('plum', 1.75),
  path: line('brass', 1, { dash: [6, 3] }),
  'path-key': line('brass', 1.25, { fill: 'plate' }),
  'second-reticle': line('plum', 1.5),
} as const satisfies Readonly<Record<string, InkStyle>>;

/** The role of a mark. */
export type InkRole = keyof typeof table;

export const inkStyles: Readonly<Record<InkRole, InkStyle>> = table;
export const inkRoles = Object.keys(table) as readonly InkRole[];

/** An ink with its colours, as canvas and SVG take it. */
export interface Ink {
  readonly fill: string | null;
  readonly stroke: string | null;
  readonly width: number;
  readonly dash: readonly number[];
  readonly join: 'miter' | 'round';
  readonly opacity: number;
  readonly isStrokeBelow: boolean;
  readonly font: InkFont | null;
  readonly underline: { readonly colour: string; readonly width: number; readonly below: number } | null;
}
export interface InkFont {
  readonly family: string;
  readonly size: number;
  readonly weight: 400 | 500 | 600;
  readonly style: 'normal' | 'italic';
  /** The shorthand of CSS. */
  readonly css: string;
}

function fontOf({ face, size, weight = 400, italic = false }: Font): InkFont {
  const [family, style] = [typefaces[face], italic ? 'italic' : 'normal'] as const;
  return { family, size, weight, style, css: `${style} ${weight} ${size}px ${family}` };
}

const createInk = (theme: Theme, ground: MarkGround, style: InkStyle): Ink => {
  const colours = themes[theme];
  const colour = (name: InkColour | undefined) => (name ? colours[name === 'ground' ? ground : name] : null);
  const { underline } = style;
  return {
    fill: colour(style.fill),
    stroke: colour(style.stroke),
    width: style.width ?? 1,
    dash: style.dash ?? [],
    join: style.join ?? 'miter',
    opacity: style.opacity ?? 1,
    isStrokeBelow: style.isStrokeBelow ?? false,
    font: style.font ? fontOf(style.font) : null,
    underline: underline ? { ...underline, colour: colours[underline.colour] } : null,
  };
};

const inksByRole = (theme: Theme, ground: MarkGround) =>
  Object.fromEntries(inkRoles.map((role) => [role, createInk(theme, ground, table[role])])) as Record<InkRole, Ink>;
const inksOf = (theme: Theme) => ({ plate: inksByRole(theme, 'plate'), water: inksByRole(theme, 'water') });
const inks = { paper: inksOf('paper'), night: inksOf('night') };

/** Returns the ink of a role; the same object each time. */
export const inkOf = (theme: Theme, ground: MarkGround, role: InkRole): Ink => inks[theme][ground][role];

/** The fonts of all inks, as CSS shorthands. */
export const inkFonts: readonly string[] = [
  ...new Set(inkRoles.flatMap((role) => inks.paper.plate[role].font?.css ?? [])),
];
