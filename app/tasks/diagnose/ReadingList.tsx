import { Fragment, useState } from 'react';
import { group } from 'd3-array';
import { Select } from '../../sheet/Select';
import { useTaskMoment } from '../../state/tempo';
import { counted } from '../../ui/figures';
import { rolesFor, type UsedItem } from '../../../formats/logReading';
import { correct } from './edits';
import type { DiagnoseState } from './kept';
import { useLit } from './Paste';
import { readingNow } from './reading';
import { ReadingSettings } from './ReadingSettings';
import { ReadingList2d } from './Verdict2d';
import { roleWords } from './words';

const byWords: Readonly<Record<UsedItem['item']['by'], string>> = {
  label: 'by the words before it',
  numbers: 'by its numbers',
  place: 'by what it stands beside',
  none: 'nothing says what it is',
};

/** What one part that was read is, to be corrected. */
function Role({ one }: { one: UsedItem }) {
  const said = one.corrected ? 'as you said' : byWords[one.item.by];
  return (
    <Select
      name={`Line ${one.line} is`}
      value={one.role}
      title={`${one.item.numbers.length} numbers, ${said}${one.item.label ? `: ${one.item.label}` : ''}`}
      options={rolesFor(one.item).map((value) => ({ value, label: roleWords[value] }))}
      onChange={(role) => correct(one.item.from, { role })}
    />
  );
}

/** Lines listed at first, and by each press of the button under them. */
const linesAtATime = 60;

/** What each part of the text was taken for, line by line. */
export const ReadingList = () =>
  useTaskMoment<DiagnoseState>('diagnose').flat ? <ReadingList2d /> : <ReadingList3d />;

function ReadingList3d() {
  const now = useTaskMoment<DiagnoseState>('diagnose');
  const { slice } = now;
  const reading = readingNow(now);
  const lines = [...group(reading.used, ({ line }) => line)];
  const [shown, setShown] = useState(linesAtATime);
  const light = (from: number | null) => useLit.setState({ lit: from });
  return (
    <>
      {lines.length > 0 && (
        <ul className="readings" aria-label="What was read">
          {lines.slice(0, shown).map(([line, parts]) => (
            <li key={line} onPointerLeave={() => light(null)}>
              <button className="text-button" title="Shows it in the text" onClick={() => light(parts[0]!.item.from)}>
                line {line}
              </button>
              {parts.map((one) => (
                <Fragment key={one.item.from}>
                  <Role one={one} />
                  {one.item.kind === 'matrix' && (
                    <Select
                      name={`Line ${line} was printed`}
                      value={one.turned ? 'turned' : 'listed'}
                      options={[{ value: 'listed', label: 'as listed' }, { value: 'turned', label: 'turned' }]}
                      onChange={(value) => correct(one.item.from, { turned: value === 'turned' })}
                    />
                  )}
                  {one.why && <span className="warning">{one.why}</span>}
                </Fragment>
              ))}
            </li>
          ))}
        </ul>
      )}
      {lines.length > shown && (
        <button className="text-button" onClick={() => setShown(shown + linesAtATime)}>
          Show more: {shown} of {counted(lines.length, 'line', 'lines')} are listed
        </button>
      )}
      <ReadingSettings digits={reading.digits} slice={slice} />
    </>
  );
} // prettier-ignore
