import { frameOfReading } from '../../../core/diagnose/readFrame';
import { readGiven } from '../../../core/diagnose/decompose';
import { writeCamera } from '../../../core/compute/write';
import { DataList } from '../../sheet/DataList';
import { editable } from '../../ui/figures';
import type { Decomposed } from './answers';
import { takeCamera } from './edits';
import { useFound } from './found';
import { digitsNow, readingNow, toldOf } from './reading';
import { Flat } from './Verdict';

interface Row {
  readonly name: string;
  readonly value: string;
}
/** To so many significant figures, without zeros behind. */
const short = (v: number, figures = 5): string =>
  editable(Math.abs(v) < 1e-9 ? 0 : Number(v.toPrecision(figures))).replace('-', '−');
const all = (list: readonly number[], figures = 4) => list.map((v) => short(v, figures)).join(', ');

/** What the numbers say of a camera, line by line; what should not be there among it. */
function rowsOf({ pose, lens }: Decomposed, unit: string): Row[] {
  const turn = unit === 'degrees' ? '°' : '';
  return [
    ...(pose
      ? [
          { name: 'position', value: all(pose.position) },
          { name: 'yaw, pitch, roll', value: [pose.yaw, pose.pitch, pose.roll].map((v) => `${short(v)}${turn}`).join(', ') },
          { name: 'right', value: all(pose.right) },
          { name: 'up', value: all(pose.up) },
          { name: 'ahead', value: all(pose.forward) },
          { name: 'handedness', value: pose.mirrored ? 'mirrored' : 'right' },
          { name: 'scale of rows', value: all(pose.scale, 5) },
          { name: 'greatest shear', value: short(pose.shear, 2) },
        ]
      : [{ name: 'pose', value: 'none is in the numbers' }]),
    ...(lens
      ? [
          { name: 'projection', value: lens.kind },
          ...(lens.kind === 'perspective'
            ? [
                { name: 'vertical field', value: `${short(lens.verticalFov!, 6)}${turn}` },
                { name: 'horizontal field', value: `${short(lens.horizontalFov!, 6)}${turn}` },
              ]
            : [{ name: 'width, height', value: all([lens.width!, lens.height!]) }]),
          { name: 'aspect', value: short(lens.aspect) },
          { name: 'near', value: short(lens.near) },
          { name: 'far', value: lens.far === null ? 'infinite' : short(lens.far) },
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
          { name: 'Read', width: '92px', value: ({ name }) => name },
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
