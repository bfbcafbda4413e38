import { degrees } from '../../../core/math/angle';
import type { Draft } from 'immer';
import { pictureToWorld } from '../../../core/convert/unproject';
import { pixelToPicture, worldToViewRuf } from '../../../core/convert/project';
import { addScaled, distance, dot, sub, type Vec2, type Vec3 } from '../../../core/math/vec3';
import { flatCamera } from '../../../formats/camera';
import { driveFromPixel, moveProbe } from '../../edits/actions';
import { anglesNow, moveEye, setDepthLimit, setHeight, setVerticalFov, turnTo } from '../../edits/camera';
import { moveAnchor, setFocus, turnWorld, zoomAbout } from '../../edits/camera2d';
import { moveOtherCamera } from '../../edits/cameras';
import type { Moment } from '../../state/moment';
import { cutOf } from '../compose/drawingGeometry';
import type { PictureView } from '../compose/contract';
import { cameraHandlePoints } from '../compose/handlePoints';
import { headingOf, pictureCorners, type DrawingName } from '../compose/drawings';
import { otherCameras } from '../compose/otherCameras';

/*
 * What can be taken hold of in a picture, as data. The house shows it, follows pointer, pen, touch
 * and keys, says where in the world the hand has come to, and makes one step of undo of one
 * gesture.
 */

/** Changes what a task keeps, within the gesture. */
export type Edit<S> = (name: string, recipe: (draft: Draft<S>) => void) => void;

export interface HandleSpec<S = undefined> {
  readonly id: string;
  /** What it is, as in “Move the eye”. */
  readonly name: string;
  /** In which picture. */
  readonly picture: PictureView['name'];
  /** Where it is held, in canonical world space. */
  readonly at: Vec3;
  /** A line that can be taken as well. */
  readonly path?: readonly Vec3[];
  readonly cursor?: string;
  /**
   * The plane through `at` that it moves in, by its normal; the one along the picture if not said.
   */
  readonly along?: Vec3;
  /** How near the pointer must come, in pixels. */
  readonly radius?: number;
  /** What is drawn at it; a lozenge on hover and focus stands over it in any case. */
  readonly sign?: 'turner';
  /**
   * Called with where it has been taken: a point in the world, rounded as fine as a pixel is there,
   * and the pixel itself.
   */
  move(to: Vec3, edit: Edit<S>, gesture: string, pixel: Vec2): void;
}

// What a slice holds is known to the task alone.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type AnyHandle = HandleSpec<any>;

/**
 * Where in the world a place of a picture is, in the plane in which a handle moves; null where the
 * plane is not met.
 */
export function pointUnderHand(
  view: PictureView,
  { at, along }: Pick<HandleSpec, 'at' | 'along'>,
  place: Vec2,
): Vec3 | null {
  const { frame, scale } = view;
  const pixel: Vec2 = [place[0] / scale + frame.viewport.x, place[1] / scale + frame.viewport.y];
  const found = pictureToWorld(
    frame,
    ...pixelToPicture(frame, pixel),
    along ? { kind: 'plane', point: at, normal: along } : { kind: 'ahead', ahead: worldToViewRuf(frame, at)[2] },
  );
  if (!found.ok) return null;
  // No finer than a drag is: a third of a pixel there.
  const { extents: e, near, kind } = frame;
  const ahead = Math.max(worldToViewRuf(frame, found.value)[2], near);
  const perPixel =
    (Math.abs(e.top - e.bottom) / frame.viewport.height / scale) * (kind === 'perspective' ? ahead / near : 1);
  const decimals = Math.max(0, Math.min(15, Math.ceil(-Math.log10(perPixel / 3))));
  const round = (v: number, was: number) =>
    Math.abs(v - was) < 1e-9 * (1 + Math.abs(was)) ? was : Number(v.toFixed(decimals)) || 0;
  return [round(found.value[0], at[0]), round(found.value[1], at[1]), round(found.value[2], at[2])];
}

/** What the house has to take hold of in a picture. */
export function houseHandles(view: PictureView, now: Moment): readonly HandleSpec[] {
  // While the camera is elsewhere than the project has it, there is nothing of it to take hold of.
  const stands = now.frame === now.rest;
  switch (view.name) {
    case 'camera':
      return now.flat ? [anchorHandle(view, now), ...probeInPicture(view, now)] : probeInPicture(view, now);
    case 'plan':
    case 'section':
      return [...(stands ? cameraHandles(view, now) : []), ...otherHandles(view, now)];
    case 'world':
      return [...(stands ? flatHandles(view, now) : []), ...otherHandles(view, now)];
    case 'outside':
      return [...(stands ? eyeHandle(view, now) : []), ...probeHandle(view, now), ...otherHandles(view, now)];
    default:
      return [];
  }
}

/** Whether a place lies in a picture, or a few pixels off it. */
const shown = ({ size }: PictureView, p: Vec2 | null, by = 0): boolean =>
  p !== null && p[0] > -by && p[1] > -by && p[0] < size.width + by && p[1] < size.height + by;

function probeInPicture(view: PictureView, { chain }: Moment): HandleSpec[] {
  if (!chain.ok || !chain.value.pixel.ok || !shown(view, view.point(chain.value.world), 4)) return [];
  return [
    {
      ...{ id: 'probe', name: 'the probe, its distance ahead kept', picture: 'camera', radius: 12 },
      at: chain.value.world,
      move: (_, __, gesture, pixel) => driveFromPixel([pixel[0] / view.scale, pixel[1] / view.scale], gesture),
    },
  ];
}

function probeHandle({ name }: PictureView, { chain }: Moment): HandleSpec[] {
  if (!chain.ok) return [];
  return [
    {
      ...{ id: 'probe', name: 'the probe', picture: name, at: chain.value.world },
      move: (to, _, gesture) => moveProbe(to, gesture),
    },
  ];
}

const eyeHandle = ({ name }: PictureView, { frame }: Moment): HandleSpec[] => [
  { id: 'eye', name: 'the eye', picture: name, at: frame.eye, move: (to, _, gesture) => moveEye(to, gesture) },
];

const otherHandles = ({ name }: PictureView, now: Moment): HandleSpec[] =>
  otherCameras(now).map(({ camera, frame }) => ({
    ...{ id: `camera ${camera.id}`, name: `the camera ${camera.name}`, picture: name },
    at: camera.kind === '2d' ? pictureCorners(frame, 0)[3] : frame.eye,
    move: (to, _, gesture) => {
      if (camera.kind === '3d') return moveOtherCamera(camera.id, to, gesture);
      // It is held by a corner of its picture: the focus moves as far.
      const corner = pictureCorners(frame, 0)[3];
      const by = sub(to, corner);
      moveOtherCamera(camera.id, [camera.focus[0] + by[0], camera.focus[1] + by[1], 0], gesture);
    },
  }));

/**
 * In plan and section: the edges of the field of view, far and near, the aim, the probe, the eye.
 */
function cameraHandles(view: PictureView, now: Moment): HandleSpec[] {
  const name = view.name as DrawingName;
  const { frame } = now;
  const plan = name === 'plan';
  const cut = cutOf(name, now);
  const points = cameraHandlePoints(name, now);
  const { heading, right } = headingOf(frame);
  /**
   * How far along the gaze and off it a place is; in the plan the level way is stretched to the
   * gaze's slope.
   */
  const alongAndOff = (p: Vec3): Vec2 => {
    const d = sub(p, frame.eye);
    if (!plan) return [dot(d, frame.forward), dot(d, frame.up)];
    const level = Math.max(0.05, Math.hypot(frame.forward[0], frame.forward[2]));
    return [dot(d, heading) / level, dot(d, right)];
  };
  const between = (a: Vec3, b: Vec3, t: number): Vec3 => addScaled(a, sub(b, a), t);
  // An edge is held at the middle of what is seen of it.
  const held = (a: Vec3, b: Vec3): Vec3 => {
    const places = [0.75, 0.5, 0.3].map((t) => between(a, b, t));
    return places.find((p) => shown(view, view.point(p))) ?? between(a, b, 0.5);
  };
  const moveEdge: HandleSpec['move'] = (to, _, gesture) => {
    const [along, off] = alongAndOff(to);
    const { extents: e, near } = frame;
    const aspect = (e.right - e.left) / (e.top - e.bottom);
    const half = plan ? Math.abs(off) / aspect : Math.abs(off);
    if (frame.kind === 'orthographic') setHeight(half * 2, gesture);
    else if (along > near * 0.1) setVerticalFov(degrees(2 * Math.atan(half / along)), gesture);
  };
  const limit =
    (end: 'near' | 'far'): HandleSpec['move'] =>
    (to, _, gesture) =>
      setDepthLimit(end, alongAndOff(to)[0], gesture);
  // Which way an edge, and which way a limit is taken.
  const [across, along] = plan ? ['ew-resize', 'ns-resize'] : ['ns-resize', 'ew-resize'];
  const sides = [
    [cut.near0, cut.far0],
    [cut.near1, cut.far1],
  ] as const;
  const of = (
    id: string,
    what: string,
    at: Vec3,
    move: HandleSpec['move'],
    more: Partial<HandleSpec> = {},
  ): HandleSpec => ({
    ...{ id, name: what, picture: name, at, move },
    ...more,
  });
  return [
    ...sides.map(([n, f], i) =>
      of(`edge ${i}`, 'the field of view', held(n, f), moveEdge, { path: [n, f], cursor: across }),
    ),
    ...(points.far === null
      ? []
      : [
          of('far', 'the far limit', points.far, limit('far'), {
            ...{ path: [cut.far0, cut.far1], cursor: along },
          }),
        ]),
    of('near', 'the near limit', points.near, limit('near'), {
      ...{ path: [cut.near0, cut.near1], cursor: along },
    }),
    of('aim', 'the aim', points.aim, (to, _, gesture) => {
      const d = sub(to, frame.eye);
      const angles = anglesNow();
      if (!plan) turnTo(angles.yaw, degrees(Math.atan2(d[1], Math.max(1e-6, dot(d, heading)))), gesture);
      else if (Math.hypot(d[0], d[2]) > 1e-6) turnTo(degrees(Math.atan2(d[0], -d[2])), angles.pitch, gesture);
    }),
    ...probeHandle(view, now),
    ...eyeHandle(view, now),
  ];
}

/** On a flat world, in the camera's picture: the pixel that the focus lies on, the picture kept. */
function anchorHandle(view: PictureView, { project }: Moment): HandleSpec {
  const { focus } = flatCamera(project);
  return {
    ...{ id: 'anchor', name: 'the anchor, the picture kept', picture: 'camera' },
    at: [focus[0], focus[1], 0],
    // By the pixel: where it lies is said in pixels.
    move: (_, __, gesture, pixel) => moveAnchor([pixel[0] / view.scale, pixel[1] / view.scale], gesture),
  };
}

/** On the plan of a flat world: the edges of what is seen, the turn, the probe, the focus. */
function flatHandles(view: PictureView, now: Moment): HandleSpec[] {
  const { project, frame } = now;
  const { anchor, focus, rotation } = flatCamera(project);
  const { viewport: v } = frame;
  const [lowerLeft, lowerRight, upperRight, upperLeft] = pictureCorners(frame, 0);
  const middle = (a: Vec3, b: Vec3): Vec3 => addScaled(a, sub(b, a), 0.5);
  /**
   * An edge is so many pixels from the anchor: where it is taken to says how many there are to a
   * unit.
   */
  const edge = (id: string, name: string, a: Vec3, b: Vec3, pixels: number, axis: 'right' | 'up'): HandleSpec[] =>
    // An edge that passes through the anchor stays where it is at any zoom.
    Math.abs(pixels) < 20
      ? []
      : [
          {
            ...{ id, name, picture: 'world', at: middle(a, b), path: [a, b], cursor: 'move' },
            move: (to, _, gesture) => {
              const way = (to[0] - focus[0]) * frame[axis][0] + (to[1] - focus[1]) * frame[axis][1];
              const zoom = pixels / way;
              if (zoom > 0 && Number.isFinite(zoom)) zoomAbout(anchor, zoom, gesture);
            },
          },
        ];
  const [top, bottom] = [middle(upperLeft, upperRight), middle(lowerLeft, lowerRight)];
  const tall = distance(top, bottom) || 1;
  const perPixel = (view.frame.extents.top - view.frame.extents.bottom) / view.size.height;
  const turner = addScaled(top, sub(top, bottom), (22 * perPixel) / tall);
  const start = Math.atan2(turner[1] - focus[1], turner[0] - focus[0]);
  return [
    ...edge('left', 'the left edge of what is seen', lowerLeft, upperLeft, -anchor[0], 'right'),
    ...edge('right', 'the right edge of what is seen', lowerRight, upperRight, v.width - anchor[0], 'right'),
    ...edge('top', 'the upper edge of what is seen', upperLeft, upperRight, anchor[1], 'up'),
    ...edge('bottom', 'the lower edge of what is seen', lowerLeft, lowerRight, anchor[1] - v.height, 'up'),
    {
      ...{ id: 'turn', name: 'the turn of the camera', picture: 'world', at: turner, sign: 'turner' },
      move: (to, _, gesture) => {
        const angle = Math.atan2(to[1] - focus[1], to[0] - focus[0]);
        // The frame turns with the hand, so the world in it turns the other way.
        turnWorld(rotation - degrees(angle - start), gesture);
      },
    },
    ...probeHandle(view, now),
    {
      ...{ id: 'focus', name: 'the focus', picture: 'world', at: [focus[0], focus[1], 0] },
      move: (to, _, gesture) => setFocus([to[0], to[1]], gesture),
    },
  ];
}
