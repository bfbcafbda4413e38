import type { Query } from '../../../core/compute/operations';
import type { Slice } from '../../state/slices';
import { diagnoseState, type DiagnoseState } from './kept';
import { harbourLog } from './log';
import { askedNow } from './reading';

export const slice: Slice<DiagnoseState> = {
  version: 1,
  schema: diagnoseState,
  initial: (project) => ({
    text: project.guide === 'harbour' ? harbourLog : '',
    corrections: [],
    digits: null,
    others: true,
    chosen: 0,
    over: true,
    candidate: 0,
  }),
  queries: (_, now): Query[] => [...(askedNow(now)?.request.queries ?? [])] as Query[],
};
