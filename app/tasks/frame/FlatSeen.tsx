import { useState } from 'react';
import type { CameraFrame } from '../../../core/camera/frame';
import { pixelsPerUnit, sizeAt } from '../../../core/convert/project';
import { visibility } from '../../../core/visibility/visibility';
import { flatCamera } from '../../../formats/camera';
import { pictureCorners } from '../../pictures/compose/drawings';
import { useMoment } from '../../state/tempo';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import { setViewport } from '../../edits/viewport';
import { figure } from '../../ui/figures';
import { NumberField } from '../../sheet/NumberField';
import { lengths } from '../../ui/parseNumber';
import { singular } from '../../state/wording';
import { exactViewport, fitFlatRectangle, type FlatRectangle, short } from './edits';
import { Fits, InView } from './Fits';
import { Line } from './Line';
import { Troubles } from './Troubles';

const inView = memo(
  (frame: CameraFrame, placed: Moment['placed']): number =>
    visibility(frame, [...placed.values()], { method: 'exact', margin: 0, flat: true }).filter(
      ({ verdict }) => verdict !== 'outside',
    ).length,
);

/** What a 2D camera shows of its world, and the ways to have it show something. */
export function FlatSeen() {
  const moment = useMoment();
  const { frame, placed, project, points } = moment;
  const { devicePixelRatio: ratio } = project.viewport;
  const [width, height] = sizeAt(frame, 0);
  const [zoom] = pixelsPerUnit(frame, 0);
  const count = inView(frame, placed);
  const corners = pictureCorners(frame, 0).map((p) => points.show(p));
  const range = (i: 0 | 1) => {
    const values = corners.map((p) => p[i]!);
    return `${figure(Math.min(...values), 2)} to ${figure(Math.max(...values), 2)}`;
  };
  const one = singular(project.unit);
  return (
    <>
      <Troubles />
      <div className="result">
        <div className="big">
          <output data-testid="seen-size">
            {short(width)} × {short(height)}
          </output>
          <u>{project.unit}</u>
        </div>
        {points.letters.map((letter, i) => (
          <div className="line" key={letter}>
            {letter}
            <span className="right" data-testid={`seen-${i ? 'up' : 'right'}`}>
              {range(i as 0 | 1)}
            </span>
          </div>
        ))}
        <div className="line">
          {short(zoom)} px per {one}
          {ratio !== 1 && <span className="right">{short(zoom * ratio)} device px</span>}
        </div>
        <InView count={count} of={placed.size} />
      </div>
      <Fits />
      <FitRectangle />
    </>
  );
}

function FitRectangle() {
  const { points, sceneBounds, frame, project } = useMoment();
  const round = (v: number) => Math.round(v / 10) * 10;
  const [open, setOpen] = useState(false);
  const [rectangle, setRectangle] = useState<FlatRectangle>(() => ({
    right: [round(sceneBounds.centre[0] - 80), round(sceneBounds.centre[0] + 80)],
    up: [round(sceneBounds.centre[1] - 45), round(sceneBounds.centre[1] + 45)],
  }));
  const side = (axis: 'right' | 'up', end: 0 | 1) => {
    const i = axis === 'right' ? 0 : 1;
    const inside = rectangle[axis][end];
    return (
      <NumberField
        name={`Rectangle ${axis} ${end === 0 ? 'from' : 'to'}`}
        width={74}
        value={points.show(i ? [0, inside, 0] : [inside, 0, 0])[i]!}
        units={lengths}
        onChange={(shown) => {
          const v = points.read(i ? [0, shown] : [shown, 0])[i];
          setRectangle((now) => ({ ...now, [axis]: end === 0 ? [v, now[axis][1]] : [now[axis][0], v] }));
        }}
      />
    );
  };
  const exact = exactViewport(rectangle, frame.viewport, flatCamera(project).rotation);
  if (!open)
    return (
      <button className="fold" onClick={() => setOpen(true)}>
        Show at least a world rectangle…
      </button>
    );
  return (
    <div className="mt-1">
      {(['right', 'up'] as const).map((axis, i) => (
        <Line key={axis} label={`${points.letters[i]} from, to`}>
          {side(axis, 0)}
          {side(axis, 1)}
        </Line>
      ))}
      {exact && (
        <p className="text-small leading-4 text-ink2" data-testid="rectangle-exact">
          It is {short(exact.size[0])} × {short(exact.size[1])}, {exact.wider ? 'wider' : 'taller'} than the picture is:
          shown whole, there is more {exact.wider ? 'above and below' : 'to both sides'}.{' '}
          <button
            className="plain-button"
            onClick={() => {
              setViewport(exact.viewport);
              fitFlatRectangle(rectangle, false);
            }}
          >
            A viewport of {exact.viewport.width} × {exact.viewport.height} shows it {exact.off ? 'best' : 'exactly'}
          </button>
        </p>
      )}
      <div className="mt-1 flex gap-1">
        <button className="plain-button" onClick={() => fitFlatRectangle(rectangle, false)}>
          Show it to the edge
        </button>
        <button className="plain-button" onClick={() => fitFlatRectangle(rectangle, true)}>
          At a whole zoom
        </button>
      </div>
    </div>
  );
}
