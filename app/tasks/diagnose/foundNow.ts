import type { Moment } from '../../state/moment';
import type { Explained, Said } from '../../../formats/diagnosisAnswers';
import type { Found } from './job';
import { withOtherListing, type LogReading } from '../../../formats/logReading';
import { askedNow, readingNow } from './reading';
import type { DiagnoseState } from './kept';

/** What was found of the numbers as they are now; null while it is being found, and where there is nothing to ask. */
export function foundNow(now: Moment<DiagnoseState>): Found | null {
  const found = now.answer<Found>('found');
  return found && found.mark === askedNow(now)?.mark ? found : null;
}

/** The sets of faults that explain the numbers: the first and its equals. */
export const setsOf = ({ faults, equivalent }: Explained): readonly (readonly Said[])[] => [faults, ...equivalent];

/** The given numbers as the diagnosis takes them: matrices of unknown listing the way that needs fewer faults. */
export function takenGiven(now: Moment<DiagnoseState>): LogReading['given'] {
  const { given, listingUnknown } = readingNow(now);
  const other = foundNow(now)?.diagnosed?.listing === 'other';
  return given && other ? withOtherListing(given, listingUnknown) : given;
}
