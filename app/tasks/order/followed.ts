import type { CameraFrame } from '../../../core/camera/frame';
import type { PlacedBody } from '../../../core/bodies/body';
import type { Vec3 } from '../../../core/math/vec3';
import { clipPolygon, unclippedPositions, type ClippedCorner, type UnclippedCorner } from '../../../core/order/clip';
import type { SortKey } from '../../../core/order/drawOrder';
import { worldFace } from '../../../core/order/faces';
import { leftOutFaces, worldTriangles, type WorldTriangles } from '../../../core/order/paint';
import { mirrorsPicture, type PolygonWinding } from '../../../core/order/winding';
import type { Project } from '../../../formats/project';
import { memo, remembered } from '../../state/memo';
import type { Moment } from '../../state/moment';
import type { OrderKey, OrderState } from './kept';

/* What Order's sheet, pictures and queries have in common: each worked out once, here. */

/** The key of the core that a key of the sheet is: on a flat world all lie equally far ahead, in the order given. */
export const sortKeyOf = (key: OrderKey): SortKey => (key === 'layer' ? 'ahead' : key);

/** Faces of a body where it stands, found once for it. */
const facesOf = remembered((placed: PlacedBody) => memo((triangle: number) => worldFace(placed, triangle)));

/** The polygon that is followed, in canonical world space; null where its body has no such face any more. */
export function followedPolygon({
  slice,
  placed,
}: Pick<Moment<OrderState>, 'slice' | 'placed'>): readonly Vec3[] | null {
  const { followed } = slice;
  if (followed.kind === 'polygon') return followed.corners;
  const body = placed.get(followed.body);
  return body ? facesOf(body)(followed.triangle) : null;
}

/** What it is called. */
export function followedName({ slice: { followed }, project }: Pick<Moment<OrderState>, 'slice' | 'project'>): string {
  if (followed.kind === 'polygon') return followed.name;
  return project.bodies.find(({ id }) => id === followed.body)?.name ?? 'nothing';
}

/** What a corner is called in every picture and table: its number, or the two between which a cut has made it. */
const cornerName = ({ edge, along }: ClippedCorner, count: number): string =>
  along === 0 ? String(edge + 1) : `${edge + 1}–${((edge + 1) % count) + 1}`;

/** A polygon as given, cut at near and cut at the frustum, with what dividing it uncut would give. */
export interface ThreeWays {
  readonly polygon: readonly Vec3[];
  readonly near: readonly ClippedCorner[];
  readonly frustum: readonly ClippedCorner[];
  readonly unclipped: readonly UnclippedCorner[];
  /** What each corner of `near` and `frustum` is called in every picture and table. */
  readonly names: ReadonlyMap<ClippedCorner, string>;
}
export const threeWays = memo((frame: CameraFrame, polygon: readonly Vec3[]): ThreeWays => {
  const near = clipPolygon(frame, polygon, ['near']);
  const frustum = clipPolygon(frame, polygon);
  // One place has one name, and another place another.
  const places = new Map<string, string>();
  const taken = new Set<string>();
  const names = new Map(
    [...near, ...frustum].map((one) => {
      const place = one.viewRuf.join();
      let name = places.get(place) ?? cornerName(one, polygon.length);
      if (!places.has(place)) while (taken.has(name)) name += '\u2032';
      places.set(place, name);
      taken.add(name);
      return [one, name] as const;
    }),
  );
  return { polygon, near, frustum, unclipped: unclippedPositions(frame, polygon), names };
});

type Rule = Pick<OrderState, 'frontFace' | 'cull' | 'supposed'>;

/**
 * Returns whether the suppositions turn a face over on the screen. Each of the three does, so two of them
 * cancel out.
 *
 * @param ofBody - whether the face belongs to the body whose scale is supposed to be negative
 */
export const turnsOver = ({ mirrored, negative, yDown }: OrderState['supposed'], ofBody: boolean): boolean =>
  [mirrored, yDown, negative && ofBody].filter(Boolean).length % 2 === 1;

/** Applies the suppositions to a winding: the signed area in pixels², and the direction (null edge-on). */
export function supposedWinding(
  { facing, area }: PolygonWinding,
  supposed: OrderState['supposed'],
  ofBody: boolean,
): { readonly area: number | null; readonly counterClockwise: boolean | null } {
  if (!area.ok) return { area: null, counterClockwise: null };
  const signed = turnsOver(supposed, ofBody) ? -area.value : area.value;
  return { area: signed, counterClockwise: facing === 'edgeOn' || signed === 0 ? null : signed > 0 };
}

/**
 * Which faces of the world a rule leaves out: those that face the eye, those that face away, or
 * none. What is drawn is decided by how a face runs on the screen: mirrored extents, a negative
 * scale and a framebuffer whose y runs the other way each turn that over.
 */
export function leftOutBy({ frontFace, cull, supposed }: Rule, frame: CameraFrame, negative: boolean): number {
  if (cull === 'none') return leftOutFaces.none;
  const turned = mirrorsPicture(frame) !== turnsOver(supposed, negative);
  // A face that fronts the eye runs counter-clockwise on the screen unless it is turned over.
  const eyeSideIsFront = (frontFace === 'counterClockwise') !== turned;
  return eyeSideIsFront === (cull === 'front') ? leftOutFaces.front : leftOutFaces.back;
}

/** The bodies whose scale is supposed to be negative: all under the outermost ancestor of the one that is followed. */
function negatedRoot({ slice, project, roots }: Moment<OrderState>): string | null {
  if (!slice.supposed.negative) return null;
  const id = slice.followed.kind === 'face' ? slice.followed.body : project.probe.body;
  return id === null ? null : (roots.get(id) ?? null);
}

const leftOut = memo(
  (
    frame: CameraFrame,
    bodies: Project['bodies'],
    roots: ReadonlyMap<string, string>,
    negated: string | null,
    frontFace: OrderState['frontFace'],
    cull: OrderState['cull'],
    supposed: OrderState['supposed'],
  ): Uint8Array =>
    Uint8Array.from(bodies, ({ id }) =>
      leftOutBy({ frontFace, cull, supposed }, frame, negated !== null && roots.get(id) === negated),
    ),
);

/** Which faces of every body are left out; null where none are. */
export function leftOutOf(now: Moment<OrderState>): Uint8Array | null {
  const { slice, frame, project, roots } = now;
  if (slice.cull === 'none') return null;
  return leftOut(frame, project.bodies, roots, negatedRoot(now), slice.frontFace, slice.cull, slice.supposed);
}

const trianglesIn = [false, true].map((flat) =>
  remembered((placed: Moment['placed']): WorldTriangles => worldTriangles([...placed.values()], flat)),
);
/** The triangles of all bodies where they stand. */
export const trianglesOf = ({ placed, flat }: Pick<Moment, 'placed' | 'flat'>): WorldTriangles =>
  trianglesIn[flat ? 1 : 0]!(placed);
