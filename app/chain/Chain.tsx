import './Chain.css';
import { memo, useState } from 'react';
import { redrive, rungs, type Rung } from '../../core/convert/chain';
import { edit } from '../state/document';
import { currentMoment, useMoment } from '../state/tempo';
import type { Moment } from '../state/moment';
import { complain, copy } from '../ui/notices';
import { figure, plain } from '../ui/figures';
import { Term } from '../ui/Term';
import { Glyph } from '../ui/Glyph';
import { Pin } from '../ui/icons';
import { NumberInput } from '../sheet/NumberField';
import { countsOf, probeVerdict, reasonSentence, rungNames, screenUnit } from '../state/wording';
import { MatrixButton } from './MatrixButton';
import type { Step } from './steps';
import { ProbePicker } from './ProbePicker';
import { axisNames, givenNumbers, heldNumbers, outOfRange, rungNumbers } from './rungs';

interface NamedStep {
  readonly step: Step;
  readonly name: string;
  readonly symbol?: string;
}
const steps: readonly NamedStep[] = [
  { step: 'model', name: 'model', symbol: 'M' },
  { step: 'view', name: 'view', symbol: 'V' },
  { step: 'projection', name: 'projection', symbol: 'P' },
  { step: 'divide', name: 'divide by w' },
  { step: 'viewport', name: 'viewport' },
];

/**
 * The spaces of a 2D camera: a world point goes to its pixel by one matrix, and NDC follow from the pixel. Those of
 * the orthographic camera that it equals are shown where the probe is driven from one of them.
 */
const rungs2d: readonly Rung[] = ['local', 'world', 'screen', 'ndc'];
const steps2d: readonly NamedStep[] = [
  { step: 'model', name: 'model', symbol: 'M' },
  { step: 'camera', name: 'camera', symbol: 'A' },
  { step: 'viewport', name: 'viewport' },
];

/** The probe in every space, a rung a space, a link a step; arrows leave the rung that drives. */
export function Chain() {
  const moment = useMoment();
  const { drive } = moment.project.probe;
  const is2d = moment.flat && rungs2d.includes(drive.rung);
  const [shown, links] = is2d ? [rungs2d, steps2d] : [rungs, steps];
  const driven = shown.indexOf(drive.rung);
  const verdict = probeVerdict(moment);
  return (
    <aside className="chain" aria-label="The Chain">
      <div className="alone">
        <div className="column-head">
          <h2>
            <Term of="chain">The Chain</Term>
          </h2>
          <span>
            <Term of="rung">{shown.length} spaces</Term>
          </span>
        </div>
        <ProbePicker />
        {shown.map((rung, i) => (
          <div key={rung}>
            <RungCard rung={rung} moment={moment} />
            {i < links.length && <Link {...links[i]!} undone={i < driven} />}
          </div>
        ))}
        <div className="ladder-gap" />
        <div className={`verdict ${verdict.kind}`} data-testid="verdict">
          <Glyph kind={verdict.kind} size={13} />
          <div>
            <b>{verdict.text}</b>
            <span>{verdict.measure}</span>
          </div>
        </div>
      </div>
    </aside>
  );
}

function Link({ step, name, symbol, undone }: { step: Step; name: string; symbol?: string; undone: boolean }) {
  return (
    <div className="link">
      <svg className="rail" width="12" height="29" viewBox="0 0 12 29" aria-hidden="true">
        <path className="rail-line" d={`M6 ${undone ? '28V6' : '1V23'}`} />
        <path className="rail-head" d={undone ? 'M6 1 3 9h6Z' : 'M6 28 3 20h6Z'} />
      </svg>
      <span className="step">
        {undone ? 'undo ' : ''}
        {name}{' '}
        {symbol && (
          <>
            <i>{symbol}</i>
            {undone && <sup>−1</sup>}
          </>
        )}
      </span>
      <MatrixButton step={step} undone={undone} />
    </div>
  );
}

function unitOf(rung: Rung, { project, codec: e }: Moment): string {
  const { ndc } = e.conventions;
  const number = (v: number) => figure(v, Number.isInteger(v) ? 0 : 2);
  switch (rung) {
    case 'local': {
      const body = project.bodies.find(({ id }) => id === project.probe.body);
      return body ? `in ${body.name}` : 'no body: world';
    }
    case 'world':
      return project.unit;
    case 'view':
      return 'eye at 0,0,0';
    case 'clip':
      return 'before ÷ w';
    case 'ndc':
      return `z ${number(ndc.near)} to ${number(ndc.far)}`;
    case 'screen':
      return `${screenUnit(e)}, ${countsOf(e)}`;
  }
}

/** Drives the probe from another rung from now on; the point stays where it is. */
function driveFrom(rung: Rung): void {
  const { frame, placed, project } = currentMoment();
  const body = project.probe.body === null ? null : (placed.get(project.probe.body) ?? null);
  const drive = redrive(frame, body, project.probe.drive, rung);
  if (!drive.ok)
    return complain(`The probe cannot be driven from ${rungNames[rung]} here. ${reasonSentence[drive.reason]}`);
  edit(`drive from ${rungNames[rung]}`, (draft) => {
    draft.probe.drive = { rung, value: [...drive.value.value] };
  });
}

function RungCard({ rung, moment }: { rung: Rung; moment: Moment }) {
  const { project, chain, points } = moment;
  const { drive } = project.probe;
  const numbers = chain.ok ? rungNumbers(rung, chain.value, moment) : null;
  const unit = unitOf(rung, moment);
  const name = rungNames[rung];
  if (rung === drive.rung) {
    const held = heldNumbers(rung, moment);
    const given = givenNumbers(rung, moment);
    const shown = held.show(drive.value);
    return (
      <section className="rung driven" aria-label={`${name}, driven from here`} data-rung={rung}>
        <div className="name">
          <h3>{name}</h3>
          <span className="tag">
            <Pin />
            driven from
            <br />
            here
          </span>
        </div>
        <div className="figures">
          {axisNames(rung, points).map((axis, i) => (
            <div className="line" key={axis}>
              {!given[i] ? (
                <>
                  <span className="axis">{axis}</span>
                  <span className="number">{figure(shown[i]!)}</span>
                </>
              ) : (
                <NumberInput
                  letter={axis}
                  name={`${name} ${axis}`}
                  source={i === 0 ? 'probe' : undefined}
                  value={shown[i]!}
                  shown={(v) => figure(v)}
                  step={rung === 'ndc' || axis === 'depth' ? 0.01 : 1}
                  onChange={(value, gesture) =>
                    edit(
                      `move the probe in ${name}`,
                      (draft) => {
                        // From what is held now, which what is shown may be a moment behind.
                        const now = heldNumbers(rung, currentMoment());
                        const next = now.show(draft.probe.drive.value).map((v, k) => (k === i ? value : v));
                        draft.probe.drive.value = [...now.read(next)];
                      },
                      gesture,
                    )
                  }
                />
              )}
            </div>
          ))}
        </div>
      </section>
    );
  }
  const bad = chain.ok ? outOfRange(rung, chain.value) : [];
  const reason = chain.ok ? (chain.value.picture.ok ? null : chain.value.picture.reason) : chain.reason;
  return (
    <section className="rung" aria-label={name} data-rung={rung}>
      <div className="name">
        <h3>
          {numbers ? (
            <button title={`Copy ${name}`} onClick={() => void copy(`[${numbers.map(plain).join(', ')}]`, `${name}`)}>
              {name}
            </button>
          ) : (
            name
          )}
        </h3>
        <span className="unit">{unit}</span>
        {numbers && (
          <button className="drive" onClick={() => driveFrom(rung)}>
            drive from here
          </button>
        )}
      </div>
      <div className="figures">
        {axisNames(rung, points).map((axis, i) => (
          <div className="line" key={axis}>
            <span className="axis">{axis}</span>
            {numbers ? (
              <Figure value={numbers[i]!} name={`${name} ${axis}`} out={bad[i] ?? false} />
            ) : (
              <span className="none" title={reason ? reasonSentence[reason] : undefined}>
                {i === 0
                  ? reason === 'behindEye'
                    ? 'behind the eye'
                    : reason === 'onEyePlane'
                      ? 'on the eye’s plane'
                      : 'no point'
                  : ''}
              </span>
            )}
          </div>
        ))}
      </div>
    </section>
  );
}

/** A number that copies when it is clicked, and is marked for a moment when it has changed. */
const Figure = memo(function Figure({ value, name, out }: { value: number; name: string; out: boolean }) {
  const text = figure(value);
  const [shown, setShown] = useState({ text, changes: 0 });
  if (shown.text !== text) setShown({ text, changes: shown.changes + 1 });
  return (
    <button
      className={`number${out ? ' out' : ''}`}
      title={`Copy ${name}`}
      aria-label={`${name} ${text}`}
      onClick={() => void copy(plain(value), name)}
    >
      {out && <Glyph kind="outside" size={9} />}{' '}
      <span className={shown.changes ? `changed-${shown.changes % 2}` : undefined}>{text}</span>
    </button>
  );
});
