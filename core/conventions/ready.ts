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
];
const depths = [
  [0, 1],
  [-1, 1],
  [1, 0],
] as const;

const sign = (axis: AxisFrame['forward']) => `${signOf(axis) < 0 ? '\u2212' : ''}${letterOf(axis)}`;

/** What a frame of the world is, in words: “right-handed, z up, y ahead”. */
export const wordsOfWorld = (world: AxisFrame): string =>
  `${handednessOf(world)}-handed, ${sign(world.up)} up, ${sign(world.forward)} ahead`;

/** What a set of conventions is, in the words it is looked for by. */
export function wordsOfConventions({ world, ndc, matrix }: Conventions): string {
  const depth = (v: number) => String(v).replace('-', '\u2212');
  return [
    wordsOfWorld(world),
    `depth ${depth(ndc.near)} to ${depth(ndc.far)}${ndc.near > ndc.far ? ', reversed' : ''}`,
    `${matrix.vectors} vectors, ${matrix.storage}`,
  ].join('; ');
}

/**
 * Ready sets by what they are: every usual frame of the world with every usual depth, columns
 * listed by columns and rows listed by rows. View axes have y up and look along −z where the world
 * is right-handed and along +z where it is left-handed, so that a view matrix is a rotation.
 */
export const readySets: readonly ReadySet[] = usualWorlds.flatMap((world) =>
  depths.flatMap(([near, far]) =>
    (['column', 'row'] as const).map((vectors) => {
      const conventions: Conventions = {
        ...defaultConventions,
        world,
        view: { right: '+x', up: '+y', forward: handednessOf(world) === 'right' ? '-z' : '+z' },
        ndc: { up: '+y', near, far },
        matrix: { vectors, storage: vectors === 'row' ? 'row-major' : 'column-major' },
      };
      return { name: wordsOfConventions(conventions), conventions };
    }),
  ),
);

/**
 * The ready sets whose words begin with all of the words typed, in any order; an axis goes with
 * what it points to (“z up”). All of them where nothing is typed.
 */
export function findReady(typed: string): readonly ReadySet[] {
  const plain = (text: string) =>
    text
      .toLowerCase()
      .replaceAll('\u2212', '-')
      .replace(/-(handed|major)/g, ' $1');
  const wanted = plain(typed).match(/-?[xyz] (up|ahead)|[^\s,;]+/g) ?? [];
  return readySets.filter(({ name }) => {
    const words = plain(name).match(/-?[xyz] (up|ahead)|[^\s,;]+/g)!;
    return wanted.every((one) => words.some((word) => word.startsWith(one) || `${word}s` === one));
  });
}
