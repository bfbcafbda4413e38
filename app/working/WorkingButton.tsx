import { Popover } from 'radix-ui';
import { lazy, Suspense, useState } from 'react';
import type { WorkingName } from './lines';
import type { Subject } from './maker';
import { PopOver } from '../ui/PopOver';

/** The typesetting comes when a working is first opened. */
const Lines = lazy(() => import('./Lines'));

const titles: Readonly<Record<WorkingName, string>> = {
  screen: 'From the point to the pixel',
  view: 'The view matrix’s last column',
  projection: 'The projection matrix’s entries',
  back: 'From the pixel to the point',
  scale: 'Pixels per unit',
  seen: 'What is seen at a distance',
  flat: 'From the point to the pixel',
  flatBack: 'From the pixel to the point',
  edge: 'Where the edge marker stands',
  derivative: 'How the pixel moves with the point',
  rectangle: 'The rectangle on the screen',
  edges: 'An edge on the screen',
  normal: 'The normal matrix',
  between: 'The probe in the other space',
  pointer: 'The pointer’s way',
};

/** Opens a result into its formula with the numbers put in. */
export function WorkingButton({
  of,
  subject,
  label = 'Working',
  about,
}: {
  of: WorkingName;
  subject?: Subject;
  label?: string;
  /** Which of several, for those who do not see where it stands. */
  about?: string;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        className="plain-button working-button"
        aria-label={`${label}: ${titles[of]}${about ? `, ${about}` : ''}`}
      >
        {label}
      </Popover.Trigger>
      <PopOver className="working" side="left" align="start" sideOffset={10} aria-label={`Working: ${titles[of]}`}>
        <h3>{titles[of]}</h3>
        <Suspense fallback={<p>Setting the formulas…</p>}>
          <Lines of={of} subject={subject} close={() => setOpen(false)} />
        </Suspense>
      </PopOver>
    </Popover.Root>
  );
}
