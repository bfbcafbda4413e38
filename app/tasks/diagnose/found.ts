import { useTaskMoment } from '../../state/tempo';
import type { Moment } from '../../state/moment';
import { foundNow } from './foundNow';
import type { Found } from './job';
import type { DiagnoseState } from './kept';

/** The moment, and what was found of its numbers. */
export const useFound = (): { now: Moment<DiagnoseState>; found: Found | null } => {
  const now = useTaskMoment<DiagnoseState>('diagnose');
  return { now, found: foundNow(now) };
};
