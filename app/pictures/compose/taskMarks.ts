import type { Moment } from '../../state/moment';
import { memo } from '../../state/memo';
import { taskMoment } from '../../state/slices';
import type { Vec2 } from '../../../core/math/vec3';
import type { AnyMarks, BodyPainting, Drawn, GpuLayer, Look, MarksTable, PictureView } from './contract';
import type { Mark } from './marks';

/* What the open task adds to the pictures. */

let table: MarksTable = {};
/** Registers the marks of the tasks loaded so far. */
export const installMarks = (marks: MarksTable): void => void (table = marks);

/** What a task adds to the pictures; undefined before it is loaded. */
export const marksOf = (name: string): AnyMarks | undefined => table[name];

/** The open task at a moment, with what follows from it. */
export interface OpenTask {
  readonly name: string;
  readonly marks: AnyMarks;
  // What the task's moment holds is known to the task alone.
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  readonly now: Moment<any>;
  readonly derived: unknown;
}

const opened = memo((name: string, now: Moment<unknown>): OpenTask => {
  const marks = table[name]!;
  return { name, marks, now, derived: marks.derive(now) };
});

/** The open task, or null where it adds nothing. */
export const openTask = (name: string, now: Moment, answers: Readonly<Record<string, unknown>>): OpenTask | null =>
  table[name] ? opened(name, taskMoment(name, now, answers)) : null;

const nothing: Drawn = {};
/** What a task has standing in a picture. */
export const standingOf = (task: OpenTask | null, view: PictureView, look: Look): Drawn =>
  task?.marks.standing?.(view, task.now, task.derived, look) ?? nothing;

/** What of it goes with the pointer. */
export const underPointerOf = (task: OpenTask | null, view: PictureView, at: Vec2, look: Look): readonly Mark[] =>
  task?.marks.underPointer?.(view, at, task.now, task.derived, look) ?? [];

/** The layers that it has the GPU draw, named apart for each picture. */
export const layersOf = (view: PictureView, { layers = [] }: Drawn): readonly GpuLayer[] =>
  layers.map((layer) => ({ ...layer, key: `${view.name}/${layer.key}` }));

/** How it has the bodies painted, or null. */
export const paintingOf = (task: OpenTask | null): BodyPainting | null =>
  task?.marks.painting?.(task.now, task.derived) ?? null;

/** The tint of every body, or null. */
export const tintsOf = (task: OpenTask | null): Uint8Array | null =>
  task?.marks.tints?.(task.now, task.derived) ?? null;
