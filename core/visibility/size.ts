import { boundingSphere, localBounds, type PlacedBody } from '../bodies/body';
import type { CameraFrame } from '../camera/frame';
import { pixelsPerUnit, projectPoint, worldToViewRuf } from '../convert/project';
import { transformPoint } from '../math/mat4';
import { distance, dot, type Vec3 } from '../math/vec3';
import { viewRufPlanes } from '../camera/frame';
import { answer, noAnswer, type Answer } from '../reasons';
import { visibility } from './visibility';

/** How large a body's bounding sphere appears. */
export interface ApparentSize {
  /** Of the sphere's centre. */
  readonly ahead: number;
  readonly radius: number;
  /** Pixels, as if it stood on the optical axis at its distance; `eyeInside` within it. */
  readonly diameter: Answer<number>;
}

/** Pixels that one world unit spans vertically at ahead 1. */
const pixelsAtOne = ({ near, extents: e, viewport }: CameraFrame): number => (viewport.height / Math.abs(e.top - e.bottom)) * near; // prettier-ignore

/**
 * The size in the picture of a body's bounding sphere (a sphere's own, otherwise about the middle of
 * its local box), whichever way the camera looks: 2·K·r/√(d² − r²) at the distance d of its centre
 * from the eye, K pixels per unit at ahead 1: the tangents to it make the angle 2·asin(r/d). In
 * orthographic twice its radius times pixels per unit.
 */
export function apparentSize(frame: CameraFrame, placed: PlacedBody, flat = false): ApparentSize {
  const { centre, radius } = boundingSphere(placed, flat);
  return sphereSize(frame, centre, radius);
}

/** The same of a sphere in canonical world space. */
export function sphereSize(frame: CameraFrame, centre: Vec3, radius: number): ApparentSize {
  const ahead = worldToViewRuf(frame, centre)[2];
  if (frame.kind === 'orthographic') return { ahead, radius, diameter: answer(2 * radius * Math.abs(pixelsPerUnit(frame, ahead)[1])) }; // prettier-ignore
  const d = distance(centre, frame.eye);
  if (d <= radius) return { ahead, radius, diameter: noAnswer('eyeInside') };
  return {
    ahead,
    radius,
    diameter: answer((2 * pixelsAtOne(frame) * radius) / Math.sqrt((d - radius) * (d + radius))),
  };
}

/**
 * Tells whether all of a sphere is behind a perspective camera, where it has no picture: its diameter is then
 * the one it would have if the camera turned to it.
 */
export const isBehind = (frame: CameraFrame, { ahead, radius }: ApparentSize): boolean =>
  frame.kind === 'perspective' && ahead <= -radius;

/**
 * The distance at which a sphere's diameter is just so many pixels (above 0): r·√(1 + (2K/t)²). Null
 * in orthographic, where no distance changes a size.
 */
export const distanceForSize = (frame: CameraFrame, radius: number, pixels: number): number | null =>
  frame.kind === 'orthographic' ? null : radius * Math.hypot(1, (2 * pixelsAtOne(frame)) / pixels);

/** The customary shortcuts for whether a body is seen. */
export type SeenBy = 'centre' | 'corners' | { readonly sphere: number };

export interface SeenVerdict {
  readonly body: string;
  /** What the shortcut says, and what is so: the exact test, crossing counted in. */
  readonly seen: boolean;
  readonly truth: boolean;
  readonly verdict: 'right' | 'missed' | 'false alarm';
}

/** The corners of a body's local box in the world; a sphere's touches it all round. */
export function boxCorners({ body, toWorld }: PlacedBody, flat = false): Vec3[] {
  const { centre: c, half: h } = localBounds(body.shape);
  const sides = [-1, 1];
  return sides.flatMap((x) =>
    sides.flatMap((y) =>
      (flat ? [0] : sides).map((z) =>
        transformPoint(toWorld, [c[0] + x * h[0], c[1] + y * h[1], flat ? 0 : c[2] + z * h[2]]),
      ),
    ),
  );
}

/**
 * What a shortcut says of bodies against what is so. `centre`: the middle of the bounding sphere is
 * on the screen; `corners`: one of the local box is; `sphere`: that of so many times the bounding
 * radius is not wholly outside a plane. On the screen is outside none of the planes; a flat world
 * has no near and far.
 */
export function visibilityBy(
  frame: CameraFrame,
  bodies: readonly PlacedBody[],
  test: SeenBy,
  flat = false,
): SeenVerdict[] {
  const counts = ({ name }: { name: string }) => !flat || (name !== 'near' && name !== 'far');
  const planes = viewRufPlanes(frame).filter(counts);
  const onScreen = (p: Vec3) => !projectPoint(frame, p).outside.some((name) => counts({ name }));
  const truths = visibility(frame, bodies, { method: 'exact', flat });
  return bodies.map((placed, i): SeenVerdict => {
    const { centre, radius } = boundingSphere(placed, flat);
    let seen: boolean;
    if (test === 'centre') seen = onScreen(centre);
    else if (test === 'corners') seen = boxCorners(placed, flat).some(onScreen);
    else {
      const at = worldToViewRuf(frame, centre);
      seen = planes.every(({ normal, offset }) => dot(normal, at) + offset >= -test.sphere * radius);
    }
    const truth = truths[i]!.verdict !== 'outside';
    return { body: placed.body.id, seen, truth, verdict: seen === truth ? 'right' : truth ? 'missed' : 'false alarm' };
  });
}
