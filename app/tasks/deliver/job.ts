import { kindsOf } from '../../../core/deliver/code';
import { catchesOf } from '../../../core/deliver/catches';
import { vectorsOf, type VectorRow, type Vectors } from '../../../core/deliver/vectors';
import type { FaultName } from '../../../core/diagnose/faults';
import { type JobModule, type JobSpec } from '../../state/jobs';
import { bareRequest, partsFor } from './setUp';
import type { DeliverState } from './state';

interface Asked {
  readonly request: string;
  readonly count: number;
  readonly seed: number;
  readonly kinds: string;
}
/** Test vectors, and what each row of them finds. */
export interface VectorsFound {
  /** What they are of: an answer to another camera is none. */
  readonly of: string;
  readonly vectors: Vectors;
  readonly rows: readonly (VectorRow & { readonly finds: readonly FaultName[] })[];
  readonly faults: number;
  readonly unseen: readonly FaultName[];
}

const vectors: JobSpec<DeliverState, Asked, VectorsFound | null> = {
  says: 'Making test vectors',
  input: (now) => {
    const request = now.flat ? '' : bareRequest(now);
    if (typeof request === 'string') return null;
    const { count, seed, parts } = now.slice;
    return { request: JSON.stringify(request), count, seed, kinds: kindsOf(partsFor(now, parts)).join() };
  },
  rest: 60,
  run: ({ request, count, seed, kinds }) => {
    const made = vectorsOf(JSON.parse(request), count, seed);
    if (!made.ok) return null;
    const rows = made.vectors.rows.filter(({ kind }) => kinds.split(',').includes(kind));
    const own = { ...made.vectors, rows };
    const { rows: finds, faults, unseen } = catchesOf(own);
    return { of: `${request} ${count} ${seed} ${kinds}`, vectors: own, rows: rows.map((row) => ({ ...row, finds: finds.get(row.id)! })), faults, unseen }; // prettier-ignore
  },
};

export const jobs: JobModule['jobs'] = { vectors };
