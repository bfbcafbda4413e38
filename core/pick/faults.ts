import { reposed, type CameraFrame } from '../camera/frame';
import { anglesOfBasis, basisOfAngles, type Angles } from '../camera/orientation';
import { compareRays } from '../convert/compare';
import { pixelToPicture, rayThrough, worldToPixel, type Ray } from '../convert/project';
import { addScaled, type Vec2, type Vec3 } from '../math/vec3';
import type { Answer } from '../reasons';

/*
 * Rays made from another source than the camera that drew the picture: the faults of picking, each
 * with what it is off by.
 */

/** What a ray is made from in the place of the camera that drew the picture and of the pixel's middle. */
export const rayFaults = [
  'shakeLeftOut',
  'recoilLeftOut',
  'frameBefore',
  'otherAspect',
  'shiftLeftOut',
  'halfLeftOut',
  'otherEdge',
  'devicePixels',
] as const;
export type RayFault = (typeof rayFaults)[number];

/** What is in the picture's camera and not in the one that the ray is made from. Angles in radians. */
export interface FaultTerms {
  /** The shake that is in the picture: angles, and an offset along the camera's right and up in world units. */
  readonly shake: { readonly angles: Angles; readonly offset: Vec2 };
  /** The pitch of a recoil that is in the picture. */
  readonly recoil: number;
  /** Of yaw, a second. */
  readonly turnRate: number;
  /** World units a second. */
  readonly velocity: Vec3;
  /** Seconds between two frames. */
  readonly frameTime: number;
  /** Width over height of the other screen. */
  readonly aspect: number;
  readonly devicePixelRatio: number;
}

/**
 * The camera and the pixel (canonical, top left, centres at .5) that a fault makes the ray from.
 * Null where the fault has no meaning for the camera: angles of a flat one, whose `flat` is true,
 * and what leaves the range of doubles.
 */
export function faultySource(
  frame: CameraFrame,
  pixel: Vec2,
  fault: RayFault,
  terms: FaultTerms,
  flat = false,
): { readonly frame: CameraFrame; readonly pixel: Vec2 } | null {
  const { extents: e, viewport: v } = frame;
  const turned = (by: Angles, eye: Vec3) => {
    const own = anglesOfBasis(frame);
    // A flat camera turns about its gaze alone.
    const basis = flat
      ? rolled(frame, by.roll)
      : basisOfAngles({ yaw: own.yaw - by.yaw, pitch: own.pitch - by.pitch, roll: own.roll - by.roll });
    const made = reposed(frame, { eye, basis });
    return made && { frame: made, pixel };
  };
  const wide = (half: number, middle: number) => {
    const made = reposed(frame, { extents: { ...e, left: middle - half, right: middle + half } });
    return made && { frame: made, pixel };
  };
  switch (fault) {
    case 'shakeLeftOut': {
      const { angles, offset } = terms.shake;
      const eye = addScaled(addScaled(frame.eye, frame.right, -offset[0]), frame.up, -offset[1]);
      return turned(angles, eye);
    }
    case 'recoilLeftOut':
      return flat ? null : turned({ yaw: 0, pitch: terms.recoil, roll: 0 }, frame.eye);
    case 'frameBefore':
      return turned(
        { yaw: flat ? 0 : terms.turnRate * terms.frameTime, pitch: 0, roll: 0 },
        addScaled(frame.eye, terms.velocity, -terms.frameTime),
      );
    case 'otherAspect':
      return wide(((e.top - e.bottom) * terms.aspect) / 2, (e.left + e.right) / 2);
    case 'shiftLeftOut': {
      if (flat) return null;
      const [w, h] = [(e.right - e.left) / 2, (e.top - e.bottom) / 2];
      const made = reposed(frame, { extents: { left: -w, right: w, bottom: -h, top: h } });
      return made && { frame: made, pixel };
    }
    case 'halfLeftOut':
      return { frame, pixel: [pixel[0] - 0.5, pixel[1] - 0.5] };
    case 'otherEdge':
      return { frame, pixel: [pixel[0], 2 * v.y + v.height - pixel[1]] };
    case 'devicePixels':
      return {
        frame,
        pixel: [v.x + (pixel[0] - v.x) * terms.devicePixelRatio, v.y + (pixel[1] - v.y) * terms.devicePixelRatio],
      };
  }
}

/** A basis turned back about its own gaze. */
function rolled({ right, up, forward }: CameraFrame, by: number) {
  const [cos, sin] = [Math.cos(by), Math.sin(by)];
  const mix = (a: Vec3, b: Vec3, p: number, q: number): Vec3 => [
    a[0] * p + b[0] * q,
    a[1] * p + b[1] * q,
    a[2] * p + b[2] * q,
  ];
  return { right: mix(right, up, cos, sin), up: mix(up, right, cos, -sin), forward };
}

/** How far a faulty ray goes wrong. */
export interface FaultError {
  readonly ray: Ray;
  /** Between the two rays, radians. */
  readonly angle: number;
  /** World units between their points at the range. */
  readonly miss: number;
  /** The faulty ray's point at the range. */
  readonly point: Vec3;
  /** Where the picture shows that point, and that less the pixel; no answer where it has no place there. */
  readonly shown: Answer<Vec2>;
  readonly error: Vec2 | null;
}

/**
 * What a fault is off by at a range along each ray (the target's): the numbers of `compareCameras`
 * for the faults of another camera, and the same for those of another pixel. Null where it has no
 * meaning (`faultySource`).
 */
export function faultError(
  frame: CameraFrame,
  pixel: Vec2,
  fault: RayFault,
  terms: FaultTerms,
  range: number,
  flat = false,
): FaultError | null {
  const source = faultySource(frame, pixel, fault, terms, flat);
  if (!source) return null;
  const right = rayThrough(frame, ...pixelToPicture(frame, pixel));
  const ray = rayThrough(source.frame, ...pixelToPicture(source.frame, source.pixel));
  const { angle, miss, point } = compareRays(right, ray, range);
  const shown = worldToPixel(frame, point);
  return {
    ...{ ray, angle, miss, point, shown },
    error: shown.ok ? [shown.value[0] - pixel[0], shown.value[1] - pixel[1]] : null,
  };
}
