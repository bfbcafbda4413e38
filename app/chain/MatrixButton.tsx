import { Popover } from 'radix-ui';
import { memo, type ReactNode } from 'react';
import { invertAffine, transpose, type Mat4 } from '../../core/math/mat4';
import type { Expression } from '../../core/conventions/express';
import { useSituation } from '../state/derive';
import type { Situation } from '../state/situation';
import { copy } from '../ui/clipboard';
import { figure, plain } from '../ui/figures';
import { DivideIcon, MatrixIcon } from '../ui/icons';
import { WorkingButton } from '../working/WorkingButton';
import { PopOver } from '../ui/PopOver';

export type Step = 'model' | 'view' | 'projection' | 'divide' | 'viewport';

interface Opened {
  readonly title: ReactNode;
  readonly name: string;
  readonly matrix: Mat4;
}

/** The matrix of a step for column vectors, forward or undone, in the conventions in force. */
function matrixOf(
  step: 'model' | 'view' | 'projection',
  undone: boolean,
  { expression: e, frame, placed, project }: Situation,
): Opened | null {
  const power = undone ? <sup>−1</sup> : null;
  if (step === 'model') {
    const body = project.probe.body === null ? undefined : placed.get(project.probe.body);
    const forward = body ? e.toModel(body.toWorld) : null;
    const matrix = forward && (undone ? invertAffine(forward) : forward);
    return (
      matrix && {
        title: (
          <>
            Model <span className="sym">M</span>
            {power}
          </>
        ),
        name: undone ? 'inverse model' : 'model',
        matrix,
      }
    );
  }
  if (step === 'view')
    return {
      title: (
        <>
          View <span className="sym">V</span>
          {power}
        </>
      ),
      name: undone ? 'camera to world' : 'view',
      matrix: e.matrix(frame, undone ? 'cameraToWorld' : 'view'),
    };
  return {
    title: (
      <>
        Projection <span className="sym">P</span>
      </>
    ),
    name: 'projection',
    matrix: e.matrix(frame, 'projection'),
  };
}

/** The button between two rungs that opens what leads from one to the other. */
export const MatrixButton = memo(function MatrixButton({ step, undone }: { step: Step; undone: boolean }) {
  const divides = step === 'divide';
  const names = {
    model: 'model matrix',
    view: 'view matrix',
    projection: 'projection matrix',
    divide: 'division by w',
    viewport: 'viewport mapping',
  };
  return (
    <Popover.Root>
      <Popover.Trigger
        className="matrix-button"
        aria-label={`Open the ${names[step]}`}
        title={`Open the ${names[step]}`}
      >
        {divides ? <DivideIcon /> : <MatrixIcon />}
      </Popover.Trigger>
      <PopOver side="right" align="start" sideOffset={14} aria-label={names[step]}>
        <Content step={step} undone={undone} />
      </PopOver>
    </Popover.Root>
  );
});

/** Follows the document only while it is open. */
function Content({ step, undone }: { step: Step; undone: boolean }) {
  const situation = useSituation();
  if (step === 'divide') return <Division situation={situation} />;
  if (step === 'viewport') return <ViewportStep situation={situation} />;
  return (
    <>
      <MatrixView opened={matrixOf(step, undone, situation)} e={situation.expression} />
      {(step === 'view' || step === 'projection') && (
        <div className="mt-1">
          <WorkingButton of={step} label="Where its numbers come from" />
        </div>
      )}
    </>
  );
}

function MatrixView({ opened, e }: { opened: Opened | null; e: Expression }) {
  if (!opened)
    return <p>The probe is a free point: its own space is the world’s, and the model matrix is the identity.</p>;
  const { vectors, storage } = e.conventions.matrix;
  // As it stands in a formula: the transpose when vectors are rows.
  const written = vectors === 'row' ? transpose(opened.matrix) : opened.matrix;
  const list = e.toList(opened.matrix);
  const rows = [0, 4, 8, 12].map((i) => written.slice(i, i + 4));
  const flat = `[${list.map(plain).join(', ')}]`;
  return (
    <>
      <h3>{opened.title}</h3>
      <p>{vectors === 'row' ? 'p′ = p·M, rows multiply from the left' : 'p′ = M·p, columns multiply from the right'}</p>
      <div className="matrix" data-testid="matrix">
        {written.map((value, i) => (
          <span key={i} className={value === 0 ? 'zero' : undefined}>
            {figure(value, Math.abs(value) >= 1e4 ? 2 : 6)}
          </span>
        ))}
      </div>
      <div className="flex gap-1">
        <button className="plain-button" onClick={() => void copy(flat, `the ${opened.name} matrix, ${storage}`)}>
          Copy {storage}
        </button>
        <button
          className="plain-button"
          onClick={() =>
            void copy(
              rows.map((row) => row.map((v) => plain(v)).join('\t')).join('\n'),
              `the ${opened.name} matrix as rows`,
            )
          }
        >
          Copy rows
        </button>
        <button
          className="plain-button"
          onClick={() =>
            void copy(
              JSON.stringify({ name: opened.name, vectors, storage, values: list }),
              `the ${opened.name} matrix as JSON`,
            )
          }
        >
          Copy JSON
        </button>
      </div>
    </>
  );
}

function Division({ situation: { chain, expression: e } }: { situation: Situation }) {
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

function ViewportStep({ situation: { expression: e, frame } }: { situation: Situation }) {
  const { viewport: v } = frame;
  const { ndc, screen } = e.conventions;
  const topLeft = screen.origin === 'top-left';
  const half = screen.pixelCentre === 0 ? ' − 0.5' : '';
  return (
    <>
      <h3>Viewport</h3>
      <p>
        {v.width} × {v.height} css px from the {topLeft ? 'top left' : 'bottom left'}, pixel centres at{' '}
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
