import { readCamera2d } from '../core/request/readCamera';
import type { RequestCamera, RequestCamera2d } from '../core/request/cameraSchema';
import { reexpressCamera, reexpressCamera2d, writeBody } from '../core/request/write';
import { radians } from '../core/math/angle';
import type { Camera2d } from '../core/camera/camera2d';
import { frameOf, type Camera, type CameraFrame, type Viewport } from '../core/camera/frame';
import type { Orientation } from '../core/camera/orientation';
import { defaultConventions, type Conventions } from '../core/conventions/conventions';
import { codecOf, type ConventionCodec } from '../core/conventions/codec';
import type { PointerPath } from '../core/convert/pointer';
import type { DepthChoice } from '../core/convert/unproject';
import type { QueryOf } from '../core/compute/operations';
import { plane, space } from '../core/quantities/world';
import type { ComputeRequest } from '../core/compute/schema';
import { pixelToPicture, projectPoint, depth01Of } from '../core/convert/project';
import { normalizeQuat } from '../core/math/quat';
import type { Vec2, Vec3 } from '../core/math/vec3';
import type { Checked } from '../core/reasons';
import type { BodyMotion } from '../core/motion/bodies';
import type { BodyMotionKept, Project, ProjectCamera2d, ProjectCamera3d } from './project';

/** The camera of a project that is in space; asking a flat one is a programmer's error. */
export function cameraInSpace({ camera }: Pick<Project, 'camera'>): ProjectCamera3d {
  if (camera.kind !== '3d') throw new Error('this project is flat');
  return camera;
}

/** The camera of a project whose world is flat; asking one in space is a programmer's error. */
export function flatCamera({ camera }: Pick<Project, 'camera'>): ProjectCamera2d {
  if (camera.kind !== '2d') throw new Error('this project is in space');
  return camera;
}

/** A kept camera in space (canonical axes, degrees) as the core takes it (radians). */
export function coreCamera(camera: ProjectCamera3d): Camera {
  const o = camera.orientation;
  const orientation: Orientation =
    o.kind === 'angles' ? { kind: 'angles', yaw: radians(o.yaw), pitch: radians(o.pitch), roll: radians(o.roll) } : o;
  const p = camera.projection;
  const shaped = { shift: p.shift, ...(p.aspect !== null && { aspect: p.aspect }) };
  return {
    position: camera.position,
    orientation,
    projection:
      p.kind === 'perspective'
        ? {
            kind: 'perspective',
            near: p.near,
            far: p.far,
            lens: { verticalFov: radians(p.verticalFov) },
            ...shaped,
          }
        : { kind: 'orthographic', near: p.near, far: p.far, size: { height: p.height }, ...shaped },
  };
}

/** A kept motion of a body (degrees) as the core takes it (radians). */
export function coreMotion(motion: BodyMotionKept): BodyMotion {
  if (motion.kind === 'drift') return { ...motion, turnRate: radians(motion.turnRate) };
  return motion.kind === 'swing' ? { ...motion, amplitude: radians(motion.amplitude) } : motion;
}

/** A kept 2D camera as the core takes it, snapping left out. */
export const coreCamera2d = ({ focus, anchor, zoom, rotation }: ProjectCamera2d, viewport: Viewport): Camera2d => ({
  focus,
  anchor: pixelToPicture({ viewport }, anchor),
  zoom,
  rotation: radians(rotation),
});

/** A kept viewport in CSS pixels, as the core takes it. */
export const coreViewport = ({ viewport: { width, height } }: Pick<Project, 'viewport'>): Viewport => ({
  x: 0,
  y: 0,
  width,
  height,
});

/**
 * The snapshot of a project's camera, or what is wrong with it. Conventions (`e`) play a part for a
 * 2D camera that snaps alone: it snaps to the whole numbers of the screen that they describe.
 */
export function projectFrame(
  { camera, viewport }: Pick<Project, 'camera' | 'viewport'>,
  e: ConventionCodec,
): Checked<CameraFrame> {
  const screen = coreViewport({ viewport });
  if (camera.kind === '3d') return frameOf(coreCamera(camera), screen);
  const read = readCamera2d(expressCamera2d(camera, screen, e), screen, e);
  return read.ok ? frameOf(read.value, screen) : read;
}

/**
 * Where the world's origin lands on the screen of a flat project, in the conventions of `e`: t of
 * screen = zoom·R·p + t. Null when the camera cannot be.
 */
export function translationOf(project: Pick<Project, 'camera' | 'viewport'>, e: ConventionCodec): Vec2 | null {
  const made = projectFrame(project, e);
  if (!made.ok) return null;
  const { picture } = projectPoint(made.value, [0, 0, 0]);
  return picture.ok ? e.toScreen(made.value.viewport, picture.value.across, picture.value.upward) : null;
}

/** The way of a pointer through a project's page, canvas and framebuffer. */
export function pointerPath(
  { pointer, viewport }: Pick<Project, 'pointer' | 'viewport'>,
  { screen }: Pick<Conventions, 'screen'>,
): PointerPath {
  const { canvas, cssScale, framebufferScale, bars } = pointer;
  const { devicePixelRatio, width, height } = viewport;
  const k = devicePixelRatio * framebufferScale;
  return {
    ...{ canvas, cssScale, devicePixelRatio, framebufferScale, origin: screen.origin },
    viewport: { x: bars[0], y: bars[1], width: width * k, height: height * k, bottom: bars[2] },
  };
}

/** The kept choice of depth, in canonical space. A plane is level, at a height. */
export function depthChoiceOf({ route, value }: Project['back']): DepthChoice {
  switch (route) {
    case 'depth':
      return { kind: 'depth', shares: depth01Of(value) };
    case 'ahead':
      return { kind: 'ahead', ahead: value };
    case 'range':
      return { kind: 'range', range: value };
    case 'plane':
      return { kind: 'plane', point: [0, value, 0], normal: [0, 1, 0] };
  }
}

/**
 * The depth of the way back as a compute request says it, in the conventions given; in a flat world
 * the plane of the world.
 */
export function backDepth(
  { back }: Pick<Project, 'back'>,
  e: ConventionCodec,
  flat: boolean,
): QueryOf<'screenToWorld'>['at'] {
  if (flat) return { ahead: 0 };
  const choice = depthChoiceOf(back);
  return choice.kind === 'depth'
    ? { depth: e.toDepth(choice.shares) }
    : choice.kind === 'ahead'
      ? { ahead: choice.ahead }
      : choice.kind === 'range'
        ? { range: choice.range }
        : {
            plane: {
              point: [...e.toWorld(choice.point)] as [number, number, number],
              normal: [...e.toWorld(choice.normal)] as [number, number, number],
            },
          };
}

/**
 * What a project is kept in: the canonical axes and degrees, which are what a request means that
 * says nothing.
 */
const kept = codecOf(defaultConventions);

/** The camera of a flat project in the form of a compute request, in the conventions of `e`. */
export const expressCamera2d = (
  { kind, focus, anchor, zoom, rotation, snap }: ProjectCamera2d,
  viewport: Viewport,
  e: ConventionCodec,
): RequestCamera2d => reexpressCamera2d({ kind, focus, anchor, zoom, rotation, snap }, viewport, kept, e);

/** The camera of a project in space in the form of a compute request, in the conventions of `e`. */
export function expressCamera(
  { position, orientation: o, projection: p }: ProjectCamera3d,
  e: ConventionCodec,
): RequestCamera {
  const shaped = {
    ...((p.shift[0] || p.shift[1]) && { shift: p.shift }),
    ...(p.aspect !== null && { aspect: p.aspect }),
  };
  const orientation: RequestCamera['orientation'] =
    o.kind === 'lookAt'
      ? { lookAt: o.target, ...(o.up && { up: o.up }) }
      : o.kind === 'angles'
        ? { yaw: o.yaw, pitch: o.pitch, roll: o.roll }
        : { right: o.right, up: o.up, forward: o.forward };
  return reexpressCamera(
    {
      position,
      orientation,
      projection:
        p.kind === 'perspective'
          ? { kind: 'perspective', near: p.near, far: p.far, verticalFov: p.verticalFov, ...shaped }
          : { kind: 'orthographic', near: p.near, far: p.far, height: p.height, ...shaped },
    },
    kept,
    e,
  );
}

/**
 * The orientation of a request in default conventions as a project keeps it: a quaternion becomes
 * the basis that it is.
 */
export function keepOrientation(o: RequestCamera['orientation']): ProjectCamera3d['orientation'] {
  if ('lookAt' in o) return { kind: 'lookAt', target: o.lookAt, ...(o.up && { up: o.up }) };
  if ('yaw' in o) return { kind: 'angles', yaw: o.yaw, pitch: o.pitch, roll: o.roll };
  if ('right' in o) return { kind: 'basis', right: o.right, up: o.up, forward: o.forward };
  const unit = normalizeQuat(o.quaternion);
  const basis = unit && kept.fromQuaternion(unit);
  if (!basis) throw new Error('a quaternion that was checked when it was read');
  return { kind: 'basis', right: [...basis.right], up: [...basis.up], forward: [...basis.forward] };
}

/**
 * A project as a compute request in its own conventions: its viewport, camera and bodies, and
 * queries for what the application shows of the probe (`probe`, at its world point) and of the way
 * back (`back`), with the matrices and, in space, the ray.
 */
export function projectRequest(project: Project, e: ConventionCodec, probe: Vec3 | null): ComputeRequest {
  const { back, camera } = project;
  const viewport = coreViewport(project);
  const flat = camera.kind === '2d';
  const world = flat ? plane : space;
  const pixel = e.toScreen(viewport, ...pixelToPicture({ viewport }, back.pixel));
  const pixels: [number, number][] = [[...pixel]];
  return {
    astrolabe: 1,
    conventions: project.conventions,
    viewport,
    camera: flat ? expressCamera2d(camera, viewport, e) : expressCamera(camera, e),
    bodies: project.bodies.map((body) => writeBody(body, { codec: e, world })),
    queries: [
      { id: 'matrices', op: 'matrices' },
      ...(probe
        ? [
            {
              id: 'probe',
              op: 'worldToScreen' as const,
              points: [world.writePoint(probe, e)],
            },
          ]
        : []),
      // A flat world has one point under a pixel, whatever is said of its depth.
      { id: 'back', op: 'screenToWorld', pixels, at: backDepth(project, e, flat) },
      ...(flat ? [] : [{ id: 'ray', op: 'rays' as const, pixels }]),
      // Bodies of a flat world lie on one another in their order: the last hit is the uppermost.
      { id: 'hit', op: 'pick', pixels, ...(flat && { all: true }) },
    ],
  };
}
