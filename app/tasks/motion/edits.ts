import type { Draft } from 'immer';
import { anglesOfBasis } from '../../../core/camera/orientation';
import { radians } from '../../../core/math/angle';
import { addScaled, type Vec3 } from '../../../core/math/vec3';
import { frameStages, type FrameStage } from '../../../core/motion/stages';
import { moveTo } from '../../sheet/moveTo';
import { pause, play, setTime } from '../../state/clock';
import { newId } from '../../state/crashLog';
import { currentProject, edit } from '../../state/document';
import type { BodyMotionKept } from '../../../formats/project';
import type { Moment } from '../../state/moment';
import { editSlice } from '../../state/slices';
import { currentTaskMoment } from '../../state/tempo';
import { say } from '../../ui/notices';
import { aheadOf, verticalFov } from './series';
import { mostKeys, type CameraTrack, type MotionState, type PathKey, type Shaking, type Travel, type TravelKind } from './kept'; // prettier-ignore
import { subjectAt, subjectOf } from './subject';

type Triple = [number, number, number];

export const change = (name: string, recipe: (draft: Draft<MotionState>) => void, gesture?: string): void =>
  editSlice<MotionState>('motion', name, recipe, gesture ?? null);

const tidy = (v: number): number => Number(v.toPrecision(6)) || 0;
const tidied = (p: Vec3): Triple => [tidy(p[0]), tidy(p[1]), tidy(p[2])];
const current = () => currentTaskMoment<MotionState>('motion');

const resting: CameraTrack = { travel: { kind: 'rest' }, shake: null };

/** Changes the track of the camera that is looked through. */
export function changeTrack(name: string, recipe: (track: Draft<CameraTrack>) => void, gesture?: string): void {
  const { id } = currentProject().camera;
  change(
    name,
    (draft) => {
      draft.tracks[id] ??= structuredClone(resting);
      recipe(draft.tracks[id]!);
    },
    gesture,
  );
}

/** The camera as a key at a time. */
export function keyOf({ frame }: Pick<Moment, 'frame'>, time: number): PathKey {
  const { yaw, pitch, roll } = anglesOfBasis(frame);
  return {
    ...{ id: newId(), time: Number(time.toFixed(3)), position: tidied(frame.eye), ease: 'even' },
    ...{ yaw, pitch, roll },
    verticalFov: verticalFov(frame) ?? radians(45),
  };
}

/** What a kind of track begins with: about the subject, from the camera as it stands. */
function begun(kind: TravelKind, now: Moment<MotionState>): Travel {
  const { rest, flat, sceneBounds: b, project } = now;
  const subject = subjectOf(now);
  const place = subject ? subjectAt(subject, 0) : addScaled(rest.eye, rest.forward, b.radius / 2);
  const target = tidied(flat ? [place[0], place[1], 0] : place);
  const ahead = aheadOf(rest, place);
  switch (kind) {
    case 'rest':
      return { kind };
    case 'scroll':
      return { kind, velocity: flat ? [tidy(b.radius / 20), 0, 0] : tidied(rest.right.map((v) => (v * b.radius) / 30) as Triple) }; // prettier-ignore
    case 'follow': {
      const moving = project.bodies.find(({ motion }) => motion !== null);
      return { kind, body: now.slice.subject ?? moving?.id ?? project.bodies[0]?.id ?? '', halfLife: 0.5, lookAhead: 0, deadZone: [0, 0, 0], bounds: null }; // prettier-ignore
    }
    case 'orbit':
      return {
        kind,
        centre: target,
        yawRate: radians(12),
        pitchRate: 0,
        pitchLimits: [radians(-80), radians(80)],
        distanceRate: 0,
      };
    case 'path': {
      const first = keyOf({ frame: rest }, 0);
      const on = tidied(addScaled(addScaled(rest.eye, rest.forward, Math.max(1, ahead / 3)), rest.right, Math.max(1, ahead / 6))); // prettier-ignore
      return { kind, keys: [first, { ...first, id: newId(), time: 6, position: on }] };
    }
    case 'walk':
      return {
        ...{ kind, pitchLimit: now.slice.steering.pitchLimit },
        inputs: [
          { from: 0, to: 5, right: 0, up: 0, ahead: now.slice.steering.speed, yawRate: radians(10), pitchRate: 0 },
        ],
      };
    case 'dollyZoom': {
      const from = tidy(Math.max(ahead, 1e-3));
      return { kind, target, distance: [from, tidy(from / 3)], widest: radians(120), duration: 8, ease: 'gentle' };
    }
    case 'blend':
      return { kind, subject: target, duration: 6, ease: 'gentle' };
  }
}

/** Gives the camera another kind of track, begun from where it stands. */
export function takeKind(kind: TravelKind): void {
  const now = current();
  changeTrack('change the track', (track) => void (track.travel = begun(kind, now)));
}

const firstShake: Shaking = {
  ...{ seed: 1, frequency: 2, decay: 0, strength: 1, yaw: radians(0.5), pitch: radians(0.5), roll: radians(0.5) },
  offset: [0, 0],
};
export const toggleShake = (): void =>
  changeTrack('shake the camera or not', (track) => void (track.shake = track.shake ? null : { ...firstShake }));

/** Adds a key of the path where the camera is now, at the moment. */
export function addKey(): void {
  const now = current();
  const track = now.slice.tracks[now.project.camera.id];
  if (now.flat) return;
  const key = keyOf(now, now.time);
  if (track?.travel.kind !== 'path') {
    changeTrack('begin a path', (draft) => void (draft.travel = { kind: 'path', keys: [key] }));
    return;
  }
  if (track.travel.keys.length >= mostKeys) return say(`A path has at most ${mostKeys} keys.`);
  changeTrack('add a key', ({ travel }) => {
    if (travel.kind !== 'path') return;
    const at = travel.keys.findIndex(({ time }) => time >= key.time);
    const same = at >= 0 && travel.keys[at]!.time === key.time;
    travel.keys.splice(at < 0 ? travel.keys.length : at, same ? 1 : 0, key);
  });
}

export const removeKey = (id: string): void =>
  changeTrack('take out a key', ({ travel }) => {
    if (travel.kind === 'path' && travel.keys.length > 1) travel.keys = travel.keys.filter((key) => key.id !== id);
  });

/** Moves a key to another time, no nearer to its neighbours than a thousandth of a second. */
export const moveKey = (id: string, to: number, gesture?: string): void =>
  changeTrack(
    'move a key',
    ({ travel }) => {
      if (travel.kind !== 'path') return;
      const i = travel.keys.findIndex((key) => key.id === id);
      const [low, high] = [(travel.keys[i - 1]?.time ?? -0.001) + 0.001, (travel.keys[i + 1]?.time ?? Infinity) - 0.001]; // prettier-ignore
      if (i >= 0) travel.keys[i]!.time = Number(Math.max(low, Math.min(high, to)).toFixed(3));
    },
    gesture,
  );

/** Changes a key of the path. */
export const changeKey = (id: string, name: string, recipe: (key: Draft<PathKey>) => void, gesture?: string): void =>
  changeTrack(
    name,
    ({ travel }) => {
      const key = travel.kind === 'path' && travel.keys.find((one) => one.id === id);
      if (key) recipe(key);
    },
    gesture,
  );

/** Moves a stage of the frame to another place in its order. */
export const moveStage = (stage: FrameStage, to: number): void =>
  change('change the order of a frame', (draft) => moveTo(draft.order, stage, to));
export const rightOrder = (): void =>
  change('put the frame in order', (draft) => void (draft.order = [...frameStages]));

/** Gives a body another motion, or none. */
export const changeBodyMotion = (id: string, name: string, motion: BodyMotionKept | null, gesture?: string): void =>
  edit(
    name,
    ({ bodies }) => {
      const body = bodies.find((one) => one.id === id);
      if (body) body.motion = motion;
    },
    gesture ?? null,
  );

/** Plays what the camera does from the beginning. */
export function playFromStart(): void {
  pause();
  setTime(0);
  play();
}
