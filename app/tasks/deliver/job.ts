import { vectorsOfParts } from '../../../core/deliver/code';
import type { CodePart } from '../../../core/deliver/library';
import { vectorsOf } from '../../../core/deliver/vectors';
import type { DetectedFault, VectorRow } from '../../../core/deliver/vectorRow';
import type { JobModule, JobSpec } from '../../state/jobs';
import { partsFor, vectorRequest } from './setUp';
import type { DeliverState } from './kept';

interface Asked {
  readonly request: string;
  readonly count: number;
  readonly seed: number;
  /** Names of parts, with commas between. */
  readonly parts: string;
}
/** Test vectors, each row with the faults that it detects. */
export interface VectorsFound {
  readonly rows: readonly (VectorRow & { readonly detects: readonly DetectedFault[] })[];
  /** The number of faults that some row detects. */
  readonly faults: number;
  /** Faults that change no number of this camera. */
  readonly undetected: readonly DetectedFault[];
}

const vectors: JobSpec<DeliverState, Asked, VectorsFound | null> = {
  says: 'Making test vectors',
  input: (now) => {
    const request = vectorRequest(now);
    if (typeof request === 'string') return null;
    const { count, seed, parts } = now.slice;
    return { request: JSON.stringify(request), count, seed, parts: partsFor(now, parts).join() };
  },
  rest: 60,
  run: ({ request, count, seed, parts }) => {
    const made = vectorsOf(JSON.parse(request), count, seed);
    if (!made.ok) return null;
    const own = vectorsOfParts(made.vectors, parts.split(',') as CodePart[]);
    const rows = own.rows.map((row) => ({ ...row, detects: row.detects ?? [] }));
    return { rows, faults: new Set(rows.flatMap(({ detects }) => detects)).size, undetected: own.undetected ?? [] };
  },
};

export const jobs: JobModule['jobs'] = { vectors };
