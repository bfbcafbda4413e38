import type { ReactNode } from 'react';
import { deferred } from '../ui/deferred';

export interface BesideButtonProps {
  readonly label: string;
  /** The accessible name of the button. */
  readonly name: string;
  readonly title: string;
  readonly kind: 'Working' | 'Formulas';
  readonly children: (close: () => void) => ReactNode;
}

/** Opens formulas beside the worksheet. */
export const BesideButton = deferred(
  'dialog',
  () => import('./BesidePopOver'),
  ({ label, name }: BesideButtonProps) => ({
    className: 'plain-button working-button',
    'aria-label': name,
    children: label,
  }),
);
