import { vectorsOfParts } from '../../../core/deliver/code';
import { catchesOf, type Catches } from '../../../core/deliver/catches';
import type { CodePart } from '../../../core/deliver/library';
import { vectorsOf } from '../../../core/deliver/vectors';
import { type VectorRow } from '../../../core/deliver/vectorRows';
import type { JobModule, JobSpec } from '../../state/jobs';
import { bareRequest, partsFor } from './setUp';
import type { DeliverState } from './kept';

interface Asked {
  readonly request: string;
  readonly count: number;
  readonly seed: number;
  /** Names of parts, with commas between. */
  readonly parts: string;
}
/** Test vectors, and what each row of them finds. */
export interface VectorsFound {
  readonly rows: readonly (VectorRow & { readonly finds: Catches['unseen'] })[];
  readonly faults: number;
  readonly unseen: Catches['unseen'];
}

const vectors: JobSpec<DeliverState, Asked, VectorsFound | null> = {
  says: 'Making test vectors',
  input: (now) => {
    const request = bareRequest(now);
    if (typeof request === 'string') return null;
    const { count, seed, parts } = now.slice;
    return { request: JSON.stringify(request), count, seed, parts: partsFor(now, parts).join() };
  },
  rest: 60,
  run: ({ request, count, seed, parts }) => {
    const made = vectorsOf(JSON.parse(request), count, seed);
    if (!made.ok) return null;
    const own = vectorsOfParts(made.vectors, parts.split(',') as CodePart[]);
    const { rows: finds, faults, unseen } = catchesOf(own);
    return { rows: own.rows.map((row) => ({ ...row, finds: finds.get(row.id)! })), faults, unseen };
  },
};

export const jobs: JobModule['jobs'] = { vectors };
