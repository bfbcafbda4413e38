import type { Problem } from '../core/reasons';
import { radians, tidyDegrees } from '../core/math/angle';
import { frameFov, pictureShape, type CameraFrame } from '../core/camera/frame';
import { anglesOfBasis, quatOfBasis } from '../core/camera/orientation';
import type { ConventionCodec } from '../core/conventions/codec';
import type { Conventions } from '../core/conventions/conventions';
import { poseAt } from '../core/motion/bodies';
import type { Quat } from '../core/math/quat';
import type { Vec3 } from '../core/math/vec3';
import { coreMotion, projectFrame } from './camera';
import { anglesAlong, courseLength, type SceneBody, type SceneCamera, type SceneCourse, type SceneFile, type SceneLens } from './scene'; // prettier-ignore
import { seenWhole } from './projectFromGeometry';
import { allCameras, commonScreens, readProject, type Project } from './project';

/* Projects as scenes that glTF holds, and scenes as projects. */

/** A frame as a camera of a scene; `aspect` null leaves that to the viewport. */
export function sceneCamera(frame: CameraFrame, id: string, name: string, ownAspect: boolean): SceneCamera {
  const { height, aspect, shift } = pictureShape(frame);
  const fov = frameFov(frame);
  const shape = { aspect: ownAspect ? aspect : null, shift };
  const lens: SceneLens = fov === null ? { kind: 'orthographic', height, near: frame.near, far: frame.far!, ...shape } : { kind: 'perspective', verticalFov: fov, near: frame.near, far: frame.far, ...shape }; // prettier-ignore
  const { eye, right, up, forward } = frame;
  return { id, name, position: eye, right, up, forward, lens };
}

/** The times that a way of so many seconds is written at: thirty a second, at most 1,200. */
export function timesOver(seconds: number): number[] {
  const count = Math.max(2, Math.min(1200, Math.round(seconds * 30) + 1));
  return Array.from({ length: count }, (_, i) => (seconds * i) / (count - 1));
}

/** Seconds of a body's way: a round, to its last place, or ten of one without an end. */
function bodySpan(motion: NonNullable<Project['bodies'][number]['motion']>): number {
  if (motion.kind === 'path') return motion.keys.at(-1)!.time;
  return motion.kind === 'drift' ? 10 : Math.abs(motion.period) || 1;
}

/** What a camera does over time: its frames at times, seconds, rising. */
export interface CameraWay {
  readonly id: string;
  readonly times: readonly number[];
  readonly frames: readonly CameraFrame[];
}

/** Whether a project keeps what a new one does not, and a scene has no place for. */
const keepsMore = ({ snapshots, tasks, screens: { fit, sizes } }: Project): boolean =>
  snapshots.length > 0 || Object.keys(tasks).length > 0 || fit !== 'showAll' || JSON.stringify(sizes) !== JSON.stringify(commonScreens); // prettier-ignore

/**
 * A project as a scene: its bodies with their motions, its cameras that can be, with ways over time if
 * any are given; and what a scene of glTF has no place for, a sentence each.
 */
export function sceneOfProject(
  project: Project,
  e: ConventionCodec,
  ways: readonly CameraWay[],
): { readonly scene: SceneFile; readonly said: readonly string[] } {
  const said: string[] = [];
  const cameras = allCameras(project).flatMap((camera) => {
    const made = projectFrame({ camera, viewport: project.viewport }, e);
    if (!made.ok) {
      said.push(`The camera ${camera.name} is left out, since it cannot be: ${made.problems[0]!.message}`);
      return [];
    }
    const own = camera.kind === '3d' && camera.projection.aspect !== null;
    return [sceneCamera(made.value, camera.id, camera.name, own)];
  });
  const bodies = project.bodies.map(({ id, name, shape, position, rotation, scale, parent }): SceneBody => ({ id, name, shape, position, rotation, scale, parent })); // prettier-ignore
  const moving = project.bodies.flatMap(({ id, motion, position, rotation }): SceneCourse[] => {
    if (!motion) return [];
    const times = timesOver(bodySpan(motion));
    const poses = times.map((t) => poseAt(coreMotion(motion), { position, rotation: rotation as Quat }, t));
    return [{ of: 'body', id, times, positions: poses.map((one) => one.position), rotations: poses.map((one) => one.rotation) }]; // prettier-ignore
  });
  const courses = ways.map(({ id, times, frames }): SceneCourse => {
    const fovs = frames.map(frameFov);
    if (fovs.some((fov) => Math.abs((fov ?? 0) - (fovs[0] ?? 0)) > 1e-6))
      said.push(`The field of view of ${allCameras(project).find((one) => one.id === id)?.name ?? id} changes on its way, which glTF does not hold: it stays as at rest.`); // prettier-ignore
    return { of: 'camera', id, times, positions: frames.map(({ eye }) => eye), rotations: frames.map(quatOfBasis) };
  });
  if (project.camera.kind === '2d') said.push('The flat world is written in its plane, its cameras as the orthographic ones that they equal.'); // prettier-ignore
  if (keepsMore(project)) said.push('Screens, snapshots and what the tasks keep are of the project alone.');
  return {
    scene: { name: project.name, bodies, cameras, courses: [...moving, ...courses], through: project.camera.id },
    said,
  };
}

/** A camera's track as keys: seconds, canonical space, radians. */
export interface CameraKeys {
  readonly id: string;
  readonly keys: readonly { readonly time: number; readonly position: Vec3; readonly yaw: number; readonly pitch: number; readonly roll: number; readonly verticalFov: number }[]; // prettier-ignore
}

export type SceneAsProject =
  | {
      readonly ok: true;
      readonly project: Project;
      /** The ways of its cameras, for whoever keeps such. */
      readonly ways: readonly CameraKeys[];
      /** What was not taken, a sentence each. */
      readonly said: readonly string[];
    }
  | { readonly ok: false; readonly problems: readonly Problem[] };

const triple = (v: Vec3): [number, number, number] => [v[0], v[1], v[2]];

function projectCamera({ id, name, position, lens, ...basis }: SceneCamera, viewportAspect: number) {
  const { yaw, pitch, roll } = anglesOfBasis(basis);
  const aspect = lens.aspect !== null && Math.abs(lens.aspect / viewportAspect - 1) > 1e-3 ? lens.aspect : null;
  const shape = { near: lens.near, aspect, shift: [...lens.shift] };
  return {
    ...{ kind: '3d', id, name, position: triple(position) },
    orientation: { kind: 'angles', yaw: tidyDegrees(yaw), pitch: tidyDegrees(pitch), roll: tidyDegrees(roll) },
    projection:
      lens.kind === 'perspective'
        ? { kind: 'perspective', verticalFov: tidyDegrees(lens.verticalFov), far: lens.far, ...shape }
        : { kind: 'orthographic', height: lens.height, far: lens.far, ...shape },
  };
}

/**
 * A scene as a project of its own. Its camera that was looked through, or the first, is so again, the viewport has its aspect;
 * without one everything is seen from the front. A body's course becomes places that it goes through;
 * turning by itself and what else a project does not hold is said.
 */
export function projectFromScene(
  scene: SceneFile,
  given: {
    readonly id: string;
    readonly name: string;
    readonly conventions: Conventions;
    /** Pixels; absent for a viewport that has the aspect of the camera. */
    readonly viewport?: { readonly width: number; readonly height: number } | undefined;
  },
): SceneAsProject {
  const { bodies, cameras, courses } = scene;
  const said: string[] = [];
  const place = Math.max(
    0,
    cameras.findIndex(({ id }) => id === scene.through),
  );
  const first = cameras[place];
  const width = given.viewport?.width ?? 1280;
  const aspect = first?.lens.aspect ?? 16 / 9;
  const height = given.viewport?.height ?? Math.max(1, Math.min(16384, Math.round(width / aspect)));
  const ofBody = new Map(courses.filter(({ of }) => of === 'body').map((course) => [course.id, course]));
  let turned = 0;
  const made = bodies.map(({ id, name, shape, position, rotation, scale, parent }) => {
    const course = ofBody.get(id);
    const moves = course && courseLength(course) > 0;
    if (course?.rotations.some((q) => q.some((v, i) => Math.abs(v - course.rotations[0]![i]!) > 1e-4))) turned++;
    // It sets out from where it rests, at 0 seconds.
    const keys = course && moves ? course.times.flatMap((time, i) => (time > 0 ? [{ time, place: triple(course.positions[i]!) }] : [])) : []; // prettier-ignore
    return {
      ...{ id, name, shape, rotation: [...rotation], scale: triple(scale), parent },
      position: triple(moves ? course.positions[0]! : position),
      motion: keys.length ? { kind: 'path', keys, turns: false } : null,
    };
  });
  if (turned) said.push(`${turned === 1 ? 'One body turns' : `${turned} bodies turn`} on the way there; here they go through their places without.`); // prettier-ignore
  const ahead = first ? Math.max(first.lens.near * 2, 1) : 1;
  const all = cameras.map((one) => projectCamera(one, width / height));
  const [camera, others] = [all[place], all.filter((_, i) => i !== place)];
  const outlook = { kind: '3d', name: 'Camera', position: [0, 0, 0], orientation: { kind: 'lookAt', target: [-0.45, -0.35, -1] }, projection: { kind: 'perspective', verticalFov: 40, near: 0.1, far: 1000 } }; // prettier-ignore
  const read = readProject({
    ...{ astrolabeProject: 1, id: given.id, name: given.name, unit: 'metres', conventions: given.conventions },
    viewport: { width, height, devicePixelRatio: 1 },
    camera: camera ?? outlook,
    ...{ cameras: others, cameraPlace: place },
    bodies: made,
    probe: bodies[0]
      ? { body: bodies[0].id, drive: { rung: 'local', value: [0, 0, 0] } }
      : { body: null, drive: { rung: 'world', value: first ? triple(first.position.map((v, i) => v + first.forward[i]! * ahead) as unknown as Vec3) : [0, 0, 0] } }, // prettier-ignore
    back: { pixel: [width / 2, height / 2], route: 'ahead', value: ahead },
  });
  if (!read.ok) return read;
  const whole = camera ? read : seenWhole(read, read.project.bodies.map(({ position }) => triple(position))); // prettier-ignore
  if (!whole.ok) return whole;
  const ways = courses.flatMap((course): CameraKeys[] => {
    const of = course.of === 'camera' ? cameras.find(({ id }) => id === course.id) : undefined;
    if (!of) return [];
    const angles = anglesAlong(course.rotations);
    const fov = of.lens.kind === 'perspective' ? of.lens.verticalFov : radians(45);
    return [{ id: course.id, keys: course.times.map((time, i) => ({ time, position: course.positions[i]!, ...angles[i]!, verticalFov: fov })) }]; // prettier-ignore
  });
  return { ok: true, project: whole.project, ways, said };
}
