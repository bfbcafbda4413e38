import type { Draft } from 'immer';
import { radians } from '../../../core/math/angle';
import { frameStages, type FrameStage } from '../../../core/motion/stages';
import { moveTo } from '../../sheet/moveTo';
import { pause, play, setTime } from '../../state/clock';
import { currentProject, edit } from '../../state/document';
import type { BodyMotionKept } from '../../../formats/project';
import { editSlice } from '../../state/slices';
import { currentTaskMoment } from '../../state/tempo';
import { say } from '../../ui/notices';
import { mostKeys, type CameraTrack, type MotionState, type PathKey, type Shaking, type TravelKind } from './kept'; // prettier-ignore
import { keyOf, newTravel } from './newTravel';

export const change = (name: string, recipe: (draft: Draft<MotionState>) => void, gesture?: string): void =>
  editSlice<MotionState>('motion', name, recipe, gesture ?? null);

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

/** Gives the camera another kind of track, begun from where it stands. */
export function takeKind(kind: TravelKind): void {
  const now = current();
  changeTrack('change the track', (track) => void (track.travel = newTravel(kind, now)));
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
