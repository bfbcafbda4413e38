import { compute } from '../../../core/compute/compute';
import type { ComputeRequest } from '../../../core/compute/schema';
import type { Problem } from '../../../core/reasons';
import type { JobModule, JobSpec } from '../../state/jobs';
import type { Diagnosed, Identified } from './answers';
import { requestNow } from './reading';
import type { DiagnoseState } from './state';

/** What was found of the pasted numbers, and by which request. */
export interface Found {
  readonly request: ComputeRequest;
  readonly diagnosed: Diagnosed | null;
  readonly identified: Identified | null;
  readonly problems: readonly Problem[];
  readonly milliseconds: number;
}

const found: JobSpec<DiagnoseState, ComputeRequest, Found> = {
  says: 'Searching for faults',
  input: requestNow,
  run: (request) => {
    const start = performance.now();
    const answered = compute(request);
    const milliseconds = performance.now() - start;
    if (!answered.ok) return { request, diagnosed: null, identified: null, problems: answered.problem.errors, milliseconds }; // prettier-ignore
    const [diagnosed, identified = null] = answered.response.results as unknown as [Diagnosed, Identified?];
    return { request, diagnosed, identified, problems: [], milliseconds };
  },
};

export const jobs: JobModule['jobs'] = { found };
