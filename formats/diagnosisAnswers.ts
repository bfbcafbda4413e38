import type { RequestCamera } from '../core/request/cameraSchema';
import type { Deciding, Difference, SaidFault } from '../core/diagnose/diagnose';
import type { Conventions } from '../core/conventions/conventions';

type Triple = readonly [number, number, number];

/* Answers of `diagnose` and `identify`, in the request's conventions (`docs/compute.md`). */

export type Said = Omit<SaidFault, 'what'> & {
  readonly what?: readonly (Difference & { readonly digits?: number })[];
};
export interface Explained {
  readonly faults: readonly Said[];
  readonly equivalent: readonly (readonly Said[])[];
  readonly decides: readonly (Deciding | { readonly where: null })[];
  readonly residual: number | null;
  readonly depthResidual: number | null;
  readonly likelihood: number;
  readonly mend: string;
  /** Whether the matrices of unknown listing are taken the other way. */
  readonly listing?: 'other';
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
    readonly digits: Readonly<Record<string, number>>;
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
    readonly digits: Readonly<Record<string, number>>;
  } | null;
}
export interface Diagnosed {
  /** Of matrices of unknown listing: as they are given, or the other way. */
  readonly listing?: 'given' | 'other';
  readonly verdict: 'agrees' | 'explained' | 'unexplained';
  readonly residual: number | null;
  readonly depthResidual: number | null;
  readonly explanations: readonly Explained[];
  readonly decomposed: Decomposed;
}
export interface CandidateSaid {
  readonly conventions: Conventions;
  readonly camera: Partial<RequestCamera>;
  readonly digits?: Readonly<Record<string, number>>;
}
export interface Identified {
  readonly candidates: readonly CandidateSaid[];
  readonly decided: Readonly<Record<string, unknown>>;
  readonly open: readonly {
    readonly name: 'world' | 'view' | 'ndc' | 'matrix';
    readonly number: 'near' | 'position' | 'viewOfPoint' | 'yaw';
    readonly decides: string;
    readonly values: readonly (Readonly<Record<string, unknown>> & { readonly number: number | Triple })[];
  }[];
}
