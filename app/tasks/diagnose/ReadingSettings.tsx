import { CheckRow } from '../../sheet/CheckRow';
import { Select } from '../../sheet/Select';
import { change } from './edits';
import type { DiagnoseState } from './kept';

/** The digits that are trusted, `digits` of them as printed, and whether other cameras are asked. */
export const ReadingSettings = ({ digits, slice }: { digits: number; slice: DiagnoseState }) => (
  <>
    <div className="row">
      <span className="label">Trusted</span>
      <Select
        name="Digits that are trusted"
        value={String(slice.digits ?? 'printed')}
        options={[
          { value: 'printed', label: `${digits} digits, as printed` },
          ...[2, 3, 4, 5, 6, 7, 9, 12, 15].map((n) => ({ value: String(n), label: `${n} digits` })),
        ]}
        onChange={(value) =>
          change('set the digits', (draft) => void (draft.digits = value === 'printed' ? null : Number(value)))
        }
      />
    </div>
    <CheckRow
      label="Ask the project’s other cameras too"
      checked={slice.others}
      onChange={(on) => change('ask other cameras', (draft) => void (draft.others = on))}
    />
  </>
);
