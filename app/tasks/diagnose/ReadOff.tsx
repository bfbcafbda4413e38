import { writeCamera } from '../../../core/request/write';
import { DataList } from '../../sheet/DataList';
import type { ConventionCodec } from '../../../core/conventions/codec';
import type { Decomposed } from '../../../formats/diagnosisAnswers';
import { takeCamera } from './edits';
import { useFound } from './found';
import { takenGiven } from './foundNow';
import { readFrame } from './engine';
import { lazyPart } from '../../ui/lazyPart';

const ReadOff2d = lazyPart(() => import('./Verdict2d').then((module) => module.ReadOff2d));
import { significant, supported, supportedAll } from './words';
import { angleSuffix } from '../../ui/angles';

interface Row {
  readonly name: string;
  readonly value: string;
}
/** Each number that the matrices hold, to the figures that they support, and what a camera should not have. */
function rowsOf({ pose, lens }: Decomposed, given: readonly string[], e: ConventionCodec): Row[] {
  const turn = angleSuffix(e);
  const angle = (v: number, digits: number | undefined) => `${supported(v, digits)}${turn}`;
  const hasPose = given.some((name) => name !== 'projection' && name !== 'points');
  const hasLens = given.some((name) => name === 'projection' || name === 'viewProjection');
  return [
    ...(pose
      ? [
          { name: 'position', value: supportedAll(pose.position, pose.digits['position']) },
          {
            name: 'yaw, pitch, roll',
            value: (['yaw', 'pitch', 'roll'] as const).map((name) => angle(pose[name], pose.digits[name])).join(', '),
          },
          { name: 'right', value: supportedAll(pose.right, pose.digits['right']) },
          { name: 'up', value: supportedAll(pose.up, pose.digits['up']) },
          { name: 'ahead', value: supportedAll(pose.forward, pose.digits['forward']) },
          {
            name: 'handedness',
            value: pose.mirrored ? 'mirrored' : `${e.handedness.view}-handed view`,
          },
          { name: 'scale of rows', value: supportedAll(pose.scale, pose.digits['scale'], 5) },
          { name: 'greatest shear', value: significant(pose.shear, 2) },
        ]
      : [{ name: 'pose', value: hasPose ? 'the view is no camera’s' : 'no view is given' }]),
    ...(lens
      ? [
          { name: 'projection', value: lens.kind },
          ...(lens.kind === 'perspective'
            ? [
                { name: 'vertical field', value: angle(lens.verticalFov!, lens.digits['verticalFov']) },
                { name: 'horizontal field', value: angle(lens.horizontalFov!, lens.digits['horizontalFov']) },
              ]
            : [{ name: 'width, height', value: supportedAll([lens.width!, lens.height!], lens.digits['height']) }]),
          { name: 'aspect', value: supported(lens.aspect, lens.digits['aspect']) },
          { name: 'near', value: supported(lens.near, lens.digits['near']) },
          { name: 'far', value: lens.far === null ? 'infinite' : supported(lens.far, lens.digits['far']) },
          { name: 'lens shift', value: supportedAll(lens.shift, lens.digits['shift'], 5) },
        ]
      : [{ name: 'lens', value: hasLens ? 'the projection is no camera’s' : 'no projection is given' }]),
  ];
}

/** What can be read off the numbers alone, in the conventions in force. */
export function ReadOff() {
  const { now, found } = useFound();
  if (now.flat) return <ReadOff2d />;
  const given = takenGiven(now);
  if (!found?.diagnosed || !given)
    return <p className="text-note leading-4 text-ink2">Paste a matrix, and its camera is read off it.</p>;
  const { codec: e } = now;
  const { pose, lens } = found.diagnosed.decomposed;
  const own = pose && lens ? readFrame(now) : null;
  return (
    <>
      <DataList
        name="camera that was read"
        rows={rowsOf(found.diagnosed.decomposed, Object.keys(given), e)}
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
          disabled={!own}
          title={own ? '' : 'A camera of the project is whole, square and not mirrored'}
          onClick={() => takeCamera(writeCamera(own!, e), e.conventions, 'As the engine has it')}
        >
          Take this camera
        </button>
      </div>
    </>
  );
}
