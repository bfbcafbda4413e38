import type { Deciding, SaidFault } from '../../../core/diagnose/diagnose';
import type { Conventions } from '../../../core/conventions/conventions';
import type { RequestCamera } from '../../../core/compute/schema';
import type { Triple } from './words';

/* What `diagnose` and `identify` answer, in the conventions in force (`docs/compute.md`). */

export type Said = SaidFault;
export interface Explained {
  readonly faults: readonly Said[];
  readonly equivalent: readonly (readonly Said[])[];
  readonly decides: readonly (Deciding | { readonly where: null })[];
  readonly residual: number | null;
  readonly depthResidual: number | null;
  readonly likelihood: number;
  readonly mend: string;
}
export interface Decomposed {
  readonly pose: {
    readonly position: Triple;
    readonly right: Triple;
    readonly up: Triple;
    readonly forward: Triple;
    readonly yaw: number;
    readonly pitch: number;
    readonly roll: number;
    readonly mirrored: boolean;
    readonly scale: Triple;
    readonly shear: number;
  } | null;
  readonly lens: {
    readonly kind: 'perspective' | 'orthographic';
    readonly aspect: number;
    readonly horizontalFov?: number;
    readonly verticalFov?: number;
    readonly width?: number;
    readonly height?: number;
    readonly shift: readonly [number, number];
    readonly near: number;
    readonly far: number | null;
  } | null;
}
export interface Diagnosed {
  readonly verdict: 'agrees' | 'explained' | 'unexplained';
  readonly residual: number | null;
  readonly depthResidual: number | null;
  readonly explanations: readonly Explained[];
  readonly decomposed: Decomposed;
}
export interface CandidateSaid {
  readonly conventions: Conventions;
  readonly camera: Partial<RequestCamera>;
}
export interface Identified {
  readonly candidates: readonly CandidateSaid[];
  readonly decided: Readonly<Record<string, unknown>>;
  readonly open: readonly {
    readonly name: 'view' | 'ndc' | 'matrix';
    readonly number: 'near' | 'position' | 'viewOfPoint';
    readonly decides: string;
    readonly values: readonly (Readonly<Record<string, unknown>> & { readonly number: number | Triple })[];
  }[];
}
