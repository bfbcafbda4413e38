import { useState } from 'react';
import { wholeZooms } from '../../../core/camera/camera2d';
import type { CameraFrame } from '../../../core/camera/frame';
import { pictureToPixel, pixelsPerUnit, sizeAt } from '../../../core/convert/project';
import { visibility } from '../../../core/visibility/visibility';
import type { Vec2 } from '../../../core/math/vec3';
import { expressCamera2d, translationOf, flatCamera } from '../../../formats/camera';
import { pictureCorners } from '../../pictures/drawings';
import { setFocus, turnWorld, zoomAbout } from '../../pictures/camera2d';
import { setConventions } from '../../shell/actions';
import { useSituation } from '../../state/derive';
import { memo, type Situation } from '../../state/situation';
import { editCamera2d } from '../../state/document';
import { Choice } from '../../ui/Choice';
import { editable, figure } from '../../ui/figures';
import { NumberField } from '../../ui/NumberField';
import { anglesIn, lengths, pixels } from '../../ui/parseNumber';
import { singular } from '../../wording';
import { centreAnchor, degrees, fitFlatRectangle, focusOnProbe, radians, tidy, type FlatRectangle } from './edits';
import { Fits, InView } from './Fits';
import { Line, Number6 } from './Line';
import { Troubles } from './Troubles';

/** As few digits as say it, to the thousandth. */
const short = (v: number) => editable(Number(v.toFixed(Math.abs(v) < 10 ? 3 : 2))).replace('-', '\u2212');
const whole = (v: number) => Math.abs(v - Math.round(v)) < 1e-9;

const inView = memo(
  (frame: CameraFrame, placed: Situation['placed']): number =>
    visibility(frame, [...placed.values()], { method: 'exact', margin: 0, flat: true }).filter(
      ({ verdict }) => verdict !== 'outside',
    ).length,
);

/** What a 2D camera shows of its world, and the ways to have it show something. */
export function FlatSeen() {
  const situation = useSituation();
  const { frame, placed, project, points } = situation;
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
    <section aria-label="What the camera sees">
      <h2>What the camera sees</h2>
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
    </section>
  );
}

function FitRectangle() {
  const { points, extent } = useSituation();
  const round = (v: number) => Math.round(v / 10) * 10;
  const [open, setOpen] = useState(false);
  const [rectangle, setRectangle] = useState<FlatRectangle>(() => ({
    right: [round(extent.centre[0] - 80), round(extent.centre[0] + 80)],
    up: [round(extent.centre[1] - 45), round(extent.centre[1] + 45)],
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

/** Which world point lies on which screen point. */
export function FocusAndAnchor() {
  const { project, points, expression: e, frame } = useSituation();
  const camera = flatCamera(project);
  const focus = points.show([...camera.focus, 0]);
  const { viewport } = frame;
  const anchor = expressCamera2d(camera, viewport, e).anchor;
  return (
    <section aria-label="Focus and anchor">
      <h2>Focus and anchor</h2>
      <p className="text-[12px] leading-4 text-ink2">This world point lies on this screen point.</p>
      <div className="row">
        <span className="label">Focus</span>
        {focus.map((v, i) => (
          <NumberField
            key={i}
            label={points.letters[i]}
            name={`Focus ${points.letters[i]}`}
            width="50%"
            value={v}
            shown={(n) => figure(n, 2)}
            units={lengths}
            onChange={(n, gesture) => {
              const next = points.read(focus.map((old, k) => (k === i ? n : old)));
              editCamera2d('move the focus', (c) => void (c.focus = [next[0], next[1]]), gesture);
            }}
          />
        ))}
      </div>
      <div className="row">
        <span className="label">Anchor</span>
        {anchor.map((v, i) => (
          <NumberField
            key={i}
            label={'xy'[i]!}
            name={`Anchor ${'xy'[i]}`}
            width="50%"
            value={tidy(v)}
            shown={(n) => figure(n, whole(n) ? 0 : 2)}
            units={pixels}
            onChange={(n, gesture) => {
              const next = anchor.map((old, k) => (k === i ? n : old)) as [number, number];
              const [x, y] = pictureToPixel({ viewport }, ...e.fromScreen(viewport, next));
              editCamera2d('move the anchor', (c) => void (c.anchor = [tidy(x), tidy(y)]), gesture);
            }}
          />
        ))}
        <span className="text-ink2">css px</span>
      </div>
      <div className="mt-1 flex flex-wrap gap-1">
        <button className="plain-button" onClick={focusOnProbe}>
          Focus on the probe
        </button>
        <button className="plain-button" onClick={centreAnchor}>
          Anchor in the middle
        </button>
        <button
          className="plain-button"
          title="The picture is kept; the world point in its middle becomes the focus"
          onClick={() => {
            const [x, y] = pictureCorners(frame, 0).reduce<Vec2>(
              (sum, p) => [sum[0] + p[0] / 4, sum[1] + p[1] / 4],
              [0, 0],
            );
            centreAnchor();
            setFocus([x, y]);
          }}
        >
          Focus on the middle
        </button>
      </div>
    </section>
  );
}

/** Zoom, turn and which way y grows. */
export function ZoomAndTurn() {
  const { project, expression: e, frame } = useSituation();
  const { zoom, rotation } = flatCamera(project);
  const { width, height } = frame.viewport;
  const unit = e.conventions.angles.unit;
  const { world } = e.conventions;
  const above = (v: number) => (v > 0 ? null : 'What is seen is larger than 0.');
  return (
    <section aria-label="Zoom and turn">
      <h2>Zoom and turn</h2>
      <Line label="Zoom">
        <Number6
          name="Zoom"
          value={zoom}
          step={0.1}
          unit={`px per ${singular(project.unit)}`}
          onChange={(v, gesture) => editCamera2d('change the zoom', (c) => void (c.zoom = v), gesture)}
        />
      </Line>
      <Line label="Width seen">
        <Number6
          name="Width seen"
          value={tidy(width / zoom)}
          unit={project.unit}
          units={lengths}
          refuse={above}
          onChange={(v, gesture) => editCamera2d('change the zoom', (c) => void (c.zoom = tidy(width / v)), gesture)}
        />
      </Line>
      <Line label="Height seen">
        <Number6
          name="Height seen"
          value={tidy(height / zoom)}
          unit={project.unit}
          units={lengths}
          refuse={above}
          onChange={(v, gesture) => editCamera2d('change the zoom', (c) => void (c.zoom = tidy(height / v)), gesture)}
        />
      </Line>
      <Line label="Turned">
        <Number6
          name="Turned"
          value={tidy(e.toAngle(radians(rotation)))}
          step={unit === 'degrees' ? 1 : 0.01}
          unit={unit === 'degrees' ? '°' : 'rad'}
          units={anglesIn(unit)}
          onChange={(v, gesture) =>
            editCamera2d('turn the world', (c) => void (c.rotation = degrees(e.fromAngle(v))), gesture)
          }
        />
        {rotation === 0 ? (
          <span className="text-[11.5px] text-ink2">+ is counter-clockwise</span>
        ) : (
          <button className="plain-button ml-auto" onClick={() => turnWorld(0)}>
            Upright
          </button>
        )}
      </Line>
      <div className="row">
        <span className="label">{world.up[1]} grows</span>
        <Choice
          name="World up"
          value={world.up[0] as '+' | '-'}
          options={[
            { value: '+', label: 'up' },
            { value: '-', label: 'down' },
          ]}
          onChange={(sign) =>
            setConventions((now) => ({
              ...now,
              world: { ...now.world, up: `${sign}${now.world.up[1]}` as typeof now.world.up },
            }))
          }
        />
        <span className="text-[11.5px] text-ink2" title="The numbers change, the picture does not move">
          re-expressed
        </span>
      </div>
    </section>
  );
}

const snaps = [
  { value: 'none', label: 'none' },
  { value: 'floor', label: 'down' },
  { value: 'round', label: 'to the nearest' },
] as const;

/** Snapping of the translation to whole pixels, and whether the map's tiles end on pixels. */
export function WholePixels() {
  const { project, expression: e, seen } = useSituation();
  const camera = flatCamera(project);
  const { viewport, tiles } = project;
  const t = seen.problems.length ? null : translationOf({ camera: { ...camera, snap: 'none' }, viewport }, e);
  const snapped = t && translationOf(project, e);
  const tile = tiles && tiles.size * camera.zoom;
  const upright = camera.rotation % 90 === 0;
  return (
    <section aria-label="Whole pixels">
      <h2>Whole pixels</h2>
      <div className="row">
        <span className="label">Snap</span>
        <Choice
          name="Snap"
          value={camera.snap}
          options={snaps}
          onChange={(snap) => editCamera2d('change the snapping', (c) => void (c.snap = snap))}
        />
      </div>
      <div className="work">
        screen = zoom·<span className="sym">R</span>·<span className="sym">p</span> + <span className="sym">t</span>
        {t && snapped && (
          <>
            <br />
            <span className="sym">t</span> ={' '}
            <span data-testid="translation">{t.map((v) => figure(v, 3)).join(', ')}</span>
            {camera.snap !== 'none' && (
              <>
                <br />
                snapped <b data-testid="snapped">{snapped.map((v) => figure(v, 3)).join(', ')}</b>
              </>
            )}
          </>
        )}
      </div>
      <p className="text-[12px] leading-4 text-ink2" data-testid="seams">
        {seamSentence(tile, tiles?.size ?? 1, camera.zoom, upright, (snapped ?? [0.5, 0.5]).every(whole), project.unit)}
      </p>
    </section>
  );
}

/** Whether edges at whole positions land on whole pixels, and what keeps them from it. */
function seamSentence(
  tile: number | null,
  size: number,
  zoom: number,
  upright: boolean,
  onWhole: boolean,
  unit: string,
): string {
  const what = tile === null ? `One ${singular(unit)}` : `A tile of ${short(size)}`;
  const is = tile ?? zoom;
  if (!upright) return `${what} is ${short(is)} px, and turned: edges run across pixels at any zoom.`;
  if (!whole(is)) {
    const better = [Math.floor(is), Math.ceil(is)].filter((v) => v > 0).map((v) => short(v / (is / zoom)));
    return `${what} is ${short(is)} px: its edges land between pixels. At zoom ${better.join(' or ')} they would not.`;
  }
  return onWhole
    ? `${what} is ${short(is)} px and t is whole: every edge lands between two pixels, without a seam.`
    : `${what} is ${short(is)} px, but t is not whole: every edge is off by the same part of a pixel. Snap it.`;
}

/** Whole-number zooms, with the view that each gives. */
export function WholeZooms() {
  const { project } = useSituation();
  const { viewport, unit } = project;
  const { devicePixelRatio: ratio } = viewport;
  const { zoom: now, anchor } = flatCamera(project);
  const [device, setDevice] = useState(false);
  const per = device ? ratio : 1;
  const rows = wholeZooms(
    { width: viewport.width * per, height: viewport.height * per },
    Math.max(8, Math.min(24, Math.ceil(now * per) + 2)),
  );
  const first = Math.max(0, Math.min(rows.length - 8, Math.round(now * per) - 4));
  return (
    <section aria-label="Whole-number zooms">
      <h2>Whole-number zooms</h2>
      {ratio !== 1 && (
        <div className="row">
          <span className="label">Pixels</span>
          <Choice
            name="Whole zooms counted in"
            value={device ? 'device' : 'css'}
            options={[
              { value: 'css', label: 'css px' },
              { value: 'device', label: 'device px' },
            ]}
            onChange={(value) => setDevice(value === 'device')}
          />
        </div>
      )}
      <div className="rule">
        px per {singular(unit)} <em>view in {unit}</em>
      </div>
      {rows.slice(first, first + 8).map(({ zoom, size, whole: even }) => {
        const on = Math.abs(now * per - zoom) < 1e-9;
        return (
          <button
            key={zoom}
            className={`zoom-row${on ? ' on' : ''}`}
            aria-pressed={on}
            aria-label={`Zoom ${zoom}: ${size.map(short).join(' × ')} ${unit}`}
            onClick={() => zoomAbout(anchor, zoom / per)}
          >
            <span>{zoom}</span>
            <span className="right">{size.map(short).join(' × ')}</span>
            <span className="aside">{even ? 'whole' : ''}</span>
          </button>
        );
      })}
    </section>
  );
}
