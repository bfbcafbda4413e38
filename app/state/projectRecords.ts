import type { PointData } from '../../formats/pointSets';
import type { Project } from '../../formats/project';
import type { Step, StepAhead } from './document';

/*
 * Where projects are kept: the browser's database, or where it has none to give, its smaller store
 * of texts. Every writing says which revision it goes on from: what another tab has written in
 * between is never written over.
 */

export interface Kept {
  readonly id: string;
  readonly name: string;
  readonly savedAt: number;
  /** Counts the writings. */
  readonly revision: number;
  /** The tab that wrote it. */
  readonly by?: string;
  readonly project: unknown;
}

/** A state of a project to go back to. */
export interface Version {
  readonly key: number;
  readonly of: string;
  readonly at: number;
  readonly name: string;
  readonly project: unknown;
}

export type Written =
  | { readonly ok: true; readonly revision: number }
  /** Another tab has written since: its state, and nothing was changed. */
  | { readonly ok: false; readonly theirs: Kept };

export interface Shelf {
  list(): Promise<Kept[]>;
  read(id: string): Promise<Kept | undefined>;
  /**
   * `from` is the revision that the writing goes on from; null for a project that was never kept or
   * whose last state is not to be looked at.
   */
  write(project: Project, from: number | null): Promise<Written>;
  /** Puts something back as it was, or sets it aside. */
  put(kept: Kept): Promise<void>;
  /** A time after that of everything kept: the clock may have been set back meanwhile. */
  laterTime(): Promise<number>;
  remove(id: string): Promise<void>;
  versions(of: string): Promise<Version[]>;
  keepVersion(version: Omit<Version, 'key'>): Promise<void>;
  /** The steps that could be taken back, and done again, when a project was last worked on. */
  history(of: string): Promise<History | undefined>;
  keepHistory(history: History): Promise<void>;
  /** The points that a set of a project names by a key; they never change. */
  points(key: string): Promise<PointData | undefined>;
  keepPoints(key: string, points: PointData): Promise<void>;
  /** Lets points go that nothing kept here names any more, if they are older than a day. */
  sweepPoints(): Promise<void>;
}

export interface History {
  readonly of: string;
  /** The revision of the project that the steps lead to, and the project as it was there. */
  readonly revision: number;
  readonly project: Project;
  readonly past: readonly Step[];
  readonly future: readonly StepAhead[];
  /** The revisions of the other projects that a step comes from: one that was opened in their place. */
  readonly others: readonly (readonly [id: string, revision: number])[];
}
