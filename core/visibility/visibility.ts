import { apart, supportOfPoints } from '../math/gjk';
import { dot, negate, normalize, scale, sub, add, type Vec3 } from '../math/vec3';
import { viewRufPlanes, type CameraFrame, type ViewRufPlane, type PlaneName } from '../camera/frame';
import { worldToViewRuf } from '../convert/project';
import { worldShape, type WorldShape } from '../bodies/geometry';
import { boundingSphere, type PlacedBody } from '../bodies/body';
import { classifyMany, manyFrom } from '../kernels/many';
import { planeKernel, sphereVerdict } from '../kernels/spheres';
import { answer, noAnswer, type Answer } from '../reasons';

export type Verdict = 'inside' | 'crosses' | 'outside';
export interface Visible {
  readonly body: string;
  readonly verdict: Verdict;
  /** The planes that the body lies wholly behind. */
  readonly rejectedBy: readonly PlaneName[];
}

/** A frame whose viewport has grown by a number of pixels on every side. */
export function grown(frame: CameraFrame, pixels: number): CameraFrame {
  if (pixels === 0) return frame;
  const { extents: e, viewport: v } = frame;
  const across = ((e.right - e.left) * pixels) / v.width;
  const upward = ((e.top - e.bottom) * pixels) / v.height;
  return {
    ...frame,
    extents: { left: e.left - across, right: e.right + across, bottom: e.bottom - upward, top: e.top + upward },
    viewport: { x: v.x - pixels, y: v.y - pixels, width: v.width + 2 * pixels, height: v.height + 2 * pixels },
  };
}

/**
 * The frustum's corners in the camera's own axes; an infinite one is cut beyond `reach`, as nothing
 * that asks lies farther.
 */
function partsCorners(frame: CameraFrame, reach: number, flat: boolean): Vec3[] {
  const { extents: e, near: n } = frame;
  const far = frame.far ?? Math.max(n * 2, reach * 2);
  return (flat ? [0] : [n, far]).flatMap((ahead) => {
    const k = frame.kind === 'perspective' ? ahead / n : 1;
    return [
      [e.left * k, e.bottom * k, ahead],
      [e.right * k, e.bottom * k, ahead],
      [e.right * k, e.top * k, ahead],
      [e.left * k, e.top * k, ahead],
    ] as Vec3[];
  });
}

/** A world shape in the camera's own axes. */
function toViewRuf(frame: CameraFrame, shape: WorldShape): WorldShape {
  return shape.kind === 'sphere'
    ? { ...shape, centre: worldToViewRuf(frame, shape.centre) }
    : { ...shape, points: shape.points.map((p) => worldToViewRuf(frame, p)) };
}

/** The least and the greatest signed distance of a shape from a plane. */
function reachOf(shape: WorldShape, { normal, offset }: ViewRufPlane): readonly [number, number] {
  if (shape.kind === 'sphere') {
    const d = dot(normal, shape.centre) + offset;
    return [d - shape.radius, d + shape.radius];
  }
  let [low, high] = [Infinity, -Infinity];
  for (const p of shape.points) {
    const d = dot(normal, p) + offset;
    low = Math.min(low, d);
    high = Math.max(high, d);
  }
  return [low, high];
}

/**
 * Whether a shape in the camera's own axes has a point in common with the frustum; touching counts.
 */
function meets(frame: CameraFrame, shape: WorldShape, flat: boolean): boolean {
  const reach =
    shape.kind === 'sphere'
      ? shape.centre[2] + shape.radius
      : shape.points.reduce((most, p) => Math.max(most, p[2]), -Infinity);
  const frustum = supportOfPoints(partsCorners(frame, reach, flat));
  return shape.kind === 'sphere'
    ? !apart(() => shape.centre, frustum, shape.radius)
    : !apart(supportOfPoints(shape.points), frustum);
}

export interface VisibilityOptions {
  /**
   * `exact`: outside means no point in common. `planes`: outside means wholly behind one plane, the
   * customary conservative test.
   */
  readonly method: 'exact' | 'planes';
  /** Pixels added round the viewport. */
  readonly margin?: number;
  /** A 2D world: flat bodies, no near and far. */
  readonly flat?: boolean;
}

/**
 * Which of many bodies lie inside all planes with the sphere about them and some room to spare, 1
 * or 0: those need no other test. By the compiled kernel; what it says is what the plain form would
 * come to.
 */
function whollyInside(frame: CameraFrame, bodies: readonly PlacedBody[]): Uint8Array {
  const spheres = new Float64Array(4 * bodies.length);
  for (const [i, placed] of bodies.entries()) {
    const { centre, radius } = boundingSphere(placed);
    // Room for the rounding of either way, so that the two never differ.
    const slack = 1e-9 * (radius + Math.abs(centre[0]) + Math.abs(centre[1]) + Math.abs(centre[2]) + frame.near);
    spheres.set([...centre, radius + slack], 4 * i);
  }
  const verdicts = new Uint8Array(bodies.length);
  classifyMany(planeKernel(frame), spheres, verdicts);
  return verdicts.map((one) => Number(one === sphereVerdict.inside));
}

/** Whether a shape in the world has a point in common with the frustum; touching counts. */
export function shapeIsVisible(frame: CameraFrame, shape: WorldShape): boolean {
  const own = toViewRuf(frame, shape);
  return viewRufPlanes(frame).every((plane) => reachOf(own, plane)[1] >= 0) && meets(frame, own, false);
}

/**
 * What each body is to the frustum. Meshes are taken as their convex hulls. Touching, from either
 * side, is crossing.
 */
export function visibility(
  frame: CameraFrame,
  bodies: readonly PlacedBody[],
  { method, margin = 0, flat = false }: VisibilityOptions,
): Visible[] {
  const wide = grown(frame, margin);
  const planes = viewRufPlanes(wide).filter(({ name }) => !flat || (name !== 'near' && name !== 'far'));
  const wholly = !flat && bodies.length >= manyFrom ? whollyInside(wide, bodies) : null;
  return bodies.map((placed, i): Visible => {
    if (wholly?.[i] === 1) return { body: placed.body.id, verdict: 'inside', rejectedBy: [] };
    const shape = toViewRuf(wide, worldShape(placed, flat));
    const reaches = planes.map((plane) => reachOf(shape, plane));
    const rejectedBy = planes.filter((_, i) => reaches[i]![1] < 0).map(({ name }) => name);
    const verdict: Verdict = rejectedBy.length
      ? 'outside'
      : reaches.every(([low]) => low > 0)
        ? 'inside'
        : method === 'planes' || meets(wide, shape, flat)
          ? 'crosses'
          : 'outside';
    return { body: placed.body.id, verdict, rejectedBy };
  });
}

export interface ShadowVisible {
  readonly body: string;
  readonly bodyOnScreen: boolean;
  readonly shadowOnScreen: boolean;
  /** The caster must be kept for its shadow alone. */
  readonly onlyShadow: boolean;
}

/**
 * For each caster, whether it and its shadow on a plane can be on screen. `light` is the direction
 * in which the light travels; only what lies before the plane on the light's way casts on it. No
 * answer (`rayParallel`) when the light runs along the plane.
 */
export function shadowVisibility(
  frame: CameraFrame,
  bodies: readonly PlacedBody[],
  light: Vec3,
  plane: { readonly point: Vec3; readonly normal: Vec3 },
): Answer<ShadowVisible[]> {
  const [l, n] = [normalize(light), normalize(plane.normal)];
  const slant = l && n ? dot(l, n) : 0;
  if (!l || !n || Math.abs(slant) < 1e-12) return noAnswer('rayParallel');
  const way = (p: Vec3) => dot(n, sub(plane.point, p)) / slant;
  const cast = (p: Vec3) => add(p, scale(l, way(p)));
  return {
    ok: true,
    value: bodies
      .filter(({ body }) => body.castsShadow)
      .map((placed) => {
        const shape = worldShape(placed);
        const bodyOnScreen = meets(frame, toViewRuf(frame, shape), false);
        const shadow = shadowSupport(shape, l, n, slant, way, cast);
        let shadowOnScreen = false;
        if (shadow) {
          const reach = worldToViewRuf(frame, shadow(frame.forward))[2];
          const corners = partsCorners(frame, reach, false);
          const inParts = (d: Vec3) => {
            // The direction of the camera's own axes as one of the world, and the answer back.
            const world = add(add(scale(frame.right, d[0]), scale(frame.up, d[1])), scale(frame.forward, d[2]));
            return worldToViewRuf(frame, shadow(world));
          };
          shadowOnScreen = !apart(inParts, supportOfPoints(corners));
        }
        return { body: placed.body.id, bodyOnScreen, shadowOnScreen, onlyShadow: shadowOnScreen && !bodyOnScreen };
      }),
  };
}

/**
 * The shadow's hull as a support in the world, or null when nothing of the body lies before the
 * plane.
 */
function shadowSupport(
  shape: WorldShape,
  l: Vec3,
  n: Vec3,
  slant: number,
  way: (p: Vec3) => number,
  cast: (p: Vec3) => Vec3,
): ((d: Vec3) => Vec3) | null {
  if (shape.kind === 'sphere') {
    if (way(shape.centre) < -shape.radius / Math.abs(slant)) return null;
    return (d) => {
      // The projection along the light, transposed: it carries the direction back onto the sphere.
      const onSphere = sub(d, scale(n, dot(l, d) / slant));
      const unit = normalize(onSphere) ?? negate(l);
      return cast(add(shape.centre, scale(unit, shape.radius)));
    };
  }
  const before = shape.points.filter((p) => way(p) >= 0);
  if (!before.length) return null;
  const points = before.map(cast);
  for (const [i, j] of shape.edges) {
    const [a, b] = [shape.points[i]!, shape.points[j]!];
    const [wa, wb] = [way(a), way(b)];
    if (wa < 0 !== wb < 0) points.push(add(a, scale(sub(b, a), wa / (wa - wb))));
  }
  return supportOfPoints(points);
}

/**
 * A rectangle of picture positions (across and upward), with whether the near plane cut the body.
 */
export interface PictureBounds {
  readonly min: readonly [number, number];
  readonly max: readonly [number, number];
  readonly clipped: boolean;
}

/**
 * A point of a body's silhouette, seen along one axis of the picture: its part to the right (or up)
 * and how far ahead it is, in world units.
 */
export type Contact = readonly [part: number, ahead: number];

/**
 * Where a body's silhouette, cut at the near plane alone, reaches farthest to each side of the
 * picture.
 */
export interface PictureContacts {
  readonly left: Contact;
  readonly right: Contact;
  readonly bottom: Contact;
  readonly top: Contact;
  readonly clipped: boolean;
}

/**
 * The tight rectangle of a body's silhouette, cut at the near plane alone; `behindEye` when all of
 * it lies before near.
 */
export function pictureBounds(frame: CameraFrame, placed: PlacedBody, flat = false): Answer<PictureBounds> {
  const found = pictureContacts(frame, placed, flat);
  if (!found.ok) return found;
  const { left, right, bottom, top, clipped } = found.value;
  const { extents: e } = frame;
  const onPicture = (contact: Contact, low: number, high: number) =>
    (2 * seenAt(frame, contact) - (high + low)) / (high - low);
  const x = [onPicture(left, e.left, e.right), onPicture(right, e.left, e.right)];
  const y = [onPicture(bottom, e.bottom, e.top), onPicture(top, e.bottom, e.top)];
  return answer({ min: [Math.min(...x), Math.min(...y)], max: [Math.max(...x), Math.max(...y)], clipped });
}

/**
 * Where a contact is seen across (or up) the plane at which the picture has its extents, the near
 * plane in perspective: in world units from the gaze.
 */
export const seenAt = ({ kind, near }: CameraFrame, [part, ahead]: Contact): number =>
  kind === 'perspective' ? (part / ahead) * near : part;

/**
 * The four points of a body at which its rectangle in the picture is reached; `behindEye` when all
 * of it lies before near.
 */
export function pictureContacts(frame: CameraFrame, placed: PlacedBody, flat = false): Answer<PictureContacts> {
  const shape = toViewRuf(frame, worldShape(placed, flat));
  const near = flat ? -Infinity : frame.near;
  const span = (contacts: readonly Contact[]): readonly [Contact, Contact] => {
    const at = contacts.map((one) => seenAt(frame, one));
    let [low, high] = [0, 0];
    for (let i = 1; i < at.length; i++) {
      if (at[i]! < at[low]!) low = i;
      if (at[i]! > at[high]!) high = i;
    }
    return [contacts[low]!, contacts[high]!];
  };
  const result = (
    across: readonly Contact[],
    upward: readonly Contact[],
    clipped: boolean,
  ): Answer<PictureContacts> => {
    const [[left, right], [bottom, top]] = [span(across), span(upward)];
    return answer({ left, right, bottom, top, clipped });
  };
  if (shape.kind === 'sphere') {
    const [r, u, f] = shape.centre;
    if (f + shape.radius < near) return noAnswer('behindEye');
    const disc = (part: number) => discContacts(part, f, shape.radius, near, frame.kind === 'perspective');
    return result(disc(r), disc(u), f - shape.radius < near);
  }
  const points = shape.points.filter((p) => p[2] >= near);
  const clipped = points.length < shape.points.length;
  for (const [i, j] of clipped ? shape.edges : []) {
    const [a, b] = [shape.points[i]!, shape.points[j]!];
    if (a[2] < near === b[2] < near) continue;
    const t = (near - a[2]) / (b[2] - a[2]);
    points.push([a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t, near]);
  }
  if (!points.length) return noAnswer('behindEye');
  const side = (i: 0 | 1) => points.map((p): Contact => [p[i], p[2]]);
  return result(side(0), side(1), clipped);
}

/**
 * The points of a disc in the (c, f) plane, cut at f ≥ near, among which c/f (in perspective) or c
 * is least and greatest: the tangents from the eye where they touch ahead of near, and the ends of
 * the cut (`docs/derivations.md`, "Sphere on the screen").
 */
function discContacts(c: number, f: number, radius: number, near: number, perspective: boolean): Contact[] {
  const half = Math.sqrt(Math.max(0, radius * radius - (near - f) * (near - f)));
  const ends: Contact[] = [
    [c - half, near],
    [c + half, near],
  ];
  if (!perspective)
    return f >= near
      ? [
          [c - radius, f],
          [c + radius, f],
        ]
      : ends;
  const cut = f - radius < near;
  const found = cut ? ends : [];
  const size = c * c + f * f;
  const away2 = size - radius * radius;
  if (away2 > 0) {
    const away = Math.sqrt(away2);
    for (const side of [-1, 1]) {
      // The tangent point: the centre turned by the tangent's angle and shortened to its length.
      const contact: Contact = [
        (away * (c * away + side * f * radius)) / size,
        (away * (f * away - side * c * radius)) / size,
      ];
      if (!cut || contact[1] >= near) found.push(contact);
    }
  }
  return found;
}
