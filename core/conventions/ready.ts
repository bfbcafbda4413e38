import { handednessOf, letterOf, signOf, type AxisFrame } from './axes';
import { defaultConventions, type Conventions } from './conventions';

/** A set of conventions under the words for what it is. */
export interface ReadySet {
  /** “left-handed, z up, x ahead; depth 1 to 0; row vectors” */
  readonly name: string;
  readonly conventions: Conventions;
}

/** The frames that worlds are usually written in. */
export const usualWorlds: readonly AxisFrame[] = [
  { right: '+x', up: '+y', forward: '-z' },
  { right: '+x', up: '+y', forward: '+z' },
  { right: '+x', up: '+z', forward: '+y' },
  { right: '-y', up: '+z', forward: '+x' },
  { right: '+y', up: '+z', forward: '+x' },
  { right: '-x', up: '+y', forward: '+z' },
  { right: '+x', up: '-y', forward: '+z' },
];
const depths = [
  [0, 1],
  [-1, 1],
  [1, 0],
  [1, -1],
] as const;
const listings = [
  { vectors: 'column', storage: 'column-major' },
  { vectors: 'row', storage: 'row-major' },
  { vectors: 'column', storage: 'row-major' },
  { vectors: 'row', storage: 'column-major' },
] as const;

const sign = (axis: AxisFrame['forward']) => `${signOf(axis) < 0 ? '\u2212' : ''}${letterOf(axis)}`;

/** Describes the axes of a world: “right-handed, z up, y ahead”. */
export const wordsOfWorld = (world: AxisFrame): string =>
  `${handednessOf(world)}-handed, ${sign(world.up)} up, ${sign(world.forward)} ahead${signOf(world.right) < 0 ? `, ${sign(world.right)} right` : ''}`;

/** Describes conventions in the words that they are searched by. */
export function wordsOfConventions({ world, ndc, matrix }: Conventions): string {
  const depth = (v: number) => String(v).replace('-', '\u2212');
  return [
    wordsOfWorld(world),
    `depth ${depth(ndc.near)} to ${depth(ndc.far)}${ndc.near > ndc.far ? ', reversed' : ''}${ndc.up === '-y' ? ', NDC y down' : ''}`,
    `${matrix.vectors} vectors, ${matrix.storage}`,
  ].join('; ');
}

/**
 * Usual conventions: worlds, NDC and listings in all combinations, the most usual first. View axes have y up and look
 * along −z where the world is right-handed and along +z where it is left-handed, so that a view matrix is a rotation.
 */
export const readySets: readonly ReadySet[] = (['+y', '-y'] as const).flatMap((up) =>
  listings.flatMap((matrix) =>
    usualWorlds.flatMap((world) =>
      depths.map(([near, far]) => {
        const view = { right: '+x', up: '+y', forward: handednessOf(world) === 'right' ? '-z' : '+z' } as const;
        const conventions: Conventions = { ...defaultConventions, world, view, ndc: { up, near, far }, matrix };
        return { name: wordsOfConventions(conventions), conventions };
      }),
    ),
  ),
);
