import { create } from 'zustand';
import type { Vec2 } from '../../core/math/vec3';
import type { Project } from '../../formats/project';
import { activeDrag, onDragEnd, type ActiveDrag } from '../ui/activeDrag';
import { useAnswers } from './answers';
import { useClock } from './clock';
import { useDocument } from './document';
import { useDrawings } from './drawings';
import { usePointer } from './pointer';

/** How often what is read follows while something moves: about as often as a number can be read. */
const pace = 200;

/**
 * The document, the clock, the pointer and what the jobs have found, as they were when what shows
 * them followed last.
 */
interface Following {
  readonly project: Project | null;
  readonly time: number;
  readonly css: Vec2;
  readonly answers: Readonly<Record<string, unknown>>;
}
const following = () =>
  create<Following>(() => ({
    ...{ project: null, time: 0, css: usePointer.getState().css },
    answers: useAnswers.getState().answers,
  }));

/** What goes with the hand and with the clock. */
export const useNow = following();

/**
 * The document for what is read rather than looked at. While something moves the pictures have
 * every frame to themselves: figures follow at reading pace, and never two of these parts of the
 * page in one frame. Otherwise, and as soon as it rests, they are in step.
 */
export const reading = { chain: following(), sheet: following(), strip: following() } as const;

/**
 * The document for what is set in the pictures: while something moves it stands still, and is
 * painted instead.
 */
export const useStill = following();

type Store = typeof useStill;

function follow(store: Store): void {
  const { project } = useDocument.getState();
  const { time } = useClock.getState();
  const { css } = usePointer.getState();
  const { answers } = useAnswers.getState();
  const last = store.getState();
  if (last.project !== project || last.css !== css || last.time !== time || last.answers !== answers)
    store.setState({ project, time, css, answers });
}

/** What is read, the longest behind first, and when each has followed. */
const behind: { readonly store: Store; at: number }[] = Object.values(reading).map((store) => ({ store, at: 0 }));
let took = false;
/** One part follows if it is time; where frames are few, at most in every other one. */
function followOne(now: number): void {
  const first = behind[0]!;
  took = !took && now - first.at >= pace;
  if (!took) return;
  behind.push(behind.shift()!);
  first.at = now;
  follow(first.store);
}

let timer: ReturnType<typeof setTimeout> | undefined;
/** When what moves holds still, the rest catches up. */
function catchUp(): void {
  timer = undefined;
  Object.values(reading).forEach(follow);
}

/** What moves: a drag, from the first change that it makes until it ends, and the clock. */
export const useMoving = create<{ readonly held: ActiveDrag | null; readonly playing: boolean }>(() => ({
  held: null,
  playing: false,
}));

/** Whether anything moves, so that marks are painted rather than set. */
export const isMoving = ({ held, playing } = useMoving.getState()): boolean => held !== null || playing;

/**
 * Whether the pictures move, so that what is read keeps its pace; what is dragged beside them is a
 * number that is read.
 */
const picturesMove = (): boolean => {
  const { held, playing } = useMoving.getState();
  return playing || Boolean(held?.picture);
};

function moved(): void {
  clearTimeout(timer);
  if (picturesMove()) {
    followOne(performance.now());
    timer = setTimeout(catchUp, 2 * pace);
  } else catchUp();
  if (!isMoving()) follow(useStill);
}

const rest = (): void => {
  clearTimeout(timer);
  catchUp();
  follow(useStill);
};

/** Begins to follow document, drawings, clock and pointer. */
export function followDocument(): () => void {
  const ends = [
    useDocument.subscribe(() => {
      const held = activeDrag();
      if (useMoving.getState().held !== held) useMoving.setState({ held });
      follow(useNow);
      moved();
    }),
    // The paper of a drawing is moved beside the document.
    useDrawings.subscribe(() => {
      const held = activeDrag();
      if (held) useMoving.setState({ held });
    }),
    useClock.subscribe(({ playing, time }, before) => {
      if (playing !== useMoving.getState().playing) useMoving.setState({ playing });
      if (time !== before.time) {
        // The moment in the hand moves all that a playing clock does.
        const held = activeDrag();
        if (held && useMoving.getState().held !== held) useMoving.setState({ held });
        follow(useNow);
        moved();
      }
      if (!playing && before.playing && !activeDrag()) rest();
    }),
    usePointer.subscribe(({ css }, before) => {
      if (css === before.css) return;
      follow(useNow);
      if (!picturesMove()) follow(reading.strip);
    }),
    // What is found while something moves is read at reading pace, like what it is found of.
    useAnswers.subscribe(moved),
    onDragEnd(() => {
      if (useMoving.getState().held) useMoving.setState({ held: null });
      if (!isMoving()) rest();
    }),
  ];
  follow(useNow);
  rest();
  return () => ends.forEach((end) => end());
}
