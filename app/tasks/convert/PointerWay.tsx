import { useState } from 'react';
import {
  explainPointer,
  matters,
  omissions,
  pictureToClient,
  pointerSteps,
  type Omission,
  type PointerSteps,
} from '../../../core/convert/pointer';
import { pictureToPixel } from '../../../core/convert/project';
import type { Vec2 } from '../../../core/math/vec3';
import { pointerPath } from '../../../formats/camera';
import type { Project } from '../../../formats/project';
import { Tempo, useMoment } from '../../state/tempo';
import { edit } from '../../state/document';
import { usePointer } from '../../state/pointer';
import { readPointer } from '../../state/pointerReadout';
import { countsOf } from '../../state/wording';
import { Choice } from '../../ui/Choice';
import { figure } from '../../ui/figures';
import { NumberField } from '../../sheet/NumberField';
import { pixels } from '../../ui/parseNumber';
import { WorkingButton } from '../../working/WorkingButton';

export const omissionNames: Readonly<Record<Omission, string>> = {
  canvasOffset: 'the canvas’s place on the page',
  cssScale: 'the scale it is shown at',
  devicePixelRatio: 'the device pixel ratio',
  framebufferScale: 'the framebuffer’s scale',
  viewportOrigin: 'the viewport’s corner',
  viewportSize: 'the viewport’s size',
  flip: 'turning y over',
};

const change = (name: string, recipe: (pointer: Project['pointer']) => void, gesture: string | null = null) =>
  edit(name, (draft) => recipe(draft.pointer as Project['pointer']), gesture);

/** The way of the pointer from the page to NDC, with the steps that an engine may leave out. */
/** What of a working a field sets. */
const sources: Readonly<Record<string, string>> = {
  'Canvas x': 'canvas',
  'Canvas scale': 'canvasScale',
  'Framebuffer scale': 'framebuffer',
};

export function PointerWay() {
  return (
    <>
      {/* In step with the pointer, as the picture is. */}
      <Tempo value="now">
        <Way />
      </Tempo>
    </>
  );
}

const positive = (v: number) => (v > 0 ? null : 'It must be above 0.');
const notNegative = (v: number) => (v >= 0 ? null : 'It cannot be below 0.');

function Way() {
  const moment = useMoment();
  const { project, codec: e, frame } = moment;
  const css = usePointer((state) => state.css);
  const { pointer, viewport } = project;
  const path = pointerPath(project, e.conventions);
  const left = new Set(pointer.leftOut);
  const client = pictureToClient(path, readPointer(moment, css).picture);
  const right = pointerSteps(path, client);
  const engine = pointerSteps(path, client, left);
  const ndc = (picture: Vec2): Vec2 => {
    const [x, y] = e.toNdc({ across: picture[0], upward: picture[1], depth01: { near: 1, far: 0 } });
    return [x, y];
  };
  const show = (p: Vec2, decimals: number) => p.map((v) => figure(v, decimals)).join(', ');
  const [a, b] = [pictureToPixel(frame, ...right.picture), pictureToPixel(frame, ...engine.picture)];
  const off = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const row = (name: string, get: (s: PointerSteps) => Vec2, decimals: number, steps: readonly Omission[]) => (
    <>
      <div className="way-row" key={name}>
        <span>{name}</span>
        <span className="font-mono" data-testid={`way-${name}`}>
          {show(get(right), decimals)}
        </span>
        <span className={`font-mono${show(get(right), decimals) === show(get(engine), decimals) ? '' : ' text-plum'}`}>
          {show(get(engine), decimals)}
        </span>
      </div>
      {steps.map((one) => (
        <label key={one} className={`way-step${matters(path, one) ? '' : ' idle'}`}>
          <input
            type="checkbox"
            checked={left.has(one)}
            onChange={({ target }) =>
              change(`${target.checked ? 'leave out' : 'put back'} ${omissionNames[one]}`, (p) => {
                p.leftOut = omissions.filter((o) => (o === one ? target.checked : p.leftOut.includes(o)));
              })
            }
          />
          leave out {omissionNames[one]}
        </label>
      ))}
    </>
  );
  const field = (
    name: string,
    label: string,
    value: number,
    set: (p: Project['pointer'], v: number) => void,
    refuse?: (v: number) => string | null,
  ) => (
    <NumberField
      name={name}
      source={sources[name]}
      label={label}
      width="50%"
      value={value}
      units={pixels}
      refuse={refuse}
      onChange={(v, gesture) => change('change the pointer’s way', (p) => set(p, v), gesture)}
    />
  );
  return (
    <>
      <div className="row">
        <span className="label">Canvas</span>
        {field('Canvas x', 'x', pointer.canvas[0], (p, v) => void (p.canvas = [v, p.canvas[1]]))}
        {field('Canvas y', 'y', pointer.canvas[1], (p, v) => void (p.canvas = [p.canvas[0], v]))}
      </div>
      <div className="row">
        <span className="label">Scales</span>
        {field('Canvas scale', 'shown', pointer.cssScale, (p, v) => void (p.cssScale = v), positive)}
        {field(
          'Framebuffer scale',
          'render',
          pointer.framebufferScale,
          (p, v) => void (p.framebufferScale = v),
          positive,
        )}
      </div>
      <div className="row">
        <span className="label">Device</span>
        <NumberField
          name="Device pixels per css px"
          source="devicePixels"
          width="50%"
          value={viewport.devicePixelRatio}
          step={0.25}
          refuse={(v) => (v >= 0.25 && v <= 8 ? null : 'A device pixel ratio lies between 0.25 and 8.')}
          onChange={(v, gesture) =>
            edit('change the viewport', (draft) => void (draft.viewport.devicePixelRatio = v), gesture)
          }
        />
        <span className="text-ink2">px per css px</span>
      </div>
      <div className="row">
        <span className="label">Bars</span>
        {(['left', 'above', 'below'] as const).map((side, i) => (
          <NumberField
            key={side}
            name={`Bar ${side}`}
            source={i === 0 ? 'bars' : undefined}
            label={side}
            width="34%"
            value={pointer.bars[i]!}
            refuse={notNegative}
            onChange={(v, gesture) => change('change the pointer’s way', (p) => void (p.bars[i] = v), gesture)}
          />
        ))}
      </div>
      <div className="row">
        <span className="label">Pointer</span>
        {([0, 1] as const).map((i) => (
          <NumberField
            key={i}
            name={`Page ${'xy'[i]}`}
            label={'xy'[i]!}
            width="34%"
            value={Number(client[i].toFixed(2))}
            units={pixels}
            onChange={(v) => {
              const at: Vec2 = i ? [client[0], v] : [v, client[1]];
              const { picture } = pointerSteps(path, at);
              usePointer.setState({ css: pictureToPixel(frame, ...picture), here: false });
            }}
          />
        ))}
        <span className="text-ink2">of the page</span>
      </div>
      <div className="way">
        <div className="way-row head">
          <WorkingButton of="pointer" subject={{ client }} />
          <span>right</span>
          <span>as left out</span>
        </div>
        <div className="way-counts">CSS pixels, y down from the top left</div>
        {row('Page', (s) => s.client, 1, ['canvasOffset', 'cssScale'])}
        {row('Canvas', (s) => s.css, 1, ['devicePixelRatio', 'framebufferScale'])}
        <div className="way-counts">
          pixels rendered, {countsOf(e)} from the {e.conventions.screen.origin.replace('-', ' ')}
        </div>
        {row('Framebuffer', (s) => s.framebuffer, 1, ['viewportOrigin'])}
        {row('Viewport', (s) => s.viewport, 1, ['viewportSize', 'flip'])}
        <div className="way-counts">y {e.conventions.ndc.up === '+y' ? 'up' : 'down'}</div>
        {row('NDC', (s) => ndc(s.picture), 3, [])}
      </div>
      <div className="result">
        <p className="text-note leading-4" data-testid="way-miss">
          {off < 1e-6
            ? 'Nothing that is left out changes where the pointer is.'
            : `So the engine’s pointer is ${figure(off, 1)} css px off, at ${show(b, 1)} of the canvas.`}
        </p>
      </div>
      <Explain client={client} ndc={ndc} />
    </>
  );
}

type Printed = 'css' | 'framebuffer' | 'viewport' | 'ndc';

/** Finds what is left out from the numbers that an engine prints. */
function Explain({ client, ndc }: { client: Vec2; ndc: (picture: Vec2) => Vec2 }) {
  const { project, codec } = useMoment();
  const [space, setSpace] = useState<Printed>('ndc');
  const [printed, setPrinted] = useState<Vec2>([0, 0]);
  const path = pointerPath(project, codec.conventions);
  const says = (s: PointerSteps): Vec2 => (space === 'ndc' ? ndc(s.picture) : s[space]);
  const found = explainPointer(path, client, printed, says, space === 'ndc' ? 0.0015 : 0.6).slice(0, 5);
  return (
    <>
      <div className="rule">
        Your engine prints <em>for the pointer where it is</em>
      </div>
      <Choice
        name="What it prints"
        value={space}
        options={[
          { value: 'css', label: 'canvas' },
          { value: 'framebuffer', label: 'framebuffer' },
          { value: 'viewport', label: 'viewport' },
          { value: 'ndc', label: 'NDC' },
        ]}
        onChange={setSpace}
      />
      <div className="row mt-1">
        {([0, 1] as const).map((i) => (
          <NumberField
            key={i}
            name={`Printed ${'xy'[i]}`}
            label={'xy'[i]!}
            width="50%"
            value={printed[i]}
            step={space === 'ndc' ? 0.01 : 1}
            onChange={(v) => setPrinted((now) => (i ? [now[0], v] : [v, now[1]]))}
          />
        ))}
      </div>
      {found.length ? (
        found.map(({ omissions: set, miss }) => (
          <button
            key={set.join()}
            className="explanation"
            title={`Off by ${figure(miss, 4)}`}
            onClick={() => change('take what explains it', (p) => void (p.leftOut = [...set]))}
          >
            {set.length
              ? `Without ${set.map((one) => omissionNames[one]).join(', and without ')}`
              : 'These are the right numbers'}
          </button>
        ))
      ) : (
        <p className="text-small leading-4 text-ink2">No step left out explains these numbers here.</p>
      )}
    </>
  );
}
