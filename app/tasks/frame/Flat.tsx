import { radians, tidyDegrees } from '../../../core/math/angle';
import { useState } from 'react';
import { wholeZooms } from '../../../core/camera/camera2d';
import type { CameraFrame } from '../../../core/camera/frame';
import { pictureToPixel } from '../../../core/convert/project';
import type { Vec2 } from '../../../core/math/vec3';
import { expressCamera2d, translationOf, flatCamera } from '../../../formats/camera';
import { pictureCorners } from '../../pictures/compose/drawings';
import { setFocus, turnWorld, zoomAbout } from '../../edits/camera2d';
import { setConventions } from '../../edits/actions';
import { useMoment } from '../../state/tempo';
import { edit, editCamera2d } from '../../state/document';
import { tileSide } from '../../../formats/project';
import { angleUnit } from '../../ui/angles';
import { Choice } from '../../ui/Choice';
import { editable, figure } from '../../ui/figures';
import { NumberField } from '../../sheet/NumberField';
import { Sense } from '../../ui/Sense';
import { anglesIn, lengths, pixels } from '../../ui/parseNumber';
import { countsOf, screenUnit, singular } from '../../state/wording';
import { centreAnchor, focusOnProbe, tidy, short } from './edits';
import { Line, Number6 } from './Line';

const whole = (v: number) => Math.abs(v - Math.round(v)) < 1e-9;

/** The world point in the middle of the picture. */
const middleOf = (frame: CameraFrame): Vec2 =>
  pictureCorners(frame, 0).reduce<Vec2>((sum, p) => [sum[0] + p[0] / 4, sum[1] + p[1] / 4], [0, 0]);

/** Which world point lies on which screen point. */
export function FocusAndAnchor() {
  const { project, points, codec: e, frame } = useMoment();
  const camera = flatCamera(project);
  const focus = points.show([...camera.focus, 0]);
  const { viewport } = frame;
  const anchor = expressCamera2d(camera, viewport, e).anchor;
  return (
    <>
      <p className="text-note leading-4 text-ink2">This world point lies on this screen point.</p>
      <div className="row">
        <span className="label">Focus</span>
        {focus.map((v, i) => (
          <NumberField
            key={i}
            label={points.letters[i]}
            name={`Focus ${points.letters[i]}`}
            source={i === 0 ? 'focus' : undefined}
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
        <span className="text-ink2">
          {screenUnit(e)}, {countsOf(e)}
        </span>
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
            const [x, y] = middleOf(frame);
            centreAnchor();
            setFocus([x, y]);
          }}
        >
          Focus on the middle
        </button>
      </div>
    </>
  );
}

/** Zoom, turn and which way y grows. */
export function ZoomAndTurn() {
  const { project, codec: e, frame, points } = useMoment();
  const { zoom, rotation } = flatCamera(project);
  const centre = middleOf(frame);
  const { width, height } = frame.viewport;
  const unit = e.conventions.angles.unit;
  const { world } = e.conventions;
  const above = (v: number) => (v > 0 ? null : 'What is seen is larger than 0.');
  return (
    <>
      <Line label="Zoom">
        <Number6
          name="Zoom"
          width={148}
          source="zoom lens"
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
      <Line label="Half of it">
        {([width, height] as const).map((size, i) => (
          <NumberField
            key={i}
            label={i ? 'h' : 'w'}
            name={i ? 'Half height seen' : 'Half width seen'}
            width="50%"
            value={tidy(size / 2 / zoom)}
            shown={(v) => editable(Number(v.toPrecision(6)))}
            units={lengths}
            refuse={above}
            onChange={(v, gesture) =>
              editCamera2d('change the zoom', (c) => void (c.zoom = tidy(size / 2 / v)), gesture)
            }
          />
        ))}
      </Line>
      <Line label="Centre">
        {points.show([...centre, 0]).map((v, i) => (
          <NumberField
            key={i}
            label={points.letters[i]!}
            name={`Centre ${points.letters[i]}`}
            width="50%"
            value={tidy(v)}
            shown={(n) => figure(n, 2)}
            units={lengths}
            onChange={(n, gesture) => {
              const next = points.read(points.show([...centre, 0]).map((old, k) => (k === i ? n : old)));
              const [x, y] = [next[0] - centre[0], next[1] - centre[1]];
              editCamera2d(
                'move the centre',
                (c) => void (c.focus = [tidy(c.focus[0] + x), tidy(c.focus[1] + y)]),
                gesture,
              );
            }}
          />
        ))}
      </Line>
      <Line label="Rotation">
        <Number6
          name="Rotation"
          source="turned"
          value={tidy(e.toAngle(radians(rotation)))}
          step={unit === 'degrees' ? 1 : 0.01}
          unit={angleUnit(e)}
          units={anglesIn(unit)}
          onChange={(v, gesture) =>
            editCamera2d('rotate the world', (c) => void (c.rotation = tidyDegrees(e.fromAngle(v))), gesture)
          }
        />
        {rotation !== 0 && (
          <button className="plain-button ml-auto" onClick={() => turnWorld(0)}>
            Upright
          </button>
        )}
      </Line>
      <p className="text-small leading-4 text-ink2" data-testid="turn-sense">
        + turns the picture <Sense counter /> counter-clockwise, and so the camera <Sense counter={false} /> clockwise
      </p>
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
        <span className="text-small text-ink2" title="The numbers change, the picture does not move">
          re-expressed
        </span>
      </div>
    </>
  );
}

const snaps = [
  { value: 'none', label: 'none' },
  { value: 'floor', label: 'down' },
  { value: 'round', label: 'to the nearest' },
] as const;

/** Snapping of the translation to whole pixels, and whether the map's tiles end on pixels. */
export function WholePixels() {
  const { project, codec: e, seen } = useMoment();
  const camera = flatCamera(project);
  const { viewport } = project;
  const side = tileSide(project);
  const t = seen.problems.length ? null : translationOf({ camera: { ...camera, snap: 'none' }, viewport }, e);
  const snapped = t && translationOf(project, e);
  const upright = camera.rotation % 90 === 0;
  return (
    <>
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
      <p className="text-note leading-4 text-ink2" data-testid="seams">
        {seamSentence(side, camera.zoom, upright, (snapped ?? [0.5, 0.5]).every(whole))}
      </p>
      <Texels />
    </>
  );
}

/** A tile, how many texels it has, and how large they come out. */
function Texels() {
  const { project } = useMoment();
  const { zoom, anchor } = flatCamera(project);
  const side = tileSide(project);
  const { texels } = project.tile;
  const texel = (side * zoom) / texels;
  const above = (v: number) => (v > 0 ? null : 'A tile has a side above 0.');
  return (
    <>
      <Line label="Tile side">
        <Number6
          name="Tile side"
          source="tile side"
          value={side}
          unit={project.unit}
          units={lengths}
          refuse={above}
          onChange={(v, gesture) =>
            edit(
              'change the tiles',
              (draft) => {
                if (draft.tiles) draft.tiles.size = v;
                else draft.tile.size = v;
              },
              gesture,
            )
          }
        />
      </Line>
      <Line label="Texels across">
        <Number6
          name="Texels across"
          value={texels}
          unit="a tile"
          refuse={(v) =>
            Number.isInteger(v) && v >= 1 && v <= 8192 ? null : 'A tile is a whole number of texels across, 1 to 8192.'
          }
          onChange={(v, gesture) => edit('change the texels', (draft) => void (draft.tile.texels = v), gesture)}
        />
      </Line>
      <Line label="A texel">
        <Number6
          name="Pixels a texel"
          value={tidy(texel)}
          unit="px"
          refuse={(v) => (v > 0 ? null : 'A texel has a size above 0.')}
          onChange={(v, gesture) => zoomAbout(anchor, tidy((v * texels) / side), gesture)}
        />
      </Line>
      <p className="text-note leading-4 text-ink2" data-testid="texels">
        {whole(texel)
          ? `Every texel is ${short(texel)} px across.`
          : texel < 1
            ? `A texel is smaller than a pixel: about ${short(texel)} of all texels are drawn, and the others vanish. Zoom ${short(texels / side)} makes each one pixel.`
            : `Texels come out ${Math.floor(texel)} and ${Math.ceil(texel)} px across in turn: ${short(Math.max(1, Math.round(texel)))} px each at zoom ${short((Math.max(1, Math.round(texel)) * texels) / side)}.`}
      </p>
    </>
  );
}

/** Whether the edges of tiles land on whole pixels, and what keeps them from it. */
function seamSentence(size: number, zoom: number, upright: boolean, onWhole: boolean): string {
  const what = `A tile of ${short(size)}`;
  const is = size * zoom;
  if (!upright) return `${what} is ${short(is)} px, and turned: edges run across pixels at any zoom.`;
  if (!whole(is)) {
    const better = [Math.floor(is), Math.ceil(is)].filter((v) => v > 0).map((v) => short(v / size));
    return `${what} is ${short(is)} px: its edges land between pixels. At zoom ${better.join(' or ')} they would not.`;
  }
  return onWhole
    ? `${what} is ${short(is)} px and t is whole: every edge lands between two pixels, without a seam.`
    : `${what} is ${short(is)} px, but t is not whole: every edge is off by the same part of a pixel. Snap it.`;
}

/** Whole-number zooms, with the view that each gives. */
export function WholeZooms() {
  const { project } = useMoment();
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
    <>
      {ratio !== 1 && (
        <div className="row">
          <span className="label">Pixels</span>
          <Choice
            name="Integer zooms counted in"
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
            className={`zoom-row${on ? ' is-on' : ''}`}
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
    </>
  );
}
