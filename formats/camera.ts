import type { Camera, Viewport } from '../core/camera/frame';
import type { Orientation } from '../core/camera/orientation';
import { defaultConventions } from '../core/conventions/conventions';
import { expressionOf, type Expression } from '../core/conventions/express';
import type { DepthChoice } from '../core/convert/unproject';
import type { ComputeRequest, RequestCamera } from '../core/compute/schema';
import { pixelToPicture, sharesOfDepth } from '../core/convert/project';
import { reexpressCamera, writeBody } from '../core/compute/write';
import { normalizeQuat } from '../core/math/quat';
import type { Vec3 } from '../core/math/vec3';
import type { Project, ProjectCamera } from './project';

const radians = (degrees: number) => (degrees * Math.PI) / 180;

/** A kept camera (inside axes, degrees) as the core takes it (radians). */
export function coreCamera(camera: ProjectCamera): Camera {
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

/** A kept viewport in CSS pixels, as the core takes it. */
export const coreViewport = ({ viewport: { width, height } }: Pick<Project, 'viewport'>): Viewport => ({
  x: 0,
  y: 0,
  width,
  height,
});

/** The kept choice of depth, on the inside. A plane is level, at a height. */
export function depthChoiceOf({ route, value }: Project['back']): DepthChoice {
  switch (route) {
    case 'depth':
      return { kind: 'depth', shares: sharesOfDepth(value) };
    case 'ahead':
      return { kind: 'ahead', ahead: value };
    case 'range':
      return { kind: 'range', range: value };
    case 'plane':
      return { kind: 'plane', point: [0, value, 0], normal: [0, 1, 0] };
  }
}

/** What a project is kept in: the inside's axes and degrees, which are what a request means that says nothing. */
const kept = expressionOf(defaultConventions);

/** The camera of a project in the form of a compute request, in the conventions of `e`. */
export function expressCamera(
  { position, orientation: o, projection: p }: ProjectCamera,
  e: Expression,
): RequestCamera {
  const shaped = {
    ...((p.shift[0] || p.shift[1]) && { shift: p.shift }),
    ...(p.aspect !== null && { aspect: p.aspect }),
  };
  const orientation: RequestCamera['orientation'] =
    o.kind === 'lookAt'
      ? { lookAt: o.target }
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

/** The orientation of a request in default conventions as a project keeps it: a quaternion becomes the basis that it is. */
export function keepOrientation(o: RequestCamera['orientation']): ProjectCamera['orientation'] {
  if ('lookAt' in o) return { kind: 'lookAt', target: o.lookAt };
  if ('yaw' in o) return { kind: 'angles', yaw: o.yaw, pitch: o.pitch, roll: o.roll };
  if ('right' in o) return { kind: 'basis', right: o.right, up: o.up, forward: o.forward };
  const unit = normalizeQuat(o.quaternion);
  const basis = unit && kept.fromQuaternion(unit);
  if (!basis) throw new Error('a quaternion that was checked when it was read');
  return { kind: 'basis', right: [...basis.right], up: [...basis.up], forward: [...basis.forward] };
}

/**
 * A project as a compute request in its own conventions: its viewport, camera and bodies, and queries for what the application shows of the
 * probe (`probe`, at its world point) and of the way back (`back`), with the matrices and the ray.
 */
export function projectRequest(project: Project, e: Expression, probe: Vec3 | null): ComputeRequest {
  const { back } = project;
  const viewport = coreViewport(project);
  const pixel = e.toScreen(viewport, ...pixelToPicture({ viewport }, back.pixel));
  const choice = depthChoiceOf(back);
  const at =
    choice.kind === 'depth'
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
  const pixels: [number, number][] = [[...pixel]];
  return {
    astrolabe: 1,
    conventions: project.conventions,
    viewport,
    camera: expressCamera(project.camera, e),
    bodies: project.bodies.map((body) => writeBody(body, e)),
    queries: [
      { id: 'matrices', op: 'matrices' },
      ...(probe
        ? [{ id: 'probe', op: 'worldToScreen' as const, points: [[...e.toWorld(probe)] as [number, number, number]] }]
        : []),
      { id: 'back', op: 'screenToWorld', pixels, at },
      { id: 'ray', op: 'rays', pixels },
      { id: 'hit', op: 'pick', pixels },
    ],
  };
}
