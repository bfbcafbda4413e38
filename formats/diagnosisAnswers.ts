import type { Conventions } from '../core/conventions/conventions';
import type { AnswerOf } from '../core/compute/operations';
import type { RequestCamera } from '../core/request/cameraSchema';

/* Answers of `diagnose` and `identify`, in the request's conventions (`docs/compute.md`). */

export type Diagnosed = AnswerOf<'diagnose'>;
export type Explained = Diagnosed['explanations'][number];
export type Said = Explained['faults'][number];
export type Decomposed = Diagnosed['decomposed'];
type IdentifyAnswer = AnswerOf<'identify'>;
/** A candidate: its camera has what the numbers hold of one. */
export type CandidateSaid = Omit<IdentifyAnswer['candidates'][number], 'conventions' | 'camera'> & {
  readonly conventions: Conventions;
  readonly camera: Partial<RequestCamera>;
};
export type Identified = Omit<IdentifyAnswer, 'candidates'> & { readonly candidates: readonly CandidateSaid[] };
