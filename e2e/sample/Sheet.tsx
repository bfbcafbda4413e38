import { NumberField } from '../../app/sheet/NumberField';
import { editSlice } from '../../app/state/slices';
import { useTaskMoment } from '../../app/state/tempo';
import { WorkingButton } from '../../app/working/WorkingButton';
import type { Size } from '../../app/pictures/contract';
import type { SampleState } from './state';

export const scatterAnew = (): void =>
  editSlice<SampleState>('sample', 'scatter the sample anew', (draft) => void draft.seed++);

export function SampleSheet() {
  const { slice, answer } = useTaskMoment<SampleState>('sample');
  const counted = answer<{ count: number }>('counted');
  return (
    <section aria-label="Sample">
      <h2>Sample</h2>
      <NumberField
        name="Spread"
        source="spread"
        value={slice.spread}
        refuse={(v) => (v > 0 ? null : 'The spread must be above 0.')}
        onChange={(v, gesture) =>
          editSlice<SampleState>('sample', 'spread the sample', (draft) => void (draft.spread = v), gesture)
        }
      />
      <p>
        Seed <output data-testid="seed">{slice.seed}</output>, counted{' '}
        <output data-testid="counted">{counted?.count ?? 'not yet'}</output>
      </p>
      <WorkingButton of="sampleArea" />
    </section>
  );
}

export function SampleChart({ size }: { size: Size }) {
  const { slice } = useTaskMoment<SampleState>('sample');
  return <div style={size}>A chart of {slice.spread}</div>;
}
