import { compareRays } from '../../../core/convert/compare';
import { pictureToPixel, pixelToPicture, rayThrough, pictureToViewRuf, viewRufToWorld, worldToPixel, type Ray } from '../../../core/convert/project'; // prettier-ignore
import { rayEnds } from '../../../core/convert/unproject';
import type { CameraFrame } from '../../../core/camera/frame';
import type { PlacedBody } from '../../../core/bodies/body';
import { addScaled, distance, normalize, type Vec2, type Vec3 } from '../../../core/math/vec3';
import { aim, type Aim } from '../../../core/pick/aim';
import { faultError, rayFaults, type FaultError, type FaultTerms, type RayFault } from '../../../core/pick/faults';
import { castRay, pick, pickFlat, type Hit } from '../../../core/pick/pick';
import { bodiesOf } from '../../state/bodyList';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import type { PickState } from './kept';

/* What Pick's sheet, pictures and queries have in common: each worked out once, here. */

/** The picture position of the ray, where the pointer plays no part. */
export function pixelNow({ slice, frame, project }: Pick<Moment<PickState>, 'slice' | 'frame' | 'project'>): Vec2 {
  return slice.at === 'centre' ? [0, 0] : pixelToPicture(frame, project.back.pixel);
}

/** How far a ray is followed where it meets nothing: to far, or across the whole scene. */
export function reachOf({ frame, sceneBounds }: Pick<Moment, 'frame' | 'sceneBounds'>): number {
  return frame.far ?? distance(frame.eye, sceneBounds.centre) + 2 * sceneBounds.radius;
}

/** A ray through a place of the picture, and what it meets. */
export interface Looked {
  readonly picture: Vec2;
  readonly ray: Ray;
  readonly near: Vec3;
  readonly far: Vec3 | null;
  readonly hits: readonly Hit[];
  /** The first hit, or the point at the reach. */
  readonly end: Vec3;
  readonly range: number;
}

const looked = memo(
  (
    frame: CameraFrame,
    placed: readonly PlacedBody[],
    flat: boolean,
    a: number,
    u: number,
    backFaces: boolean,
    all: boolean,
    reach: number,
  ): Looked => {
    const ray = rayThrough(frame, a, u);
    const ends = rayEnds(frame, ray);
    if (flat) {
      const point = viewRufToWorld(frame, pictureToViewRuf(frame, a, u, 0));
      // The uppermost body comes first.
      const found = pickFlat(point, placed, true).reverse();
      return {
        picture: [a, u],
        ray,
        near: point,
        far: null,
        hits: all ? found : found.slice(0, 1),
        end: point,
        range: 0,
      };
    }
    const hits = pick(frame, a, u, placed, { backFaces, all });
    const range = hits[0]?.distance ?? reach * ray.rangePerAhead;
    const end = hits[0]?.point ?? addScaled(ray.origin, ray.direction, range);
    return { picture: [a, u], ray, near: ends.near, far: ends.far.ok ? ends.far.value : null, hits, end, range };
  },
);

/** The ray through a picture position, and what it meets. */
export const lookThrough = (now: Moment<PickState>, [a, u]: Vec2): Looked =>
  looked(
    now.frame,
    now.flat ? now.stack : bodiesOf(now),
    now.flat,
    a,
    u,
    now.slice.backFaces,
    now.slice.all,
    reachOf(now),
  );

const aimed = memo(
  (frame: CameraFrame, placed: readonly PlacedBody[], muzzle: Vec3, reach: number, a: number, u: number) =>
    aim(frame, placed, muzzle, reach, [a, u]),
);
/** The aim from the muzzle to what the ray meets. */
export const aimAt = (now: Moment<PickState>, [a, u]: Vec2): Aim =>
  aimed(now.frame, bodiesOf(now), now.slice.muzzle, reachOf(now), a, u);

/** Where a muzzle that fires along the camera's ray lands in the place of the target. */
export interface Fall {
  readonly hit: Hit | null;
  readonly point: Vec3;
  /** World units between where it lands and the target. */
  readonly off: number;
}
const fallen = memo((placed: readonly PlacedBody[], muzzle: Vec3, ray: Ray, target: Vec3): Fall => {
  const direction = normalize(ray.direction)!;
  const hit = castRay({ origin: muzzle, direction }, placed)[0] ?? null;
  // Where it meets nothing: as far as the target is.
  const point = hit?.point ?? addScaled(muzzle, direction, distance(muzzle, target));
  return { hit, point, off: distance(point, target) };
});
export const fallOf = (now: Moment<PickState>, { ray }: Looked, { target }: Aim): Fall =>
  fallen(bodiesOf(now), now.slice.muzzle, ray, target);

/** What is in the picture's camera, as the core has it. */
export function termsOf({ slice, project, flat }: Pick<Moment<PickState>, 'slice' | 'project' | 'flat'>): FaultTerms {
  const { shake, recoil, turnRate, velocity, frameRate, screen } = slice;
  const size = project.screens.sizes[screen] ?? project.screens.sizes[0] ?? project.viewport;
  return {
    shake: { angles: { yaw: shake.yaw, pitch: shake.pitch, roll: shake.roll }, offset: shake.offset },
    ...{ recoil, turnRate: flat ? 0 : turnRate, velocity, frameTime: 1 / frameRate },
    ...{ aspect: size.width / size.height, devicePixelRatio: project.viewport.devicePixelRatio },
  };
}

/**
 * What a ray is off by that is made from the camera of the frame before, by the order of a frame in
 * Motion: the angle, the miss at the target in world units, and how far from the pixel it is shown;
 * null where the pointer picks after the camera has moved.
 */
export function lateRay(now: Moment<PickState>, { picture, ray, range }: Looked) {
  const late = now.stale.picking;
  if (!late || now.flat) return null;
  const wrong = rayThrough(late, ...picture);
  const { angle, miss, point } = compareRays(ray, wrong, range);
  const [shown, wanted] = [worldToPixel(now.frame, point), pictureToPixel(now.frame, ...picture)];
  return { angle, miss, pixels: shown.ok ? Math.hypot(shown.value[0] - wanted[0], shown.value[1] - wanted[1]) : null };
}

/** The faults, each with what it is off by at the target. */
export interface BenchRow extends FaultError {
  readonly fault: RayFault;
}
const bench = memo(
  (
    frame: CameraFrame,
    pixelX: number,
    pixelY: number,
    terms: FaultTerms,
    range: number,
    flat: boolean,
  ): readonly BenchRow[] =>
    rayFaults.flatMap((fault): BenchRow[] => {
      const found = faultError(frame, [pixelX, pixelY], fault, terms, range, flat);
      return found ? [{ fault, ...found }] : [];
    }),
);
const termsKept = memo((slice: PickState, project: Moment['project'], flat: boolean) =>
  termsOf({ slice, project, flat }),
);
export function benchOf(now: Moment<PickState>, { range }: Looked, pixel: Vec2): readonly BenchRow[] {
  const { frame, slice, project, flat } = now;
  return bench(frame, pixel[0], pixel[1], termsKept(slice, project, flat), range, flat);
}
