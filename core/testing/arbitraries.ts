import fc from 'fast-check';
import { frameOf, type Camera, type CameraFrame, type Viewport } from '../camera/frame';
import type { Lens, Projection } from '../camera/projection';
import { signedAxes, letterOf, type AxisFrame } from '../conventions/axes';
import type { Conventions } from '../conventions/conventions';
import type { Vec3 } from '../math/vec3';

/**
 * Random cameras, conventions and points for property tests, spread over the whole of what may be
 * asked.
 */

export const real = (min: number, max: number) => fc.double({ min, max, noNaN: true, noDefaultInfinity: true });
/** Numbers spread evenly over their orders of magnitude. */
export const magnitude = (min: number, max: number) => real(Math.log10(min), Math.log10(max)).map((e) => 10 ** e);

export const axisFrames: fc.Arbitrary<AxisFrame> = fc
  .tuple(fc.constantFrom(...signedAxes), fc.constantFrom(...signedAxes), fc.constantFrom(...signedAxes))
  .filter((axes) => new Set(axes.map(letterOf)).size === 3)
  .map(([right, up, forward]) => ({ right, up, forward }));

export const conventions: fc.Arbitrary<Conventions> = fc.record({
  world: axisFrames,
  view: axisFrames,
  ndc: fc
    .tuple(fc.constantFrom('+y' as const, '-y' as const), fc.constantFrom([-1, 1], [0, 1], [1, 0], [1, -1], [-3, 7.5]))
    .map(([up, [near, far]]) => ({ up, near: near!, far: far! })),
  screen: fc.record({
    origin: fc.constantFrom('top-left' as const, 'bottom-left' as const),
    pixelCentre: fc.constantFrom(0 as const, 0.5 as const),
  }),
  matrix: fc.record({
    vectors: fc.constantFrom('column' as const, 'row' as const),
    storage: fc.constantFrom('column-major' as const, 'row-major' as const),
  }),
  angles: fc.record({
    unit: fc.constantFrom('degrees' as const, 'radians' as const),
    yaw: fc.constantFrom('right' as const, 'left' as const),
    pitch: fc.constantFrom('up' as const, 'down' as const),
    roll: fc.constantFrom('right' as const, 'left' as const),
  }),
});

export const viewports: fc.Arbitrary<Viewport> = fc.record({
  x: fc.integer({ min: -200, max: 200 }),
  y: fc.integer({ min: -200, max: 200 }),
  width: fc.integer({ min: 1, max: 4000 }),
  height: fc.integer({ min: 1, max: 4000 }),
});

export const vectors = (size: number): fc.Arbitrary<Vec3> =>
  fc.tuple(real(-size, size), real(-size, size), real(-size, size));

const fov = real(0.05, 2.8);
const lenses: fc.Arbitrary<Lens> = fc.oneof(
  fc.record({ verticalFov: fov }),
  fc.record({ horizontalFov: fov }),
  fc.record({ diagonalFov: fov }),
  fc.record({ focalLength: magnitude(8, 400), sensorHeight: magnitude(4, 60) }),
);
const shift = fc.option(fc.tuple(real(-1.5, 1.5), real(-1.5, 1.5)), { nil: undefined });
const aspect = fc.option(magnitude(0.25, 4), { nil: undefined });
const range = fc.tuple(magnitude(1e-3, 10), magnitude(1.5, 1e6));

export const projections: fc.Arbitrary<Projection> = fc.oneof(
  fc
    .record({ lens: lenses, range, infinite: fc.boolean(), shift, aspect })
    .map(({ lens, range: [near, ratio], infinite, ...rest }) => ({
      kind: 'perspective' as const,
      near,
      far: infinite ? null : near * ratio,
      lens,
      ...rest,
    })),
  fc
    .record({
      size: fc.oneof(fc.record({ height: magnitude(0.1, 1e3) }), fc.record({ width: magnitude(0.1, 1e3) })),
      near: real(0.01, 10),
      depth: magnitude(1, 1e4),
      shift,
      aspect,
    })
    .map(({ near, depth, ...rest }) => ({ kind: 'orthographic' as const, near, far: near + depth, ...rest })),
  fc
    .record({ range, left: real(-2, 2), width: magnitude(0.1, 4), bottom: real(-2, 2), height: magnitude(0.1, 4) })
    .map(({ range: [near, ratio], left, width, bottom, height }) => ({
      kind: 'frustum' as const,
      near,
      far: near * ratio,
      left: left * near,
      right: (left + width) * near,
      bottom: bottom * near,
      top: (bottom + height) * near,
    })),
);

const orientations: fc.Arbitrary<Camera['orientation']> = fc.oneof(
  fc.record({
    kind: fc.constant('angles' as const),
    yaw: real(-Math.PI, Math.PI),
    pitch: real(-1.57, 1.57),
    roll: real(-Math.PI, Math.PI),
  }),
  fc.record({ kind: fc.constant('lookAt' as const), target: vectors(500) }),
);

export const cameras: fc.Arbitrary<Camera> = fc.record({
  position: vectors(200),
  orientation: orientations,
  projection: projections,
});

/** Snapshots of random cameras; those that look along up are left out. */
export const frames: fc.Arbitrary<CameraFrame> = fc
  .tuple(cameras, viewports)
  .map(([camera, viewport]) => frameOf(camera, viewport))
  .filter((frame) => frame.ok)
  .map((frame) => (frame as { ok: true; value: CameraFrame }).value);

/**
 * Positions in the picture, in −1…1, and a share of the way from near to a far that is never
 * infinite.
 */
export const picturePositions = fc.tuple(real(-1, 1), real(-1, 1));
export const shares = real(0, 1);

/**
 * A distance ahead inside the frustum, the same number of orders of magnitude beyond near at any
 * share.
 */
export function aheadAt(frame: CameraFrame, share: number): number {
  const far = frame.far ?? frame.near * 1e5;
  return frame.kind === 'perspective'
    ? frame.near * (far / frame.near) ** share
    : frame.near + (far - frame.near) * share;
}
