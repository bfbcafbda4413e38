import type { Vec3, Vec4 } from './vec3';

/** A rotation as (x, y, z, w), w the cosine of half the angle; q and −q are the same rotation. */
export type Quat = Vec4;

/** The unit quaternion along `q`, or null when its length is 0 or not finite. */
export function normalizeQuat(q: Quat): Quat | null {
  const largest = Math.max(...q.map(Math.abs));
  if (!(largest > 0) || !Number.isFinite(largest)) return null;
  const s = q.map((v) => v / largest) as unknown as Quat;
  const n = Math.hypot(...s);
  return [s[0] / n, s[1] / n, s[2] / n, s[3] / n];
}

/** The columns of the rotation matrix of a unit quaternion (Shoemake 1985, eq. 1). */
export function quatToColumns([x, y, z, w]: Quat): [Vec3, Vec3, Vec3] {
  return [
    [1 - 2 * (y * y + z * z), 2 * (x * y + z * w), 2 * (x * z - y * w)],
    [2 * (x * y - z * w), 1 - 2 * (x * x + z * z), 2 * (y * z + x * w)],
    [2 * (x * z + y * w), 2 * (y * z - x * w), 1 - 2 * (x * x + y * y)],
  ];
}

/**
 * The unit quaternion of a rotation matrix given by its columns, w ≥ 0. The largest of the four
 * parts is found first and divides the rest, so that no angle is ill conditioned (Shepperd 1978).
 */
export function columnsToQuat(cx: Vec3, cy: Vec3, cz: Vec3): Quat {
  const [m00, m10, m20] = cx;
  const [m01, m11, m21] = cy;
  const [m02, m12, m22] = cz;
  const trace = m00 + m11 + m22;
  const largest = Math.max(trace, m00, m11, m22);
  let q: [number, number, number, number];
  if (largest === trace) q = [m21 - m12, m02 - m20, m10 - m01, 1 + trace];
  else if (largest === m00) q = [1 + m00 - m11 - m22, m10 + m01, m02 + m20, m21 - m12];
  else if (largest === m11) q = [m10 + m01, 1 + m11 - m00 - m22, m21 + m12, m02 - m20];
  else q = [m02 + m20, m21 + m12, 1 + m22 - m00 - m11, m10 - m01];
  const n = Math.hypot(...q) * (q[3] < 0 ? -1 : 1);
  return [q[0] / n, q[1] / n, q[2] / n, q[3] / n];
}

/** The inverse of a unit quaternion. */
export const conjugate = ([x, y, z, w]: Quat): Quat => [-x, -y, -z, w];

/** The rotation that turns first by `b`, then by `a`. */
export const multiplyQuat = ([ax, ay, az, aw]: Quat, [bx, by, bz, bw]: Quat): Quat => [
  aw * bx + ax * bw + ay * bz - az * by,
  aw * by - ax * bz + ay * bw + az * bx,
  aw * bz + ax * by - ay * bx + az * bw,
  aw * bw - ax * bx - ay * by - az * bz,
];

/**
 * The rotation about a unit axis by an angle in radians, counter-clockwise seen from the axis's tip
 * in a right-handed space.
 */
export function quatAbout([x, y, z]: Vec3, angle: number): Quat {
  const s = Math.sin(angle / 2);
  return [x * s, y * s, z * s, Math.cos(angle / 2)];
}

/**
 * A vector turned by a unit quaternion: v + 2w(q × v) + 2q × (q × v), the same space in and out.
 */
export function rotateByQuat([x, y, z, w]: Quat, v: Vec3): Vec3 {
  const [tx, ty, tz] = [2 * (y * v[2] - z * v[1]), 2 * (z * v[0] - x * v[2]), 2 * (x * v[1] - y * v[0])];
  return [v[0] + w * tx + y * tz - z * ty, v[1] + w * ty + z * tx - x * tz, v[2] + w * tz + x * ty - y * tx];
}
