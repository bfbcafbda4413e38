import { basisOfAngles, basisOfQuat, quatOfBasis, type Angles, type Basis } from '../camera/orientation';
import { normalizeQuat, type Quat } from '../math/quat';
import { addScaled, scale, sub, type Vec3 } from '../math/vec3';

/**
 * How the way from a key to the next is spread over its time: evenly, or starting and ending
 * gently.
 */
export const eases = ['even', 'gentle', 'gentleStart', 'gentleEnd'] as const;
export type Ease = (typeof eases)[number];

/** Where a camera is to be at a time, in seconds. Keys are in order of time, no two at one time. */
export interface Key extends Angles {
  readonly time: number;
  readonly position: Vec3;
  /** Radians, over the height of the picture. */
  readonly verticalFov: number;
  /** From this key to the next. */
  readonly ease: Ease;
}

export interface PathPlace {
  readonly eye: Vec3;
  readonly basis: Basis;
  readonly verticalFov: number;
}

/** A share of the time as a share of the way: 0 and 1 stay, and it never turns back. */
export function eased(ease: Ease, t: number): number {
  switch (ease) {
    case 'even':
      return t;
    case 'gentle':
      return t * t * (3 - 2 * t);
    case 'gentleStart':
      return t * t;
    case 'gentleEnd':
      return t * (2 - t);
  }
}

/**
 * A camera on its way through keys, a pure function of the time and so of no frame rate; null
 * without keys. Before the first key and after the last it stands there. The eye goes along a curve
 * through all keys, whose direction at a key is that from the one before to the one after (Catmull
 * and Rom 1974, with the spacing of the keys' times); the gaze turns about one axis from key to
 * key, the shorter way round; the field of view changes by its tangent, so that sizes change
 * evenly.
 */
export function alongPath(keys: readonly Key[], time: number): PathPlace | null {
  const first = keys[0];
  if (!first) return null;
  const next = keys.findIndex((key) => key.time > time);
  if (next <= 0) return standing(next === 0 ? first : keys.at(-1)!);
  const [a, b] = [keys[next - 1]!, keys[next]!];
  const t = eased(a.ease, (time - a.time) / (b.time - a.time));
  const { place: eye } = onCurve(keys.map(({ time, position }) => ({ time, place: position })), next, t); // prettier-ignore
  const tangent = (fov: number) => Math.tan(fov / 2);
  return {
    eye,
    basis: basisOfQuat(slerp(quatOf(a), quatOf(b), t)),
    verticalFov: 2 * Math.atan(tangent(a.verticalFov) * (1 - t) + tangent(b.verticalFov) * t),
  };
}

/** A place to be at a time, in seconds. */
export interface Stop {
  readonly time: number;
  readonly place: Vec3;
}

/**
 * The curve through stops between the one before `next` and `next` itself, at a share 0…1 of the
 * way: cubic Hermite, whose direction at a stop is that from the one before to the one after (the
 * one-sided difference at an end). The place, and its slope in units a share of the way.
 */
export function onCurve(stops: readonly Stop[], next: number, t: number): { place: Vec3; slope: Vec3 } {
  const [a, b] = [stops[next - 1]!, stops[next]!];
  const span = b.time - a.time;
  const slope = (before: Stop | undefined, at: Stop, after: Stop | undefined): Vec3 => {
    const [p, q] = [before ?? at, after ?? at];
    return scale(sub(q.place, p.place), span / (q.time - p.time));
  };
  const [m, n] = [slope(stops[next - 2], a, b), slope(a, b, stops[next + 1])];
  const [t2, t3] = [t * t, t * t * t];
  const sum = (...weights: readonly [number, number, number, number]): Vec3 =>
    [a.place, m, b.place, n].reduce<Vec3>((so, v, i) => addScaled(so, v, weights[i]!), [0, 0, 0]);
  return {
    place: sum(2 * t3 - 3 * t2 + 1, t3 - 2 * t2 + t, 3 * t2 - 2 * t3, t3 - t2),
    slope: sum(6 * t2 - 6 * t, 3 * t2 - 4 * t + 1, 6 * t - 6 * t2, 3 * t2 - 2 * t),
  };
}

const standing = (key: Key): PathPlace => ({
  eye: key.position,
  basis: basisOfAngles(key),
  verticalFov: key.verticalFov,
});

const quatOf = (angles: Angles): Quat => quatOfBasis(basisOfAngles(angles));

/**
 * The rotation a share of the way from one to another about one axis, the shorter way round
 * (Shoemake 1985); unit in, unit out.
 */
export function slerp(a: Quat, b: Quat, t: number): Quat {
  const dot = a[0] * b[0] + a[1] * b[1] + a[2] * b[2] + a[3] * b[3];
  const sign = dot < 0 ? -1 : 1;
  // From the chord rather than the cosine: exact for small angles.
  const chord = Math.hypot(...a.map((v, i) => v - sign * b[i]!));
  const angle = 2 * Math.asin(Math.min(1, chord / 2));
  const [p, q] =
    angle < 1e-9 ? [1 - t, t] : [Math.sin((1 - t) * angle) / Math.sin(angle), Math.sin(t * angle) / Math.sin(angle)];
  return normalizeQuat(a.map((v, i) => v * p + sign * b[i]! * q) as unknown as Quat)!;
}
