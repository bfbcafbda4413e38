import './ConventionsSheet.css';
import { useState } from 'react';
import { presetOf, presets, type Conventions, type PresetName } from '../../../core/conventions/conventions';
import { NumberField } from '../../sheet/NumberField';
import { choosePreset, setConventions } from '../../edits/actions';
import { Choice } from '../../ui/Choice';
import { AxisCross } from './AxisCross';
import { OwnSets } from './OwnSets';
import { ReadySets } from './ReadySets';
import { SinceOpened } from './SinceOpened';
import { SpacesDrawn } from './SpacesDrawn';

const presetNames = Object.keys(presets) as PresetName[];

export default function ConventionsSheet({ conventions: c }: { conventions: Conventions }) {
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
      <ReadySets now={c} />
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
            <span>Storage</span>
            <Choice
              name="Storage order"
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
