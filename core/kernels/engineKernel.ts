import type { CameraFrame } from '../camera/frame';
import type { ConventionCodec } from '../conventions/codec';
import type { Vec3 } from '../math/vec3';
import { pointKernel, type PointKernel } from './points';
import { planeKernel } from './spheres';

/*
 * Kernels in an engine's own conventions. Axes are signed permutations, and pixels and depths are linear in the
 * canonical ones, so all conventions fold into the numbers of the kernel and cost nothing per point.
 */

/**
 * Returns the numbers of a 3D frame for `projectPoints` in the conventions of a codec: points in its world axes, pixels
 * and depths as it has them.
 */
export function enginePointKernel(frame: CameraFrame, codec: ConventionCodec): PointKernel {
  const { numbers, perspective } = pointKernel(frame);
  const own = Float64Array.from(numbers);
  [frame.eye, frame.right, frame.up, frame.forward].forEach((v, i) => own.set(codec.toWorld(v), 3 * i));
  const [middle, corner] = [codec.toScreen(frame.viewport, 0, 0), codec.toScreen(frame.viewport, 1, 1)];
  own.set([middle[0], corner[0] - middle[0], middle[1], corner[1] - middle[1]], 18);
  const [atNear, atFar] = [codec.toDepth({ near: 1, far: 0 }), codec.toDepth({ near: 0, far: 1 })];
  own.set([atNear + (atFar - atNear) * numbers[22]!, (atFar - atNear) * numbers[23]!], 22);
  return { numbers: own, perspective };
}

/** Returns the planes of a frame for `classifySpheres`, in the world axes of a codec. */
export function enginePlaneKernel(frame: CameraFrame, codec: ConventionCodec): Float64Array {
  const planes = planeKernel(frame);
  for (let i = 0; i < planes.length; i += 4) {
    const normal: Vec3 = [planes[i]!, planes[i + 1]!, planes[i + 2]!];
    planes.set(codec.toWorld(normal), i);
  }
  return planes;
}

/**
 * Converts pixels with depths to world points, the inverse of `projectPoints`.
 *
 * @param kernel - the frame, from `pointKernel` or `enginePointKernel`
 * @param screen - x, y and depth after one another, as `projectPoints` writes them
 * @param points - receives x, y, z after one another; NaN where the depth is at infinity or behind the eye
 */
export function unprojectPoints(
  { numbers: k, perspective }: PointKernel,
  screen: Float64Array,
  points: Float64Array,
): void {
  // prettier-ignore
  for (let j = 0; j + 2 < screen.length; j += 3) {
    const depth = screen[j + 2]!;
    const ahead = perspective ? k[23]! / (depth - k[22]!) : (depth - k[22]!) / k[23]!;
    const isVisible = Number.isFinite(ahead) && (!perspective || ahead > 0);
    const w = perspective ? ahead : 1;
    const right = (w * ((screen[j]! - k[18]!) / k[19]! - k[15]!)) / k[14]!;
    const up = (w * ((screen[j + 1]! - k[20]!) / k[21]! - k[17]!)) / k[16]!;
    for (let i = 0; i < 3; i++)
      points[j + i] = isVisible ? k[i]! + right * k[3 + i]! + up * k[6 + i]! + ahead * k[9 + i]! : NaN;
  }
}

/**
 * Computes the rays of pixels.
 *
 * @param kernel - the frame, from `pointKernel` or `enginePointKernel`
 * @param pixels - x, y after one another
 * @param rays - receives six numbers a pixel: an origin (the eye; in orthographic the pixel's point of the eye plane) and
 *   a direction of length 1
 */
export function pixelRays({ numbers: k, perspective }: PointKernel, pixels: Float64Array, rays: Float64Array): void {
  for (let p = 0, j = 0; p + 1 < pixels.length; p += 2, j += 6) {
    const right = ((pixels[p]! - k[18]!) / k[19]! - k[15]!) / k[14]!;
    const up = ((pixels[p + 1]! - k[20]!) / k[21]! - k[17]!) / k[16]!;
    const length = perspective ? Math.sqrt(right * right + up * up + 1) : 1;
    for (let i = 0; i < 3; i++) {
      const across = right * k[3 + i]! + up * k[6 + i]!;
      rays[j + i] = k[i]! + (perspective ? 0 : across);
      rays[j + 3 + i] = ((perspective ? across : 0) + k[9 + i]!) / length;
    }
  }
}
