import { memo } from 'react';
import { deferred } from '../ui/deferred';
import { DivideIcon, MatrixIcon } from '../ui/icons';
import { stepTitles, type Step } from './steps';

/** The button between two spaces of the Chain that opens the step from one to the other. */
export const MatrixButton = memo(
  deferred(
    'dialog',
    () => import('./MatrixPopOver'),
    ({ step }: { step: Step; undone: boolean }) => ({
      className: 'matrix-button',
      'aria-label': `Open the ${stepTitles[step]}`,
      title: `Open the ${stepTitles[step]}`,
      children: step === 'divide' ? <DivideIcon /> : <MatrixIcon />,
    }),
  ),
);
