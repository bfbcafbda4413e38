import { create } from 'zustand';
import { useClock, pause } from '../../state/clock';
import { currentProject, endGesture } from '../../state/document';
import { longestRule } from '../../state/span';
import { currentTaskMoment } from '../../state/tempo';
import { say } from '../../ui/notices';
import { changeTrack } from './edits';
import { mostStretches, type MotionState, type Steered } from './kept';

/** Whether the camera is being steered, and for how long it has been. */
export const useSteering = create<{ readonly on: boolean; readonly seconds: number }>(() => ({
  on: false,
  seconds: 0,
}));

/** What each key does: to the right, up, ahead. */
const keys: Readonly<Record<string, readonly [number, number, number]>> = {
  ArrowUp: [0, 0, 1],
  ArrowDown: [0, 0, -1],
  ArrowLeft: [-1, 0, 0],
  ArrowRight: [1, 0, 0],
  PageUp: [0, 1, 0],
  PageDown: [0, -1, 0],
};

/**
 * What the hand does in a frame as even steering: speeds by the keys held, and the turn of the
 * pointer spread over the frame's length, so that it is turned by what the pointer has moved, however
 * long the frame was. Units and radians a second.
 */
export function steeredFrame(
  held: ReadonlySet<string>,
  [dx, dy]: readonly [number, number],
  seconds: number,
  { speed, sensitivity }: MotionState['steering'],
): Omit<Steered, 'from' | 'to'> {
  const way = [...held].reduce((sum, key) => sum.map((v, i) => v + (keys[key]?.[i] ?? 0)), [0, 0, 0]);
  const long = Math.hypot(...way) || 1;
  const [right, up, ahead] = way.map((v) => (v / long) * speed);
  return {
    ...{ right: right!, up: up!, ahead: ahead! },
    ...{ yawRate: (dx * sensitivity) / seconds || 0, pitchRate: (-dy * sensitivity) / seconds || 0 },
  };
}

/** Stretches with one more frame: the last goes on where the hand does as before. */
export function withFrame(inputs: Steered[], frame: Omit<Steered, 'from' | 'to'>, from: number, to: number): void {
  const last = inputs.at(-1);
  const same = last && last.to === from && (Object.keys(frame) as (keyof typeof frame)[]).every((name) => last[name] === frame[name]); // prettier-ignore
  if (same) last.to = to;
  else if (Object.values(frame).some((v) => v !== 0)) inputs.push({ ...frame, from, to });
}

let stop: (() => void) | null = null;

/** Ends the steering: what was steered stands as the camera's track, one step of undo. */
export const endSteering = (): void => stop?.();

/** Begins to steer the camera from where it rests: keys and pointer become its track as they come. */
export function beginSteering(): void {
  const now = currentTaskMoment<MotionState>('motion');
  if (now.flat || useSteering.getState().on) return;
  const { steering } = now.slice;
  const { id } = currentProject();
  pause();
  const held = new Set<string>();
  let moved: [number, number] = [0, 0];
  let [time, last, frame] = [0, performance.now(), 0];
  let dragging = false;
  const gesture = `steer ${last}`;
  const set = (recipe: (inputs: Steered[]) => void) =>
    changeTrack('steer the camera', (track) => {
      if (track.travel.kind === 'walk') recipe(track.travel.inputs);
    }, gesture); // prettier-ignore
  changeTrack('steer the camera', (track) => void (track.travel = { kind: 'walk', pitchLimit: steering.pitchLimit, inputs: [] }), gesture); // prettier-ignore
  useClock.setState({ time: 0 });
  useSteering.setState({ on: true, seconds: 0 });
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'Escape' && event.type === 'keydown') {
      event.preventDefault();
      event.stopPropagation();
      return endSteering();
    }
    if (!(event.key in keys)) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.type === 'keydown') held.add(event.key);
    else held.delete(event.key);
  };
  const onPointer = (event: PointerEvent) => {
    const over = (event.target as Element | null)?.closest?.('[data-picture=main]');
    if (event.type === 'pointerdown' && over) dragging = true;
    if (!dragging) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.type === 'pointermove') moved = [moved[0] + event.movementX, moved[1] + event.movementY];
    if (event.type === 'pointerup' || event.type === 'pointercancel') dragging = false;
  };
  const tick = (at: number) => {
    if (currentProject().id !== id) return endSteering();
    // A frame that took long is not made up for by a leap.
    const seconds = Math.min(0.1, Math.max(0, (at - last) / 1000));
    last = at;
    if (seconds > 0) {
      const to = Number((time + seconds).toFixed(6));
      const steered = steeredFrame(held, moved, to - time, steering);
      moved = [0, 0];
      set((inputs) => withFrame(inputs, steered, time, to));
      time = to;
      useClock.setState(({ span }) => ({ time, span: Math.max(span, time) }));
      useSteering.setState({ seconds: time });
      const track = currentTaskMoment<MotionState>('motion').slice.tracks[currentProject().camera.id];
      if (time >= longestRule || (track?.travel.kind === 'walk' && track.travel.inputs.length >= mostStretches)) {
        say('The track is as long as it can be.');
        return endSteering();
      }
    }
    frame = requestAnimationFrame(tick);
  };
  const pointerEvents = ['pointerdown', 'pointermove', 'pointerup', 'pointercancel'] as const;
  window.addEventListener('keydown', onKey, true);
  window.addEventListener('keyup', onKey, true);
  pointerEvents.forEach((name) => window.addEventListener(name, onPointer, true));
  frame = requestAnimationFrame(tick);
  stop = () => {
    stop = null;
    cancelAnimationFrame(frame);
    window.removeEventListener('keydown', onKey, true);
    window.removeEventListener('keyup', onKey, true);
    pointerEvents.forEach((name) => window.removeEventListener(name, onPointer, true));
    endGesture();
    useSteering.setState({ on: false });
  };
}
