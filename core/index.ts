import { answerQuery, computeLists } from './compute/answerQuery';
import { problemsOf } from './compute/issues';
import { operationNamed, type Query } from './compute/operations';
import { queryProblems, resolveRequest, trackFaults } from './compute/read';
import { defaultConventions, presets, type Conventions, type PresetName } from './conventions/conventions';
import type { AxisFrame, SignedAxis } from './conventions/axes';
import { trackSchema, type WrittenTrack } from './motion/trackSchema';
import { readValue } from './quantities/convert';
import type { NullReason, Problem } from './reasons';
import { setupAlong } from './request/along';
import type { Setup } from './request/setup';

/*
 * The core as a package: a camera in an engine's own conventions, and what follows from it. Every
 * number that goes in or comes out is in those conventions: axes, angles, pixels, depths, listing. The
 * operations are those of docs/compute.md, which has their formulas' sources; nothing here throws for
 * numbers that cannot be.
 */

export { defaultConventions, presets };
export type { AxisFrame, Conventions, NullReason, PresetName, Problem, SignedAxis };
export type Vec2 = readonly [number, number];
export type Vec3 = readonly [number, number, number];

export interface Viewport {
  readonly x?: number;
  readonly y?: number;
  readonly width: number;
  readonly height: number;
}
export type Orientation =
  | { readonly lookAt: Vec3; readonly up?: Vec3 }
  | { readonly yaw: number; readonly pitch: number; readonly roll?: number }
  | { readonly quaternion: readonly [number, number, number, number] }
  | { readonly right: Vec3; readonly up: Vec3; readonly forward: Vec3 };
/** One of the fields of view, or a focal length with its sensor; `far` null is infinity. */
export interface Perspective {
  readonly kind: 'perspective';
  readonly near: number;
  readonly far: number | null;
  readonly verticalFov?: number;
  readonly horizontalFov?: number;
  readonly diagonalFov?: number;
  readonly focalLength?: number;
  readonly sensorHeight?: number;
  readonly aspect?: number;
  /** In half widths and half heights of the picture. */
  readonly shift?: Vec2;
}
/** A height or a width in world units. */
export interface Orthographic {
  readonly kind: 'orthographic';
  readonly near: number;
  readonly far: number;
  readonly height?: number;
  readonly width?: number;
  readonly aspect?: number;
  readonly shift?: Vec2;
}
/** Extents of the near plane. */
export interface Extents {
  readonly kind: 'frustum';
  readonly near: number;
  readonly far: number | null;
  readonly left: number;
  readonly right: number;
  readonly bottom: number;
  readonly top: number;
}
export interface CameraInSpace {
  readonly position: Vec3;
  readonly orientation: Orientation;
  readonly projection: Perspective | Orthographic | Extents;
}
/** A camera of a flat world: which of its points lies on which pixel, and pixels per unit. */
export interface FlatCamera {
  readonly kind: '2d';
  readonly focus: Vec2;
  readonly anchor: Vec2;
  readonly zoom: number;
  readonly rotation?: number;
  readonly snap?: 'none' | 'floor' | 'round';
}
export type Shape =
  | { readonly kind: 'point' }
  | { readonly kind: 'sphere'; readonly radius: number }
  | { readonly kind: 'box'; readonly size: Vec3 | Vec2 }
  | { readonly kind: 'quad'; readonly size: Vec2 }
  | { readonly kind: 'mesh'; readonly positions: readonly number[]; readonly indices: readonly number[] };
export interface Body {
  readonly id: string;
  readonly shape: Shape;
  readonly position: Vec3 | Vec2;
  readonly rotation?: readonly [number, number, number, number];
  readonly scale?: number | Vec3;
  readonly parent?: string;
}
export interface SetUp {
  /** Those of WebGPU's clip space and right-handed, +y up axes if they are left out. */
  readonly conventions?: Conventions;
  readonly viewport: Viewport;
  readonly camera: CameraInSpace | FlatCamera;
  readonly bodies?: readonly Body[];
}

/** An answer, or why there is none. */
export type Found<T> = ({ readonly ok: true } & T) | { readonly ok: false; readonly code: string; readonly message: string }; // prettier-ignore

/** A point in every space; `screen`, `ndc` and `depth` are null behind the eye, with the reason. */
export interface SeenPoint {
  readonly view: Vec3;
  readonly clip: readonly [number, number, number, number];
  readonly ndc: Vec3 | null;
  readonly screen: Vec2 | null;
  readonly depth: number | null;
  /** The distance along the gaze. */
  readonly ahead: number;
  readonly inFront: boolean;
  readonly onScreen: boolean;
  /** The planes that it lies beyond. */
  readonly outside: readonly PlaneName[];
  readonly pixelsPerUnit: number | null;
  readonly reason?: NullReason;
}
export type PlaneName = 'left' | 'right' | 'bottom' | 'top' | 'near' | 'far';
/** How deep the point of a pixel lies: by its depth value, along the gaze, along the ray, or in a plane. */
export type Depth =
  { readonly depth: number } | { readonly ahead: number } | { readonly range: number } | { readonly plane: Plane };
export interface Plane {
  readonly point: Vec3;
  readonly normal: Vec3;
}
export interface Ray {
  readonly origin: Vec3;
  readonly direction: Vec3;
  readonly nearPoint: Vec3;
  readonly farPoint: Vec3 | null;
}
export interface Hit {
  readonly body: string;
  readonly point: Vec3;
  readonly normal: Vec3;
  readonly distance: number;
  /** Which side of the surface shows. */
  readonly facing: 'front' | 'back';
}
export interface BodyVerdict {
  readonly body: string;
  readonly verdict: 'inside' | 'crosses' | 'outside';
  readonly rejectedBy: readonly PlaneName[];
}
export interface BoardWish {
  readonly position: Vec3;
  readonly mode: 'viewPlane' | 'eyePoint' | 'axisEye' | 'axisView';
  readonly axis?: Vec3;
  readonly front?: '+n' | '-n';
}
export interface Board {
  readonly right: Vec3;
  readonly up: Vec3;
  readonly normal: Vec3;
  readonly matrix: readonly number[];
  readonly quaternion: readonly [number, number, number, number] | null;
  readonly tilt: number | null;
}
/** Where bodies may appear out of sight: on the flat world, or on a plane. */
export interface SpawnWish {
  readonly surface: '2d' | { readonly plane: Plane };
  readonly bounds: { readonly min: Vec2; readonly max: Vec2 } | { readonly ringOuter: number };
  readonly count: number;
  readonly padding?: number;
  readonly paddingUnit?: 'world' | 'pixels';
  readonly radius?: number;
  readonly seed?: number;
  readonly ahead?: { readonly direction: Vec2; readonly halfAngle: number };
  readonly keepAway?: readonly { readonly centre: Vec2; readonly distance: number }[];
  readonly method?: 'direct' | 'rejection';
}
export interface Spawned {
  readonly points: readonly (Vec3 | Vec2)[];
  readonly statistics: { readonly areaAllowed: number; readonly areaBounds: number; readonly tries: number };
}
export type Ease = 'even' | 'gentle' | 'gentleStart' | 'gentleEnd';
/** What a camera does over time, from where it stands. */
export type Track =
  | { readonly kind: 'scroll'; readonly velocity: Vec3 | Vec2 }
  | { readonly kind: 'follow'; readonly target: readonly (readonly [number, Vec3 | Vec2])[]; readonly halfLife: number; readonly deadZone?: Vec3 | Vec2; readonly bounds?: { readonly min: Vec2; readonly max: Vec2 } }
  | { readonly kind: 'orbit'; readonly centre: Vec3; readonly yawRate: number; readonly pitchRate?: number; readonly pitchLimits?: Vec2; readonly distanceRate?: number }
  | { readonly kind: 'path'; readonly keys: readonly { readonly time: number; readonly position: Vec3; readonly yaw: number; readonly pitch: number; readonly roll?: number; readonly verticalFov: number; readonly ease?: Ease }[] }
  | { readonly kind: 'walk'; readonly inputs: readonly { readonly from: number; readonly to: number; readonly right?: number; readonly up?: number; readonly ahead?: number; readonly yawRate?: number; readonly pitchRate?: number }[]; readonly pitchLimit?: number }
  | { readonly kind: 'dollyZoom'; readonly target: Vec3; readonly distance: Vec2; readonly duration: number; readonly ease?: Ease }; // prettier-ignore
export interface Matrices {
  readonly view: readonly number[];
  readonly projection: readonly number[];
  readonly viewProjection: readonly number[];
  readonly cameraToWorld: readonly number[];
}
export interface ZoomStop {
  readonly distance: number;
  readonly position: Vec3;
  readonly verticalFov: number | null;
  readonly heightAtTarget: number;
}

/** A camera with its bodies, asked in its conventions. */
export class Camera {
  readonly #setup: Setup;
  /** Created by `cameraOf` alone, which checks the setup. */
  constructor(setup: unknown) {
    this.#setup = setup as Setup;
  }

  /**
   * Asks an operation of docs/compute.md.
   *
   * @param parts - the query's parts; those with defaults may be absent
   * @returns the answer with all its lists, or `error` with a code and a sentence
   */
  ask(op: string, parts: Readonly<Record<string, unknown>> = {}): Record<string, unknown> {
    const operation = operationNamed(op);
    if (!operation) return { error: { code: 'unknown', message: `There is no operation “${op}”.` } };
    const parsed = operation.query.safeParse({ id: op, op, ...parts }, { reportInput: true });
    if (!parsed.success) return { error: { code: 'invalid', message: problemsOf(parsed.error, 1)[0]!.message } };
    const query = parsed.data as Readonly<Record<string, unknown>>;
    const problem = queryProblems(query as Query, this.#setup.context)[0];
    if (problem) return { error: { code: 'invalid', message: problem.message } };
    return computeLists(answerQuery(this.#setup, operation, query)) as Record<string, unknown>;
  }
  #found<T>(op: string, parts: Readonly<Record<string, unknown>>): Found<T> {
    const answer = this.ask(op, parts);
    const { error } = answer as { error?: { code: string; message: string } };
    return error ? { ok: false, ...error } : ({ ok: true, ...answer } as unknown as Found<T>);
  }

  /** Sixteen numbers each, as the conventions list them. */
  matrices(): Matrices {
    return this.ask('matrices') as unknown as Matrices;
  }
  /** A world point in every space. */
  worldToScreen(point: Vec3 | Vec2): SeenPoint {
    return this.worldToScreenAll([point])[0]!;
  }
  /** The same of many, by the batch kernels. */
  worldToScreenAll(points: readonly (Vec3 | Vec2)[]): readonly SeenPoint[] {
    return (this.ask('worldToScreen', { points }) as { points: readonly SeenPoint[] }).points;
  }
  /** The world point of a pixel at a depth; null with the reason where there is none. */
  screenToWorld(pixel: Vec2, at: Depth): { readonly point: Vec3 | Vec2 | null; readonly reason?: NullReason } {
    return (this.ask('screenToWorld', { pixels: [pixel], at }) as { pixels: never[] }).pixels[0]!;
  }
  /** The ray of a pixel: from the eye, in orthographic from the eye plane. Not on a flat world. */
  ray(pixel: Vec2): Found<Ray> {
    const found = this.#found<{ pixels: readonly Ray[] }>('rays', { pixels: [pixel] });
    return found.ok ? { ok: true, ...found.pixels[0]! } : found;
  }
  /** What a pixel shows: the first hit, or all in their order; back faces only if wanted. */
  pick(
    pixel: Vec2,
    { all = false, backFaces = false }: { readonly all?: boolean; readonly backFaces?: boolean } = {},
  ): readonly Hit[] {
    const found = this.ask('pick', { pixels: [pixel], all, backFaces, statistics: false });
    return (found as { pixels: { hits: readonly Hit[] }[] }).pixels[0]!.hits;
  }
  /** The frustum's planes in the world, [a, b, c, d] with a·x + b·y + c·z + d above 0 inside. Not on a flat world. */
  planes(): Found<{
    readonly planes: readonly { readonly name: PlaneName; readonly plane: readonly [number, number, number, number] }[];
  }> {
    return this.#found('planes', {});
  }
  /** Bodies against the frustum: exactly, or by the customary test of planes; a margin in pixels. */
  visibility({
    method = 'exact',
    margin = 0,
    bodies,
  }: {
    readonly method?: 'exact' | 'planes';
    readonly margin?: number;
    readonly bodies?: readonly string[];
  } = {}): Found<{ readonly bodies: readonly BodyVerdict[] }> {
    return this.#found('visibility', { method, margin, bodies });
  }
  /** Boards that face: parallel to the view plane, to the eye, or about an axis. Not on a flat world. */
  billboards(items: readonly BoardWish[]): Found<{ readonly items: readonly Board[] }> {
    return this.#found('billboard', { items });
  }
  /** The polygon of a plane that the camera sees; `unbounded` where it runs to infinity. */
  footprint(plane: Plane): Found<{ readonly polygon: readonly Vec3[]; readonly unbounded: boolean }> {
    return this.#found('footprint', { plane });
  }
  /** Points out of sight, uniform by area, by a seed. */
  spawn(wish: SpawnWish): Found<Spawned> {
    return this.#found('spawn', { ...wish });
  }
  /** The same picture of a target from other distances, its height there kept. */
  dollyZoom(target: Vec3, distances: readonly number[]): Found<{ readonly distances: readonly ZoomStop[] }> {
    return this.#found('dollyZoom', { target, distances });
  }
  /** The camera as it is after some seconds of a track, from here. */
  along(track: Track, time: number): Found<{ readonly camera: Camera }> {
    const invalid = (message: string) => ({ ok: false as const, code: 'invalid', message });
    const parsed = trackSchema.safeParse(track, { reportInput: true });
    if (!parsed.success) return invalid(problemsOf(parsed.error, 1)[0]!.message);
    const written = parsed.data as WrittenTrack;
    const { context } = this.#setup;
    const problem = trackFaults(written, context.world)[0];
    if (problem) return invalid(problem.message);
    const there = setupAlong(this.#setup, readValue(trackSchema, written, context), time);
    return there.ok ? { ok: true, camera: new Camera(there.value) } : { ok: false, code: there.code, message: there.message }; // prettier-ignore
  }
}

/**
 * A camera in an engine's conventions, ready to be asked; or what is wrong with its numbers, each with
 * its place and a sentence that has the mend.
 */
export function cameraOf({
  conventions = defaultConventions,
  viewport,
  camera,
  bodies = [],
}: SetUp):
  { readonly ok: true; readonly camera: Camera } | { readonly ok: false; readonly problems: readonly Problem[] } {
  const given = 'kind' in camera ? { rotation: 0, snap: 'none', ...camera } : 'yaw' in camera.orientation ? { ...camera, orientation: { roll: 0, ...camera.orientation } } : camera; // prettier-ignore
  const request = { astrolabe: 1, conventions, viewport: { x: 0, y: 0, ...viewport }, camera: given, bodies, queries: [] }; // prettier-ignore
  const resolved = resolveRequest(request as unknown as Parameters<typeof resolveRequest>[0]);
  return resolved.ok ? { ok: true, camera: new Camera(resolved.value) } : { ok: false, problems: resolved.problems };
}
