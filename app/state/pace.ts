import { create } from 'zustand';
import type { Vec2 } from '../../core/math/vec3';
import type { Project } from '../../formats/project';
import { handHolds, type Held } from '../ui/hand';
import { useDocument } from './document';
import { useDrawings } from './drawings';
import { usePointer } from './pointer';

/** How often what is read follows while something moves: about as often as a number can be read. */
const pace = 200;

/** The document and the pointer as they were when what shows them followed last. */
interface Following {
  readonly project: Project | null;
  readonly css: Vec2;
}
const following = () => create<Following>(() => ({ project: null, css: usePointer.getState().css }));

/**
 * The document for what is read rather than looked at. While the hand moves something in a picture the pictures have every frame to themselves: figures follow at reading pace, and
 * never two of these parts of the page in one frame. Otherwise, and as soon as the hand lets go, they are in step.
 */
export const reading = { chain: following(), sheet: following(), strip: following() } as const;

/** The document for what is set in the pictures: while the hand moves something it stands still, and what moves is painted instead. */
export const useStill = following();

type Store = typeof useStill;

function follow(store: Store): void {
  const { project } = useDocument.getState();
  const { css } = usePointer.getState();
  const last = store.getState();
  if (last.project !== project || last.css !== css) store.setState({ project, css });
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
/** When the hand holds still, the rest catches up. */
function catchUp(): void {
  timer = undefined;
  Object.values(reading).forEach(follow);
}

/** What the hand moves: from the first change that it makes until it lets go. */
export const useMoving = create<{ readonly held: Held | null }>(() => ({ held: null }));

function moved(): void {
  clearTimeout(timer);
  // What is dragged beside the pictures is a number that is read.
  if (useMoving.getState().held?.picture) {
    followOne(performance.now());
    timer = setTimeout(catchUp, 2 * pace);
  } else catchUp();
}

useDocument.subscribe(() => {
  const held = handHolds();
  if (useMoving.getState().held !== held) useMoving.setState({ held });
  moved();
  if (!held) follow(useStill);
});
// The paper of a drawing is moved beside the document.
useDrawings.subscribe(() => {
  const held = handHolds();
  if (held) useMoving.setState({ held });
});
usePointer.subscribe(({ css }, before) => {
  if (useMoving.getState().held?.picture) return;
  if (css !== before.css) follow(reading.strip);
});
if (typeof document !== 'undefined')
  document.addEventListener('lostpointercapture', () => {
    if (useMoving.getState().held) useMoving.setState({ held: null });
    clearTimeout(timer);
    catchUp();
    follow(useStill);
  });
