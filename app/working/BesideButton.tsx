import './Lines.css';
import { Popover } from 'radix-ui';
import { Suspense, useRef, useState, type ReactNode } from 'react';
import { BesideSheet, PopOver } from '../ui/PopOver';

/** Opens formulas beside the worksheet: their typesetting comes when they are first opened. */
export function BesideButton({
  label,
  name,
  title,
  kind,
  children,
}: {
  label: string;
  /** What the button is called for those who do not see where it stands. */
  name: string;
  title: string;
  kind: 'Working' | 'Formulas';
  children: (close: () => void) => ReactNode;
}) {
  const [open, setOpen] = useState(false);
  const trigger = useRef<HTMLButtonElement>(null);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <BesideSheet trigger={trigger} />
      <Popover.Trigger ref={trigger} className="plain-button working-button" aria-label={name}>
        {label}
      </Popover.Trigger>
      <PopOver className="working" side="left" align="start" sideOffset={10} aria-label={`${kind}: ${title}`}>
        <h3>{title}</h3>
        <Suspense fallback={<p>Setting the formulas…</p>}>{children(() => setOpen(false))}</Suspense>
      </PopOver>
    </Popover.Root>
  );
}
