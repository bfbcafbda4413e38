import type { Camera, Viewport } from '../core/camera/frame';
import type { Orientation } from '../core/camera/orientation';
import type { Expression } from '../core/conventions/express';
import type { DepthChoice } from '../core/convert/unproject';
import type { ComputeRequest } from '../core/compute/schema';
import { sharesOfDepth } from '../core/convert/project';
import { writeBody } from '../core/compute/write';
import type { Vec3 } from '../core/math/vec3';
import type { Project, ProjectCamera } from './project';

const radians = (degrees: number) => (degrees * Math.PI) / 180;

/** A kept camera (inside axes, degrees) as the core takes it (radians). */
export function coreCamera(camera: ProjectCamera): Camera {
  const o = camera.orientation;
  const orientation: Orientation =
    o.kind === 'lookAt'
      ? { kind: 'lookAt', target: o.target }
      : { kind: 'angles', yaw: radians(o.yaw), pitch: radians(o.pitch), roll: radians(o.roll) };
  const p = camera.projection;
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
            shift: p.shift,
          }
        : { kind: 'orthographic', near: p.near, far: p.far, size: { height: p.height }, shift: p.shift },
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

/** The camera of a project in the form of a compute request, in the conventions of `e`. */
export function expressCamera(camera: ProjectCamera, e: Expression): ComputeRequest['camera'] {
  const angle = (degrees: number) => (e.conventions.angles.unit === 'degrees' ? degrees : radians(degrees));
  const { position, orientation: o, projection: p } = camera;
  const { yaw, pitch, roll } = e.conventions.angles;
  const sense = (value: number, positive: boolean) => angle(positive ? value : value === 0 ? 0 : -value);
  const shift = p.shift[0] || p.shift[1] ? { shift: p.shift } : {};
  return {
    position: [...e.toWorld(position)],
    orientation:
      o.kind === 'lookAt'
        ? { lookAt: [...e.toWorld(o.target)] }
        : {
            yaw: sense(o.yaw, yaw === 'right'),
            pitch: sense(o.pitch, pitch === 'up'),
            roll: sense(o.roll, roll === 'right'),
          },
    projection:
      p.kind === 'perspective'
        ? { kind: 'perspective', near: p.near, far: p.far, verticalFov: angle(p.verticalFov), ...shift }
        : { kind: 'orthographic', near: p.near, far: p.far, height: p.height, ...shift },
  };
}

/**
 * A project as a compute request in its own conventions: its viewport, camera and bodies, and queries for what the application shows of the
 * probe (`probe`, at its world point) and of the way back (`back`), with the matrices and the ray.
 */
export function projectRequest(project: Project, e: Expression, probe: Vec3 | null): ComputeRequest {
  const { back } = project;
  const viewport = coreViewport(project);
  const pixel = e.toScreen(
    viewport,
    (back.pixel[0] / viewport.width) * 2 - 1,
    1 - (back.pixel[1] / viewport.height) * 2,
  );
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
