import { drawnMesh, type TriangleMesh } from '../bodies/mesh';
import type { PlacedBody } from '../bodies/body';
import { transformPoint } from '../math/mat4';
import { addScaled, cross, dot, normalize, sub, type Vec3 } from '../math/vec3';

/* Faces of bodies: the triangles of one plane that belong together, as one polygon. */

const corner = ({ positions }: TriangleMesh, i: number): Vec3 => [
  positions[3 * i]!,
  positions[3 * i + 1]!,
  positions[3 * i + 2]!,
];

/** Planes this nearly alike (by the cosine between them) are one. */
const alike = 1 - 1e-9;

/**
 * The face that a triangle of a mesh is part of, as the numbers of its corners in order: all
 * triangles of its plane that hang together by whole edges, if they make one convex polygon without
 * holes; otherwise the triangle alone. Corners at one place count as one.
 */
export function faceOf(mesh: TriangleMesh, triangle: number): number[] {
  const { indices } = mesh;
  const own = [0, 1, 2].map((k) => indices[3 * triangle + k]!);
  const normalAt = (t: number): Vec3 | null => {
    const [a, b, c] = [0, 1, 2].map((k) => corner(mesh, indices[3 * t + k]!)) as [Vec3, Vec3, Vec3];
    return normalize(cross(sub(b, a), sub(c, a)));
  };
  const normal = normalAt(triangle);
  if (!normal) return own;
  const placeOf = (i: number) => corner(mesh, i).join();
  const candidates: number[] = [];
  for (let t = 0; 3 * t < indices.length; t++) {
    const n = normalAt(t);
    if (n && dot(n, normal) > alike) candidates.push(t);
  }
  // By its directed edges: what borders on one has the same edge the other way round.
  const byEdge = new Map<string, number>();
  for (const t of candidates)
    for (let k = 0; k < 3; k++) {
      const [a, b] = [indices[3 * t + k]!, indices[3 * t + ((k + 1) % 3)]!];
      byEdge.set(`${placeOf(a)}|${placeOf(b)}`, t);
    }
  const taken = new Set([triangle]);
  const border = new Map<string, { from: number; to: string }>();
  for (const t of taken)
    for (let k = 0; k < 3; k++) {
      const [a, b] = [indices[3 * t + k]!, indices[3 * t + ((k + 1) % 3)]!];
      const next = byEdge.get(`${placeOf(b)}|${placeOf(a)}`);
      if (next !== undefined) taken.add(next);
      else if (border.has(placeOf(a))) return own;
      else border.set(placeOf(a), { from: a, to: placeOf(b) });
    }
  const loop: number[] = [];
  let at = [...border.keys()][0]!;
  do {
    const step = border.get(at);
    if (!step) return own;
    loop.push(step.from);
    at = step.to;
  } while (at !== placeOf(loop[0]!) && loop.length <= border.size);
  // More than one loop: a hole, or parts that touch in a corner alone.
  if (loop.length !== border.size) return own;
  const turns = loop.map((i, k) => {
    const [a, b, c] = [corner(mesh, loop.at(k - 1)!), corner(mesh, i), corner(mesh, loop[(k + 1) % loop.length]!)];
    const [u, v] = [normalize(sub(b, a))!, normalize(sub(c, b))!];
    return dot(cross(u, v), normal);
  });
  if (turns.some((turn) => turn < -1e-9)) return own;
  // Corners in the middle of a straight edge are none of the polygon.
  const kept = loop.filter((_, k) => turns[k]! > 1e-9);
  return kept.length >= 3 ? kept : own;
}

/**
 * A face of a placed body as a polygon in canonical world space, counter-clockwise from outside
 * (unless a mirroring has turned it over); `triangle` is one of those that it is drawn with
 * (`drawnMesh`). Null where the body has no such triangle.
 */
export function worldFace({ body, toWorld }: PlacedBody, triangle: number): Vec3[] | null {
  const { mesh, scale } = drawnMesh(body.shape, false);
  if (!(3 * triangle < mesh.indices.length)) return null;
  return faceOf(mesh, triangle).map((i) => {
    const [x, y, z] = corner(mesh, i);
    return transformPoint(toWorld, [x * scale[0], y * scale[1], z * scale[2]]);
  });
}

/**
 * Which of the triangles that a body is drawn with is nearest to a point of canonical world space;
 * −1 for a body without any.
 */
export function triangleAt({ body, toLocal }: PlacedBody, point: Vec3): number {
  const { mesh, scale } = drawnMesh(body.shape, false);
  const local = transformPoint(toLocal, point);
  const p: Vec3 = [local[0] / (scale[0] || 1), local[1] / (scale[1] || 1), local[2] / (scale[2] || 1)];
  let [best, least] = [-1, Infinity];
  for (let t = 0; 3 * t < mesh.indices.length; t++) {
    const [a, b, c] = [0, 1, 2].map((k) => corner(mesh, mesh.indices[3 * t + k]!)) as [Vec3, Vec3, Vec3];
    const d = sub(p, nearestOf(p, a, b, c));
    const far = dot(d, d);
    if (far < least) [best, least] = [t, far];
  }
  return best;
}

/** The point of a triangle that is nearest to a point (C. Ericson, Real-Time Collision Detection, 5.1.5). */
function nearestOf(p: Vec3, a: Vec3, b: Vec3, c: Vec3): Vec3 {
  const [ab, ac, ap] = [sub(b, a), sub(c, a), sub(p, a)];
  const [d1, d2] = [dot(ab, ap), dot(ac, ap)];
  if (d1 <= 0 && d2 <= 0) return a;
  const bp = sub(p, b);
  const [d3, d4] = [dot(ab, bp), dot(ac, bp)];
  if (d3 >= 0 && d4 <= d3) return b;
  const vc = d1 * d4 - d3 * d2;
  if (vc <= 0 && d1 >= 0 && d3 <= 0) return addScaled(a, ab, d1 / (d1 - d3));
  const cp = sub(p, c);
  const [d5, d6] = [dot(ab, cp), dot(ac, cp)];
  if (d6 >= 0 && d5 <= d6) return c;
  const vb = d5 * d2 - d1 * d6;
  if (vb <= 0 && d2 >= 0 && d6 <= 0) return addScaled(a, ac, d2 / (d2 - d6));
  const va = d3 * d6 - d5 * d4;
  if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) return addScaled(b, sub(c, b), (d4 - d3) / (d4 - d3 + (d5 - d6)));
  const k = 1 / (va + vb + vc);
  return addScaled(addScaled(a, ab, vb * k), ac, vc * k);
}
