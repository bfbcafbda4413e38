import type { VectorKind } from './vectorKinds';

/** A way in which an engine can be wrong: what it then answers to rows. */
export interface FaultWay<Name extends string = string> {
  readonly name: Name;
  /** The kinds of rows that the fault can change; absent for all. */
  readonly kinds?: readonly VectorKind[] | undefined;
  /** Cause and fix. */
  readonly fix: string;
  /** Whether `diagnose` finds it in matrices and points. */
  readonly isOfCamera: boolean;
  /** Returns the wrong answer; null for none, undefined where the fault has no meaning for the row. */
  answer(kind: VectorKind, input: readonly number[]): readonly number[] | null | undefined;
  /** Changes an engine's answer so that every form of the fault gives the right answer. */
  readonly accepts?: ((given: readonly number[]) => readonly number[]) | undefined;
}
