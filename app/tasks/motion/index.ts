import './motion.css';
import { MotionSheet } from './Sheet';
import { addScaled, type Vec3 } from '../../../core/math/vec3';
import type { HandleSpec } from '../../pictures/page/handles';
import type { TimeTick } from '../../pictures/compose/timeTick';
import { jumpTo } from '../../sheet/Sections';
import type { Moment } from '../../state/moment';
import type { Task } from '../task';
import { addKey, changeKey, changeTrack, moveKey, rightOrder, toggleShake } from './edits';
import { finds } from './finds';
import { help } from './help';
import { journeyOf, trackOf } from './journey';
import { heldPlace } from './marks';
import type { Events } from './job';
import type { MotionState, Travel } from './kept';
import { beginSteering } from './steer';
import { tries } from './tries';

type Triple = [number, number, number];

/** Keys, centres, targets, bounds, dead zone and velocity, where they can be seen from beside the camera. */
function motionHandles(now: Moment<MotionState>, picture: string): HandleSpec<MotionState>[] {
  const travel = trackOf(now)?.travel;
  const { flat, rest, project } = now;
  if (!travel || !(flat ? ['world', 'camera'] : ['plan', 'section', 'outside', 'camera']).includes(picture)) return [];
  const of = (id: string, name: string, at: Vec3, move: (to: Triple, gesture: string) => void): HandleSpec<MotionState> => ({
    ...{ id: `motion ${id}`, name, picture, at, ...(flat && { along: [0, 0, 1] as Vec3 }) },
    move: (to, _, gesture) => move([...to], gesture),
  }); // prettier-ignore
  /** Changes the travel of this kind. */
  const set = <K extends Travel['kind']>(
    kind: K,
    words: string,
    recipe: (draft: Extract<Travel, { kind: K }>) => void,
    gesture: string,
  ) =>
    // prettier-ignore
    changeTrack(words, ({ travel: t }) => t.kind === kind && recipe(t as Extract<Travel, { kind: K }>), gesture);
  const journey = journeyOf(now);
  if (travel.kind === 'follow' && journey) {
    const held = heldPlace(now, journey);
    if (!held || (!flat && picture !== 'camera')) return [];
    const { middle, half } = held;
    const zone = of(
      'zone',
      'the dead zone by its corner',
      [middle[0] + half[0], middle[1] + half[1], flat ? 0 : middle[2] - half[2]],
      (to, g) => // prettier-ignore
      set('follow', 'set the dead zone', (d) => void (d.deadZone = [Math.max(0, to[0] - middle[0]), Math.max(0, to[1] - middle[1]), d.deadZone[2]]), g), // prettier-ignore
    );
    const { bounds } = travel;
    return [
      zone,
      ...(flat && bounds
        ? (['min', 'max'] as const).map((end) =>
            of(
              `bounds ${end}`,
              `the bounds by their ${end === 'min' ? 'first' : 'last'} corner`,
              [...bounds[end], 0],
              (to, g) =>
                // prettier-ignore
                set('follow', 'set the bounds', (d) => d.bounds && void (d.bounds[end] = [to[0], to[1]]), g),
            ),
          )
        : []),
    ];
  }
  if (picture === 'camera' && !flat) return [];
  switch (travel.kind) {
    case 'scroll': {
      const seconds = 5;
      return [
        of(
          'velocity',
          'the velocity, where it is after five seconds',
          addScaled(rest.eye, travel.velocity, seconds),
          (to, g) => // prettier-ignore
          set('scroll', 'set the velocity', (d) => void (d.velocity = to.map((v, i) => (flat && i === 2 ? 0 : (v - rest.eye[i]!) / seconds)) as Triple), g), // prettier-ignore
        ),
      ];
    }
    case 'orbit':
      return [of('centre', 'the centre', travel.centre, (to, g) => set('orbit', 'move the centre', (d) => void (d.centre = to), g))]; // prettier-ignore
    case 'dollyZoom':
      return [of('target', 'the held target', travel.target, (to, g) => set('dollyZoom', 'move the target', (d) => void (d.target = to), g))]; // prettier-ignore
    case 'blend':
      return [of('subject', 'the held subject', travel.subject, (to, g) => set('blend', 'move the subject', (d) => void (d.subject = to), g))]; // prettier-ignore
    case 'path':
      return travel.keys.slice(0, 60).map(
        ({ id, position }, i) =>
        of(`key ${id}`, `key ${i + 1} of ${project.camera.name}`, position, (to, g) => changeKey(id, 'move a key', (d) => void (d.position = to), g)), // prettier-ignore
      );
    default:
      return [];
  }
}

/** The keys of the path, which are dragged along the rule; where stretches and ways end; when the subject enters and leaves. */
function motionTicks(now: Moment<MotionState>): readonly TimeTick[] {
  const subject = now.project.bodies.find(({ id }) => id === now.slice.subject)?.name ?? '';
  const events = now.answer<Events>('events')?.list ?? [];
  return [...trackTicks(now), ...events.map(({ time, what }) => ({ time, name: `${subject} ${what}` }))];
}
function trackTicks(now: Moment<MotionState>): readonly TimeTick[] {
  const travel = trackOf(now)?.travel;
  switch (travel?.kind) {
    case 'path':
      return travel.keys.map(({ id, time }, i) => ({
        ...{ time, name: `key ${i + 1}` },
        move: (to, gesture) => moveKey(id, to, gesture),
      }));
    case 'walk':
      return travel.inputs.slice(0, 400).map(({ to }) => ({ time: to, name: 'a stretch ends' }));
    case 'dollyZoom':
      return [{ time: travel.duration, name: 'the dolly ends' }];
    case 'blend':
      return [{ time: travel.duration, name: 'the blend ends' }];
    default:
      return [];
  }
}

const motion: Task<MotionState> = {
  Sheet: MotionSheet,
  corner: 'section',
  commands: [
    { name: 'Set a key of the camera’s path at the moment', run: addKey, world: 'space' },
    { name: 'Shake the camera or not', words: 'screen shake tremor trauma', run: toggleShake, world: 'space' },
    { name: 'Steer the camera', run: beginSteering, world: 'space' },
    { name: 'Put the stages of a frame in order', run: rightOrder },
  ],
  keys: [
    { key: 'a', says: 'sets a key of the path at the moment', run: addKey },
    { key: 's', says: 'steers the camera', run: beginSteering },
    { key: 'f', says: 'goes to the frame rates', run: () => jumpTo('motion-rates') },
  ],
  finds,
  help,
  tries,
  workings: {
    titles: { dolly: 'The field of view that keeps the height', left: 'What is left after a frame' },
    load: () => import('./workings'),
    sources: {
      target: 'the held target',
      distances: 'the distances',
      duration: 'the seconds it takes',
      halfLife: 'the half-life',
      frames: 'the frames a second',
    },
  },
  handles: motionHandles,
  ticks: motionTicks,
};
export default motion;
