import {
  affineThrough,
  invertAffine,
  linearOf,
  sensesOf,
  snapAffine,
  snapNumber,
  visibleBounds,
  type Affine2d,
} from '../request/affine2d';
import { fitZoom } from '../camera/fit';
import type { Viewport } from '../camera/frame';
import type { ConventionCodec } from '../conventions/codec';
import type { Vec2 } from '../math/vec3';
import type { RequestCamera2d } from '../request/cameraSchema';

/* A 2D engine that commits faults: what its matrices and points are then (`docs/compute.md`, "Diagnose in 2D"). */

/** Faults of everything that an engine makes of a camera. */
export const cameraFaults2d = [
  ...(['yFlipped', 'xFlipped', 'rotationNegated', 'rotationInOtherUnit', 'rotationMissing'] as const),
  ...(['focusNotNegated', 'focusMissing', 'focusNotRotated', 'focusNotScaled'] as const),
  ...(['anchorMissing', 'anchorFromOtherEdge', 'zoomInverted', 'zoomMissing', 'snapBeforeZoom'] as const),
] as const;
/** Faults of how a matrix is given. */
export const matrixFaults2d = ['inverted', 'transposed'] as const;
/** Faults of points alone. */
export const pointFaults2d = ['snapMissing', 'halfPixel', 'devicePixelRatio', 'viewportOffset'] as const;
export const faultNames2d = [...cameraFaults2d, ...matrixFaults2d, ...pointFaults2d] as const;
export type FaultName2d = (typeof faultNames2d)[number];

/** Ratios of device pixels to pixels of the page that are tried where none is given. */
const usualRatios = [2, 1.5, 3, 1.25] as const;

/** A fault, and how it is committed where there are several ways. */
export interface Instance2d {
  readonly fault: FaultName2d;
  /** Of `halfPixel`: pixels added; of `devicePixelRatio`: the factor. */
  readonly amount?: number;
}

/** A 2D camera with its viewport and conventions. */
export interface Intended2d {
  readonly camera: RequestCamera2d;
  readonly viewport: Viewport;
  readonly codec: ConventionCodec;
}

/** Everything that a 2D engine is asked for. */
export interface Engine2d {
  /** Before snapping. */
  readonly worldToPixel: Affine2d | null;
  readonly pixelToWorld: Affine2d | null;
  /** Whether the matrices are listed the other way. */
  readonly isTransposed: boolean;
  /** The mapping of points, as the camera snaps. */
  readonly points: Affine2d | null;
  /** The least x, y and the greatest x, y that the viewport shows. */
  readonly visible: readonly number[] | null;
  /** The zoom for a screen of a width and height by whole multiples. */
  integerZoom(screen: Vec2): number;
  /** The mapping of a parallax layer by its factor. */
  layer(factor: number): Affine2d;
}

/** Returns every way of committing each fault that changes a number of this camera. */
export function instancesOf2d(intended: Intended2d, devicePixelRatio: number | null): readonly Instance2d[] {
  const ratios = devicePixelRatio === null ? usualRatios : [devicePixelRatio];
  const all = faultNames2d.flatMap((fault): Instance2d[] => {
    if (fault === 'halfPixel') return [0.5, -0.5].map((amount) => ({ fault, amount }));
    if (fault === 'devicePixelRatio') return ratios.flatMap((k) => [k, 1 / k]).filter((k) => k !== 1).map((amount) => ({ fault, amount })); // prettier-ignore
    return [{ fault }];
  });
  const right = numbersOf(createEngine2d(intended, []));
  return all.filter((one) => {
    const wrong = numbersOf(createEngine2d(intended, [one]));
    return wrong.some((v, i) => Math.abs(v - right[i]!) > 1e-9 * Math.max(1, Math.abs(right[i]!)));
  });
}

/** The numbers of an engine's matrices and points, NaN for none. */
function numbersOf({ worldToPixel, pixelToWorld, points, isTransposed }: Engine2d): number[] {
  const of = (m: Affine2d | null) => (m ? [m.a, m.b, m.tx, m.c, m.d, m.ty] : Array<number>(6).fill(NaN));
  return [...of(worldToPixel), ...of(pixelToWorld), ...of(points), isTransposed ? 1 : 0];
}

/** Returns an engine that commits faults; without any, the right one. */
export function createEngine2d({ camera, viewport, codec }: Intended2d, faults: readonly Instance2d[]): Engine2d {
  const has = (fault: FaultName2d) => faults.some((one) => one.fault === fault);
  const amountOf = (fault: FaultName2d, none: number) => faults.find((one) => one.fault === fault)?.amount ?? none;
  const { snap } = camera;
  const { conventions } = codec;
  const turns = codec.fromAngle(camera.rotation);
  const otherUnit = conventions.angles.unit === 'degrees' ? camera.rotation : (camera.rotation * Math.PI) / 180;
  const angle = (has('rotationMissing') ? 0 : has('rotationInOtherUnit') ? otherUnit : turns) * (has('rotationNegated') ? -1 : 1); // prettier-ignore
  const zoom = has('zoomMissing') ? 1 : has('zoomInverted') ? 1 / camera.zoom : camera.zoom;
  const flipped = (of: ReturnType<typeof linearOf>) => {
    const [x, y] = [has('xFlipped') ? -1 : 1, has('yFlipped') ? -1 : 1];
    return { a: x * of.a, b: x * of.b, c: y * of.c, d: y * of.d };
  };
  const senses = sensesOf(codec);
  const linear = flipped(linearOf(zoom, angle, senses));
  const snapsFocus = has('snapBeforeZoom');
  const focus: Vec2 = snapsFocus
    ? [snapNumber(snap, camera.focus[0]), snapNumber(snap, camera.focus[1])]
    : camera.focus;
  const half = conventions.screen.pixelCentre === 0 ? 0.5 : 0;
  const anchor: Vec2 = has('anchorMissing')
    ? [0, 0]
    : has('anchorFromOtherEdge')
      ? [camera.anchor[0], 2 * (viewport.y - half) + viewport.height - camera.anchor[1]]
      : camera.anchor;
  /** The linear part that the focus is multiplied by. */
  const ofFocus = has('focusNotRotated')
    ? flipped(linearOf(zoom, 0, senses))
    : has('focusNotScaled')
      ? flipped(linearOf(1, angle, senses))
      : linear;
  const share = has('focusMissing') ? 0 : has('focusNotNegated') ? -1 : 1;
  const unsnapped = (factor: number): Affine2d => {
    const k = share * factor;
    const { tx, ty } = affineThrough(ofFocus, [focus[0] * k, focus[1] * k], anchor);
    return { ...linear, tx, ty };
  };
  const offset: Vec2 = has('viewportOffset') ? [viewport.x, viewport.y] : [0, 0];
  const ratio = amountOf('devicePixelRatio', 1);
  const shift = amountOf('halfPixel', 0);
  /** What becomes of a mapping on the way to the pixels of points. */
  const toPoints = (of: Affine2d): Affine2d => {
    const { a, b, tx, c, d, ty } = snapsFocus || has('snapMissing') ? of : snapAffine(of, snap);
    return {
      ...{ a: a * ratio, b: b * ratio, tx: (tx - offset[0]) * ratio + shift },
      ...{ c: c * ratio, d: d * ratio, ty: (ty - offset[1]) * ratio + shift },
    };
  };
  const forward = unsnapped(1);
  const back = invertAffine(forward);
  const points = toPoints(forward);
  const bounds = visibleBounds(points, viewport, codec);
  return {
    worldToPixel: has('inverted') ? back : forward,
    pixelToWorld: has('inverted') ? forward : back,
    isTransposed: has('transposed'),
    points,
    visible: bounds && [...bounds.min, ...bounds.max],
    integerZoom: ([width, height]) => fitZoom('wholeMultiples', zoom, viewport, { width, height }),
    layer: (factor) => toPoints(unsnapped(factor)),
  };
}
