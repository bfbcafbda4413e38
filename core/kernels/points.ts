import type { CameraFrame, PlaneName } from '../camera/frame';

/**
 * The bits of an `outside` byte: one a plane that the point strictly violates, and one where it has
 * no picture.
 */
export const outsideBit: Readonly<Record<PlaneName | 'noPicture', number>> = {
  left: 1,
  right: 2,
  bottom: 4,
  top: 8,
  near: 16,
  far: 32,
  noPicture: 64,
};

/** A frame prepared for `projectPoints`. */
export interface PointKernel {
  /**
   * Twenty-four numbers: the eye (0–2); right, up and forward (3–11); near and far (12, 13; the
   * largest double for infinity); clip x = r·[14] + w·[15] and clip y = u·[16] + w·[17]; pixel =
   * [18] + ndc x·[19], [20] + ndc y·[21]; depth = [22] + [23]/f, or [22] + [23]·f in orthographic.
   */
  readonly numbers: Float64Array;
  readonly perspective: boolean;
}

/**
 * The numbers of a frame for `projectPoints`. Pixels are canonical: from the top left, centres at
 * .5; depth 0 at near and 1 at far.
 */
export function pointKernel(frame: CameraFrame): PointKernel {
  const { extents: e, viewport: v, near: n, far: F } = frame;
  const perspective = frame.kind === 'perspective';
  const k = perspective ? n : 1;
  const depth = F === null ? [1, -n] : perspective ? [F / (F - n), (-F * n) / (F - n)] : [-n / (F - n), 1 / (F - n)];
  const [width, height] = [e.right - e.left, e.top - e.bottom];
  return {
    perspective,
    numbers: Float64Array.of(
      ...[...frame.eye, ...frame.right, ...frame.up, ...frame.forward],
      ...[n, F ?? Number.MAX_VALUE],
      ...[(2 * k) / width, -(e.right + e.left) / width, (2 * k) / height, -(e.top + e.bottom) / height],
      ...[v.x + v.width / 2, v.width / 2, v.y + v.height / 2, -v.height / 2],
      ...[depth[0]!, depth[1]!],
    ),
  };
}

/**
 * Many world points at once: what `projectPoint` and `pictureToPixel` give one by one, to rounding.
 *
 * @param kernel  the frame, from `pointKernel`
 * @param points  x, y, z after one another, in canonical world space
 * @param screen receives x, y (canonical pixels) and depth (0 at near, 1 at far) after one another;
 * 0, 0, 0 where there is no picture
 * @param outside receives a byte a point, bits of `outsideBit`; 0 is on screen. `noPicture` is
 * behind the eye or on its plane
 */
export function projectPoints(
  { numbers: k, perspective }: PointKernel,
  points: Float64Array,
  screen: Float64Array,
  outside: Uint8Array,
): void {
  const count = points.length / 3;
  const [ex, ey, ez] = [k[0]!, k[1]!, k[2]!];
  const [rx, ry, rz] = [k[3]!, k[4]!, k[5]!];
  const [ux, uy, uz] = [k[6]!, k[7]!, k[8]!];
  const [fx, fy, fz] = [k[9]!, k[10]!, k[11]!];
  const [near, far] = [k[12]!, k[13]!];
  const [cxr, cxw, cyu, cyw] = [k[14]!, k[15]!, k[16]!, k[17]!];
  const [ox, sx, oy, sy, od, sd] = [k[18]!, k[19]!, k[20]!, k[21]!, k[22]!, k[23]!];
  for (let i = 0, j = 0; i < count; i++, j += 3) {
    const x = points[j]! - ex;
    const y = points[j + 1]! - ey;
    const z = points[j + 2]! - ez;
    const f = x * fx + y * fy + z * fz;
    const w = perspective ? f : 1;
    const cx = (x * rx + y * ry + z * rz) * cxr + w * cxw;
    const cy = (x * ux + y * uy + z * uz) * cyu + w * cyw;
    const seen = w > 0;
    const inverse = seen ? 1 / w : 0;
    screen[j] = seen ? ox + cx * inverse * sx : 0;
    screen[j + 1] = seen ? oy + cy * inverse * sy : 0;
    screen[j + 2] = seen ? od + (perspective ? inverse : f) * sd : 0;
    outside[i] =
      (cx < -w ? 1 : 0) |
      (cx > w ? 2 : 0) |
      (cy < -w ? 4 : 0) |
      (cy > w ? 8 : 0) |
      (f < near ? 16 : 0) |
      (f > far ? 32 : 0) |
      (seen ? 0 : 64);
  }
}
