import { Popover } from 'radix-ui';
import { useState } from 'react';
import { handednessOf, letterOf, signedAxes, type AxisFrame, type SignedAxis } from '../../core/conventions/axes';
import { anglesOfBasis } from '../../core/camera/orientation';
import {
  presetOf,
  presets,
  sameConventions,
  type Conventions,
  type PresetName,
} from '../../core/conventions/conventions';
import { expressionOf, type Expression } from '../../core/conventions/express';
import type { Vec3 } from '../../core/math/vec3';
import { keepNumbers } from '../../formats/reinterpret';
import { expressCamera2d } from '../../formats/camera';
import type { Project, ProjectCamera2d } from '../../formats/project';
import { useSituation } from '../state/derive';
import { pointFormOf } from '../state/points';
import { useSettings } from '../state/settings';
import { useDocument } from '../state/document';
import { Choice } from '../ui/Choice';
import { figure } from '../ui/figures';
import { Arrow } from '../ui/icons';
import { NumberField } from '../ui/NumberField';
import { choosePreset, keepNumbersIn, setConventions } from './actions';
import { PopOver } from '../ui/PopOver';

const sign = (axis: string) => axis.replace('-', '\u2212');

/** The conventions in force in one line; every word is computed. Opens the sheet where they are set. */
export function ConventionsChip() {
  const conventions = useDocument((state) => state.project!.conventions);
  const { world, ndc, matrix } = conventions;
  const preset = presetOf(conventions);
  return (
    <Popover.Root>
      <Popover.Trigger className="chip" data-source="Conventions in force" title="Conventions in force">
        <b>{preset ?? 'Own'}</b>
        <span className="axes-words">
          {sign(world.right)} right, {sign(world.up)} up, {sign(world.forward)} ahead
        </span>
        <i />
        <b>NDC</b>
        <span>
          y {ndc.up === '+y' ? 'up' : 'down'}, z {figure(ndc.near, Number.isInteger(ndc.near) ? 0 : 2)}
        </span>
        <Arrow />
        <span>{figure(ndc.far, Number.isInteger(ndc.far) ? 0 : 2)}</span>
        <i />
        <span>{matrix.vectors} vectors</span>
      </Popover.Trigger>
      <PopOver style={{ width: 772 }} aria-label="Conventions">
        <ConventionsSheet conventions={conventions} />
      </PopOver>
    </Popover.Root>
  );
}

/** Gives a direction another axis; the direction that had its letter takes the one set free, so that the three stay distinct. */
function withAxis(frame: AxisFrame, direction: keyof AxisFrame, axis: SignedAxis): AxisFrame {
  const next = { ...frame, [direction]: axis };
  for (const other of ['right', 'up', 'forward'] as const)
    if (other !== direction && letterOf(frame[other]) === letterOf(axis)) next[other] = frame[direction];
  return next;
}

const directions = ['right', 'up', 'forward'] as const;
type Direction = (typeof directions)[number];
const wordOf = (direction: Direction) => (direction === 'forward' ? 'ahead' : direction);
/** Where each direction runs on the drawn cross, from its middle: ahead goes into the picture. */
const tips: Record<Direction, readonly [number, number]> = { right: [56, 0], up: [0, -48], forward: [34, -25] };
const opposite = (axis: SignedAxis) => `${axis[0] === '+' ? '-' : '+'}${axis[1]}` as SignedAxis;

/** A frame of axes on a drawn cross: a direction is taken hold of by its tip, and given the axis that points there. */
function AxisCross({
  space,
  frame,
  onChange,
}: {
  space: 'World' | 'View';
  frame: AxisFrame;
  onChange: (frame: AxisFrame) => void;
}) {
  const [held, setHeld] = useState<Direction>('up');
  return (
    <div className="axis-cross">
      <h3>
        {space} <span className="text-ink2 font-sans text-[12px]">{handednessOf(frame)}-handed</span>
      </h3>
      <svg width="204" height="132" viewBox="-102 -72 204 132" role="group" aria-label={`${space} axes`}>
        {directions.map((direction) => {
          const [x, y] = tips[direction];
          const on = direction === held;
          return (
            <g key={direction} className={on ? 'on' : ''}>
              <path className="cross-line" d={`M0 0L${x} ${y}`} />
              <path className="cross-back" d={`M0 0L${-x * 0.6} ${-y * 0.6}`} />
              <text className="nm m2" x={-x * 0.78} y={-y * 0.78 + 4} textAnchor="middle">
                {sign(opposite(frame[direction]))}
              </text>
              <g
                className="cross-tip"
                role="button"
                tabIndex={0}
                aria-pressed={on}
                aria-label={`${space} ${wordOf(direction)}: ${sign(frame[direction])}`}
                onClick={() => setHeld(direction)}
                onKeyDown={(event) => {
                  if (event.key !== 'Enter' && event.key !== ' ') return;
                  event.preventDefault();
                  setHeld(direction);
                }}
                onFocus={() => setHeld(direction)}
              >
                <rect x={x - 13} y={y - 9} width="26" height="18" />
                <text className="nm" x={x} y={y + 4} textAnchor="middle">
                  {sign(frame[direction])}
                </text>
              </g>
              <text
                className="lb m2"
                x={direction === 'right' ? x + 17 : direction === 'forward' ? x + 17 : x}
                y={direction === 'up' ? y - 13 : y + 4}
                textAnchor={direction === 'up' ? 'middle' : 'start'}
              >
                {wordOf(direction)}
              </text>
            </g>
          );
        })}
        <circle className="cross-middle" r="2" />
      </svg>
      <Choice
        name={`${space} ${wordOf(held)}`}
        value={frame[held]}
        options={signedAxes.map((axis) => ({
          value: axis,
          label: sign(axis),
          title: `${sign(axis)} points ${wordOf(held)}`,
        }))}
        onChange={(axis) => onChange(withAxis(frame, held, axis))}
      />
    </div>
  );
}

/** The NDC box from the eye's side, and the screen: which way y grows, which depth lies where, where the origin is. Drawn from the conventions. */
function SpacesDrawn({ ndc, screen }: Conventions) {
  const depth = (v: number) => figure(v, Number.isInteger(v) ? 0 : 2);
  const up = ndc.up === '+y';
  const top = screen.origin === 'top-left';
  const arrow = (x: number, from: number, to: number) =>
    `M${x} ${from}V${to}M${x - 3} ${to + (to < from ? 6 : -6)}L${x} ${to}L${x + 3} ${to + (to < from ? 6 : -6)}`;
  return (
    <svg
      className="spaces-drawn"
      width="426"
      height="112"
      viewBox="0 0 426 112"
      role="img"
      aria-label={`NDC y grows ${up ? 'up' : 'down'}, depth is ${depth(ndc.near)} at near and ${depth(ndc.far)} at far; the screen’s origin is ${screen.origin}`}
    >
      <path className="box-far" d="M74 14h72v54h-72Z" />
      <path className="box-edge" d="M40 36 74 14M112 36 146 14M112 90 146 68M40 90 74 68" />
      <path className="box-near" d="M40 36h72v54H40Z" />
      <path className="dl" d={arrow(76, 63, up ? 42 : 84)} />
      <text className="nm" x="82" y={up ? 50 : 84}>
        +y
      </text>
      <path className="dl" d="M76 63H100M94 60L100 63L94 66" />
      <text className="nm" x="103" y="72">
        +x
      </text>
      <text className="nm" x="36" y="104">
        near {depth(ndc.near)}
      </text>
      <text className="nm" x="152" y="30">
        far {depth(ndc.far)}
      </text>
      <text className="se" x="0" y="14">
        NDC
      </text>
      <path className="box-near" d="M270 22h112v66H270Z" />
      <circle className="cross-middle" cx="270" cy={top ? 22 : 88} r="3.2" />
      <path className="dl" d={arrow(270, top ? 22 : 88, top ? 56 : 54)} />
      <path
        className="dl"
        d={`M270 ${top ? 22 : 88}H312M306 ${top ? 19 : 85}L312 ${top ? 22 : 88}L306 ${top ? 25 : 91}`}
      />
      <text className="nm" x="276" y={top ? 56 : 62}>
        +y
      </text>
      <text className="nm" x="316" y={top ? 35 : 83}>
        +x
      </text>
      <path className="box-edge" d="M330 46h16v16h-16Z" />
      <circle className="cross-middle" cx="338" cy="54" r="1.6" />
      <text className="nm" x="338" y="78" textAnchor="middle">
        {screen.pixelCentre === 0.5 ? 'centre .5' : 'centre 0'}
      </text>
      <text className="se" x="222" y="14">
        Screen
      </text>
    </svg>
  );
}

/** The user's own sets: chosen, saved under a name, and dropped. */
function OwnSets({ now }: { now: Conventions }) {
  const own = useSettings((state) => state.ownConventions);
  const [name, setName] = useState('');
  const save = () => {
    const named = name.trim();
    if (!named) return;
    useSettings.setState({
      ownConventions: [...own.filter((one) => one.name !== named), { name: named, conventions: structuredClone(now) }],
    });
    setName('');
  };
  return (
    <>
      {own.map((one) => (
        <span className="own-set" key={one.name}>
          <button
            className="plain-button"
            aria-pressed={sameConventions(one.conventions, now)}
            onClick={() => setConventions(() => one.conventions)}
          >
            {one.name}
          </button>
          <button
            className="drop"
            aria-label={`Forget the conventions ${one.name}`}
            onClick={() => useSettings.setState({ ownConventions: own.filter((other) => other !== one) })}
          >
            ×
          </button>
        </span>
      ))}
      <span className="own-set">
        <input
          className="own-name"
          aria-label="A name for these conventions"
          placeholder="Save as…"
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
          onKeyDown={(event) => event.key === 'Enter' && save()}
        />
        {name.trim() && (
          <button className="plain-button" onClick={save}>
            Save
          </button>
        )}
      </span>
    </>
  );
}

/** Where a camera stands, or what it is focused on. */
const placeOf = ({ camera }: Pick<Project, 'camera'>): Vec3 =>
  camera.kind === '2d' ? [...camera.focus, 0] : camera.position;

/** What has become of a few numbers since the sheet was opened, and the other command: to keep the numbers and change what they mean. */
function SinceOpened({ before, now, onKept }: { before: Conventions; now: Conventions; onKept: () => void }) {
  const { project, chain, frame, flat } = useSituation();
  if (sameConventions(before, now)) return null;
  const [a, b] = [expressionOf(before), expressionOf(now)];
  const world = chain.ok ? chain.value.world : null;
  const list = (v: readonly number[] | null) => (v ? v.map((n) => figure(n, 2)).join(', ') : 'none');
  const kept = keepNumbers({ ...project, conventions: before as typeof project.conventions }, now);
  const stand = placeOf(project);
  const moved = placeOf(kept).some((v, i) => Math.abs(v - stand[i]!) > 1e-9);
  const angles = anglesOfBasis(frame);
  const rows: [string, (e: Expression) => string][] = [
    [flat ? 'Focus' : 'Eye', (e) => list(pointFormOf(e, flat).show(stand))],
    ['Probe', (e) => list(world && pointFormOf(e, flat).show(world))],
    project.camera.kind === '2d'
      ? ['Anchor', (e) => list(expressCamera2d(project.camera as ProjectCamera2d, frame.viewport, e).anchor)]
      : ['Yaw, pitch', (e) => list([e.toAngles(angles).yaw, e.toAngles(angles).pitch])],
  ];
  return (
    <div className="since">
      <div className="rule">
        Since this was opened <em>the picture has not moved</em>
      </div>
      <table>
        <thead>
          <tr>
            <td />
            <th>was</th>
            <th>is now</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, say]) => (
            <tr key={name}>
              <th>{name}</th>
              <td>{say(a)}</td>
              <td>{say(b)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="mt-1 flex items-center gap-2">
        <button
          className="plain-button"
          onClick={() => {
            keepNumbersIn(before, now);
            onKept();
          }}
        >
          Keep the numbers instead
        </button>
        <span className="text-[11.5px] text-ink2">
          {moved ? 'every number stays as it was written, and the scene moves' : 'every number stays as it was written'}
        </span>
      </div>
    </div>
  );
}

const presetNames = Object.keys(presets) as PresetName[];

function ConventionsSheet({ conventions: c }: { conventions: Conventions }) {
  const [before, setBefore] = useState(c);
  const set = (part: Partial<Conventions>, gesture?: string) => setConventions((now) => ({ ...now, ...part }), gesture);
  const pair = <T extends string>(...values: T[]) => values.map((value) => ({ value, label: value }));
  return (
    <>
      <h3>Conventions</h3>
      <p>A change re-expresses every number. The picture and the scene stay where they are.</p>
      <div className="mt-2 flex flex-wrap items-center gap-1">
        <Choice
          name="Preset"
          value={presetOf(c)}
          options={presetNames.map((name) => ({ value: name, label: name === 'glTF' ? 'glTF 2.0' : name }))}
          onChange={choosePreset}
        />
        <OwnSets now={c} />
      </div>
      <div className="conventions-page">
        <div>
          <div className="mt-2 flex gap-4">
            <AxisCross space="World" frame={c.world} onChange={(world) => set({ world })} />
            <AxisCross space="View" frame={c.view} onChange={(view) => set({ view })} />
          </div>
          <SpacesDrawn {...c} />
        </div>
        <div>
          <h3>NDC and screen</h3>
          <div className="grid-form">
            <span className="w-[92px]">NDC y</span>
            <Choice
              name="NDC y"
              value={c.ndc.up}
              options={[
                { value: '+y', label: 'up' },
                { value: '-y', label: 'down' },
              ]}
              onChange={(up) => set({ ndc: { ...c.ndc, up } })}
            />
            <span>NDC depth</span>
            <span className="flex gap-1">
              {(['near', 'far'] as const).map((end) => (
                <NumberField
                  key={end}
                  label={end}
                  name={`NDC depth of ${end}`}
                  width={84}
                  value={c.ndc[end]}
                  refuse={(v) =>
                    v === c.ndc[end === 'near' ? 'far' : 'near']
                      ? 'The NDC depths of the two planes must differ.'
                      : null
                  }
                  onChange={(v, gesture) => set({ ndc: { ...c.ndc, [end]: v } }, gesture)}
                />
              ))}
            </span>
            <span>Screen origin</span>
            <Choice
              name="Screen origin"
              value={c.screen.origin}
              options={pair('top-left', 'bottom-left')}
              onChange={(origin) => set({ screen: { ...c.screen, origin } })}
            />
            <span>Pixel centres</span>
            <Choice
              name="Pixel centres"
              value={String(c.screen.pixelCentre)}
              options={[
                { value: '0.5', label: 'at .5' },
                { value: '0', label: 'at whole numbers' },
              ]}
              onChange={(centre) => set({ screen: { ...c.screen, pixelCentre: centre === '0' ? 0 : 0.5 } })}
            />
          </div>
          <h3 className="mt-2">Matrices and angles</h3>
          <div className="grid-form">
            <span className="w-[92px]">Vectors</span>
            <Choice
              name="Vectors"
              value={c.matrix.vectors}
              options={pair('column', 'row')}
              onChange={(vectors) => set({ matrix: { ...c.matrix, vectors } })}
            />
            <span>Listed</span>
            <Choice
              name="Listed"
              value={c.matrix.storage}
              options={pair('column-major', 'row-major')}
              onChange={(storage) => set({ matrix: { ...c.matrix, storage } })}
            />
            <span>Angles in</span>
            <Choice
              name="Angles in"
              value={c.angles.unit}
              options={pair('degrees', 'radians')}
              onChange={(unit) => set({ angles: { ...c.angles, unit } })}
            />
            <span>Positive</span>
            <span className="flex flex-wrap gap-2">
              <Choice
                name="Positive yaw"
                value={c.angles.yaw}
                options={[
                  { value: 'right', label: 'yaw right' },
                  { value: 'left', label: 'left' },
                ]}
                onChange={(yaw) => set({ angles: { ...c.angles, yaw } })}
              />
              <Choice
                name="Positive pitch"
                value={c.angles.pitch}
                options={[
                  { value: 'up', label: 'pitch up' },
                  { value: 'down', label: 'down' },
                ]}
                onChange={(pitch) => set({ angles: { ...c.angles, pitch } })}
              />
              <Choice
                name="Positive roll"
                value={c.angles.roll}
                options={[
                  { value: 'right', label: 'roll right' },
                  { value: 'left', label: 'left' },
                ]}
                onChange={(roll) => set({ angles: { ...c.angles, roll } })}
              />
            </span>
          </div>
        </div>
      </div>
      <SinceOpened before={before} now={c} onKept={() => setBefore(c)} />
    </>
  );
}
