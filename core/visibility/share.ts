import type { PlacedBody } from '../bodies/body';
import { triangulate } from '../bodies/mesh';
import { viewRufPlanes, type CameraFrame, type ViewRufPlane } from '../camera/frame';
import { worldToViewRuf } from '../convert/project';
import { transformPoint } from '../math/mat4';
import { cross, dot, length, sub, type Vec3 } from '../math/vec3';

/**
 * How much of bodies is within the frustum: the share of the area of their surfaces that no plane
 * cuts off, 0…1, whatever hides it and whichever way it faces; null without bodies. Where none has
 * an area, the share of those whose origin is in the frustum (on a plane is in it). `flat` takes a
 * flat world's bodies as they lie there, without extent ahead. A sphere is measured by 28 × 14
 * patches, to about 1 % of itself. Triangles are cut by Sutherland and Hodgman's rule and their
 * areas summed.
 */
export function seenShare(frame: CameraFrame, bodies: readonly PlacedBody[], flat = false): number | null {
  if (!bodies.length) return null;
  const areas = bodies.map((one) => areasOf(frame, one, flat));
  const sum = (of: (one: Areas) => number) => areas.reduce((all, one) => all + of(one), 0);
  const whole = sum((one) => one.whole);
  return whole > 0
    ? Math.min(1, sum(({ seen }) => seen) / whole)
    : sum(({ origin }) => (origin ? 1 : 0)) / bodies.length;
}

interface Areas {
  readonly whole: number;
  readonly seen: number;
  /** Whether the body's origin is in the frustum. */
  readonly origin: boolean;
}

function areasOf(frame: CameraFrame, { body, toWorld }: PlacedBody, flat: boolean): Areas {
  const planes = viewRufPlanes(frame);
  const place = (x: number, y: number, z: number) =>
    worldToViewRuf(frame, transformPoint(toWorld, [x, y, flat ? 0 : z]));
  const { positions, indices } = triangulate(body.shape);
  const count = positions.length / 3;
  // Flat lists and no object a triangle: a mesh has up to a million, at every move of the camera.
  const corners = new Float64Array(3 * count);
  // A bit for each plane that a corner lies beyond: most triangles need no cutting.
  const beyond = new Uint8Array(count);
  for (let i = 0; i < count; i++) {
    const p = place(positions[3 * i]!, positions[3 * i + 1]!, positions[3 * i + 2]!);
    corners.set(p, 3 * i);
    for (let k = 0; k < planes.length; k++) if (height(planes[k]!, p) < 0) beyond[i]! |= 1 << k;
  }
  const cornerAt = (i: number): Vec3 => [corners[3 * i]!, corners[3 * i + 1]!, corners[3 * i + 2]!];
  let [whole, seen] = [0, 0];
  for (let i = 0; i < indices.length; i += 3) {
    const [a, b, c] = [indices[i]!, indices[i + 1]!, indices[i + 2]!];
    const own = triangleArea(corners, 3 * a, 3 * b, 3 * c);
    whole += own;
    if (!(beyond[a]! | beyond[b]! | beyond[c]!)) seen += own;
    else if (!(beyond[a]! & beyond[b]! & beyond[c]!))
      seen += area(planes.reduce(cut, [cornerAt(a), cornerAt(b), cornerAt(c)]));
  }
  const origin = place(0, 0, 0);
  return { whole, seen, origin: planes.every((plane) => height(plane, origin) >= 0) };
}

/** Returns the area of a triangle whose corners begin at three places of a flat list. */
function triangleArea(list: Float64Array, a: number, b: number, c: number): number {
  const [x, y, z] = [list[a]!, list[a + 1]!, list[a + 2]!];
  const [ux, uy, uz] = [list[b]! - x, list[b + 1]! - y, list[b + 2]! - z];
  const [vx, vy, vz] = [list[c]! - x, list[c + 1]! - y, list[c + 2]! - z];
  const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  return Math.sqrt(nx * nx + ny * ny + nz * nz) / 2;
}

const height = ({ normal, offset }: ViewRufPlane, p: Vec3): number => dot(normal, p) + offset;

function cut(polygon: readonly Vec3[], plane: ViewRufPlane): Vec3[] {
  const heights = polygon.map((p) => height(plane, p));
  return polygon.flatMap((p, i) => {
    const j = (i + 1) % polygon.length;
    const [q, a, b] = [polygon[j]!, heights[i]!, heights[j]!];
    const kept = a >= 0 ? [p] : [];
    if (a >= 0 === b >= 0) return kept;
    const t = a / (a - b);
    return [...kept, [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t, p[2] + (q[2] - p[2]) * t]];
  });
}

/** Of a convex polygon in space: half the length of the sum of its fan's cross products. */
function area(polygon: readonly Vec3[]): number {
  let sum = 0;
  for (let i = 2; i < polygon.length; i++)
    sum += length(cross(sub(polygon[i - 1]!, polygon[0]!), sub(polygon[i]!, polygon[0]!)));
  return sum / 2;
}
