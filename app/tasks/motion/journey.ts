import type { CameraFrame } from '../../../core/camera/frame';
import { worldToViewRuf } from '../../../core/convert/project';
import { addScaled, sub, type Vec3 } from '../../../core/math/vec3';
import { courseOf, type MovingBody } from '../../../core/motion/bodies';
import type { Blend, CameraMotion } from '../../../core/motion/cameraMotion';
import type { Course } from '../../../core/motion/course';
import type { FlatTrack } from '../../../core/motion/focusTrack';
import type { Track, TrackOf } from '../../../core/motion/trackSchema';
import { plane, space, type World } from '../../../core/quantities/world';
import { coreMotion, flatCamera } from '../../../formats/camera';
import type { Project } from '../../../formats/project';
import { journeyAt, type Journey } from '../../state/journey';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import { spanOf } from '../../state/span';
import { mannersOf, type Manner } from '../../../core/motion/rates';
import { flatKinds, type CameraTrack, type MotionState, type Shaking, type Travel } from './kept';

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

/** Returns the shake of a track as the core has it. */
export const shakeOf = ({ yaw, pitch, roll, ...terms }: Shaking): TrackOf<'shake'> => ({
  kind: 'shake',
  ...terms,
  angles: { yaw, pitch, roll },
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

/**
 * Returns the track of a travel as the core has it; null for rest, for a body that does not exist, and for a track
 * that a 2D camera does not have.
 *
 * @param far - seconds of the course of a followed body
 */
export function travelTrack(
  travel: Travel,
  { bodies, far, rest, world }: { bodies: Project['bodies']; far: number; rest: Moment['rest']; world: World },
): Track | Blend | null {
  if (!world.hasDepth && !flatKinds.includes(travel.kind)) return null;
  switch (travel.kind) {
    case 'rest':
      return null;
    case 'scroll':
    case 'blend':
    case 'orbit':
    case 'walk':
      return travel;
    case 'dollyZoom': {
      const { widest: _, ...track } = travel;
      return { ...track, distance: dollyDistances(travel, rest) };
    }
    case 'path':
      return { kind: 'path', keys: travel.keys.map(({ id: _, ...key }) => key) };
    case 'follow': {
      const target = bodyCourse(bodies, travel.body, travel.lookAhead, far);
      if (!target) return null;
      const { halfLife, deadZone, bounds } = travel;
      if (world.hasDepth) return { kind: 'follow', target, halfLife, deadZone };
      return { kind: 'follow', target, halfLife, deadZone: [deadZone[0], deadZone[1]], ...(bounds && { bounds }) };
    }
  }
}

const spaceMotion = memo(
  (track: CameraTrack, bodies: Project['bodies'], far: number, rest: Moment['rest']): CameraMotion | null => {
    const travel = travelTrack(track.travel, { bodies, far, rest, world: space });
    const shake = track.shake && shakeOf(track.shake);
    return travel || shake ? { travel, shake } : null;
  },
);
const flatMotion = memo((track: CameraTrack, bodies: Project['bodies'], far: number, rest: Moment['rest']) => {
  return travelTrack(track.travel, { bodies, far, rest, world: plane }) as FlatTrack | null;
});

const spaceJourney = memo((frame: Moment['rest'], motion: CameraMotion): Journey => ({ kind: 'space', frame, motion }));
const flatJourney = memo((project: Project, motion: FlatTrack): Journey => ({
  ...{ kind: 'flat', camera: flatCamera(project), motion },
  ...{ viewport: project.viewport, conventions: project.conventions },
}));

/** Where the camera goes as time passes; null for one that stands. */
export function journeyOf({ project, slice, rest, flat }: Now): Journey | null {
  const track = trackOf({ project, slice });
  if (!track) return null;
  if (flat) {
    const motion = flatMotion(track, project.bodies, spanOf(project), rest);
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

/** Tells whether a track begins elsewhere than the camera: at time 0 the picture would leap. Rounding does not count. */
export function beginsElsewhere(journey: Journey, rest: CameraFrame): boolean {
  const begins = journeyAt(journey, 0);
  if (!begins.ok) return false;
  const near = (a: readonly number[], b: readonly number[]) =>
    a.every((v, i) => Math.abs(v - b[i]!) <= 1e-6 * (1 + Math.abs(v)));
  const { kind, view, projection } = begins.value;
  return kind !== rest.kind || !near(view, rest.view) || !near(projection, rest.projection);
}
