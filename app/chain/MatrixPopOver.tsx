import { Popover } from 'radix-ui';
import { useState } from 'react';
import { invertAffine, transpose, type Mat4 } from '../../core/math/mat4';
import type { ConventionCodec } from '../../core/conventions/codec';
import { useMoment } from '../state/tempo';
import type { Moment } from '../state/moment';
import { Choice } from '../ui/Choice';
import type { TriggerLook } from '../ui/deferred';
import { figure } from '../ui/figures';
import { FormulasButton } from '../working/FormulasButton';
import { WorkingButton } from '../working/WorkingButton';
import { PopOver } from '../ui/PopOver';
import { matrixNames, matrixTexts } from '../edits/matrixTexts';
import { CameraMatrix } from './CameraMatrix';
import { CopyMatrix } from './CopyMatrix';
import { stepTitles, type Step } from './steps';

interface Opened {
  readonly name: string;
  readonly matrix: Mat4;
}

/** The matrices that a step opens, the first its own; the others go with it. */
const matrices = {
  model: { model: 'M', inverseModel: 'M⁻¹' },
  view: { view: 'V', cameraToWorld: 'V⁻¹' },
  projection: {
    projection: 'P',
    inverseProjection: 'P⁻¹',
    viewProjection: 'P·V',
    inverseViewProjection: '(P·V)⁻¹',
  },
} as const;
type Opens = keyof typeof matrices;
type Chosen = { [S in Opens]: keyof (typeof matrices)[S] }[Opens];

const names: Readonly<Record<Chosen, string>> = {
  model: 'model',
  inverseModel: 'inverse model',
  ...matrixNames,
};

/** A matrix for column vectors, in the conventions in force; null where there is none. */
function matrixOf(which: Chosen, { codec: e, frame, placed, project }: Moment): Opened | null {
  const name = names[which];
  if (which !== 'model' && which !== 'inverseModel') return { name, matrix: e.matrix(frame, which) };
  const body = project.probe.body === null ? undefined : placed.get(project.probe.body);
  const forward = body ? e.toModel(body.toWorld) : null;
  const matrix = forward && (which === 'model' ? forward : invertAffine(forward));
  return matrix && { name, matrix };
}

/** Shows the matrices, or the division or viewport mapping, of a step of the Chain. */
export default function MatrixPopOver({
  step,
  undone,
  trigger,
}: {
  step: Step;
  undone: boolean;
  trigger: TriggerLook;
}) {
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger {...trigger} />
      <PopOver side="right" align="start" sideOffset={14} aria-label={stepTitles[step]}>
        <Content step={step} undone={undone} />
      </PopOver>
    </Popover.Root>
  );
}

/** Follows the document only while it is open. */
function Content({ step, undone }: { step: Step; undone: boolean }) {
  const moment = useMoment();
  if (step === 'divide') return <Division moment={moment} />;
  if (step === 'viewport') return <ViewportStep moment={moment} />;
  if (step === 'camera') return <CameraMatrix undone={undone} moment={moment} />;
  return <Matrices step={step} undone={undone} moment={moment} />;
}

function Matrices({ step, undone, moment }: { step: Opens; undone: boolean; moment: Moment }) {
  const own = matrices[step];
  const all = Object.keys(own) as Chosen[];
  const [which, setWhich] = useState(all[undone ? 1 : 0]!);
  // With rows the products stand the other way round.
  const rows = moment.codec.conventions.matrix.vectors === 'row';
  const label = (one: Chosen) => (own as Readonly<Record<string, string>>)[one]!.replace('P·V', rows ? 'V·P' : 'P·V');
  return (
    <>
      <Choice
        name="Which matrix"
        value={which}
        options={all.map((one) => ({ value: one, label: label(one), title: names[one] }))}
        onChange={setWhich}
      />
      <MatrixView opened={matrixOf(which, moment)} e={moment.codec} />
      {(step === 'view' || step === 'projection') && (
        <div className="mt-1">
          <WorkingButton of={step} label="Where its numbers come from" />
          {step === 'view' && <FormulasButton of="view" label="From position, target and up" />}
        </div>
      )}
    </>
  );
}

function MatrixView({ opened, e }: { opened: Opened | null; e: ConventionCodec }) {
  if (!opened)
    return <p>The probe is a free point: its own space is the world’s, and the model matrix is the identity.</p>;
  const { vectors, storage } = e.conventions.matrix;
  // As it stands in a formula: the transpose when vectors are rows.
  const written = vectors === 'row' ? transpose(opened.matrix) : opened.matrix;
  const list = e.toList(opened.matrix);
  const rows = [0, 4, 8, 12].map((i) => written.slice(i, i + 4));
  return (
    <>
      <h3 className="mt-1">{opened.name[0]!.toUpperCase() + opened.name.slice(1)} matrix</h3>
      <p>{vectors === 'row' ? 'p′ = p·M, rows multiply from the left' : 'p′ = M·p, columns multiply from the right'}</p>
      <div className="matrix" data-testid="matrix">
        {written.map((value, i) => (
          <span key={i} className={value === 0 ? 'zero' : undefined}>
            {figure(value, Math.abs(value) >= 1e4 ? 2 : 6)}
          </span>
        ))}
      </div>
      <CopyMatrix texts={matrixTexts(`the ${opened.name} matrix`, rows, list, { vectors, storage })} />
    </>
  );
}

function Division({ moment: { chain, codec: e } }: { moment: Moment }) {
  if (!chain.ok) return <p>There is no point to divide.</p>;
  const clip = e.toClip(chain.value.clip);
  const ndc = chain.value.picture.ok ? e.toNdc(chain.value.picture.value) : null;
  return (
    <>
      <h3>Divide by w</h3>
      <p>
        w is {figure(clip[3], 6)}
        {ndc ? ', the same for all three.' : ': there is nothing to divide by ahead of the eye.'}
      </p>
      <div className="work mt-1">
        {(['x', 'y', 'z'] as const).map((axis, i) => (
          <div key={axis}>
            {axis} = {figure(clip[i]!, 6)} ÷ {figure(clip[3], 6)}{' '}
            {ndc && (
              <>
                = <b>{figure(ndc[i]!, 8)}</b>
              </>
            )}
          </div>
        ))}
      </div>
    </>
  );
}

function ViewportStep({ moment: { codec: e, frame } }: { moment: Moment }) {
  const { viewport: v } = frame;
  const { ndc, screen } = e.conventions;
  const topLeft = screen.origin === 'top-left';
  const half = screen.pixelCentre === 0 ? ' − 0.5' : '';
  return (
    <>
      <h3>Viewport</h3>
      <p>
        {v.width} × {v.height} px from the {topLeft ? 'top left' : 'bottom left'}, pixel centres at{' '}
        {screen.pixelCentre === 0 ? 'whole numbers' : '.5'}
      </p>
      <div className="work mt-1">
        <div>
          x = (NDC x + 1) ÷ 2 × {v.width}
          {half}
        </div>
        <div>
          y = ({e.screenFollowsNdc ? 'NDC y + 1' : '1 − NDC y'}) ÷ 2 × {v.height}
          {half}
        </div>
        <div>
          depth = (NDC z − {figure(Math.min(ndc.near, ndc.far), 2)}) ÷ {figure(Math.abs(ndc.far - ndc.near), 2)}
        </div>
      </div>
    </>
  );
}
