import type { Conventions } from '../core/conventions/conventions';
import type { AnswerOf } from '../core/compute/operations';
import type { FaultName, GivenName } from '../core/diagnose/faults';
import type { RequestCamera, RequestCamera2d } from '../core/request/cameraSchema';

/* Answers of `diagnose` and `identify`, in the request's conventions (`docs/compute.md`). */

type DiagnoseAnswer = AnswerOf<'diagnose'>;
type ExplainedAnswer = DiagnoseAnswer['explanations'][number];
type SaidAnswer = ExplainedAnswer['faults'][number];

/** A fault of a 3D camera, where it was committed. */
export type Said = Omit<SaidAnswer, 'where' | 'fault'> & {
  readonly where: GivenName | 'matrices';
  readonly fault: FaultName | 'otherCamera' | 'differs';
};
export type Explained = Omit<ExplainedAnswer, 'faults' | 'equivalent' | 'decides'> & {
  readonly faults: readonly Said[];
  readonly equivalent: readonly (readonly Said[])[];
  readonly decides: NonNullable<ExplainedAnswer['decides']>;
};
export type Decomposed = Extract<DiagnoseAnswer['decomposed'], { readonly pose: unknown }>;
/** The answer for a 3D camera. */
export type Diagnosed = Omit<DiagnoseAnswer, 'explanations' | 'decomposed' | 'depthResidual'> & {
  readonly explanations: readonly Explained[];
  readonly decomposed: Decomposed;
  readonly depthResidual: number | null;
};
/** The answer for a 2D camera. */
export type Diagnosed2d = Pick<DiagnoseAnswer, 'verdict' | 'residual' | 'explanations'> & {
  readonly decomposed: Extract<DiagnoseAnswer['decomposed'], { readonly focus: unknown }> | { readonly reason: string };
};
type IdentifyAnswer = AnswerOf<'identify'>;
/** A candidate: its camera has what the numbers hold of one. */
export type CandidateSaid = Omit<IdentifyAnswer['candidates'][number], 'conventions' | 'camera'> & {
  readonly conventions: Conventions;
  readonly camera: Partial<RequestCamera>;
};
type OpenAnswer = IdentifyAnswer['open'][number];
/** The answer for the numbers of a 3D camera. */
export type Identified = Omit<IdentifyAnswer, 'candidates' | 'open'> & {
  readonly candidates: readonly CandidateSaid[];
  readonly open: readonly (Omit<OpenAnswer, 'name'> & { readonly name: Exclude<OpenAnswer['name'], 'anchor'> })[];
};
/** The answer for the numbers of a 2D camera. */
export type Identified2d = Pick<IdentifyAnswer, 'open'> & {
  readonly candidates: readonly { readonly conventions: Conventions; readonly camera: RequestCamera2d }[];
};
