import type { ComponentType } from 'react';
import type { HandleSpec } from '../pictures/page/handles';
import type { PaneName } from '../pictures/compose/panes';
import type { Size } from '../pictures/compose/contract';
import type { TimeTick } from '../pictures/compose/timeTick';
import type { Hit } from '../../core/pick/pick';
import type { Project } from '../../formats/project';
import type { Moment } from '../state/moment';
import type { TaskWorkings } from '../working/registry';
import type { TaskName } from './names';

/*
 * What a task gives the page. Its folder has `index.ts` with this, and beside it, as far as it
 * needs them, `state.ts` (a slice of the document), `marks.ts` (what it adds to the pictures) and
 * `job.ts` (heavy work), each read by whom it is for.
 */

/** Something that a task can do by name, from any task. */
export interface TaskCommand {
  readonly name: string;
  /** Other words that it is found by. */
  readonly words?: string;
  readonly run: () => void;
  /** The only kind of world that it has a meaning in, if not both. */
  readonly world?: 'space' | 'flat';
}

/** Something on the task's worksheet that is found by name: a field, or a section. */
export interface Find {
  readonly name: string;
  /** Which element it is, as a selector. */
  readonly at: string;
  /** Other words of the trade for it. */
  readonly words?: string;
  readonly world?: 'space' | 'flat';
}

/** A key that means something while the task is open. */
export interface TaskKey {
  /** As the event names it, in lower case: `m`, `enter`. */
  readonly key: string;
  readonly says: string;
  readonly run: () => void;
}

/** What the help says, a heading and its paragraphs. */
export interface Passage {
  readonly title: string;
  readonly text: readonly string[];
}

/**
 * Something to try on a demo: what to do and what is to be seen by it, and how it is told that it
 * was done.
 */
export interface Try {
  readonly id: string;
  readonly text: string;
  readonly done: (now: Moment) => boolean;
}

/** A pane of a task's own beside the plan, or in the full-width row below. */
export interface TaskPane {
  readonly name: string;
  readonly title: string;
  readonly sub?: string;
  readonly Content: ComponentType<{ size: Size }>;
  /** Saves what the pane shows as a file. */
  readonly save?: () => void;
  /** In the row of panes, or as the row below of a height in pixels. */
  readonly place: 'row' | { readonly height: number };
  /** The only kind of world that it has a meaning in, if not both. */
  readonly world?: 'space' | 'flat';
}

/** Something that comes by file, drop or paste and that this task takes. */
export interface Acceptor {
  /** What it is, as the notice says it. */
  readonly says: string;
  /** Whether taking it opens the task; otherwise the user stays in the open one. */
  readonly opensTask?: true;
  /** Whether it is meant for this task; text only where the bytes are text. */
  readonly accepts: (given: {
    readonly name: string;
    readonly bytes: Uint8Array;
    readonly text: string | null;
  }) => boolean;
  readonly take: (given: {
    readonly name: string;
    readonly bytes: Uint8Array;
    readonly text: string | null;
  }) => void | Promise<void>;
}

export interface Task<S = undefined> {
  readonly Sheet: ComponentType;
  /** What stands beside the plan until the user wants something else there. */
  readonly corner?: PaneName;
  readonly panes?: readonly TaskPane[];
  readonly commands?: readonly TaskCommand[];
  readonly finds?: readonly Find[];
  readonly keys?: readonly TaskKey[];
  readonly help?: { readonly space: readonly Passage[]; readonly flat: readonly Passage[] };
  /** By demo. */
  readonly tries?: { readonly [guide in NonNullable<Project['guide']>]?: readonly Try[] };
  readonly workings?: TaskWorkings;
  readonly handles?: (now: Moment<S>, picture: string) => readonly HandleSpec<S>[];
  readonly ticks?: (now: Moment<S>) => readonly TimeTick[];
  readonly accepts?: readonly Acceptor[];
  /** What it does with a surface of the camera's picture that is clicked, as part of probing it. */
  readonly onHit?: (hit: Hit, gesture: string) => void;
}

// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type AnyTask = Task<any> & TaskName;
