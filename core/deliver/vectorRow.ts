import type { FaultName } from '../diagnose/faults';
import type { FaultName2d } from '../diagnose/engine2d';
import type { FunctionFaultName } from './functionFaults';
import type { VectorKind } from './vectorKinds';

/** A fault that rows of test vectors can detect. */
export type DetectedFault = FaultName | FaultName2d | FunctionFaultName;

/** A row of test vectors: the input and the expected answer, in the request's conventions. */
export interface VectorRow {
  readonly id: string;
  readonly kind: VectorKind;
  readonly input: readonly number[];
  /** The outputs of the kind in order, booleans as 0 and 1; null for a point without a picture. */
  readonly expected: readonly number[] | null;
  /**
   * The sizes that a tolerance is a share of, one for each output: a change of the inputs by a small share changes
   * the output by no more than this share of its size. Absent in files of older versions.
   */
  readonly scale?: readonly number[];
  /** Faults that change this row's answer. Absent in files of older versions. */
  readonly detects?: readonly DetectedFault[];
}
