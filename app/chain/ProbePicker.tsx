import { memo } from 'react';
import { useDocument } from '../state/document';
import { deferred, type TriggerLook } from '../ui/deferred';
import { Caret } from '../ui/icons';
import { meaning } from '../ui/Term';

const useProbeLook = (): TriggerLook => {
  const bodies = useDocument((state) => state.project!.bodies);
  const probed = useDocument((state) => state.project!.probe.body);
  const name = bodies.find(({ id }) => id === probed)?.name ?? 'Free point';
  return {
    className: 'combo',
    'aria-label': `Probe: ${name}`,
    children: (
      <>
        <span className="what" title={meaning('probe')}>
          Probe
        </span>
        <span className="value">{name}</span>
        <Caret />
      </>
    ),
  };
};

/** Shows the probed body, or that the probe is a free point; opens the list of bodies. */
export const ProbePicker = memo(deferred('dialog', () => import('./ProbeList'), useProbeLook));
