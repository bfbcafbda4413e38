import { tidyDegrees } from '../math/angle';
import type { Checked, ErrorCode, Problem } from '../reasons';

/**
 * How wide a perspective camera sees. Angles in radians over the whole picture, lengths in any one
 * unit.
 */
export type Lens =
  | { readonly verticalFov: number }
  | { readonly horizontalFov: number }
  | { readonly diagonalFov: number }
  | { readonly focalLength: number; readonly sensorHeight: number };

interface Shaped {
  /** Width over height of the picture; the viewport's when absent. */
  readonly aspect?: number;
  /** Lens shift in half widths and half heights of the picture. */
  readonly shift?: readonly [number, number];
}

/** Distances ahead of the eye in world units; `far: null` is infinity. */
export type Projection =
  | ({
      readonly kind: 'perspective';
      readonly near: number;
      readonly far: number | null;
      readonly lens: Lens;
    } & Shaped)
  | ({
      readonly kind: 'orthographic';
      readonly near: number;
      readonly far: number;
      readonly size: { readonly height: number } | { readonly width: number };
    } & Shaped)
  | ({ readonly kind: 'frustum'; readonly near: number; readonly far: number | null } & Extents);

/**
 * Where the picture's edges lie, to the right of and above the optical axis: on the near plane in
 * perspective, at any depth in orthographic.
 */
export interface Extents {
  readonly left: number;
  readonly right: number;
  readonly bottom: number;
  readonly top: number;
}

/** What the depth of a projection follows from. */
export type DepthRange =
  | { readonly kind: 'perspective'; readonly near: number; readonly far: number | null }
  | { readonly kind: 'orthographic'; readonly near: number; readonly far: number };

/** A projection reduced to what the mapping needs. */
export type ResolvedProjection = DepthRange & { readonly extents: Extents };

/**
 * Half the picture's height over the distance, of a lens in front of a picture of the given aspect.
 */
function halfHeightPerDistance(lens: Lens, aspect: number): number {
  if ('verticalFov' in lens) return Math.tan(lens.verticalFov / 2);
  if ('horizontalFov' in lens) return Math.tan(lens.horizontalFov / 2) / aspect;
  if ('diagonalFov' in lens) return Math.tan(lens.diagonalFov / 2) / Math.hypot(1, aspect);
  return lens.sensorHeight / (2 * lens.focalLength);
}

/**
 * The vertical field of view, in radians, of a lens in any of its forms, for a picture of the given
 * aspect. Its inverse is `lensForms`.
 */
export const verticalFovOf = (lens: Lens, aspect: number): number => 2 * Math.atan(halfHeightPerDistance(lens, aspect));

/**
 * Every form in which a lens can be said. Angles in radians; the focal length in the unit of the
 * sensor's height.
 */
export interface LensForms {
  readonly verticalFov: number;
  readonly horizontalFov: number;
  readonly diagonalFov: number;
  readonly focalLength: number;
}

/**
 * A vertical field of view, said in every form, for a picture of the given aspect and a sensor of
 * the given height.
 */
export function lensForms(verticalFov: number, aspect: number, sensorHeight: number): LensForms {
  const half = Math.tan(verticalFov / 2);
  return {
    verticalFov,
    horizontalFov: 2 * Math.atan(half * aspect),
    diagonalFov: 2 * Math.atan(half * Math.hypot(1, aspect)),
    focalLength: sensorHeight / (2 * half),
  };
}

/** What the numbers of a lens are called in sentences. */
const formNames = {
  verticalFov: 'vertical field of view',
  horizontalFov: 'horizontal field of view',
  diagonalFov: 'diagonal field of view',
  focalLength: 'focal length',
  sensorHeight: 'sensor’s height',
};

/** The whole angle, in radians, over which an extent of `size` at distance `near` is seen. */
export const fieldOfView = (size: number, near: number): number => 2 * Math.atan(size / (2 * near));

/**
 * Suggests a near distance for a perspective camera whose near is not above 0.
 *
 * @param far - distance to the far plane in scene units; null for infinity
 * @returns a thousandth of far, at most 0.1
 */
export const suggestedNear = (far: number | null): number =>
  far !== null && far > 0 ? Math.min(0.1, far / 1000) : 0.1;

/**
 * Extents, near and far of any form of projection, for a viewport of the given aspect (width over
 * height); or what is wrong with it (paths below `projection`). Mirrored extents are answered with
 * a warning.
 */
export function resolveProjection(projection: Projection, viewportAspect: number): Checked<ResolvedProjection> {
  const problems: Problem[] = [];
  const warnings: Problem[] = [];
  const report = (field: string, message: string, code?: ErrorCode) =>
    problems.push({ path: `projection.${field}`, message, ...(code && { code }) });

  const { near, far } = projection;
  if (projection.kind !== 'orthographic' && !(near > 0))
    report(
      'near',
      `near is ${near}; in perspective the near plane lies ahead of the eye, so it must be above 0. Try ${suggestedNear(far)}.`,
      'nearNotPositive',
    );
  if (far !== null && !(far > near))
    report(
      'far',
      `far is ${far} and near is ${near}; far must be beyond near. Exchange them or raise far.`,
      'farNotBeyondNear',
    );

  if (projection.kind === 'frustum') {
    const { left, right, bottom, top } = projection;
    if (left === right) report('right', `left and right are both ${left}, so the picture has no width. Move one.`);
    if (bottom === top) report('top', `bottom and top are both ${bottom}, so the picture has no height. Move one.`);
    if (left > right)
      warnings.push({ path: 'projection.left', message: 'left is beyond right: the picture is mirrored across.' });
    if (bottom > top)
      warnings.push({ path: 'projection.bottom', message: 'bottom is above top: the picture is upside down.' });
    if (problems.length) return { ok: false, problems };
    return { ok: true, warnings, value: { kind: 'perspective', near, far, extents: { left, right, bottom, top } } };
  }

  const aspect = projection.aspect ?? viewportAspect;
  // Below 0 the picture is mirrored across, as with a frustum whose left is beyond right.
  const isMirrored = projection.kind === 'orthographic' && aspect < 0;
  if (isMirrored) warnings.push({ path: 'projection.aspect', message: 'aspect is below 0: the picture is mirrored.' });
  else if (!(aspect > 0)) report('aspect', `aspect is ${aspect}; width over height must be above 0.`);
  let halfHeight: number;
  if (projection.kind === 'perspective') {
    const { lens } = projection;
    for (const [field, value] of Object.entries(lens) as [string, number][])
      if (field.endsWith('Fov')) {
        if (!(value > 0 && value < Math.PI))
          report(
            field,
            `The ${formNames[field as keyof typeof formNames]} is ${tidyDegrees(value)}°; it must lie between 0° and 180°, both excluded.`,
            'fovOutOfRange',
          );
      } else if (!(value > 0))
        report(
          field,
          `The ${formNames[field as keyof typeof formNames]} is ${value}; it must be above 0.`,
          'fovOutOfRange',
        );
    halfHeight = halfHeightPerDistance(lens, aspect) * near;
  } else {
    const [[field, value]] = Object.entries(projection.size) as [[string, number]];
    if (!(value > 0)) report(field, `The picture’s ${field} is ${value}; it must be above 0.`);
    halfHeight = 'height' in projection.size ? value / 2 : value / 2 / aspect;
  }
  const halfWidth = halfHeight * aspect;
  const isUsable = Number.isFinite(halfWidth) && Math.abs(halfWidth) > 0 && Math.abs(halfHeight) > 0;
  if (!problems.length && !isUsable)
    report('aspect', 'The picture’s extents on the near plane are too small or too large for doubles.');
  if (problems.length) return { ok: false, problems };

  const [shiftRight, shiftUp] = projection.shift ?? [0, 0];
  const extents: Extents = {
    left: halfWidth * (shiftRight - 1),
    right: halfWidth * (shiftRight + 1),
    bottom: halfHeight * (shiftUp - 1),
    top: halfHeight * (shiftUp + 1),
  };
  return {
    ok: true,
    warnings,
    value:
      projection.kind === 'perspective'
        ? { kind: 'perspective', near, far, extents }
        : { kind: 'orthographic', near, far: projection.far, extents },
  };
}
