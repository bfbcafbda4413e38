import type { FormulasOf } from './formulasOf';
import { lazy } from 'react';
import { BesideButton } from './BesideButton';

const titles: Readonly<Record<FormulasOf, string>> = {
  there: 'To the pixel without matrices',
  back: 'Back from the pixel without matrices',
  view: 'The view matrix from position, target and up',
};

const FormulaSteps = lazy(() => import('./Formulas'));

/** Opens the formulas that an engine without matrices needs. */
export const FormulasButton = ({ of, label = 'Without matrices' }: { of: FormulasOf; label?: string }) => (
  <BesideButton label={label} name={`Formulas: ${titles[of]}`} title={titles[of]} kind="Formulas">
    {() => <FormulaSteps of={of} />}
  </BesideButton>
);
