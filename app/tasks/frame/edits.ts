import type { Draft } from 'immer';
import { worldShape } from '../../../core/bodies/geometry';
import { fitPoints } from '../../../core/camera/fit';
import { anglesOfBasis, type Basis } from '../../../core/camera/orientation';
import type { Extents } from '../../../core/camera/projection';
import { addScaled, distance, type Vec3 } from '../../../core/math/vec3';
import type { PlacedBody } from '../../../core/bodies/body';
import type { ProjectCamera } from '../../../formats/project';
import { currentSituation, type Situation } from '../../state/derive';
import { edit } from '../../state/document';

/* What the worksheet of Frame does to the camera. Numbers that are worked out are kept to fourteen digits: sums of rounded ones stay short. */

export const tidy = (v: number): number => Number(v.toPrecision(14)) || 0;
export const degrees = (radians: number): number => tidy((radians * 180) / Math.PI);
export const radians = (degrees: number): number => (degrees * Math.PI) / 180;

export const changeCamera = (
  name: string,
  recipe: (camera: Draft<ProjectCamera>) => void,
  gesture: string | null = null,
): void => edit(name, (draft) => recipe(draft.camera), gesture);

/** What the camera is set against: the probe if it is ahead, else what the middle of the picture shows of the ground, else a middle distance. */
export function subjectOf({ chain, frame, project }: Situation): { name: string; ahead: number; point: Vec3 } {
  if (chain.ok && chain.value.parts[2] > 0) {
    const name = project.bodies.find(({ id }) => id === project.probe.body)?.name ?? 'the probe';
    return { name, ahead: chain.value.parts[2], point: chain.value.world };
  }
  const at = (ahead: number, name: string) => ({ name, ahead, point: addScaled(frame.eye, frame.forward, ahead) });
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
  changeCamera(
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
export function holdBy(kind: ProjectCamera['orientation']['kind']): void {
  const situation = currentSituation();
  const { frame } = situation;
  const names = { lookAt: 'aim at a point', angles: 'aim by angles', basis: 'aim by a basis' };
  changeCamera(names[kind], (camera) => {
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
const basis = ({ right, up, forward }: Basis): Draft<Extract<ProjectCamera['orientation'], { kind: 'basis' }>> => ({
  kind: 'basis',
  right: [...right],
  up: [...up],
  forward: [...forward],
});

export const setBasis = (of: Basis, gesture: string | null = null): void =>
  changeCamera('turn the camera', (camera) => void (camera.orientation = basis(of)), gesture);

/** The share of the half picture that a fit leaves free on every side. */
const fitMargin = 0.06;

/** Moves the camera, its gaze kept, to where all points are in its picture; in orthographic it also grows. Near and far make room. */
function fitTo(name: string, points: readonly Vec3[]): void {
  const { frame } = currentSituation();
  const fit = fitPoints(frame, points, fitMargin);
  if (!fit) return;
  const [least, most] = fit.ahead;
  changeCamera(name, ({ position, orientation: o, projection: p }) => {
    const reach = o.kind === 'lookAt' ? Math.max(distance(o.target, position), least) : 0;
    const eye = fit.eye.map((v) => Number(v.toFixed(3))) as [number, number, number];
    [position[0], position[1], position[2]] = eye;
    if (o.kind === 'lookAt') o.target = [...addScaled(eye, frame.forward, reach)];
    if (p.kind === 'orthographic') p.height = Number((p.height * fit.scale).toPrecision(6));
    if (p.far !== null && p.far < most) p.far = Math.ceil(most * 1.05);
    if (p.near > least)
      p.near = p.kind === 'perspective' ? Number((least * 0.5).toPrecision(2)) : Math.floor(least - 1);
  });
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

/** A level rectangle in the world, on the inside's right and ahead, at a height. */
export interface Rectangle {
  readonly right: readonly [number, number];
  readonly ahead: readonly [number, number];
  readonly height: number;
}

export const fitRectangle = ({ right, ahead, height }: Rectangle): void =>
  fitTo(
    'fit a world rectangle',
    right.flatMap((x) => ahead.map((f): Vec3 => [x, height, -f])),
  );
