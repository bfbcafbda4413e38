import { fieldsOf } from '../../app/sheet/Field';
import { editSlice } from '../../app/state/slices';
import { useTaskMoment } from '../../app/state/tempo';
import { WorkingButton } from '../../app/working/WorkingButton';
import type { Size } from '../../app/pictures/compose/contract';
import { sampleState, type SampleState } from './state';

const Field = fieldsOf('sample', sampleState);

export const scatterAnew = (): void =>
  editSlice<SampleState>('sample', 'scatter the sample anew', (draft) => void draft.seed++);

export function SampleSheet() {
  const { slice, answer } = useTaskMoment<SampleState>('sample');
  const counted = answer<{ count: number }>('counted');
  return (
    <section aria-label="Sample">
      <h2>Sample</h2>
      <Field at="spread" />
      <Field at="centre" width="33%" />
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
