import { radians } from '../math/angle';
import type { Vec2, Vec3 } from '../math/vec3';
import type { Camera2d } from './camera2d';
import type { Camera } from './frame';
import { basisOfAngles } from './orientation';

/** Cameras of the trade to start from, in space and on flat worlds. */
export type StartingCamera = 'firstPerson' | 'overTheShoulder' | 'fromAbove' | 'isometric' | 'dimetric' | 'sideOn';
export type StartingCamera2d = 'sideScroller' | 'pixelPerfect';

/** What a starting camera is set up for: canonical world space, world units. */
export interface StartingSubject {
  /** The subject's foot: where it stands. */
  readonly foot: Vec3;
  readonly height: number;
  /** Which way it faces, radians to the right from straight ahead. */
  readonly yaw: number;
  /** The diameter of what orthographic cameras frame; null for a customary multiple of the height. */
  readonly framed: number | null;
  /** How far from the foot the farthest thing lies that is to be seen. */
  readonly reach: number;
}

/**
 * The pitch at which three edges of a cube look equally long: −atan(1/√2) (`docs/derivations.md`).
 */
export const isometricPitch = -Math.atan(Math.SQRT1_2);
/** The pitch at which the ground's diagonals run two pixels across for one upward: −30°. */
export const dimetricPitch = -Math.PI / 6;

/** Leaves the gaze a level direction, which yaw needs. */
const steepest = radians(-89.9);

/**
 * A camera in space (canonical axes, radians) set up in the way its name says, for a subject of a
 * height above 0: sizes and distances follow from the subject's height, near and far from what is
 * to be seen. Heights of eyes and shoulders are shares of a figure's height as drawing books give
 * them.
 */
export function startingCamera(kind: StartingCamera, { foot, height, yaw, reach, framed }: StartingSubject): Camera {
  const up = (share: number): Vec3 => [foot[0], foot[1] + height * share, foot[2]];
  const far = Math.max(reach * 2, height * 40);
  const perspective = (verticalFov: number): Camera['projection'] => ({
    kind: 'perspective',
    near: height * 0.05,
    far,
    lens: { verticalFov: radians(verticalFov) },
  });
  /** From a point backward along the gaze, then to the right. */
  const from = (at: Vec3, angles: { yaw: number; pitch: number }, back: number, right = 0): Camera['position'] => {
    const basis = basisOfAngles({ ...angles, roll: 0 });
    return [0, 1, 2].map((i) => at[i]! - basis.forward[i]! * back + basis.right[i]! * right) as unknown as Vec3;
  };
  const made = (
    at: Vec3,
    pitch: number,
    turn: number,
    back: number,
    projection: Camera['projection'],
    right = 0,
  ): Camera => ({
    position: from(at, { yaw: turn, pitch }, back, right),
    orientation: { kind: 'angles', yaw: turn, pitch, roll: 0 },
    projection,
  });
  const orthographic = (size: number): Camera['projection'] => ({
    kind: 'orthographic',
    near: 0,
    far: 2 * far,
    // A tenth more than the framed diameter is left as a border.
    size: { height: framed === null ? height * size : framed * 1.1 },
  });
  switch (kind) {
    case 'firstPerson':
      return made(up(0.94), 0, yaw, 0, perspective(60));
    case 'overTheShoulder':
      return made(up(0.95), radians(-8), yaw, height * 1.6, perspective(50), height * 0.35);
    case 'fromAbove':
      return made(up(0.5), steepest, yaw, far, orthographic(12));
    case 'isometric':
      return made(up(0.5), isometricPitch, radians(45), far, orthographic(8));
    case 'dimetric':
      return made(up(0.5), dimetricPitch, radians(45), far, orthographic(8));
    case 'sideOn':
      return made(up(0.5), 0, 0, far, orthographic(6));
  }
}

/**
 * A 2D camera (canonical right and up, radians) for a subject at a world point on a viewport of so
 * many pixels. `sideScroller`: the subject a third from the left and two thirds down, so that what
 * comes is seen. `pixelPerfect`: the subject on the viewport's middle, whole pixels. Both have a
 * whole zoom, the largest that shows `least` world units across and at least 1.
 */
export function startingCamera2d(
  kind: StartingCamera2d,
  subject: Vec2,
  viewport: { readonly width: number; readonly height: number },
  least: number,
): Camera2d {
  const zoom = Math.max(1, Math.floor(viewport.width / Math.max(least, 1e-9)));
  const whole = (share: number, size: number) => (2 * Math.round(share * size)) / size - 1;
  const anchor: Vec2 =
    kind === 'sideScroller'
      ? [whole(1 / 3, viewport.width), -whole(2 / 3, viewport.height)]
      : [whole(1 / 2, viewport.width), -whole(1 / 2, viewport.height)];
  return { focus: subject, anchor, zoom, rotation: 0 };
}
