import type { Moment } from '../../state/moment';
import type { Explained, Said } from './answers';
import type { Found } from './job';
import { askedNow } from './reading';
import type { DiagnoseState } from './state';

/** What was found of the numbers as they are now; null while it is being found, and where there is nothing to ask. */
export function foundNow(now: Moment<DiagnoseState>): Found | null {
  const found = now.answer<Found>('found');
  return found && found.mark === askedNow(now)?.mark ? found : null;
}

/** The sets of faults that explain the numbers: the first and its equals. */
export const setsOf = ({ faults, equivalent }: Explained): readonly (readonly Said[])[] => [faults, ...equivalent];
