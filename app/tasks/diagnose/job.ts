import { compute } from '../../../core/compute/compute';
import type { Problem } from '../../../core/reasons';
import type { JobModule, JobSpec } from '../../state/jobs';
import type { Diagnosed, Diagnosed2d, Identified } from '../../../formats/diagnosisAnswers';
import { readPasted } from '../../../formats/pasted';
import type { Asked } from './asked';
import { askedNow, longText, type LongReading } from './reading';
import type { DiagnoseState } from './kept';

/** What was found of the pasted numbers, and by which request. */
export interface Found {
  readonly mark: string;
  readonly diagnosed: Diagnosed | null;
  /** The answer for a 2D camera. */
  readonly diagnosed2d: Diagnosed2d | null;
  readonly identified: Identified | null;
  readonly problems: readonly Problem[];
  readonly milliseconds: number;
}

const found: JobSpec<DiagnoseState, Asked, Found> = {
  says: 'Searching for faults',
  input: askedNow,
  run: ({ mark, request }) => {
    const start = performance.now();
    const answered = compute(request);
    const milliseconds = performance.now() - start;
    if (!answered.ok) return { mark, diagnosed: null, diagnosed2d: null, identified: null, problems: answered.problem.errors, milliseconds }; // prettier-ignore
    const of = (op: string): unknown => answered.response.results.find((one) => one.op === op) ?? null;
    const identified = of('identify') as Identified | null;
    const answer = of('diagnose');
    const is2d = 'kind' in (request.camera ?? {});
    const diagnosed = is2d ? null : (answer as Diagnosed | null);
    return {
      mark,
      diagnosed,
      diagnosed2d: is2d ? (answer as Diagnosed2d) : null,
      identified,
      problems: [],
      milliseconds,
    };
  },
};

const reading: JobSpec<DiagnoseState, string, LongReading> = {
  says: 'Reading the pasted text',
  input: longText,
  run: (text) => ({ text, reading: readPasted(text) }),
};

export const jobs: JobModule['jobs'] = { found, reading };
