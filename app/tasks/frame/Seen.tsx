import { useState } from 'react';
import { boundingSphere } from '../../../core/bodies/body';
import { letterOf } from '../../../core/conventions/axes';
import { pixelsPerUnit, sizeAt } from '../../../core/convert/project';
import { classifyMany } from '../../../core/kernels/many';
import { planeKernel, sphereVerdict } from '../../../core/kernels/spheres';
import { useMoment } from '../../state/tempo';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import { figure } from '../../ui/figures';
import { NumberField } from '../../sheet/NumberField';
import { lengths } from '../../ui/parseNumber';
import { singular } from '../../state/wording';
import { WorkingButton } from '../../working/WorkingButton';
import { fitRectangle, subjectOf, type Rectangle } from './edits';
import { Fits, InView } from './Fits';
import { Line } from './Line';
import { Troubles } from './Troubles';

const spheres = memo((placed: Moment['placed']) =>
  Float64Array.from(
    [...placed.values()].flatMap((one) => {
      const { centre, radius } = boundingSphere(one);
      return [...centre, radius];
    }),
  ),
);

/** How many bodies have a part in the picture, by the spheres round them: never too few. */
const inView = memo((frame: Moment['frame'], placed: Moment['placed']): number => {
  const verdicts = new Uint8Array(placed.size);
  classifyMany(planeKernel(frame), spheres(placed), verdicts);
  return verdicts.reduce((sum, v) => sum + (v === sphereVerdict.outside ? 0 : 1), 0);
});

const short = (v: number) => figure(v, Number.isInteger(v) || v >= 1000 ? 0 : v >= 100 ? 1 : 2);

/** What the camera sees, in world units where it matters, and the ways to have it see something. */
export function Seen() {
  const moment = useMoment();
  const { frame, placed, project } = moment;
  const { unit } = project;
  const subject = subjectOf(moment);
  const [width, height] = sizeAt(frame, subject.ahead);
  const [across] = pixelsPerUnit(frame, subject.ahead);
  const count = inView(frame, placed);
  const at = (label: string, ahead: number) => {
    const [w, h] = sizeAt(frame, ahead);
    return (
      <div className="line" key={label}>
        {label}
        <span className="right">
          {short(w)} × {short(h)}
        </span>
      </div>
    );
  };
  return (
    <>
      <Troubles />
      <Line label="Subject">
        <b className="overflow-hidden text-ellipsis">{subject.name}</b>
        <span className="ml-auto font-mono">{figure(subject.ahead, 2)} ahead</span>
      </Line>
      <div className="result">
        <div className="big">
          <output data-testid="seen-size">
            {short(width)} × {short(height)}
          </output>
          <u>{unit}</u>
        </div>
        <div className="line">
          {figure(across, across < 10 ? 2 : 1)} px per {singular(unit)}
          {subject.probed && (
            <span className="right">
              <WorkingButton of="seen" />
            </span>
          )}
        </div>
        {frame.kind === 'perspective' && at(`at near ${short(frame.near)}`, frame.near)}
        {frame.kind === 'perspective' && frame.far !== null && at(`at far ${short(frame.far)}`, frame.far)}
        <InView count={count} of={placed.size} />
      </div>
      <Fits />
      <FitRectangle />
    </>
  );
}

/** A rectangle on the level, from the numbers that its edges have in the world. */
function FitRectangle() {
  const { codec: e, project, sceneBounds } = useMoment();
  const round = (v: number) => Math.round(v / 5) * 5;
  const [open, setOpen] = useState(false);
  const [rectangle, setRectangle] = useState<Rectangle>(() => ({
    right: [round(sceneBounds.centre[0] - 40), round(sceneBounds.centre[0] + 40)],
    ahead: [round(-sceneBounds.centre[2] - 40), round(-sceneBounds.centre[2] + 40)],
    height: project.ground?.height ?? 0,
  }));
  const { world } = e.conventions;
  const side = (axis: 'right' | 'ahead', end: 0 | 1) => {
    const pair = rectangle[axis];
    const value = e.toPair('forward', axis === 'right' ? [pair[end], 0] : [0, pair[end]])[axis === 'right' ? 0 : 1];
    const set = (shown: number) => {
      const inside = e.fromPair('forward', axis === 'right' ? [shown, 0] : [0, shown])[axis === 'right' ? 0 : 1];
      setRectangle((now) => ({ ...now, [axis]: end === 0 ? [inside, now[axis][1]] : [now[axis][0], inside] }));
    };
    return (
      <NumberField
        name={`Rectangle ${axis} ${end === 0 ? 'from' : 'to'}`}
        width={74}
        value={value}
        units={lengths}
        onChange={set}
      />
    );
  };
  if (!open)
    return (
      <button className="fold" onClick={() => setOpen(true)}>
        Fit a world rectangle…
      </button>
    );
  return (
    <div className="mt-1">
      {(['right', 'ahead'] as const).map((axis) => (
        <Line key={axis} label={`${letterOf(world[axis === 'right' ? 'right' : 'forward'])} from, to`}>
          {side(axis, 0)}
          {side(axis, 1)}
        </Line>
      ))}
      <button className="plain-button mt-1" onClick={() => fitRectangle(rectangle)}>
        Fit the rectangle
      </button>
    </div>
  );
}
