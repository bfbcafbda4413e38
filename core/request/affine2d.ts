import { signOf } from '../conventions/axes';
import type { ConventionCodec } from '../conventions/codec';
import type { Vec2 } from '../math/vec3';
import type { RequestCamera2d } from './cameraSchema';
import type { Viewport } from '../camera/frame';

/**
 * A mapping of the plane: x′ = a·x + b·y + tx, y′ = c·x + d·y + ty. As a matrix of column vectors it is
 * `[a b tx; c d ty]`; a 3×3 matrix adds the row `0 0 1`.
 */
export interface Affine2d {
  readonly a: number;
  readonly b: number;
  readonly tx: number;
  readonly c: number;
  readonly d: number;
  readonly ty: number;
}

/** Where one pair of numbers goes by a mapping. */
export const applyAffine = ({ a, b, tx, c, d, ty }: Affine2d, [x, y]: Vec2): Vec2 => [
  a * x + b * y + tx,
  c * x + d * y + ty,
];

/** Returns the inverse of a mapping, or null where its determinant is 0 or not finite. */
export function invertAffine({ a, b, tx, c, d, ty }: Affine2d): Affine2d | null {
  const determinant = a * d - b * c;
  if (!Number.isFinite(1 / determinant)) return null;
  const [ia, ib, ic, id] = [d / determinant, -b / determinant, -c / determinant, a / determinant];
  return { a: ia, b: ib, tx: -(ia * tx + ib * ty), c: ic, d: id, ty: -(ic * tx + id * ty) };
}

/**
 * Signs of a camera's conventions: of the world's numbers along the screen's right and up, and of the screen's
 * rows against up.
 */
export interface Senses2d {
  readonly right: 1 | -1;
  readonly up: 1 | -1;
  /** −1 where rows are counted from the top. */
  readonly rows: 1 | -1;
}

/** Returns the senses of conventions. */
export const sensesOf = ({ conventions: { world, screen } }: ConventionCodec): Senses2d => ({
  right: signOf(world.right),
  up: signOf(world.up),
  rows: screen.origin === 'top-left' ? -1 : 1,
});

/**
 * Returns the linear part zoom·F·R(θ) of a 2D camera, from the world's own pairs to pixels: R turns the world
 * counter-clockwise as seen on the screen, F mirrors where the world and the rows of the screen grow oppositely.
 *
 * @param angle - radians
 * @see docs/derivations.md, "The 2D camera"
 */
export function linearOf(zoom: number, angle: number, { right, up, rows }: Senses2d): Omit<Affine2d, 'tx' | 'ty'> {
  const [s, c] = [zoom * Math.sin(angle), zoom * Math.cos(angle)];
  return { a: c * right, b: -s * up, c: rows * s * right, d: rows * c * up };
}

/** Returns the mapping with a linear part that takes `focus` to `anchor`. */
export const affineThrough = ({ a, b, c, d }: Omit<Affine2d, 'tx' | 'ty'>, focus: Vec2, anchor: Vec2): Affine2d => ({
  ...{ a, b, tx: anchor[0] - (a * focus[0] + b * focus[1]) },
  ...{ c, d, ty: anchor[1] - (c * focus[0] + d * focus[1]) },
});

/** Rounds as a camera snaps: halves up. */
export const snapNumber = (snap: RequestCamera2d['snap'], v: number): number =>
  snap === 'none' ? v : Math.floor(snap === 'round' ? v + 0.5 : v);

/** Returns a mapping whose translation is snapped. */
export const snapAffine = (of: Affine2d, snap: RequestCamera2d['snap']): Affine2d => ({
  ...of,
  tx: snapNumber(snap, of.tx),
  ty: snapNumber(snap, of.ty),
});

/**
 * Returns the mapping of a 2D camera from the world's own pairs to pixels of its screen, before snapping:
 * pixel = zoom·F·R(θ)·(p − focus) + anchor.
 */
export const affineOf = (camera: RequestCamera2d, codec: ConventionCodec): Affine2d =>
  affineThrough(linearOf(camera.zoom, codec.fromAngle(camera.rotation), sensesOf(codec)), camera.focus, camera.anchor);

/** The least and the greatest numbers of a region of the world, along both of its axes. */
export interface Bounds2d {
  readonly min: Vec2;
  readonly max: Vec2;
}

/**
 * Returns the bounding box of the part of the world that a viewport shows, by a mapping to pixels; null for a
 * mapping without an inverse.
 */
export function visibleBounds(toPixel: Affine2d, viewport: Viewport, codec: ConventionCodec): Bounds2d | null {
  const toWorld = invertAffine(toPixel);
  if (!toWorld) return null;
  // Where pixel centres are whole numbers, the edge of the screen is half a pixel before 0.
  const half = codec.conventions.screen.pixelCentre === 0 ? 0.5 : 0;
  const { x, y, width, height } = viewport;
  const [mx, my] = applyAffine(toWorld, [x + width / 2 - half, y + height / 2 - half]);
  const ex = (Math.abs(toWorld.a) * width + Math.abs(toWorld.b) * height) / 2;
  const ey = (Math.abs(toWorld.c) * width + Math.abs(toWorld.d) * height) / 2;
  return { min: [mx - ex, my - ey], max: [mx + ex, my + ey] };
}

/**
 * The six numbers of a mapping as matrices are listed: `a b tx c d ty`, or `a c b d tx ty` where the columns of the
 * matrix of column vectors follow each other (`ConventionCodec.listsColumns`).
 */
export const affineList = ({ a, b, tx, c, d, ty }: Affine2d, isByColumns: boolean): number[] =>
  isByColumns ? [a, c, b, d, tx, ty] : [a, b, tx, c, d, ty];

/**
 * Reads a mapping from 6, 9 or 16 numbers that are listed as the conventions say. A 3×3 matrix has the last row
 * `0 0 1`, a 4×4 matrix maps x and y as the first two coordinates.
 *
 * @returns null where the count is another, or the last row is not that of an affine mapping
 */
export function readAffine(numbers: readonly number[], isByColumns: boolean): Affine2d | null {
  const n = numbers.length === 6 ? 3 : Math.sqrt(numbers.length);
  if (n !== 3 && n !== 4) return null;
  const rows = numbers.length === 6 ? 2 : n;
  const at = (row: number, column: number) => numbers[isByColumns ? column * rows + row : row * n + column]!;
  const last = numbers.length === 6 ? [0, 0, 1] : Array.from({ length: n }, (_, column) => at(n - 1, column));
  if (last.some((v, i) => v !== (i === n - 1 ? 1 : 0))) return null;
  return { a: at(0, 0), b: at(0, 1), tx: at(0, n - 1), c: at(1, 0), d: at(1, 1), ty: at(1, n - 1) };
}

/** A world point, in the world's own pairs, with its pixel. */
export interface PlacedPoint2d {
  readonly world: Vec2;
  readonly screen: Vec2;
}

/**
 * Fits a mapping to points by least squares.
 *
 * @returns null for fewer than three points, or points on one line
 */
export function fitAffine(points: readonly PlacedPoint2d[]): Affine2d | null {
  if (points.length < 3) return null;
  const mean = (of: (point: PlacedPoint2d) => number) => points.reduce((sum, one) => sum + of(one), 0) / points.length;
  const [mx, my] = [mean(({ world }) => world[0]), mean(({ world }) => world[1])];
  const [xx, xy, yy] = [
    mean(({ world }) => (world[0] - mx) ** 2),
    mean(({ world }) => (world[0] - mx) * (world[1] - my)),
    mean(({ world }) => (world[1] - my) ** 2),
  ];
  const determinant = xx * yy - xy * xy;
  if (!(determinant > 1e-12 * (xx + yy) ** 2)) return null;
  const row = (axis: 0 | 1): [number, number, number] => {
    const m = mean(({ screen }) => screen[axis]);
    const [sx, sy] = [mean(({ world, screen }) => (world[0] - mx) * (screen[axis] - m)), mean(({ world, screen }) => (world[1] - my) * (screen[axis] - m))]; // prettier-ignore
    const [p, q] = [(sx * yy - sy * xy) / determinant, (sy * xx - sx * xy) / determinant];
    return [p, q, m - p * mx - q * my];
  };
  const [[a, b, tx], [c, d, ty]] = [row(0), row(1)];
  return { a, b, tx, c, d, ty };
}
