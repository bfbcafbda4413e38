import { compute } from '../../../core/compute/compute';
import type { Problem } from '../../../core/reasons';
import type { JobModule, JobSpec } from '../../state/jobs';
import type { Diagnosed, Diagnosed2d, Identified, Identified2d } from '../../../formats/diagnosisAnswers';
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
  readonly identified2d: Identified2d | null;
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
    const none = { diagnosed: null, diagnosed2d: null, identified: null, identified2d: null, problems: [] };
    if (!answered.ok) return { mark, ...none, problems: answered.problem.errors, milliseconds };
    const of = (op: string): unknown => answered.response.results.find((one) => one.op === op) ?? null;
    const [diagnosed, identified] = [of('diagnose'), of('identify')];
    return 'kind' in (request.camera ?? {})
      ? {
          ...none,
          mark,
          milliseconds,
          diagnosed2d: diagnosed as Diagnosed2d | null,
          identified2d: identified as Identified2d | null,
        }
      : {
          ...none,
          mark,
          milliseconds,
          diagnosed: diagnosed as Diagnosed | null,
          identified: identified as Identified | null,
        };
  },
};

const reading: JobSpec<DiagnoseState, string, LongReading> = {
  says: 'Reading the pasted text',
  input: longText,
  run: (text) => ({ text, reading: readPasted(text) }),
};

export const jobs: JobModule['jobs'] = { found, reading };
