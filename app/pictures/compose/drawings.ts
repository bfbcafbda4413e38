import { degrees, radians } from '../../../core/math/angle';
import { basisOfAngles, type Basis } from '../../../core/camera/orientation';
import { frameOf, type CameraFrame } from '../../../core/camera/frame';
import { pixelToPicture, pictureToViewRuf, viewRufToWorld } from '../../../core/convert/project';
import { niceNear } from '../../../core/math/nice';
import { addScaled, cross, distance, normalize, type Vec2, type Vec3 } from '../../../core/math/vec3';
import type { DrawingView, OutsideView } from '../../state/drawings';
import type { Moment } from '../../state/moment';
import type { Size } from './contract';

/*
 * Plan and Section are orthographic frames of the same core, over the drawing's own pixels. Where
 * they are moved to and how large is no part of the document: moving a drawing never moves the
 * camera.
 */

export type DrawingName = 'plan' | 'section';

const up: Vec3 = [0, 1, 0];

/**
 * The level direction that a camera looks along, and the level right of it; straight up or down,
 * its head or feet say which.
 */
export function headingOf(frame: CameraFrame): { heading: Vec3; right: Vec3 } {
  const level = (v: Vec3) => (Math.hypot(v[0], v[2]) > 1e-6 ? normalize([v[0], 0, v[2]]) : null);
  const heading = level(frame.forward) ?? level(frame.up) ?? [0, 0, -1];
  return { heading, right: cross(heading, up) };
}

/** The lines on the ground, in world units, for a scene of a size; every fifth is heavier. */
export const gridStepOf = ({ radius }: Bounds): number => niceNear(radius / 14);

type Bounds = Moment['sceneBounds'];
/**
 * How far back a drawing's eye stands: beyond all that there is, and far from it where there is
 * little.
 */
const standOff = ({ radius }: Bounds): number => 20 * radius;

/** An orthographic frame about a centre, its eye so far back (`back`) that everything is ahead. */
function drawn(centre: Vec3, basis: Basis, view: DrawingView, size: Size, back: number): CameraFrame {
  const made = frameOf(
    {
      position: addScaled(centre, basis.forward, -back),
      orientation: { kind: 'basis', ...basis },
      projection: {
        kind: 'orthographic',
        near: 0,
        far: 2 * back,
        size: { height: Math.max(1e-9, size.height * view.unitsPerPixel) },
      },
    },
    { x: 0, y: 0, width: Math.max(1, size.width), height: Math.max(1, size.height) },
  );
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.value;
}

/**
 * Straight down. It does not depend on the camera: while one is dragged the plan stays the same
 * picture.
 */
export const planFrame = (view: DrawingView, size: Size, bounds: Bounds): CameraFrame =>
  drawn(
    [view.middle[0], bounds.centre[1], view.middle[1]],
    { right: [1, 0, 0], up: [0, 0, -1], forward: [0, -1, 0] },
    view,
    size,
    standOff(bounds),
  );

/** A flat world from where a 2D camera sees it, its right and up along the drawing's. */
export const worldFrame = (view: DrawingView, size: Size): CameraFrame =>
  drawn([view.middle[0], view.middle[1], 0], { right: [1, 0, 0], up: [0, 1, 0], forward: [0, 0, -1] }, view, size, 1);

/** Level, from the camera's right: its heading runs to the right of the drawing. */
export function sectionFrame(view: DrawingView, size: Size, frame: CameraFrame, bounds: Bounds): CameraFrame {
  const { heading, right } = headingOf(frame);
  const centre = addScaled([frame.eye[0], view.middle[1], frame.eye[2]], heading, view.middle[0]);
  return drawn(centre, { right: heading, up, forward: [-right[0], 0, -right[2]] }, view, size, standOff(bounds));
}

/** The point of the drawing's middle plane (through `through`) that lies under a pixel of it. */
export function drawingPoint(drawing: CameraFrame, pixel: Vec2, through: Vec3): Vec3 {
  const ahead =
    (through[0] - drawing.eye[0]) * drawing.forward[0] +
    (through[1] - drawing.eye[1]) * drawing.forward[1] +
    (through[2] - drawing.eye[2]) * drawing.forward[2];
  return viewRufToWorld(drawing, pictureToViewRuf(drawing, ...pixelToPicture(drawing, pixel), ahead));
}

/**
 * How far a frustum is drawn: its far distance, or for an infinite one as far as the scene is
 * large.
 */
export const drawnFar = ({ frame, sceneBounds }: Pick<Moment, 'frame' | 'sceneBounds'>): number =>
  frame.far ?? Math.max(frame.near * 4, sceneBounds.radius * 1.5);

/**
 * A point of the frustum's cut: an edge (to the right, or upward, at the near plane) carried to a
 * distance ahead.
 */
export function cutPoint(frame: CameraFrame, ahead: number, right: number, upward: number): Vec3 {
  const k = frame.kind === 'perspective' ? ahead / frame.near : 1;
  return viewRufToWorld(frame, [right * k, upward * k, ahead]);
}

/**
 * The view of a drawing in which the camera, what it sees and the probe all stand, with some air.
 */
export function fitted(name: DrawingName, size: Size, moment: Moment): DrawingView {
  if (moment.flat) return fittedWorld(size, moment);
  const { frame, chain, sceneBounds } = moment;
  const far = Math.min(drawnFar(moment), 4 * sceneBounds.radius);
  const { extents: e } = frame;
  const points: Vec3[] = [frame.eye];
  for (const ahead of [frame.near, far])
    for (const edge of name === 'plan' ? [e.left, e.right] : [e.bottom, e.top])
      points.push(name === 'plan' ? cutPoint(frame, ahead, edge, 0) : cutPoint(frame, ahead, 0, edge));
  if (chain.ok && Math.hypot(...chain.value.world.map((v, i) => v - sceneBounds.centre[i]!)) < 4 * sceneBounds.radius)
    points.push(chain.value.world);
  const { heading } = headingOf(frame);
  const flat: Vec2[] = points.map((p) =>
    name === 'plan' ? [p[0], p[2]] : [(p[0] - frame.eye[0]) * heading[0] + (p[2] - frame.eye[2]) * heading[2], p[1]],
  );
  return viewOf(flat, size);
}

/**
 * The corners of the picture of a frame at a distance ahead, in the world, counter-clockwise from
 * the lower left.
 */
export const pictureCorners = (frame: CameraFrame, ahead: number): [Vec3, Vec3, Vec3, Vec3] => {
  const at = (x: number, y: number) => viewRufToWorld(frame, pictureToViewRuf(frame, x, y, ahead));
  return [at(-1, -1), at(1, -1), at(1, 1), at(-1, 1)];
};

/** A flat world whole, with the camera's picture in it. */
function fittedWorld(size: Size, { frame, sceneBounds, placed, project }: Moment): DrawingView {
  const { centre: c, half, radius: r } = sceneBounds;
  const world = [-1, 1].map((s): Vec2 => [c[0] + s * half[0], c[1] + s * half[1]]);
  const seen = pictureCorners(frame, 0).map(([x, y]): Vec2 => [x, y]);
  // With nothing else in it, the picture's frame alone, its turn and its dimensions within the
  // drawing.
  if (!placed.size && !project.tiles) return viewOf(seen, { width: size.width - 30, height: size.height - 60 });
  // A picture many times larger than the world would leave nothing of it to see.
  const fits = seen.every(([x, y]) => Math.hypot(x - c[0], y - c[1]) < 4 * r);
  return viewOf(fits ? [...world, ...seen] : world, size);
}

function viewOf(points: readonly Vec2[], size: Size): DrawingView {
  const range = (i: 0 | 1) => [Math.min(...points.map((p) => p[i])), Math.max(...points.map((p) => p[i]))] as const;
  const [x0, x1] = range(0);
  const [y0, y1] = range(1);
  const room = { width: Math.max(40, size.width - 70), height: Math.max(40, size.height - 40) };
  return {
    middle: [(x0 + x1) / 2, (y0 + y1) / 2],
    unitsPerPixel: Math.max((x1 - x0) / room.width, (y1 - y0) / room.height, 1e-6),
  };
}

/** The free view's frame: perspective, everything ahead of it, nothing cut off by far. */
export function outsideFrame({ target, yaw, pitch, distance }: OutsideView, size: Size): CameraFrame {
  const angles = { yaw: radians(yaw), pitch: radians(pitch), roll: 0 };
  const made = frameOf(
    {
      position: addScaled(target, basisOfAngles(angles).forward, -distance),
      orientation: { kind: 'angles', ...angles },
      projection: { kind: 'perspective', near: distance / 200, far: null, lens: { verticalFov: radians(40) } },
    },
    { x: 0, y: 0, width: Math.max(1, size.width), height: Math.max(1, size.height) },
  );
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.value;
}

/** From behind the camera's right and above, with it and most of the scene in the picture. */
export function fittedOutside({ rest, sceneBounds: b }: Moment): OutsideView {
  const { heading } = headingOf(rest);
  const yaw = degrees(Math.atan2(heading[0], -heading[2]));
  const far = Math.min(distance(rest.eye, b.centre), 3 * b.radius);
  return {
    target: b.centre.map((v, i) => (v + rest.eye[i]!) / 2) as unknown as Vec3,
    yaw: Number((yaw - 38).toFixed(2)),
    pitch: -28,
    distance: 1.25 * Math.max(b.radius, far) + far / 2,
  };
}
