import { lazy } from 'react';
import { BesideButton } from './BesideButton';
import type { Subject } from './builder';
import { workingTitle } from './registry';

const Lines = lazy(() => import('./Lines'));

/** Opens a result into its formula with the numbers put in. */
export function WorkingButton({
  of,
  subject,
  label = 'Working',
  about,
}: {
  of: string;
  subject?: Subject;
  label?: string;
  /** Which of several, for those who do not see where it stands. */
  about?: string;
}) {
  const title = workingTitle(of);
  return (
    <BesideButton label={label} name={`${label}: ${title}${about ? `, ${about}` : ''}`} title={title} kind="Working">
      {(close) => <Lines of={of} subject={subject} close={close} />}
    </BesideButton>
  );
}
