import { worldToViewRuf } from '../../../core/convert/project';
import { addScaled, sub, type Vec2, type Vec3 } from '../../../core/math/vec3';
import { courseOf, type MovingBody } from '../../../core/motion/bodies';
import type { CameraMotion } from '../../../core/motion/cameraMotion';
import type { Course } from '../../../core/motion/course';
import { coreMotion, flatCamera } from '../../../formats/camera';
import type { Project } from '../../../formats/project';
import type { FlatMotion, Journey } from '../../state/journey';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import { spanOf } from '../../state/span';
import { mannersOf, type Manner } from '../../../core/motion/rates';
import type { CameraTrack, MotionState, Shaking, Travel } from './kept';

/* The tracks of the slice as the core takes them. */

type Now = Pick<Moment<MotionState>, 'project' | 'slice' | 'rest' | 'flat'>;

/** How the camera that is looked through moves; null for one that has no track. */
export const trackOf = ({ slice, project }: Pick<Now, 'slice' | 'project'>): CameraTrack | null =>
  slice.tracks[project.camera.id] ?? null;

/** Seconds between two points of the course of a body that is followed, and how many there are at most. */
const courseStep = 0.1;
const coursePoints = 2000;

/**
 * Where a body goes, as a course: its own closed form from tenth to tenth of a second, straight
 * between them; seconds of its own speed ahead of it, where it is looked ahead. Null for a body that
 * there is not. As far as `far` seconds, the rule's end.
 */
export const bodyCourse = memo(
  (bodies: Project['bodies'], id: string, lookAhead: number, far: number): Course<Vec3> | null => {
    if (!bodies.some((body) => body.id === id)) return null;
    const moving = bodies.map((body): MovingBody => ({ ...body, motion: body.motion && coreMotion(body.motion) }));
    const step = Math.max(courseStep, far / coursePoints);
    const times = Array.from({ length: Math.ceil(far / step) + 1 }, (_, i) => Number((i * step).toFixed(6)));
    const places = courseOf(moving, id, times);
    // Ahead by its own speed, the difference over the neighbours.
    const carried = (i: number): Vec3 => {
      const [a, b] = [Math.max(0, i - 1), Math.min(places.length - 1, i + 1)];
      const k = b > a ? lookAhead / (times[b]! - times[a]!) : 0;
      return addScaled(places[i]!, sub(places[b]!, places[a]!), k);
    };
    return places.map((place, i) => [times[i]!, lookAhead > 0 ? carried(i) : place] as const);
  },
);
const flatCourse = memo((course: Course<Vec3>): Course<Vec2> => course.map(([t, [x, y]]) => [t, [x, y]] as const));

const coreShake = ({ seed, frequency, decay, strength, yaw, pitch, roll, offset }: Shaking): CameraMotion['shake'] => ({
  strength,
  terms: { seed, frequency, decay, offset, angles: { yaw, pitch, roll } },
});

/**
 * The distances of a dolly zoom, none nearer than where the field of view is the widest allowed: the
 * height seen at the target over twice its tangent.
 */
export function dollyDistances(
  { distance, widest, target }: Extract<Travel, { kind: 'dollyZoom' }>,
  rest: Moment['rest'],
): readonly [number, number] {
  const { kind, extents: e, near } = rest;
  const ahead = worldToViewRuf(rest, target)[2];
  if (kind !== 'perspective' || !(ahead > 0)) return distance;
  const nearest = (Math.abs(e.top - e.bottom) * ahead) / near / (2 * Math.tan(widest / 2));
  return [Math.max(nearest, distance[0]), Math.max(nearest, distance[1])];
}

/** A way of travelling in space as the core takes it; null for rest, and for a body that is gone. */
function coreTravel(
  travel: Travel,
  bodies: Project['bodies'],
  far: number,
  rest: Moment['rest'],
): CameraMotion['travel'] {
  switch (travel.kind) {
    case 'rest':
      return null;
    case 'scroll':
    case 'blend':
      return travel;
    case 'dollyZoom':
      return { ...travel, distance: dollyDistances(travel, rest) };
    case 'follow': {
      const target = bodyCourse(bodies, travel.body, travel.lookAhead, far);
      return target && { kind: 'follow', target, halfLife: travel.halfLife, deadZone: travel.deadZone };
    }
    case 'orbit':
      return {
        ...{ kind: 'orbit', centre: travel.centre, distanceRate: travel.distanceRate },
        ...{ yawRate: travel.yawRate, pitchRate: travel.pitchRate, pitchLimits: travel.pitchLimits },
      };
    case 'path':
      return {
        kind: 'path',
        keys: travel.keys.map(({ time, position, yaw, pitch, roll, verticalFov, ease }) => ({
          ...{ time, ease, eye: position, verticalFov },
          angles: { yaw, pitch, roll },
        })),
      };
    case 'walk':
      return {
        kind: 'walk',
        inputs: travel.inputs.map(({ yawRate, pitchRate, ...one }) => ({ ...one, turn: yawRate, lift: pitchRate })), // prettier-ignore
        pitchLimit: travel.pitchLimit,
      };
  }
}

/** A way of travelling on a flat world; null for rest, and for what a flat camera does not do. */
function flatTravel(travel: Travel, bodies: Project['bodies'], far: number): FlatMotion | null {
  if (travel.kind === 'scroll') return { kind: 'scroll', velocity: [travel.velocity[0], travel.velocity[1]] };
  if (travel.kind !== 'follow') return null;
  const course = bodyCourse(bodies, travel.body, travel.lookAhead, far);
  if (!course) return null;
  const { halfLife, deadZone, bounds } = travel;
  return { kind: 'follow', target: flatCourse(course), halfLife, deadZone: [deadZone[0], deadZone[1]], bounds };
}

const spaceMotion = memo(
  (track: CameraTrack, bodies: Project['bodies'], far: number, rest: Moment['rest']): CameraMotion | null => {
    const travel = coreTravel(track.travel, bodies, far, rest);
    const shake = track.shake && coreShake(track.shake);
    return travel || shake ? { travel, shake } : null;
  },
);
const flatMotion = memo((track: CameraTrack, bodies: Project['bodies'], far: number) =>
  flatTravel(track.travel, bodies, far),
);

const spaceJourney = memo((frame: Moment['rest'], motion: CameraMotion): Journey => ({ kind: 'space', frame, motion }));
const flatJourney = memo((project: Project, motion: FlatMotion): Journey => ({
  ...{ kind: 'flat', camera: flatCamera(project), motion },
  ...{ viewport: project.viewport, conventions: project.conventions },
}));

/** Where the camera goes as time passes; null for one that stands. */
export function journeyOf({ project, slice, rest, flat }: Now): Journey | null {
  const track = trackOf({ project, slice });
  if (!track) return null;
  if (flat) {
    const motion = flatMotion(track, project.bodies, spanOf(project));
    return motion && flatJourney(project, motion);
  }
  const motion = spaceMotion(track, project.bodies, spanOf(project), rest);
  return motion && spaceJourney(rest, motion);
}

/** A key of the track that the camera has, to know an answer of another one by. */
export const trackKey = (now: Pick<Now, 'slice' | 'project'>): string =>
  JSON.stringify([now.project.camera.id, trackOf(now)]);

/** How the camera's motion is stepped: as it was chosen, or the first way that its kind of track allows. */
export function mannerNow(now: Moment<MotionState>): Exclude<Manner, 'right'> {
  const manners = mannersOf(trackOf(now)?.travel.kind ?? null).filter((one) => one !== 'right');
  return manners.includes(now.slice.manner) ? now.slice.manner : manners[0]!;
}
