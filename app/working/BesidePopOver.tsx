import './Lines.css';
import { Popover } from 'radix-ui';
import { Suspense, useRef, useState } from 'react';
import type { TriggerLook } from '../ui/deferred';
import { BesideSheet, PopOver } from '../ui/PopOver';
import type { ReactNode } from 'react';

export interface BesideButtonProps {
  readonly label: string;
  /** The accessible name of the button. */
  readonly name: string;
  readonly title: string;
  readonly kind: 'Working' | 'Formulas';
  readonly children: (close: () => void) => ReactNode;
}

/** Shows formulas beside the worksheet. */
export default function BesidePopOver({
  title,
  kind,
  children,
  trigger: look,
}: BesideButtonProps & { trigger: TriggerLook }) {
  const [open, setOpen] = useState(true);
  const trigger = useRef<HTMLButtonElement>(null);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <BesideSheet trigger={trigger} />
      <Popover.Trigger ref={trigger} {...look} />
      <PopOver className="working" side="left" align="start" sideOffset={10} aria-label={`${kind}: ${title}`}>
        <h3>{title}</h3>
        <Suspense fallback={<p>Setting the formulas…</p>}>{children(() => setOpen(false))}</Suspense>
      </PopOver>
    </Popover.Root>
  );
}
