import { Popover } from 'radix-ui';
import { handednessOf, letterOf, signedAxes, type AxisFrame, type SignedAxis } from '../../core/conventions/axes';
import { presetOf, presets, type Conventions, type PresetName } from '../../core/conventions/conventions';
import { useDocument } from '../state/document';
import { Choice } from '../ui/Choice';
import { figure } from '../ui/figures';
import { Arrow } from '../ui/icons';
import { NumberField } from '../ui/NumberField';
import { setConventions, choosePreset } from './actions';

const sign = (axis: string) => axis.replace('-', '\u2212');

/** The conventions in force in one line; every word is computed. Opens the sheet where they are set. */
export function ConventionsChip() {
  const conventions = useDocument((state) => state.project!.conventions);
  const { world, ndc, matrix } = conventions;
  const preset = presetOf(conventions);
  return (
    <Popover.Root>
      <Popover.Trigger className="chip" title="Conventions in force">
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
      <Popover.Portal>
        <Popover.Content
          className="pop"
          style={{ width: 452 }}
          sideOffset={6}
          collisionPadding={8}
          aria-label="Conventions"
        >
          <ConventionsSheet conventions={conventions} />
        </Popover.Content>
      </Popover.Portal>
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

function Axes({ name, frame, onChange }: { name: string; frame: AxisFrame; onChange: (frame: AxisFrame) => void }) {
  return (
    <>
      <h3 className="mt-2">
        {name} <span className="text-ink2 font-sans text-[12px]">{handednessOf(frame)}-handed</span>
      </h3>
      <div className="grid-form">
        {(['right', 'up', 'forward'] as const).map((direction) => (
          <AxisRow key={direction} space={name} direction={direction} frame={frame} onChange={onChange} />
        ))}
      </div>
    </>
  );
}

const AxisRow = ({
  space,
  direction,
  frame,
  onChange,
}: {
  space: string;
  direction: keyof AxisFrame;
  frame: AxisFrame;
  onChange: (frame: AxisFrame) => void;
}) => (
  <>
    <span className="w-[92px]">{direction === 'forward' ? 'ahead' : direction}</span>
    <Choice
      name={`${space} ${direction === 'forward' ? 'ahead' : direction}`}
      value={frame[direction]}
      options={signedAxes.map((axis) => ({ value: axis, label: sign(axis) }))}
      onChange={(axis) => onChange(withAxis(frame, direction, axis))}
    />
  </>
);

const presetNames = Object.keys(presets) as PresetName[];

function ConventionsSheet({ conventions: c }: { conventions: Conventions }) {
  const set = (part: Partial<Conventions>, gesture?: string) => setConventions((now) => ({ ...now, ...part }), gesture);
  const pair = <T extends string>(...values: T[]) => values.map((value) => ({ value, label: value }));
  return (
    <>
      <h3>Conventions</h3>
      <p>They re-express every number. The picture and the scene stay where they are.</p>
      <div className="mt-2">
        <Choice
          name="Preset"
          value={presetOf(c)}
          options={presetNames.map((name) => ({ value: name, label: name === 'glTF' ? 'glTF 2.0' : name }))}
          onChange={choosePreset}
        />
      </div>
      <Axes name="World" frame={c.world} onChange={(world) => set({ world })} />
      <Axes name="View" frame={c.view} onChange={(view) => set({ view })} />
      <h3 className="mt-2">NDC and screen</h3>
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
              width={96}
              value={c.ndc[end]}
              refuse={(v) =>
                v === c.ndc[end === 'near' ? 'far' : 'near'] ? 'The NDC depths of the two planes must differ.' : null
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
    </>
  );
}
