import { localTransform, type Body, type PlacedBody } from '../bodies/body';
import { invertAffine, multiply, transformPoint } from '../math/mat4';
import { multiplyQuat, quatAbout, rotateByQuat, type Quat } from '../math/quat';
import { add, addScaled, cross, dot, normalize, scale, sub, type Vec3 } from '../math/vec3';
import { onCurve, type Stop } from './path';

/**
 * How a body moves by itself, each in closed form: where it is follows from the time alone, so that
 * there is no frame rate and no step to fall behind. Lengths are world units, times seconds, angles
 * radians; places and directions are in the space of the body's parent (the world without one). At
 * time 0 every body is where it rests.
 */
export type BodyMotion =
  /** Evenly along a straight line, a turn about an axis going with it. */
  | { readonly kind: 'drift'; readonly velocity: Vec3; readonly axis: Vec3; readonly turnRate: number }
  /** Round an axis through a centre, once in a period (a negative one goes the other way round). */
  | {
      readonly kind: 'orbit';
      readonly centre: Vec3;
      readonly axis: Vec3;
      readonly period: number;
      /** Whether it turns with the way, as a vessel does, or keeps its rotation. */
      readonly turns: boolean;
    }
  /** There and back between where it rests and another place, gently at both ends. */
  | { readonly kind: 'shuttle'; readonly to: Vec3; readonly period: number }
  /**
   * To and fro about an axis through a pivot, by so much to either side: small swings of a
   * pendulum.
   */
  | {
      readonly kind: 'swing';
      readonly pivot: Vec3;
      readonly axis: Vec3;
      readonly amplitude: number;
      readonly period: number;
    }
  /**
   * From where it rests through places at times above 0, rising, along a smooth curve; it stands at
   * the last. Where it turns, it is turned about an axis as its way turns.
   */
  | { readonly kind: 'path'; readonly keys: readonly Stop[]; readonly turns: boolean; readonly axis: Vec3 };

/** Where a body stands and how it is turned, in its parent's space. */
export interface Pose {
  readonly position: Vec3;
  readonly rotation: Quat;
}

/**
 * A pose turned by an angle about an axis through a point; unchanged for an axis without length.
 */
function turnedAbout({ position, rotation }: Pose, through: Vec3, axis: Vec3, angle: number, turns: boolean): Pose {
  const unit = normalize(axis);
  if (!unit || angle === 0) return { position, rotation };
  const q = quatAbout(unit, angle);
  return {
    position: add(through, rotateByQuat(q, sub(position, through))),
    rotation: turns ? multiplyQuat(q, rotation) : rotation,
  };
}

/**
 * A moving body's pose (parent space) at a time in seconds, from the pose in which it rests. A
 * period of 0 is no motion. Elementary kinematics: uniform motion, uniform rotation, and the
 * harmonic oscillator's x(t) = A·sin(2πt/T).
 */
export function poseAt(motion: BodyMotion, rest: Pose, time: number): Pose {
  switch (motion.kind) {
    case 'drift': {
      const { velocity, axis, turnRate } = motion;
      const moved = { position: addScaled(rest.position, velocity, time), rotation: rest.rotation };
      return turnedAbout(moved, moved.position, axis, turnRate * time, true);
    }
    case 'orbit': {
      const { centre, axis, period, turns } = motion;
      return turnedAbout(rest, centre, axis, period ? (2 * Math.PI * (time % period)) / period : 0, turns);
    }
    case 'shuttle': {
      const { to, period } = motion;
      const share = period ? (1 - Math.cos((2 * Math.PI * (time % period)) / period)) / 2 : 0;
      // As a blend of the two ends: the far end is reached to the last bit.
      return { ...rest, position: add(scale(rest.position, 1 - share), scale(to, share)) };
    }
    case 'swing': {
      const { pivot, axis, amplitude, period } = motion;
      const angle = period ? amplitude * Math.sin((2 * Math.PI * (time % period)) / period) : 0;
      return turnedAbout(rest, pivot, axis, angle, true);
    }
    case 'path': {
      const { keys, turns, axis } = motion;
      const stops = [{ time: 0, place: rest.position }, ...keys];
      const after = stops.findIndex((stop) => stop.time > time);
      // Past the last it stands as it came there.
      const next = after < 0 ? stops.length - 1 : after;
      if (next === 0 || (time === 0 && after === 1)) return { position: rest.position, rotation: rest.rotation };
      const { time: from } = stops[next - 1]!;
      const t = after < 0 ? 1 : (time - from) / (stops[next]!.time - from);
      const { place, slope } = onCurve(stops, next, t);
      const position = after < 0 ? stops[next]!.place : place;
      const unit = turns ? normalize(axis) : null;
      const angle = unit && turnAbout(unit, onCurve(stops, 1, 0).slope, slope);
      return turnedAbout({ position, rotation: rest.rotation }, position, axis, angle || 0, true);
    }
  }
}

/** The angle about a unit axis that takes one way to another as seen along it; 0 for a way along it or of no length. */
function turnAbout(axis: Vec3, from: Vec3, to: Vec3): number {
  const flat = (v: Vec3) => addScaled(v, axis, -dot(v, axis));
  const [a, b] = [flat(from), flat(to)];
  return Math.atan2(dot(axis, cross(a, b)), dot(a, b));
}

/**
 * Where a point of a body (its own space, the origin if not said) is in world space at each of some
 * times, seconds: the chain of its ancestors is followed, and nothing else. Empty for a body that there
 * is not.
 */
export function courseOf(
  bodies: readonly MovingBody[],
  id: string,
  times: readonly number[],
  point: Vec3 = [0, 0, 0],
): readonly Vec3[] {
  const byId = new Map(bodies.map((body) => [body.id, body]));
  const chain: MovingBody[] = [];
  for (let at: string | null = id; at !== null; at = chain.at(-1)!.parent) {
    const body = byId.get(at);
    if (!body) return [];
    chain.push(body);
  }
  return times.map((time) =>
    chain.reduce<Vec3>(
      (place, body) =>
        transformPoint(localTransform(body.motion ? { ...body, ...poseAt(body.motion, body, time) } : body), place),
      point,
    ),
  );
}

/** A body that may move by itself. */
export interface MovingBody extends Body {
  readonly motion?: BodyMotion | null;
}

/** Whether any of the bodies moves by itself. */
export const anyMoves = (bodies: readonly MovingBody[]): boolean => bodies.some(({ motion }) => motion);

/**
 * Placed bodies (in world space) at a time in seconds: those at rest as they are given, the same
 * objects; those that move, and all that hangs on them, placed anew. `rest` are the same bodies
 * placed at time 0 and in the same order.
 */
export function placedAt(
  bodies: readonly MovingBody[],
  rest: ReadonlyMap<string, PlacedBody>,
  time: number,
): ReadonlyMap<string, PlacedBody> {
  if (time === 0 || !anyMoves(bodies)) return rest;
  const byId = new Map(bodies.map((body) => [body.id, body]));
  const found = new Map<string, PlacedBody>();
  const place = (body: MovingBody, parent: PlacedBody | null): PlacedBody => {
    const standing = rest.get(body.id)!;
    if (!body.motion && (parent === null || parent === rest.get(body.parent!))) return standing;
    const local = localTransform(body.motion ? { ...body, ...poseAt(body.motion, body, time) } : body);
    const toWorld = parent ? multiply(parent.toWorld, local) : local;
    // A rigid motion keeps the scales, so that what could be undone at rest can be undone here.
    const toLocal = invertAffine(toWorld);
    return toLocal ? { body: standing.body, toWorld, toLocal } : standing;
  };
  for (const { id } of bodies) {
    // Up to the first ancestor that stands already, then down: chains may be long.
    const chain: MovingBody[] = [];
    for (let at: string | null = id; at !== null && !found.has(at); at = chain.at(-1)!.parent)
      chain.push(byId.get(at)!);
    for (const body of chain.reverse())
      found.set(body.id, place(body, body.parent === null ? null : found.get(body.parent)!));
  }
  return new Map(bodies.map(({ id }) => [id, found.get(id)!]));
}
