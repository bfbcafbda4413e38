import type { EndpointName } from '../formats/endpoints';

/*
 * What the listening thread and a computing one tell each other: lists of tasks, lists of what has
 * become of them. A message costs as much as a small answer, so what is small goes together.
 */

/** A request as it came, to be answered in a lane. */
export interface Task {
  readonly id: number;
  readonly body: Uint8Array;
  /** `compute`, or the name of an endpoint of `formats/endpoints.ts`. */
  readonly endpoint: 'compute' | EndpointName;
  /** Above this cost it is not answered but handed back. */
  readonly mostCost: number;
  /** Whether it says which query it works on. */
  readonly watched: boolean;
}

export type Told =
  /** It works on a query from now on. */
  | { readonly id: number; readonly kind: 'begins'; readonly query: number; readonly name: string }
  /** It is too much work for this lane, and nothing was done. */
  | { readonly id: number; readonly kind: 'heavy' }
  /** An answer in one. */
  | {
      readonly id: number;
      readonly kind: 'whole';
      readonly status: number;
      readonly type: string;
      readonly text: string;
    }
  /** The answer begins: whether it is one or says what is wrong. */
  | { readonly id: number; readonly kind: 'head'; readonly status: number; readonly type: string }
  | { readonly id: number; readonly kind: 'piece'; readonly bytes: Uint8Array }
  | { readonly id: number; readonly kind: 'end' };

/** How many pieces may be on their way before a computing thread waits for them to be taken. */
export const mostPieces = 8;

/** The places of what both threads write and read: see `Beginning`. */
export const shared = { pieces: 0, at: 1, count: 2 } as const;

/** What a computing thread is started with. */
export interface Beginning {
  /**
   * Two numbers: the pieces on their way, raised by the computing thread and lowered by the
   * listening one; and the task that is being worked on.
   */
  readonly pieces: SharedArrayBuffer;
  /** How far it gives way to other threads: 0 is not at all, 19 the most. */
  readonly nice: number;
  /** Whether it stands ready, and so makes itself quick before it is asked. */
  readonly ready: boolean;
}
