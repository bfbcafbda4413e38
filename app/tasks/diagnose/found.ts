import { useTaskMoment } from '../../state/tempo';
import { sameInput } from '../../state/jobs';
import type { Moment } from '../../state/moment';
import type { Explained, Said } from './answers';
import type { Found } from './job';
import { requestNow } from './reading';
import type { DiagnoseState } from './state';

/** What was found of the numbers as they are now; null while it is being found, and where there is nothing to ask. */
export function foundNow(now: Moment<DiagnoseState>): Found | null {
  const found = now.answer<Found>('found');
  return found && sameInput(found.request, requestNow(now)) ? found : null;
}

export const useFound = (): { now: Moment<DiagnoseState>; found: Found | null } => {
  const now = useTaskMoment<DiagnoseState>('diagnose');
  return { now, found: foundNow(now) };
};

/** The sets of faults that explain the numbers: the first and its equals. */
export const setsOf = ({ faults, equivalent }: Explained): readonly (readonly Said[])[] => [faults, ...equivalent];
