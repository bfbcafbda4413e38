import { flatCamera } from '../../../formats/camera';
import type { Draft } from 'immer';
import { worldShape } from '../../../core/bodies/geometry';
import { fitPoints } from '../../../core/camera/fit';
import { fitMargin, fittedCamera } from '../../../formats/gathered';
import { anglesOfBasis, type Basis } from '../../../core/camera/orientation';
import type { Extents } from '../../../core/camera/projection';
import { addScaled, type Vec3 } from '../../../core/math/vec3';
import type { PlacedBody } from '../../../core/bodies/body';
import { wholeZoomFor } from '../../../core/camera/camera2d';
import type { ProjectCamera3d } from '../../../formats/project';
import { showAt, wholeStep, zoomAbout } from '../../pictures/camera2d';
import { currentSituation } from '../../state/derive';
import type { Situation } from '../../state/situation';
import { useSelection } from '../../state/selection';
import { editCamera, editCamera2d } from '../../state/document';

/* What the worksheet of Frame does to the camera. Numbers that are worked out are kept to fourteen digits: sums of rounded ones stay short. */

export const tidy = (v: number): number => Number(v.toPrecision(14)) || 0;
export const degrees = (radians: number): number => tidy((radians * 180) / Math.PI);
export const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** What the camera is set against: the probe if it is ahead, else what the middle of the picture shows of the ground, else a middle distance. */
interface Subject {
  readonly name: string;
  readonly ahead: number;
  readonly point: Vec3;
  /** Whether it is the probe. */
  readonly probed: boolean;
}

export function subjectOf({ chain, frame, project, flat }: Situation): Subject {
  if (flat) return { name: 'any place', ahead: 0, point: frame.eye, probed: false };
  if (chain.ok && chain.value.parts[2] > 0) {
    const name = project.bodies.find(({ id }) => id === project.probe.body)?.name ?? 'the probe';
    return { name, ahead: chain.value.parts[2], point: chain.value.world, probed: true };
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

/** Edges of the picture as a lens, its shift and its aspect: the inverse of what `resolveProjection` makes of them. */
export function setEdges(edges: Extents, gesture: string): void {
  const { frame } = currentSituation();
  const [width, height] = [edges.right - edges.left, edges.top - edges.bottom];
  const { viewport: v, near } = frame;
  editCamera(
    'move an edge of the picture',
    ({ projection: p }) => {
      if (p.kind === 'perspective') p.verticalFov = degrees(2 * Math.atan(height / (2 * near)));
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
  const situation = currentSituation();
  const { frame } = situation;
  const names = { lookAt: 'aim at a point', angles: 'aim by angles', basis: 'aim by a basis' };
  editCamera(names[kind], (camera) => {
    if (kind === 'angles') camera.orientation = angles(frame);
    else if (kind === 'basis') camera.orientation = basis(frame);
    else
      camera.orientation = {
        kind: 'lookAt',
        target: [...addScaled(frame.eye, frame.forward, subjectOf(situation).ahead)],
      };
  });
}

const angles = (of: Basis) => {
  const { yaw, pitch, roll } = anglesOfBasis(of);
  return { kind: 'angles' as const, yaw: degrees(yaw), pitch: degrees(pitch), roll: degrees(roll) };
};
const basis = ({ right, up, forward }: Basis): Draft<Extract<ProjectCamera3d['orientation'], { kind: 'basis' }>> => ({
  kind: 'basis',
  right: [...right],
  up: [...up],
  forward: [...forward],
});

export const setBasis = (of: Basis, gesture: string | null = null): void =>
  editCamera('turn the camera', (camera) => void (camera.orientation = basis(of)), gesture);

/** Moves the camera, its gaze kept, to where all points are in its picture; in orthographic it also grows. Near and far make room. */
function fitTo(name: string, points: readonly Vec3[]): void {
  const { frame, flat, project } = currentSituation();
  const fit = fitPoints(frame, points, fitMargin);
  if (!fit) return;
  if (flat) {
    showAt(name, [fit.eye[0], fit.eye[1]], flatCamera(project).zoom / fit.scale);
    return;
  }
  editCamera(name, (camera) => void Object.assign(camera, fittedCamera(camera as ProjectCamera3d, frame, fit)));
}

/** The outermost points of placed bodies: corners of hulls, and the corners of the box round a sphere. */
const pointsOf = (bodies: Iterable<PlacedBody>): Vec3[] =>
  [...bodies].flatMap((one) => {
    const shape = worldShape(one);
    if (shape.kind === 'hull') return shape.points;
    const { centre: c, radius: r } = shape;
    return [-r, r].flatMap((x) => [-r, r].flatMap((y) => [-r, r].map((z): Vec3 => [c[0] + x, c[1] + y, c[2] + z])));
  });

export const fitEverything = (): void => fitTo('fit everything', pointsOf(currentSituation().placed.values()));

/** Fits the body that is probed, with its parts. */
export function fitProbed(): void {
  const { placed, project, roots } = currentSituation();
  const root = project.probe.body === null ? null : roots.get(project.probe.body);
  if (!root) return;
  const name = project.bodies.find(({ id }) => id === root)!.name;
  fitTo(`fit ${name}`, pointsOf([...placed.values()].filter(({ body }) => roots.get(body.id) === root)));
}

/** Fits what is selected, each body with its parts. */
export function fitSelection(): void {
  const { placed, roots } = currentSituation();
  const { ids } = useSelection.getState();
  const chosen = [...placed.values()].filter(({ body }) => ids.includes(roots.get(body.id)!));
  fitTo('fit the selection', pointsOf(chosen));
}

/** A level rectangle in the world, on the inside's right and ahead, at a height. */
export interface Rectangle {
  readonly right: readonly [number, number];
  readonly ahead: readonly [number, number];
  readonly height: number;
}

/** A rectangle of a flat world, on the inside's right and up. */
export interface FlatRectangle {
  readonly right: readonly [number, number];
  readonly up: readonly [number, number];
}

/** Shows at least a rectangle of a flat world, to the edge; with `whole` at the largest whole zoom that does, where there is one. */
export function fitFlatRectangle({ right, up }: FlatRectangle, whole: boolean): void {
  const { frame, project } = currentSituation();
  const size = [Math.abs(right[1] - right[0]), Math.abs(up[1] - up[0])] as const;
  if (!(size[0] > 0 && size[1] > 0)) return;
  const { width, height } = frame.viewport;
  const { rotation } = flatCamera(project);
  const [s, c] = [Math.abs(Math.sin(radians(rotation))), Math.abs(Math.cos(radians(rotation)))];
  // Turned, the rectangle needs the room of the upright one round it.
  const across = [size[0] * c + size[1] * s, size[0] * s + size[1] * c] as const;
  const exact = Math.min(width / across[0], height / across[1]);
  const zoom = (whole && wholeZoomFor(frame.viewport, across)) || exact;
  showAt('fit a world rectangle', [(right[0] + right[1]) / 2, (up[0] + up[1]) / 2], zoom);
}

/** Brings the anchor to the middle of the viewport, the focus kept on it. */
export function centreAnchor(): void {
  const { width, height } = currentSituation().frame.viewport;
  editCamera2d('put the anchor in the middle', (camera) => void (camera.anchor = [width / 2, height / 2]));
}

/** Takes the probe as the focus, so that it lies on the anchor. */
export function focusOnProbe(): void {
  const { chain } = currentSituation();
  if (!chain.ok) return;
  const [x, y] = chain.value.world;
  editCamera2d('focus on the probe', (camera) => void (camera.focus = [x, y]));
}

/** The zoom to the next whole number, the focus kept on its anchor. */
export function stepZoom(up: boolean): void {
  const { project } = currentSituation();
  if (project.camera.kind !== '2d') return;
  zoomAbout(project.camera.anchor, wholeStep(project.camera.zoom, up));
}

export const fitRectangle = ({ right, ahead, height }: Rectangle): void =>
  fitTo(
    'fit a world rectangle',
    right.flatMap((x) => ahead.map((f): Vec3 => [x, height, -f])),
  );
