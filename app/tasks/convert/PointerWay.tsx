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
import { Tempo, useSituation } from '../../state/derive';
import { edit } from '../../state/document';
import { usePointer } from '../../state/pointer';
import { readPointer } from '../../state/reading';
import { Choice } from '../../ui/Choice';
import { figure } from '../../ui/figures';
import { Fold } from '../../ui/Fold';
import { NumberField } from '../../ui/NumberField';
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
export function PointerWay() {
  return (
    <Fold id="pointer" title="The pointer’s way" aside="page to NDC">
      {/* In step with the pointer, as the picture is. */}
      <Tempo value="now">
        <Way />
      </Tempo>
    </Fold>
  );
}

const positive = (v: number) => (v > 0 ? null : 'It must be above 0.');
const notNegative = (v: number) => (v >= 0 ? null : 'It cannot be below 0.');

function Way() {
  const situation = useSituation();
  const { project, expression: e, frame } = situation;
  const css = usePointer((state) => state.css);
  const { pointer, viewport } = project;
  const path = pointerPath(project);
  const left = new Set(pointer.leftOut);
  const client = pictureToClient(path, readPointer(situation, css).picture);
  const right = pointerSteps(path, client);
  const engine = pointerSteps(path, client, left);
  const ndc = (picture: Vec2): Vec2 => {
    const [x, y] = e.toNdc({ across: picture[0], upward: picture[1], shares: { near: 1, far: 0 } });
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
        <span className={`font-mono${show(get(right), decimals) === show(get(engine), decimals) ? '' : ' pl'}`}>
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
            label={side}
            width="34%"
            value={pointer.bars[i]!}
            refuse={notNegative}
            onChange={(v, gesture) => change('change the pointer’s way', (p) => void (p.bars[i] = v), gesture)}
          />
        ))}
      </div>
      <div className="way">
        <div className="way-row head">
          <WorkingButton of="pointer" subject={{ client }} />
          <span>right</span>
          <span>as left out</span>
        </div>
        {row('Page', (s) => s.client, 1, ['canvasOffset', 'cssScale'])}
        {row('Canvas', (s) => s.css, 1, ['devicePixelRatio', 'framebufferScale'])}
        {row('Framebuffer', (s) => s.framebuffer, 1, ['viewportOrigin'])}
        {row('Viewport', (s) => s.viewport, 1, ['viewportSize', 'flip'])}
        {row('NDC', (s) => ndc(s.picture), 3, [])}
      </div>
      <div className="result">
        <p className="text-[12px] leading-4" data-testid="way-miss">
          {off < 1e-6
            ? 'Nothing that is left out changes where the pointer is.'
            : `So the engine’s pointer is ${figure(off, 1)} css px off, at ${show(e.toScreen(frame.viewport, ...engine.picture), 1)}.`}
        </p>
      </div>
      <Explain client={client} ndc={ndc} />
    </>
  );
}

type Printed = 'css' | 'framebuffer' | 'viewport' | 'ndc';

/** Finds what is left out from the numbers that an engine prints. */
function Explain({ client, ndc }: { client: Vec2; ndc: (picture: Vec2) => Vec2 }) {
  const { project } = useSituation();
  const [space, setSpace] = useState<Printed>('ndc');
  const [printed, setPrinted] = useState<Vec2>([0, 0]);
  const path = pointerPath(project);
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
        <p className="text-[11.5px] leading-4 text-ink2">No step left out explains these numbers here.</p>
      )}
    </>
  );
}
