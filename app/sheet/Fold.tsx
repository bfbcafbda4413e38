import type { ReactNode } from 'react';
import { useSettings } from '../state/settings';
import { Caret } from '../ui/icons';

/** A part of a worksheet that folds under its heading; whether it is open is remembered. */
export function Fold({
  id,
  title,
  aside,
  open: usual = false,
  children,
}: {
  id: string;
  title: string;
  /** What stands beside the heading, open or not. */
  aside?: ReactNode;
  /** Whether it is open until the user says otherwise. */
  open?: boolean;
  children: ReactNode;
}) {
  const open = useSettings((state) => state.folds[id]) ?? usual;
  return (
    <section aria-label={title} data-section={id}>
      <h2 className="fold-heading">
        <button
          aria-expanded={open}
          onClick={() => useSettings.setState(({ folds }) => ({ folds: { ...folds, [id]: !open } }))}
        >
          <span className={`fold-mark${open ? ' open' : ''}`}>
            <Caret />
          </span>
          {title}
        </button>
        {aside && <span className="aside">{aside}</span>}
      </h2>
      {open && children}
    </section>
  );
}
