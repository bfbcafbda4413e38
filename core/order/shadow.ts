import { addScaled, dot, length, normalize, scale, sub, type Vec3, type Vec4 } from '../math/vec3';
import { mat4, type Mat4 } from '../math/mat4';
import { answer, noAnswer, type Answer } from '../reasons';

/** A light that shines along one direction everywhere, or from a point. */
export type Light =
  { readonly kind: 'directional'; readonly travels: Vec3 } | { readonly kind: 'point'; readonly at: Vec3 };

/**
 * The matrix that flattens the world onto a plane as a light's shadows (column vectors; divide by
 * w): M = (P·L) I − L Pᵀ with the plane P and the light L homogeneous (`docs/derivations.md`,
 * "Shadow on a plane"), scaled so that w is 1 for a directional light. `rayParallel` for a light
 * along the plane, or a point light in it. A point between the light and the plane lands on its
 * shadow; one beyond the plane or behind the light has a mirrored one, and w says so for a point
 * light: negative.
 */
export function planarShadow(light: Light, plane: { readonly point: Vec3; readonly normal: Vec3 }): Answer<Mat4> {
  const n = normalize(plane.normal);
  if (!n) return noAnswer('rayParallel');
  const p: Vec4 = [...n, -dot(n, plane.point)];
  const travels = light.kind === 'directional' ? normalize(light.travels) : null;
  if (light.kind === 'directional' && !travels) return noAnswer('rayParallel');
  const l: Vec4 = light.kind === 'point' ? [...light.at, 1] : [...scale(travels!, -1), 0];
  const k = p[0] * l[0] + p[1] * l[1] + p[2] * l[2] + p[3] * l[3];
  const size = light.kind === 'point' ? length(light.at) + Math.abs(p[3]) + 1 : 1;
  if (Math.abs(k) < 1e-12 * size) return noAnswer('rayParallel');
  const rows: number[] = [];
  for (let i = 0; i < 4; i++) for (let j = 0; j < 4; j++) rows.push(((i === j ? k : 0) - l[i]! * p[j]!) / k);
  return answer(mat4(rows));
}

/**
 * Where the shadow of a world point falls on a plane: where the ray that runs on from the point,
 * away from the light, meets it. A point on the plane is its own shadow, unless the light runs along
 * the plane there. `rayParallel` when the ray runs along the plane, `awayFromReceiver` when it runs
 * away from it: the point is beyond the plane as the light travels, or beyond the light. Either
 * side of the plane may be lit. (`docs/derivations.md`, "Shadow on a plane".)
 */
export function shadowOf(light: Light, plane: { readonly point: Vec3; readonly normal: Vec3 }, p: Vec3): Answer<Vec3> {
  const n = normalize(plane.normal);
  const way = normalize(light.kind === 'directional' ? light.travels : sub(p, light.at));
  if (!n || !way) return noAnswer('rayParallel');
  const slant = dot(n, way);
  const off = sub(p, plane.point);
  const height = dot(n, off);
  if (Math.abs(slant) < 1e-12) return noAnswer('rayParallel');
  const along = -height / slant;
  if (Math.abs(height) <= 1e-12 * (length(off) + length(plane.point))) return answer(p);
  return along < 0 ? noAnswer('awayFromReceiver') : answer(addScaled(p, way, along));
}

/**
 * The direction in which the light of a heavenly body travels that stands at a bearing (radians,
 * clockwise from ahead of the world as seen from above) and an altitude above the level. Unit.
 */
export const lightFrom = (bearing: number, altitude: number): Vec3 => [
  -Math.sin(bearing) * Math.cos(altitude),
  -Math.sin(altitude),
  Math.cos(bearing) * Math.cos(altitude),
];

/**
 * The bearing and altitude (radians) at which the light that travels along a direction stands: the
 * way back of `lightFrom`; null for no direction.
 */
export function lightPlace(travels: Vec3): { readonly bearing: number; readonly altitude: number } | null {
  const d = normalize(travels);
  return d && { bearing: Math.atan2(-d[0], d[2]), altitude: Math.atan2(-d[1], Math.hypot(d[0], d[2])) };
}

/** A shadow of a lamp ends where its rays run this nearly along the receiver: beyond it is endless. */
const steepest = 0.999;

/**
 * The shadows of triangles (nine numbers each, canonical world space) on a plane, as triangles in
 * it: what of each lies between the light and the receiver, carried along the light's rays. Those of
 * a lamp end where a ray rises to 0.999 of the lamp's height, since they would be endless. Empty
 * where the light runs along the receiver or stands in it.
 */
export function shadowTriangles(
  light: Light,
  plane: { readonly point: Vec3; readonly normal: Vec3 },
  corners: Float64Array,
): Float64Array {
  const n = normalize(plane.normal);
  const travels = light.kind === 'directional' ? normalize(light.travels) : null;
  if (!n || (light.kind === 'directional' && !travels)) return new Float64Array(0);
  const height = (p: Vec3) => dot(n, sub(p, plane.point));
  // The side that is lit: heights count from the receiver towards the light.
  const slant = light.kind === 'directional' ? -dot(n, travels!) : height(light.at);
  if (Math.abs(slant) < 1e-12) return new Float64Array(0);
  const side = Math.sign(slant);
  const highest = light.kind === 'directional' ? Infinity : Math.abs(slant) * steepest;
  const cast = (p: Vec3): Vec3 => {
    const h = height(p) * side;
    if (light.kind === 'directional') return addScaled(p, travels!, h / Math.abs(slant));
    return addScaled(p, sub(p, light.at), h / (Math.abs(slant) - h));
  };
  const out: number[] = [];
  for (let at = 0; at < corners.length; at += 9) {
    let kept: Vec3[] = [0, 3, 6].map((k) => [corners[at + k]!, corners[at + k + 1]!, corners[at + k + 2]!]);
    kept = within(kept, (p) => height(p) * side);
    if (highest < Infinity) kept = within(kept, (p) => highest - height(p) * side);
    const cut = kept.map(cast);
    for (let k = 2; k < cut.length; k++) out.push(...cut[0]!, ...cut[k - 1]!, ...cut[k]!);
  }
  return Float64Array.from(out);
}

/** What of a convex polygon has a value of 0 or more, linear in the place. */
function within(corners: readonly Vec3[], value: (p: Vec3) => number): Vec3[] {
  return corners.flatMap((a, i) => {
    const b = corners[(i + 1) % corners.length]!;
    const [va, vb] = [value(a), value(b)];
    const kept = va >= 0 ? [a] : [];
    return va >= 0 === vb >= 0 ? kept : [...kept, addScaled(a, sub(b, a), va / (va - vb))];
  });
}
