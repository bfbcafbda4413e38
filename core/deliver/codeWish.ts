import type { CodePart } from './library';
import type { Naming, NumberType } from './print';

/** Options of exported code: language, parts, numbers and names. */
export interface CodeWish {
  readonly language: string;
  readonly parts: readonly CodePart[];
  readonly number: NumberType;
  readonly naming: Naming;
  /** Whether the camera's own numbers stand in the code, as a function that gives it. */
  readonly constants: boolean;
  /** A prefix of all names in C, a namespace in C++ (`scopeProblem`); the usual names if absent. */
  readonly scope?: string | undefined;
}
