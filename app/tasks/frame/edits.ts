import { radians, tidyDegrees } from '../../../core/math/angle';
import { flatCamera } from '../../../formats/camera';
import type { Draft } from 'immer';
import { worldShape } from '../../../core/bodies/geometry';
import { fitPoints } from '../../../core/camera/fit';
import { fitMargin, fittedCamera } from '../../../formats/fittedCamera';
import { anglesOfBasis, basisOfLookAt, type Basis } from '../../../core/camera/orientation';
import type { Extents } from '../../../core/camera/projection';
import { addScaled, distance, type Vec2, type Vec3 } from '../../../core/math/vec3';
import type { PlacedBody } from '../../../core/bodies/body';
import { wholeZoomFor } from '../../../core/camera/camera2d';
import type { ProjectCamera3d } from '../../../formats/project';
import { showAt, wholeStep, zoomAbout } from '../../edits/camera2d';
import { currentMoment } from '../../state/tempo';
import type { Moment } from '../../state/moment';
import { useSelection } from '../../state/selection';
import { editCamera, editCamera2d } from '../../state/document';
import { editable } from '../../ui/figures';

/*
 * What the worksheet of Frame does to the camera. Numbers that are worked out are kept to fourteen
 * digits: sums of rounded ones stay short.
 */

export const tidy = (v: number): number => (Math.abs(v) < 1e-12 ? 0 : Number(v.toPrecision(14)));

/**
 * What the camera is set against: the probe if it is ahead, else what the middle of the picture
 * shows of the ground, else a middle distance.
 */
interface Subject {
  readonly name: string;
  readonly ahead: number;
  readonly point: Vec3;
  /** Whether it is the probe. */
  readonly probed: boolean;
}

export function subjectOf({ chain, frame, project, flat }: Moment): Subject {
  if (flat) return { name: 'any place', ahead: 0, point: frame.eye, probed: false };
  if (chain.ok && chain.value.viewRuf[2] > 0) {
    const name = project.bodies.find(({ id }) => id === project.probe.body)?.name ?? 'the probe';
    return { name, ahead: chain.value.viewRuf[2], point: chain.value.world, probed: true };
  }
  const at = (ahead: number, name: string) => ({
    ...{ name, ahead, probed: false },
    point: addScaled(frame.eye, frame.forward, ahead),
  });
  const { ground } = project;
  const fall = frame.forward[1];
  if (ground && fall !== 0) {
    const ahead = (ground.height - frame.eye[1]) / fall;
    if (ahead > 0 && ahead < (frame.far ?? 1e4)) return at(ahead, ground.name);
  }
  return at(Math.sqrt(Math.max(frame.near, 0.1) * (frame.far ?? 1000)), 'the middle distance');
}

/**
 * Edges of the picture as a lens, its shift and its aspect: the inverse of what `resolveProjection`
 * makes of them.
 */
export function setEdges(edges: Extents, gesture: string): void {
  const { frame } = currentMoment();
  const [width, height] = [edges.right - edges.left, edges.top - edges.bottom];
  const { viewport: v, near } = frame;
  editCamera(
    'move an edge of the picture',
    ({ projection: p }) => {
      if (p.kind === 'perspective') p.verticalFov = tidyDegrees(2 * Math.atan(height / (2 * near)));
      else p.height = tidy(height);
      p.shift = [tidy((edges.right + edges.left) / width), tidy((edges.top + edges.bottom) / height)];
      const aspect = tidy(width / height);
      p.aspect = Math.abs(aspect / (v.width / v.height) - 1) < 1e-12 ? null : aspect;
    },
    gesture,
  );
}

/** Holds the gaze by another of its forms; the camera does not move. */
export function holdBy(kind: ProjectCamera3d['orientation']['kind']): void {
  const moment = currentMoment();
  const { frame } = moment;
  const names = { lookAt: 'aim at a point', angles: 'aim by angles', basis: 'aim by a basis' };
  editCamera(names[kind], (camera) => {
    if (kind === 'angles') camera.orientation = angles(frame);
    else if (kind === 'basis') camera.orientation = basis(frame);
    else {
      const target = addScaled(frame.eye, frame.forward, subjectOf(moment).ahead);
      // A rolled camera has an up of its own.
      const level = basisOfLookAt(frame.eye, target);
      const rolled = !level || distance(level.right, frame.right) > 1e-9;
      camera.orientation = { kind: 'lookAt', target: [...target], ...(rolled && { up: [...frame.up] }) };
    }
  });
}

const angles = (of: Basis) => {
  const { yaw, pitch, roll } = anglesOfBasis(of);
  return { kind: 'angles' as const, yaw: tidyDegrees(yaw), pitch: tidyDegrees(pitch), roll: tidyDegrees(roll) };
};
const basis = ({ right, up, forward }: Basis): Draft<Extract<ProjectCamera3d['orientation'], { kind: 'basis' }>> => ({
  kind: 'basis',
  right: [...right],
  up: [...up],
  forward: [...forward],
});

export const setBasis = (of: Basis, gesture: string | null = null): void =>
  editCamera('turn the camera', (camera) => void (camera.orientation = basis(of)), gesture);

/**
 * Moves the camera, its gaze kept, to where all points are in its picture; in orthographic it also
 * grows. Near and far make room.
 */
function fitTo(name: string, points: readonly Vec3[]): void {
  const { frame, flat, project } = currentMoment();
  const fit = fitPoints(frame, points, fitMargin);
  if (!fit) return;
  if (flat) {
    showAt(name, [fit.eye[0], fit.eye[1]], flatCamera(project).zoom / fit.scale);
    return;
  }
  editCamera(name, (camera) => void Object.assign(camera, fittedCamera(camera as ProjectCamera3d, frame, fit)));
}

/**
 * The outermost points of placed bodies: corners of hulls, and the corners of the box round a
 * sphere.
 */
const pointsOf = (bodies: Iterable<PlacedBody>): Vec3[] =>
  [...bodies].flatMap((one) => {
    const shape = worldShape(one);
    if (shape.kind === 'hull') return shape.points;
    const { centre: c, radius: r } = shape;
    return [-r, r].flatMap((x) => [-r, r].flatMap((y) => [-r, r].map((z): Vec3 => [c[0] + x, c[1] + y, c[2] + z])));
  });

export const fitEverything = (): void => fitTo('fit everything', pointsOf(currentMoment().placed.values()));

/** Fits the body that is probed, with its parts. */
export function fitProbed(): void {
  const { placed, project, roots } = currentMoment();
  const root = project.probe.body === null ? null : roots.get(project.probe.body);
  if (!root) return;
  const name = project.bodies.find(({ id }) => id === root)!.name;
  fitTo(`fit ${name}`, pointsOf([...placed.values()].filter(({ body }) => roots.get(body.id) === root)));
}

/** Fits what is selected, each body with its parts. */
export function fitSelection(): void {
  const { placed, roots } = currentMoment();
  const { ids } = useSelection.getState();
  const chosen = [...placed.values()].filter(({ body }) => ids.includes(roots.get(body.id)!));
  fitTo('fit the selection', pointsOf(chosen));
}

/** A level rectangle in the world, on the canonical right and ahead, at a height. */
export interface Rectangle {
  readonly right: readonly [number, number];
  readonly ahead: readonly [number, number];
  readonly height: number;
}

/** A rectangle of a flat world, in canonical space's right and up. */
export interface FlatRectangle {
  readonly right: readonly [number, number];
  readonly up: readonly [number, number];
}

/**
 * The room that a rectangle of the world takes in the picture: turned, that of the upright one round
 * it. Null where it is none.
 */
function roomOf({ right, up }: FlatRectangle, rotation: number): Vec2 | null {
  const size = [Math.abs(right[1] - right[0]), Math.abs(up[1] - up[0])] as const;
  if (!(size[0] > 0 && size[1] > 0)) return null;
  const [s, c] = [Math.abs(Math.sin(radians(rotation))), Math.abs(Math.cos(radians(rotation)))];
  return [size[0] * c + size[1] * s, size[0] * s + size[1] * c];
}

/**
 * Why a rectangle cannot fill the picture to its edges, and the viewport that it would fill: of the
 * same width, or of the same height where that would be taller than it is now. Null where it can.
 */
export function exactViewport(
  rectangle: FlatRectangle,
  { width, height }: { width: number; height: number },
  rotation: number,
) {
  const size = roomOf(rectangle, rotation);
  if (!size) return null;
  const ratio = size[0] / size[1];
  const off = (w: number, h: number) => Math.abs(w / h / ratio - 1) > 1e-9;
  if (!off(width, height)) return null;
  const wider = ratio > width / height;
  const side = (v: number) => Math.max(1, Math.min(16384, Math.round(v)));
  const viewport = wider ? { width, height: side(width / ratio) } : { width: side(height * ratio), height };
  return { size, wider, viewport, off: off(viewport.width, viewport.height) };
}

/**
 * Shows at least a rectangle of a flat world, to the edge; with `whole` at the largest whole zoom
 * that does, where there is one.
 */
export function fitFlatRectangle(rectangle: FlatRectangle, whole: boolean): void {
  const { frame, project } = currentMoment();
  const { right, up } = rectangle;
  const across = roomOf(rectangle, flatCamera(project).rotation);
  if (!across) return;
  const { width, height } = frame.viewport;
  const exact = Math.min(width / across[0], height / across[1]);
  const zoom = (whole && wholeZoomFor(frame.viewport, across)) || exact;
  showAt('fit a world rectangle', [(right[0] + right[1]) / 2, (up[0] + up[1]) / 2], zoom);
}

/** Brings the anchor to the middle of the viewport, the focus kept on it. */
export function centreAnchor(): void {
  const { width, height } = currentMoment().frame.viewport;
  editCamera2d('put the anchor in the middle', (camera) => void (camera.anchor = [width / 2, height / 2]));
}

/** Takes the probe as the focus, so that it lies on the anchor. */
export function focusOnProbe(): void {
  const { chain } = currentMoment();
  if (!chain.ok) return;
  const [x, y] = chain.value.world;
  editCamera2d('focus on the probe', (camera) => void (camera.focus = [x, y]));
}

/** The zoom to the next whole number, the focus kept on its anchor. */
export function stepZoom(up: boolean): void {
  const { project } = currentMoment();
  if (project.camera.kind !== '2d') return;
  zoomAbout(project.camera.anchor, wholeStep(project.camera.zoom, up));
}

export const fitRectangle = ({ right, ahead, height }: Rectangle): void =>
  fitTo(
    'fit a world rectangle',
    right.flatMap((x) => ahead.map((f): Vec3 => [x, height, -f])),
  );

/** As few digits as say it, to the thousandth. */
export const short = (v: number) => editable(Number(v.toFixed(Math.abs(v) < 10 ? 3 : 2))).replace('-', '\u2212');
