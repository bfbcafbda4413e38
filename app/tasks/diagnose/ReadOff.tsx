import { frameOfReading } from '../../../core/diagnose/readFrame';
import { readGiven } from '../../../core/diagnose/decompose';
import { writeCamera } from '../../../core/compute/write';
import { DataList } from '../../sheet/DataList';
import { figure } from '../../ui/figures';
import type { Decomposed } from './answers';
import { takeCamera } from './edits';
import { useFound } from './found';
import { digitsNow, readingNow, toldOf } from './reading';
import { Flat } from './Verdict';

interface Row {
  readonly name: string;
  readonly value: string;
}
const all = (list: readonly number[], decimals = 4) => list.map((v) => figure(v, decimals)).join(', ');

/** What the numbers say of a camera, line by line; what should not be there among it. */
function rowsOf({ pose, lens }: Decomposed, unit: string): Row[] {
  const turn = unit === 'degrees' ? '°' : '';
  return [
    ...(pose
      ? [
          { name: 'position', value: all(pose.position) },
          { name: 'yaw, pitch, roll', value: [pose.yaw, pose.pitch, pose.roll].map((v) => `${figure(v, 3)}${turn}`).join(', ') },
          { name: 'right', value: all(pose.right) },
          { name: 'up', value: all(pose.up) },
          { name: 'ahead', value: all(pose.forward) },
          { name: 'handedness', value: pose.mirrored ? 'mirrored: not the conventions’' : 'as the conventions have it' },
          { name: 'scale of the rows', value: all(pose.scale, 5) },
          { name: 'greatest shear', value: figure(pose.shear, 6) },
        ]
      : [{ name: 'pose', value: 'none is in the numbers' }]),
    ...(lens
      ? [
          { name: 'projection', value: lens.kind },
          ...(lens.kind === 'perspective'
            ? [
                { name: 'vertical field', value: `${figure(lens.verticalFov!, 3)}${turn}` },
                { name: 'horizontal field', value: `${figure(lens.horizontalFov!, 3)}${turn}` },
              ]
            : [{ name: 'width, height', value: all([lens.width!, lens.height!]) }]),
          { name: 'aspect', value: figure(lens.aspect, 4) },
          { name: 'near', value: figure(lens.near, 5) },
          { name: 'far', value: lens.far === null ? 'infinite' : figure(lens.far, 3) },
          { name: 'lens shift', value: all(lens.shift, 5) },
        ]
      : [{ name: 'lens', value: 'none is in the numbers' }]),
  ];
} // prettier-ignore

/** What can be read off the numbers alone, in the conventions in force. */
export function ReadOff() {
  const { now, found } = useFound();
  if (now.flat) return <Flat />;
  const reading = readingNow(now);
  if (!found?.diagnosed || !reading.given)
    return <p className="text-note leading-4 text-ink2">Paste a matrix, and its camera is read off it.</p>;
  const { codec: e, frame } = now;
  const { pose, lens } = readGiven(toldOf(reading.given, e, digitsNow(now, reading)), e);
  const own = pose && lens ? frameOfReading(pose, lens, frame.viewport) : null;
  const { extents: x } = own ?? frame;
  const upright = own !== null && x.right > x.left && x.top > x.bottom;
  return (
    <>
      <DataList
        name="camera that was read"
        rows={rowsOf(found.diagnosed.decomposed, e.conventions.angles.unit)}
        keyOf={({ name }) => name}
        columns={[
          { name: 'Read', width: '108px', value: ({ name }) => name },
          { name: 'value', width: '1fr', value: ({ value }) => value },
        ]}
        most={16}
      />
      <div className="row">
        <button
          className="plain-button"
          disabled={!upright}
          title={upright ? '' : 'A camera of the project is whole, square and not mirrored'}
          onClick={() => takeCamera(writeCamera(own!, e), e.conventions, 'As the engine has it')}
        >
          Take this camera
        </button>
      </div>
    </>
  );
}
