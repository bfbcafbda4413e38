import { add, dot, negate, normalize, scale, type Vec3, type Vec4 } from '../math/vec3';
import { affine, mat4, isFiniteMatrix, multiply, type Mat4 } from '../math/mat4';
import type { Checked, Problem } from '../reasons';
import { resolveOrientation, type Basis, type Orientation } from './orientation';
import {
  fieldOfView,
  resolveProjection,
  type DepthRange,
  type Extents,
  type Projection,
  type ResolvedProjection,
} from './projection';

export interface Camera {
  /** The eye, in world units of canonical space. */
  readonly position: Vec3;
  readonly orientation: Orientation;
  readonly projection: Projection;
}

/** A rectangle of pixels, measured from the screen's origin. */
export interface Viewport {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export type PlaneName = 'left' | 'right' | 'bottom' | 'top' | 'near' | 'far';
/** n·p + d ≥ 0 inside; n is unit and points inward. */
export interface NamedPlane {
  readonly name: PlaneName;
  readonly plane: Vec4;
}

/**
 * An immutable snapshot of a camera and its viewport: what everything downstream is computed from.
 * Vectors are in canonical world space (right-handed, +y up). Matrices are canonical: view axes +x
 * right, +y up, −z ahead; NDC y up, depth −1 at near and 1 at far. Two frames of one serial are one
 * snapshot; an older serial is a stale one.
 */
export type CameraFrame = ResolvedProjection &
  Basis & {
    readonly serial: number;
    readonly eye: Vec3;
    readonly viewport: Viewport;
    readonly view: Mat4;
    readonly cameraToWorld: Mat4;
    readonly projection: Mat4;
    readonly viewProjection: Mat4;
  };

/**
 * Serials of one thread begin where those of no other do: frames are told from one thread to
 * another, and equal serials say that they are one snapshot. A million threads apart by four
 * billion frames each, and still whole numbers.
 */
let lastSerial = Math.floor(Math.random() * 2 ** 20) * 2 ** 32;

/**
 * The snapshot of a camera on a viewport, or everything that is wrong with the two (paths
 * `viewport.…`, `camera.…`). Conventions play no part: the same frame serves all of them.
 */
export function frameOf(camera: Camera, viewport: Viewport): Checked<CameraFrame> {
  const problems: Problem[] = [];
  for (const side of ['width', 'height'] as const)
    if (!(viewport[side] > 0))
      problems.push({
        path: `viewport.${side}`,
        code: 'viewportEmpty',
        message: `The viewport’s ${side} is ${viewport[side]}; it must be above 0.`,
      });
  const basis = resolveOrientation(camera.position, camera.orientation);
  const aspect = problems.length ? 1 : viewport.width / viewport.height;
  const lens = resolveProjection(camera.projection, aspect);
  const below = (list: readonly Problem[]) => list.map((p) => ({ ...p, path: `camera.${p.path}` }));
  if (!basis.ok) problems.push(...below(basis.problems));
  if (!lens.ok) problems.push(...below(lens.problems));
  if (problems.length || !basis.ok || !lens.ok) return { ok: false, problems };

  const value = frameOfParts(basis.value, lens.value, camera.position, viewport);
  return value
    ? { ok: true, warnings: below(lens.warnings), value }
    : {
        ok: false,
        problems: [
          {
            path: 'camera.projection',
            message:
              'The camera’s numbers are too far apart for doubles. Bring near, far, the picture’s size, the position and the viewport to sizes nearer to one another.',
          },
        ],
      };
}

/**
 * Returns the snapshot of a camera from its parts. The basis must be orthonormal and the lens valid, each by itself.
 *
 * @param eye - canonical world space
 * @returns null when the numbers are too far apart for doubles
 */
export function frameOfParts(
  basis: Basis,
  lens: ResolvedProjection,
  eye: Vec3,
  viewport: Viewport,
): CameraFrame | null {
  const { right, up, forward } = basis;
  const cameraToWorld = affine(right, up, negate(forward), eye);
  // Written out rather than inverted: the inverse of a rigid transform is its transpose, without rounding.
  // prettier-ignore
  const view = mat4([
    right[0], right[1], right[2], -dot(right, eye),
    up[0], up[1], up[2], -dot(up, eye),
    -forward[0], -forward[1], -forward[2], dot(forward, eye),
    0, 0, 0, 1,
  ]);
  const projection = projectionMatrix(lens, -1, 1);
  const viewProjection = multiply(multiply(projection, viewToRuf), view);
  const isUsable = [view, projection, inverseProjectionMatrix(lens, -1, 1), viewProjection].every(isFiniteMatrix);
  if (!isUsable || !divisible(lens, viewport)) return null;
  return Object.freeze({
    ...basis,
    ...lens,
    serial: ++lastSerial,
    eye,
    viewport,
    view,
    cameraToWorld,
    projection: multiply(projection, viewToRuf),
    viewProjection,
  });
}

/**
 * The same camera with other edges (on the near plane in perspective) on another viewport: a
 * snapshot of its own. Null when they are too far apart for doubles.
 */
export function reframed(frame: CameraFrame, extents: Extents, viewport: Viewport): CameraFrame | null {
  return reposed({ ...frame, viewport }, { extents });
}

/**
 * The same lens and viewport from another eye, turned otherwise, or with other edges (on the near
 * plane in perspective): a snapshot of its own. The basis must be orthonormal. Null when they are
 * too far apart for doubles.
 */
export function reposed(
  frame: CameraFrame,
  pose: { readonly eye?: Vec3; readonly basis?: Basis; readonly extents?: Extents },
): CameraFrame | null {
  const { right, up, forward } = pose.basis ?? frame;
  const extents = pose.extents ?? frame.extents;
  const lens: ResolvedProjection =
    frame.kind === 'perspective'
      ? { kind: 'perspective', near: frame.near, far: frame.far, extents }
      : { kind: 'orthographic', near: frame.near, far: frame.far, extents };
  return frameOfParts({ right, up, forward }, lens, pose.eye ?? frame.eye, frame.viewport);
}

/**
 * The vertical field of view of a snapshot, as cameras are said: of its height about the axis, the
 * lens shift left out. Radians; null for an orthographic one.
 */
export const frameFov = ({ kind, extents: x, near }: ResolvedProjection): number | null =>
  kind === 'perspective' ? fieldOfView(Math.abs(x.top - x.bottom), near) : null;

/**
 * The picture of a lens: its width and height (on near, in perspective), their ratio, and the lens
 * shift in half widths and half heights. Below 0 where the extents are mirrored.
 */
export function pictureShape({ extents: x }: Pick<ResolvedProjection, 'extents'>) {
  const [width, height] = [x.right - x.left, x.top - x.bottom];
  const shift: [number, number] = [(x.right + x.left) / width, (x.top + x.bottom) / height];
  return { width, height, aspect: width / height, shift };
}

/** View coordinates of canonical space (−z ahead) to (right, up, ahead, 1). */
const viewToRuf = mat4([1, 0, 0, 0, 0, 1, 0, 0, 0, 0, -1, 0, 0, 0, 0, 1]);

/** Scale and offset that take a coordinate between two edges to −1…1. */
const spread = (low: number, high: number) => [2 / (high - low), -(high + low) / (high - low)] as const;

/**
 * The part of NDC depth that grows with the distance ahead f: clip depth = slope·f + constant
 * (perspective, w = f) or the same over w = 1. `zn` and `zf` are the NDC depths of near and far.
 * Derivation: `docs/derivations.md`, "Depth".
 */
export function depthCoefficients(lens: DepthRange, zn: number, zf: number): { slope: number; constant: number } {
  const { near: n, far: F } = lens;
  if (lens.kind === 'orthographic')
    return { slope: (zf - zn) / (lens.far - n), constant: (zn * lens.far - zf * n) / (lens.far - n) };
  if (F === null) return { slope: zf, constant: (zn - zf) * n };
  return { slope: (zf * F - zn * n) / (F - n), constant: ((zn - zf) * n * F) / (F - n) };
}

/**
 * The matrix from (right, up, ahead, 1) to clip space with NDC y up and depth zn at near, zf at
 * far. Its inverse is `inverseProjectionMatrix`.
 */
export function projectionMatrix(lens: ResolvedProjection, zn: number, zf: number): Mat4 {
  const { left, right, bottom, top } = lens.extents;
  const [ax, cx] = spread(left, right);
  const [ay, cy] = spread(bottom, top);
  const { slope, constant } = depthCoefficients(lens, zn, zf);
  return lens.kind === 'perspective'
    ? mat4([ax * lens.near, 0, cx, 0, 0, ay * lens.near, cy, 0, 0, 0, slope, constant, 0, 0, 1, 0])
    : mat4([ax, 0, 0, cx, 0, ay, 0, cy, 0, 0, slope, constant, 0, 0, 0, 1]);
}

/**
 * Clip space back to (right, up, ahead, 1), written out rather than eliminated, so that extreme
 * near and far lose nothing.
 */
export function inverseProjectionMatrix(lens: ResolvedProjection, zn: number, zf: number): Mat4 {
  const { left, right, bottom, top } = lens.extents;
  const { slope, constant } = depthCoefficients(lens, zn, zf);
  const [hx, mx, hy, my] = [(right - left) / 2, (right + left) / 2, (top - bottom) / 2, (top + bottom) / 2];
  const n = lens.near;
  return lens.kind === 'perspective'
    ? mat4([hx / n, 0, 0, mx / n, 0, hy / n, 0, my / n, 0, 0, 0, 1, 0, 0, 1 / constant, -slope / constant])
    : mat4([hx, 0, 0, mx, 0, hy, 0, my, 0, 0, 1 / slope, -constant / slope, 0, 0, 0, 1]);
}

/**
 * Whether everything that the mapping divides by is of a size that leaves room for the products of
 * an answer.
 */
function divisible({ kind, near, far, extents: e }: ResolvedProjection, { width, height }: Viewport): boolean {
  const k = kind === 'perspective' ? near : 1;
  const sizes = [width, height, (e.right - e.left) / k, (e.top - e.bottom) / k, k, far === null ? 1 : far - near];
  return sizes.every((v) => Math.abs(v) > 1e-45 && Math.abs(v) < 1e45);
}

/**
 * A plane of the frustum over (right, up, ahead): its unit inward normal, and n·p + offset ≥ 0
 * inside.
 */
export interface ViewRufPlane {
  readonly name: PlaneName;
  readonly normal: Vec3;
  readonly offset: number;
}

/**
 * The planes of the frustum in the camera's own axes, where far-off worlds lose nothing: left,
 * right, bottom, top, near and, unless it is infinite, far. A side plane holds the points whose NDC
 * coordinate is −1 or 1, as the extents say.
 */
export function viewRufPlanes(frame: ResolvedProjection): ViewRufPlane[] {
  const { extents: e, near, far } = frame;
  const perspective = frame.kind === 'perspective';
  const [h, v] = [Math.sign(e.right - e.left), Math.sign(e.top - e.bottom)];
  const side = (name: PlaneName, r: number, u: number, edge: number): ViewRufPlane =>
    perspective
      ? { name, normal: normalize([r * near, u * near, -(r + u) * edge])!, offset: 0 }
      : { name, normal: [r, u, 0], offset: -(r + u) * edge };
  const planes = [
    side('left', h, 0, e.left),
    side('right', -h, 0, e.right),
    side('bottom', 0, v, e.bottom),
    side('top', 0, -v, e.top),
    { name: 'near' as const, normal: [0, 0, 1] as Vec3, offset: -near },
  ];
  if (far !== null) planes.push({ name: 'far', normal: [0, 0, -1], offset: far });
  return planes;
}

/** The same planes in canonical world space. */
export const planesOf = (frame: CameraFrame): NamedPlane[] =>
  viewRufPlanes(frame).map(({ name, normal: [r, u, f], offset }) => {
    const normal = add(add(scale(frame.right, r), scale(frame.up, u)), scale(frame.forward, f));
    return { name, plane: [...normal, offset - dot(normal, frame.eye)] };
  });
