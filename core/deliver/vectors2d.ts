import { applyAffine, affineList, invertAffine, type Affine2d } from '../request/affine2d';
import { fitZoom, type ScreenFit } from '../camera/fit';
import type { Viewport } from '../camera/frame';
import { indexOf, signOf } from '../conventions/axes';
import type { ConventionCodec } from '../conventions/codec';
import { createEngine2d, type Engine2d } from '../diagnose/engine2d';
import { randomFrom, type Random } from '../math/random';
import { mat4 } from '../math/mat4';
import type { Vec2 } from '../math/vec3';
import type { RequestCamera2d } from '../request/cameraSchema';
import { followAnswer } from './vectorAnswers';
import { followInputs, single, type VectorInput } from './vectorInputs';
import { positionShare } from './vectorScale';
import type { VectorKind } from './vectorKinds';

/* Test vectors of 2D cameras: inputs, right answers, and sizes that tolerances are a share of (`docs/deliver.md`). */

/** A 2D camera with its viewport and conventions. */
export interface VectorContext2d {
  readonly camera: RequestCamera2d;
  readonly viewport: Viewport;
  readonly codec: ConventionCodec;
}

/** Screens that rows of zooms ask for: the viewport, two usual sizes, and shares of the viewport. */
const screens = ({ width, height }: Viewport): readonly Vec2[] => [
  [width, height],
  [1920, 1080],
  [1024, 768],
  [width * 3, height * 2],
  [Math.ceil(width / 3), Math.ceil(height / 2)],
];

/** Factors of parallax layers that rows ask for. */
const factors = [0, 0.25, 0.5, 1, 1.5] as const;

const fits: Readonly<Partial<Record<VectorKind, ScreenFit>>> = {
  zoomKeepHeight: 'keepHeight',
  zoomKeepWidth: 'keepWidth',
  zoomShowAll: 'showAll',
  zoomFillAndCrop: 'fillAndCrop',
};

/** World to clip: the mapping of points, then NDC. */
function clipMatrix(points: Affine2d, { viewport, codec }: VectorContext2d): number[] {
  const { world, ndc } = codec.conventions;
  const at = (p: Vec2) => {
    const [across, upward] = codec.fromScreen(viewport, applyAffine(points, p));
    return codec.toNdc({ across, upward, depth01: { near: 0.5, far: 0.5 } });
  };
  const [origin, x, y] = [at([0, 0]), at([1, 0]), at([0, 1])];
  const m = [...Array<number>(15).fill(0), 1];
  for (const r of [0, 1]) {
    m[4 * r + indexOf(world.right)] = x[r]! - origin[r]!;
    m[4 * r + indexOf(world.up)] = y[r]! - origin[r]!;
    m[4 * r + 3] = origin[r]!;
  }
  // A plane half way between near and far, one unit of the depth axis to either end.
  m[8 + indexOf(world.forward)] = (signOf(world.forward) * (ndc.far - ndc.near)) / 2;
  m[11] = (ndc.near + ndc.far) / 2;
  return codec.toList(mat4(m));
}

/** How far a world point is from the viewport, in world units; 0 inside. */
function clearance(points: Affine2d, { camera, viewport: v, codec }: VectorContext2d, place: Vec2): number {
  const edge = codec.conventions.screen.pixelCentre - 0.5;
  const [x, y] = applyAffine(points, place);
  const off = (value: number, start: number, size: number) => Math.max(0, start - value, value - start - size);
  return Math.hypot(off(x, v.x + edge, v.width), off(y, v.y + edge, v.height)) / camera.zoom;
}

/**
 * Returns what an engine answers to a row of a 2D camera.
 *
 * @param engine - the right one, or one that commits faults
 * @returns the outputs of the kind, booleans as 0 and 1; null for no answer
 */
export function answer2d(
  engine: Engine2d,
  kind: VectorKind,
  input: readonly number[],
  context: VectorContext2d,
): readonly number[] | null {
  const { camera, viewport, codec } = context;
  const [p = 0, q = 0, r = 0, s = 0] = input;
  const isByColumns = codec.listsColumns !== engine.isTransposed;
  const listed = (of: Affine2d | null) => of && affineList(of, isByColumns);
  const fit = fits[kind];
  if (fit) return [fitZoom(fit, camera.zoom, viewport, { width: p, height: q })];
  switch (kind) {
    case 'worldToPixel':
      return listed(engine.worldToPixel);
    case 'pixelToWorld':
      return listed(engine.pixelToWorld);
    case 'worldToScreen':
      return engine.points && applyAffine(engine.points, [p, q]);
    case 'screenToWorld': {
      const back = engine.points && invertAffine(engine.points);
      return back && applyAffine(back, [p, q]);
    }
    case 'visible':
      return engine.visible;
    case 'integerZoom':
      return [engine.integerZoom([p, q])];
    case 'layer':
      return applyAffine(engine.layer(p), [q, r]);
    case 'zoomStretch':
      return [(camera.zoom * p) / viewport.width, (camera.zoom * q) / viewport.height];
    case 'letterbox': {
      const [width, height] = [viewport.width, viewport.height].map((side) => Math.max(1, Math.round((side * p) / camera.zoom))) as [number, number]; // prettier-ignore
      return [Math.floor((q - width) / 2), Math.floor((r - height) / 2), width, height];
    }
    case 'mayAppear': {
      const away = engine.points && clearance(engine.points, context, [p, q]);
      return away === null ? null : [away > 0 && away >= r + s ? 1 : 0];
    }
    case 'follow':
      return followAnswer(input);
    case 'keyScreenHeight': {
      if (!engine.points) return null;
      const { c, d } = engine.points;
      const down = c * p + d * q;
      return [codec.screenGrowsUp ? down : -down];
    }
    case 'viewProjection':
      return engine.points && clipMatrix(engine.points, context);
    default:
      return null;
  }
}

/**
 * Returns the inputs of all rows of a 2D camera: its matrices, `count` points and as many pixels (every seventh off
 * the viewport), the visible rectangle, zooms for five screens, parallax layers, spawning, following and sort keys.
 *
 * @param own - points of the request itself, world: asked for first
 */
export function inputs2d(context: VectorContext2d, own: readonly Vec2[], count: number, seed: number): VectorInput[] {
  const { viewport, camera } = context;
  const engine = createEngine2d(context, []);
  const roll = randomFrom(seed);
  const { x, y, width, height } = viewport;
  const pixelAt = (i: number): Vec2 => {
    const wide = i % 7 === 6 ? 1.6 : 0.48;
    return [x + width * (0.5 + wide * (2 * roll() - 1)), y + height * (0.5 + wide * (2 * roll() - 1))];
  };
  const toWorld = engine.points && invertAffine(engine.points);
  const worldAt = (i: number): number[] => single(toWorld ? applyAffine(toWorld, pixelAt(i)) : [0, 0]);
  const list = (kind: VectorKind, name: string, inputs: readonly (readonly number[])[]): VectorInput[] =>
    inputs.map((input, i) => ({ id: `${name} ${i + 1}`, kind, input }));
  const times = <T>(size: number, make: (i: number) => T): T[] => Array.from({ length: size }, (_, i) => make(i));
  const bare = (kind: VectorKind): VectorInput => ({ id: kind, kind, input: [] });
  return [
    bare('worldToPixel'),
    bare('pixelToWorld'),
    ...list('worldToScreen', 'point own', own),
    ...list('worldToScreen', 'point', times(count, worldAt)),
    ...list(
      'screenToWorld',
      'back',
      times(count, (i) => single(pixelAt(i))),
    ),
    bare('visible'),
    ...list('integerZoom', 'screen', screens(viewport)),
    ...list('layer', 'layer', factors.flatMap((factor, i) => [i, i + 1].map((k) => [factor, ...worldAt(k)]))), // prettier-ignore
    ...Object.keys(fits).flatMap((kind) => list(kind as VectorKind, kind, screens(viewport))),
    ...list('zoomStretch', 'stretch', screens(viewport)),
    ...list('letterbox', 'letterbox', screens(viewport).map(([w, h], i) => [Math.fround((camera.zoom * (i + 1)) / 3), w, h]).filter(isClearOfHalves(context))), // prettier-ignore
    ...spawning(context, engine, worldAt, roll),
    ...followInputs(roll),
    ...list('keyScreenHeight', 'key height', times(8, worldAt)),
    bare('viewProjection'),
  ];
}

/** Whether the sides of a letterbox are clear of halves of a pixel, where rounding is luck. */
const isClearOfHalves =
  ({ camera, viewport }: VectorContext2d) =>
  ([zoom]: readonly number[]): boolean =>
    [viewport.width, viewport.height].every((side) => {
      const pixels = (side * zoom!) / camera.zoom;
      return Math.abs((pixels % 1) - 0.5) > 1e-3;
    });

/** Places in and out of the viewport whose radius and padding together decide, and neither by itself. */
function spawning(context: VectorContext2d, engine: Engine2d, worldAt: (i: number) => number[], roll: Random): VectorInput[] {
  if (!engine.points) return [];
  const { camera, viewport } = context;
  return Array.from({ length: 16 }, (_, i): VectorInput => {
    const place = worldAt(i % 4 === 3 ? 0 : 6);
    const away = clearance(engine.points!, context, place as unknown as Vec2);
    const size = Math.hypot(viewport.width, viewport.height) / camera.zoom;
    const total = away > 1e-3 * size ? away * (i % 2 ? 1.3 : 0.7) : size * 0.1;
    const share = 0.4 + 0.2 * roll();
    return { id: `spawn ${i + 1}`, kind: 'mayAppear', input: single([...place, total * share, total * (1 - share)]) };
  });
} // prettier-ignore

/** Computes the sizes that a tolerance is a share of, one for each output of a row of a 2D camera. */
export function scale2d(
  { camera, viewport: v, codec }: VectorContext2d,
  kind: VectorKind,
  input: readonly number[],
  expected: readonly number[],
): readonly number[] {
  const size = (...list: number[]) => Math.max(1e-6, ...list.map(Math.abs));
  const all = (value: number) => expected.map(() => value);
  const focus = size(...camera.focus);
  const anchor = size(...camera.anchor, v.x, v.y, v.width, v.height);
  /** Pixels that a small share of the positions moves a point by. */
  const moved = positionShare * camera.zoom * (focus + size(...input));
  switch (kind) {
    case 'worldToPixel':
    case 'pixelToWorld': {
      const translations = codec.listsColumns ? [4, 5] : [2, 5];
      const linear = kind === 'worldToPixel' ? camera.zoom : 1 / camera.zoom;
      const shift = kind === 'worldToPixel' ? anchor + camera.zoom * focus : focus + anchor / camera.zoom;
      return expected.map((_, i) => (translations.includes(i) ? shift : linear));
    }
    case 'worldToScreen':
    case 'layer':
      return all(size(anchor, ...expected) + moved);
    case 'screenToWorld':
    case 'visible':
      return all(size(focus, (anchor + size(...input)) / camera.zoom));
    case 'keyScreenHeight':
      return all(camera.zoom * size(...input));
    case 'mayAppear':
      return [1];
    case 'follow':
      return all(size(...input.slice(0, 3)));
    case 'viewProjection':
      return all(1).map((_, i) => size(expected[i]!, (camera.zoom * focus) / Math.min(v.width, v.height), 2e-3));
    default:
      return expected.map((value) => size(value));
  }
}
