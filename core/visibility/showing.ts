import { localBounds, type PlacedBody } from '../bodies/body';
import { worldShape, type WorldShape } from '../bodies/geometry';
import { frameFov, pictureShape, reposed, type CameraFrame } from '../camera/frame';
import { anglesOfBasis, basisOfAngles } from '../camera/orientation';
import { degrees, radians } from '../math/angle';
import { transformPoint } from '../math/mat4';
import { add, addScaled, cross, distance, dot, length, normalize, scale, sub, type Vec3 } from '../math/vec3';
import { apparentSize, distanceForSize } from './size';
import { shapeIsVisible } from './visibility';
import { aheadOf, type Unseen } from './whyNot';

/*
 * The least changes of a camera that bring a body into its frustum, each of one kind: a turn, a step back, a wider
 * picture, a near or far limit, a step closer. Every change is rounded outward to a figure that can be read and typed,
 * and shows the body as it is rounded.
 */

/** A change of a camera that brings a body into its frustum. */
export type ShowingChange =
  /** Turned by an angle (radians) to a yaw and a pitch; the roll is kept. */
  | { readonly kind: 'turn'; readonly angle: number; readonly yaw: number; readonly pitch: number }
  /** Moved against the view direction by a distance. */
  | { readonly kind: 'back'; readonly by: number; readonly eye: Vec3 }
  /** With a larger vertical field of view (radians). */
  | { readonly kind: 'widen'; readonly verticalFov: number }
  /** With a larger picture: its height in world units, of an orthographic camera. */
  | { readonly kind: 'enlarge'; readonly height: number }
  | { readonly kind: 'near'; readonly near: number }
  | { readonly kind: 'far'; readonly far: number }
  /** Moved sideways or upright by a distance, to where a hidden body shows. */
  | { readonly kind: 'step'; readonly direction: 'right' | 'left' | 'up' | 'down'; readonly by: number; readonly eye: Vec3 } // prettier-ignore
  /** Moved towards the body by a distance, to where it is a pixel wide. */
  | { readonly kind: 'closer'; readonly by: number; readonly eye: Vec3 };

/** Angles are rounded up to hundredths of a degree, at least this much beyond the least. */
const margin = 0.002;
/** Distances are at least this share beyond the least. */
const slack = 2e-4;
/** The widest vertical field of view that is proposed. */
const widest = radians(170);

/** The number and a five-thousandth more, so that its rounding elsewhere does not undo it, to four significant figures. */
export function roundOutward(least: number): number {
  const v = least * (1 + slack);
  if (v === 0) return 0;
  const unit = 10 ** (Math.floor(Math.log10(Math.abs(v))) - 3);
  return Number((Math.sign(v) * Math.ceil(Math.abs(v) / unit) * unit).toPrecision(12));
}

/**
 * Returns the least value from which on something holds that holds at `yes` and not at `no`, by bisection, to one part
 * in a million of the interval; the end at which it holds.
 */
export function bisect(no: number, yes: number, holds: (v: number) => boolean, steps = 40): number {
  for (let i = 0; i < steps && Math.abs(yes - no) > 1e-9 * Math.abs(yes); i++) {
    const middle = (no + yes) / 2;
    if (holds(middle)) yes = middle;
    else no = middle;
  }
  return yes;
}

/** A shape with at most some hundred points: those that lie farthest in directions spread over the sphere. */
function outlineOf(shape: WorldShape): WorldShape {
  if (shape.kind === 'sphere' || shape.points.length <= 256) return shape;
  const kept = new Set<Vec3>();
  const count = 200;
  for (let i = 0; i < count; i++) {
    const z = 1 - (2 * i + 1) / count;
    const turn = i * Math.PI * (3 - Math.sqrt(5));
    const way: Vec3 = [Math.sqrt(1 - z * z) * Math.cos(turn), Math.sqrt(1 - z * z) * Math.sin(turn), z];
    let [best, most] = [shape.points[0]!, -Infinity];
    for (const p of shape.points) {
      const along = dot(p, way);
      if (along > most) [best, most] = [p, along];
    }
    kept.add(best);
  }
  return { kind: 'hull', points: [...kept], edges: [] };
}

/** A vector turned about a unit axis (O. Rodrigues, 1840). */
function rotated(v: Vec3, axis: Vec3, angle: number): Vec3 {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return add(add(scale(v, cos), scale(cross(axis, v), sin)), scale(axis, dot(axis, v) * (1 - cos)));
}

/** The least t at which `value` is smallest on an interval where it falls and then rises (golden section). */
function minimise(low: number, high: number, value: (t: number) => number, steps: number): number {
  const ratio = (Math.sqrt(5) - 1) / 2;
  let [a, b] = [low, high];
  let [c, d] = [b - ratio * (b - a), a + ratio * (b - a)];
  let [atC, atD] = [value(c), value(d)];
  for (let i = 0; i < steps; i++)
    if (atC < atD) {
      [b, d, atD] = [d, c, atC];
      c = b - ratio * (b - a);
      atC = value(c);
    } else {
      [a, c, atC] = [c, d, atD];
      d = a + ratio * (b - a);
      atD = value(d);
    }
  return (a + b) / 2;
}

/**
 * The least turn of the view direction, in any direction, after which the body is in the frustum; the roll is kept.
 *
 * The turns that show it are a set in the plane of (angle · direction), nearly convex, with the turn towards the body's
 * middle inside. The nearest point of its boundary to no turn is found by its direction from that middle.
 *
 * @returns null where the turn towards its middle does not show it
 */
function leastTurn(frame: CameraFrame, placed: PlacedBody): ShowingChange | null {
  const shape = worldShape(placed);
  const outline = outlineOf(shape);
  const to = normalize(sub(transformPoint(placed.toWorld, localBounds(placed.body.shape).centre), frame.eye));
  if (!to) return null;
  const { roll } = anglesOfBasis(frame);
  const { forward } = frame;
  const right = normalize(cross(forward, [0, 1, 0])) ?? frame.right;
  const up = cross(right, forward);
  const turnedTo = (angle: number, direction: number) => {
    const way = add(scale(right, Math.cos(direction)), scale(up, Math.sin(direction)));
    const ahead = rotated(forward, cross(forward, way), angle);
    return { yaw: Math.atan2(ahead[0], -ahead[2]), pitch: Math.asin(Math.max(-1, Math.min(1, ahead[1]))) };
  };
  const shows = (angle: number, direction: number, of: WorldShape): boolean => {
    const made = reposed(frame, { basis: basisOfAngles({ ...turnedTo(angle, direction), roll }) });
    return made !== null && shapeIsVisible(made, of);
  };
  const whole = Math.atan2(length(cross(forward, to)), dot(forward, to));
  const towards = Math.atan2(dot(to, up), dot(to, right));
  if (!shows(whole, towards, shape)) return null;
  const [cx, cy] = [whole * Math.cos(towards), whole * Math.sin(towards)];
  const at = (from: number, s: number): readonly [number, number] => {
    const [x, y] = [cx + s * Math.cos(from), cy + s * Math.sin(from)];
    return [Math.hypot(x, y), Math.atan2(y, x)];
  };
  const boundary = (from: number, steps: number): readonly [number, number] => {
    const far = 2 * whole;
    const seen = (s: number) => shows(...at(from, s), outline);
    return at(from, seen(far) ? far : bisect(far, 0, seen, steps));
  };
  const angleAt = (steps: number) => (from: number) => boundary(from, steps)[0];
  const back = towards + Math.PI;
  const samples = Array.from({ length: 25 }, (_, i) => back + ((i - 12) / 12) * (Math.PI / 2) * 0.999);
  const coarse = samples.map(angleAt(14));
  const best = coarse.indexOf(Math.min(...coarse));
  const [low, high] = [samples[Math.max(0, best - 1)]!, samples[Math.min(24, best + 1)]!];
  const [nearest, direction] = boundary(minimise(low, high, angleAt(26), 22), 30);
  const exact = (angle: number) => shows(angle, direction, shape);
  // The outline may lie within the shape by a little: the last step asks the shape itself.
  let reached = nearest;
  for (let i = 0; i < 8 && !exact(reached); i++) reached *= 1 + 1e-5 * 4 ** i;
  const along = exact(reached) ? ([reached, direction] as const) : ([whole, towards] as const);
  const least = bisect(along[0] * 0.9, along[0], (angle) => shows(angle, along[1], shape));
  const rounded = radians(Math.ceil((degrees(least) + margin) * 100) / 100);
  const angle = shows(rounded, along[1], shape) ? rounded : least;
  return { kind: 'turn', angle, ...turnedTo(angle, along[1]) };
}

/** The least distance back along the view direction at which the body is in the frustum; null where none is. */
function leastBack(frame: CameraFrame, shape: WorldShape): ShowingChange | null {
  const eyeAt = (by: number) => addScaled(frame.eye, frame.forward, -by);
  const shows = (by: number) => {
    const made = reposed(frame, { eye: eyeAt(by) });
    return made !== null && shapeIsVisible(made, shape);
  };
  // The eyes that show it are one stretch of the line, the frustum and the shape being convex.
  const [nearest, farthest] = aheadOf(frame, shape);
  const least = Math.max(0, frame.near - farthest);
  const most = frame.far === null ? 1e4 * (Math.abs(nearest) + frame.near) : frame.far - nearest;
  if (!(most > least)) return null;
  const steps = 200;
  const stretch = (i: number) => least + (most - least) * (i / steps) ** 2;
  for (let i = 0; i <= steps; i++) {
    if (!shows(stretch(i))) continue;
    const by = roundOutward(bisect(i ? stretch(i - 1) : 0, stretch(i), shows));
    return shows(by) && by > 0 ? { kind: 'back', by, eye: eyeAt(by) } : null;
  }
  return null;
}

/** The least larger picture that has the body in the frustum; null where the widest has not. */
function leastWiden(frame: CameraFrame, shape: WorldShape): ShowingChange | null {
  const { left, right, bottom, top } = frame.extents;
  const shows = (k: number) => {
    const made = reposed(frame, { extents: { left: left * k, right: right * k, bottom: bottom * k, top: top * k } });
    return made !== null && shapeIsVisible(made, shape);
  };
  const fov = frameFov(frame);
  const { height } = pictureShape(frame);
  const t = fov === null ? 0 : Math.tan(fov / 2);
  const most = fov === null ? 1e4 : Math.tan(widest / 2) / t;
  if (!(most > 1) || !shows(most)) return null;
  const factor = bisect(1, most, shows);
  if (fov === null) {
    const enlarged = roundOutward(Math.abs(height) * factor);
    return shows(enlarged / Math.abs(height)) ? { kind: 'enlarge', height: enlarged } : null;
  }
  const least = degrees(2 * Math.atan(t * factor));
  const verticalFov = radians(Math.ceil((least + margin) * 100) / 100);
  return verticalFov <= widest ? { kind: 'widen', verticalFov } : null;
}

/** The least far, or the greatest near, that lets the body in; null where the limit alone does not. */
function leastLimit(frame: CameraFrame, shape: WorldShape, end: 'near' | 'far'): ShowingChange | null {
  const [nearest, farthest] = aheadOf(frame, shape);
  const shows = (limit: number) => {
    // Extents are those of near in perspective.
    const k = end === 'near' && frame.kind === 'perspective' ? limit / frame.near : 1;
    const { left, right, bottom, top } = frame.extents;
    const extents = { left: left * k, right: right * k, bottom: bottom * k, top: top * k };
    return shapeIsVisible({ ...frame, [end]: limit, extents }, shape);
  };
  if (end === 'far') {
    const most = farthest * 1.01 + 1e-3;
    if (!shows(most)) return null;
    return { kind: 'far', far: roundOutward(bisect(Math.max(frame.near, nearest * 0.9), most, shows)) };
  }
  const least = frame.kind === 'perspective' ? Math.min(frame.near, farthest) * 1e-4 : nearest - 1;
  if (!(farthest > 0) || !shows(least)) return null;
  const near = bisect(frame.near, least, shows) * (1 - slack);
  const unit = 10 ** (Math.floor(Math.log10(Math.abs(near))) - 3);
  return { kind: 'near', near: Number((Math.floor(near / unit) * unit).toPrecision(12)) };
}

/**
 * The least changes of a camera of space after which something of a body is in its frustum, the one that is asked for
 * most first. Of a body that is too small, how much closer it is a pixel wide. Empty where no such change shows it: a
 * body that is hidden or faces away.
 *
 * @param why - why nothing of the body is seen
 */
export function showingChanges(frame: CameraFrame, placed: PlacedBody, why: Unseen): readonly ShowingChange[] {
  const shape = worldShape(placed);
  const found = (...changes: (ShowingChange | null)[]) => changes.filter((one) => one !== null);
  switch (why.kind) {
    case 'beforeNear':
      return found(leastLimit(frame, shape, 'near'), leastBack(frame, shape));
    case 'pastFar':
      return found(leastLimit(frame, shape, 'far'));
    case 'tooSmall': {
      const { centre, half } = localBounds(placed.body.shape);
      const middle = transformPoint(placed.toWorld, centre);
      const radius = apparentSize(frame, placed).radius;
      const wanted = half.some((v) => v > 0) ? distanceForSize(frame, radius, 1) : null;
      if (wanted === null) return [];
      const by = roundOutward(distance(middle, frame.eye) - wanted);
      return [{ kind: 'closer', by, eye: addScaled(frame.eye, normalize(sub(middle, frame.eye))!, by) }];
    }
    case 'behindEye':
    case 'offPicture':
      return found(leastTurn(frame, placed), leastBack(frame, shape), leastWiden(frame, shape));
    default:
      return [];
  }
}
