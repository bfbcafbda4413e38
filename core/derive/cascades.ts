import type { CameraFrame } from '../camera/frame';
import { worldUp, type Basis } from '../camera/orientation';
import { pictureToViewRuf, viewRufToWorld } from '../convert/project';
import { add, cross, dot, length, normalize, scale, type Vec2, type Vec3 } from '../math/vec3';
import type { Read } from '../reasons';
import { allOf, derivedCamera, rejectDerived, type DerivedCamera } from './derivedCamera';
import { leastSphere } from './leastSphere';

/** What shadow cascades are made by. */
export interface CascadeTerms {
  readonly count: number;
  /** The share of the logarithmic split, 0…1; the rest is even. */
  readonly blend: number;
  /** The distance ahead where the last part ends; far by default. */
  readonly to?: number | undefined;
  /** The direction in which the light travels, canonical world space. */
  readonly light: Vec3;
  /** Texels along a side of the shadow map. */
  readonly mapSize: number;
  readonly fit: 'box' | 'sphere';
}

/**
 * Returns the distances ahead that divide a range into parts: a blend of logarithmic and even splits.
 *
 * @returns count + 1 distances; the first and the last are the ends to the bit
 * @see Zhang et al., Parallel-split shadow maps for large-scale virtual environments, 2006
 */
export function cascadeSplits(near: number, to: number, count: number, blend: number): readonly number[] {
  return Array.from({ length: count + 1 }, (_, i) => {
    if (i === 0) return near;
    if (i === count) return to;
    const even = near + ((to - near) * i) / count;
    // An even split alone serves a near distance of 0 and less.
    return blend === 0 ? even : blend * near * (to / near) ** (i / count) + (1 - blend) * even;
  });
}

/** Returns the axes of a light: its direction ahead, the world's up as far as it is not along the light. */
export function lightBasis(light: Vec3): Basis | null {
  const forward = normalize(light);
  if (!forward) return null;
  const isUpright = length(cross(forward, worldUp)) >= 1e-3;
  const right = normalize(cross(forward, isUpright ? worldUp : [0, 0, -1]))!;
  return { right, up: cross(right, forward), forward };
}

/** Returns the eight corners of the part of a frustum between two distances ahead, in canonical world space. */
export const partCorners = (frame: CameraFrame, [from, to]: Vec2): readonly Vec3[] =>
  [from, to].flatMap((ahead) =>
    [-1, 1].flatMap((across) =>
      [-1, 1].map((upward) => viewRufToWorld(frame, pictureToViewRuf(frame, across, upward, ahead))),
    ),
  );

/** A box in light axes: its middle to the right and up, its half sides, and its ends ahead. */
interface LightBox {
  readonly middle: Vec2;
  readonly half: Vec2;
  readonly ahead: Vec2;
}

/** Returns the least box in light axes that holds some points. */
function boxAround(points: readonly Vec3[], { right, up, forward }: Basis): LightBox {
  const range = (axis: Vec3): Vec2 => {
    const along = points.map((p) => dot(axis, p));
    return [Math.min(...along), Math.max(...along)];
  };
  const [x, y] = [range(right), range(up)];
  return {
    middle: [(x[0] + x[1]) / 2, (y[0] + y[1]) / 2],
    half: [(x[1] - x[0]) / 2, (y[1] - y[0]) / 2],
    ahead: range(forward),
  };
}

/**
 * Returns the box of the least sphere about some points, its middle snapped to whole texels. The box is wider than the
 * sphere by one texel, so that snapping leaves the sphere inside.
 */
function boxOfSphere(points: readonly Vec3[], { right, up, forward }: Basis, mapSize: number): LightBox {
  const { centre, radius } = leastSphere(points)!;
  const half = (radius * mapSize) / (mapSize - 1);
  const texel = (2 * half) / mapSize;
  const snapped = (axis: Vec3) => Math.floor(dot(axis, centre) / texel + 0.5) * texel;
  const ahead = dot(forward, centre);
  return { middle: [snapped(right), snapped(up)], half: [half, half], ahead: [ahead - radius, ahead + radius] };
}

/**
 * Returns the orthographic light cameras of shadow cascades, nearest part first. The eye of each is in the middle of the
 * near face of its box: near is 0, far the depth.
 *
 * @returns `toMissing` for an infinite far without `to`, `farNotBeyondNear` when `to` is not beyond near,
 *   `nearNotPositive` for a logarithmic split from a near that is not above 0
 * @see docs/derivations.md, "Shadow cascades"
 */
export function cascadeCameras(frame: CameraFrame, terms: CascadeTerms): Read<readonly DerivedCamera[]> {
  const { near, far } = frame;
  const to = terms.to ?? far;
  if (to === null)
    return rejectDerived('toMissing', 'to is missing: far is infinite, so say at which distance the last part ends.');
  if (!(to > near)) return rejectDerived('farNotBeyondNear', `to is ${to} and near is ${near}. Set to beyond near.`);
  if (terms.blend > 0 && !(near > 0))
    return rejectDerived(
      'nearNotPositive',
      `near is ${near}. A logarithmic split needs a near above 0. Set blend to 0 or near above 0.`,
    );
  const basis = lightBasis(terms.light);
  if (!basis) return rejectDerived('outOfRange', 'light has no length. Give the direction in which the light travels.');
  const splits = cascadeSplits(near, to, terms.count, terms.blend);
  return allOf(
    splits.slice(1).map((end, i) => {
      const split: Vec2 = [splits[i]!, end];
      const corners = partCorners(frame, split);
      const box = terms.fit === 'box' ? boxAround(corners, basis) : boxOfSphere(corners, basis, terms.mapSize);
      const [x, y] = box.half;
      const eye = add(
        add(scale(basis.right, box.middle[0]), scale(basis.up, box.middle[1])),
        scale(basis.forward, box.ahead[0]),
      );
      return derivedCamera(
        `cascade ${i + 1}`,
        {
          basis,
          lens: {
            kind: 'orthographic',
            near: 0,
            far: box.ahead[1] - box.ahead[0],
            extents: { left: -x, right: x, bottom: -y, top: y },
          },
          eye,
          viewport: frame.viewport,
        },
        { split },
      );
    }),
  );
}
