import type { BesideButtonProps } from './BesidePopOver';
import { deferred } from '../ui/deferred';

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
