import type { RequestCamera2d } from '../../core/request/cameraSchema';
import { degrees, tidyDegrees } from '../../core/math/angle';
import { frameFov, frameOf, pictureShape, type CameraFrame } from '../../core/camera/frame';
import { anglesOfBasis } from '../../core/camera/orientation';
import {
  startingCamera,
  startingCamera2d,
  type StartingCamera,
  type StartingCamera2d,
} from '../../core/camera/starting';
import { boundingSphere } from '../../core/bodies/body';
import { pictureToPixel } from '../../core/convert/project';
import { niceBelow } from '../../core/math/nice';
import { length, type Vec3 } from '../../core/math/vec3';
import { coreViewport } from '../../formats/camera';
import { currentProject } from '../state/document';
import type { Moment } from '../state/moment';
import { useSelection } from '../state/selection';
import { currentMoment } from '../state/tempo';
import { say } from '../ui/notices';

/* New cameras: those to start from, and those read from numbers. Loaded with the menus that offer them. */

import { addCamera, named, tidy } from './cameras';

/** Names of the starting cameras. */
export const startingCameras: Readonly<Record<StartingCamera, string>> = {
  firstPerson: 'First person',
  overTheShoulder: 'Over the shoulder',
  fromAbove: 'From above',
  isometric: 'Isometric',
  dimetric: 'Dimetric',
  sideOn: 'Side on',
};
export const startingCameras2d: Readonly<Record<StartingCamera2d, string>> = {
  sideScroller: 'Side scroller',
  pixelPerfect: 'Pixel-perfect',
};

/**
 * Returns what a starting camera is set up for: the selection, which it frames, else the probed body with its parts,
 * else the probe itself.
 */
function subjectOf({ project, placed, roots, chain, frame, sceneBounds: b }: Moment) {
  const selected = new Set(useSelection.getState().ids);
  const probed = project.probe.body === null ? null : (roots.get(project.probe.body) ?? null);
  const isOwn = (root: string | undefined) =>
    root !== undefined && (selected.size ? selected.has(root) : root === probed);
  const parts = [...placed.values()].filter(({ body }) => isOwn(roots.get(body.id))).map((one) => boundingSphere(one));
  const at = chain.ok ? chain.value.world : frame.eye;
  const low = (axis: 0 | 1 | 2) => Math.min(...parts.map(({ centre, radius }) => centre[axis] - radius));
  const high = (axis: 0 | 1 | 2) => Math.max(...parts.map(({ centre, radius }) => centre[axis] + radius));
  const middle = (axis: 0 | 1 | 2) => (low(axis) + high(axis)) / 2;
  const root = !selected.size && probed ? placed.get(probed)! : null;
  const height = parts.length ? high(1) - low(1) : 0;
  const { viewport } = frame;
  return {
    foot: (parts.length
      ? [root ? root.toWorld[3]! : middle(0), low(1), root ? root.toWorld[11]! : middle(2)]
      : at) as Vec3,
    height: height > 1e-6 ? height : niceBelow(b.radius / 50),
    yaw: anglesOfBasis(frame).yaw,
    reach: b.radius * 2,
    framed:
      selected.size && parts.length
        ? length([high(0) - low(0), height, high(2) - low(2)]) * Math.max(1, viewport.height / viewport.width)
        : null,
  };
}

/** Adds a starting camera for the probe, in space. */
export function addStartingCamera(kind: StartingCamera): void {
  const now = currentMoment();
  const { project } = now;
  if (now.flat) return;
  const camera = startingCamera(kind, subjectOf(now));
  const made = frameOf(camera, coreViewport(project));
  if (!made.ok || camera.orientation.kind !== 'angles') return;
  const { yaw, pitch, roll } = camera.orientation;
  const p = camera.projection;
  const shaped = { shift: [0, 0] as [number, number], aspect: null };
  addCamera(`add the camera ${startingCameras[kind]}`, {
    ...{ kind: '3d', ...named(project, startingCameras[kind]), sensorHeight: 24 },
    position: camera.position.map(tidy) as [number, number, number],
    orientation: { kind: 'angles', yaw: tidyDegrees(yaw), pitch: tidyDegrees(pitch), roll: tidyDegrees(roll) },
    projection:
      p.kind === 'orthographic' && 'height' in p.size
        ? { kind: 'orthographic', height: tidy(p.size.height!), near: p.near, far: tidy(p.far!), ...shaped }
        : {
            ...{ kind: 'perspective', near: tidy(made.value.near), far: tidy(made.value.far!) },
            ...{ verticalFov: tidy(degrees(2 * Math.atan(made.value.extents.top / made.value.near))), ...shaped },
          },
  });
}

/** Adds a camera that was read from numbers, a proper one in space, under a name. */
export function addReadCamera(frame: CameraFrame, name: string): void {
  const { yaw, pitch, roll } = anglesOfBasis(frame);
  const { near, far, viewport } = frame;
  const { height, ...shape } = pictureShape(frame);
  const aspect = tidy(shape.aspect);
  const shift = shape.shift.map(tidy) as [number, number];
  const shaped = { shift, aspect: Math.abs(aspect / (viewport.width / viewport.height) - 1) < 1e-5 ? null : aspect };
  const fov = frameFov(frame);
  addCamera(`add the camera ${name}`, {
    ...{ kind: '3d', ...named(currentProject(), name), sensorHeight: 24 },
    position: frame.eye.map(tidy) as [number, number, number],
    orientation: { kind: 'angles', yaw: tidy(degrees(yaw)), pitch: tidy(degrees(pitch)), roll: tidy(degrees(roll)) },
    projection:
      fov === null
        ? { kind: 'orthographic', height: tidy(height), near: tidy(near), far: tidy(far!), ...shaped }
        : {
            ...{ kind: 'perspective', verticalFov: tidy(degrees(fov)), near: tidy(near) },
            ...{ far: far === null ? null : tidy(far), ...shaped },
          },
  });
  say(`Added the camera ${name}, and looks through it. Undo takes it out again.`);
}

/** Adds a 2D camera that was read from numbers, in the axes and units of projects, under a name. */
export function addReadCamera2d(camera: RequestCamera2d, name: string): void {
  addCamera(`add the camera ${name}`, { ...camera, ...named(currentProject(), name) });
  say(`Added the camera ${name}, and looks through it. Undo takes it out again.`);
}

/** Adds a starting camera for the probe, on a flat world. */
export function addStartingCamera2d(kind: StartingCamera2d): void {
  const { project, chain, flat, sceneBounds: b } = currentMoment();
  if (!flat) return;
  const viewport = coreViewport(project);
  const at = chain.ok ? chain.value.world : b.centre;
  const camera = startingCamera2d(kind, [tidy(at[0]), tidy(at[1])], viewport, niceBelow(b.radius));
  const anchor = pictureToPixel({ viewport }, ...camera.anchor).map(Math.round) as [number, number];
  addCamera(`add the camera ${startingCameras2d[kind]}`, {
    ...{ kind: '2d', ...named(project, startingCameras2d[kind]), anchor, zoom: camera.zoom, rotation: 0 },
    focus: [...camera.focus] as [number, number],
    snap: kind === 'pixelPerfect' ? 'floor' : 'round',
  });
}
