import type { ReactNode } from 'react';
import { pictureToFramebuffer } from '../../../core/convert/pointer';
import { pixelToPicture } from '../../../core/convert/project';
import { pointerPath } from '../../../formats/camera';
import { moveProbe } from '../../shell/actions';
import { useSituation } from '../../state/derive';
import { copy } from '../../ui/clipboard';
import { figure, plain } from '../../ui/figures';
import { Glyph } from '../../ui/Glyph';
import { NumberField } from '../../ui/NumberField';
import { lengths } from '../../ui/parseNumber';
import { WorkingButton } from '../../working/WorkingButton';
import { OffPicture, Rectangles, SizeThere } from './Reach';
import { probeVerdict, reasonSentence } from '../../wording';

export function PointToScreen() {
  const situation = useSituation();
  const { project, chain, expression: e, frame, points, flat } = situation;
  const { matrix, ndc: n } = e.conventions;
  const verdict = probeVerdict(situation);
  return (
    <section aria-label="World point to screen">
      <h2>World point to screen</h2>
      {chain.ok && (
        <div className="row">
          <span className="label">Point</span>
          {points.show(chain.value.world).map((value, i) => (
            <NumberField
              key={i}
              label={points.letters[i]!}
              name={`Point ${points.letters[i]}`}
              width={flat ? '50%' : '33%'}
              value={value}
              shown={(v) => figure(v, 2)}
              units={lengths}
              onChange={(v, gesture) => {
                const next = [...points.show(chain.value.world)];
                next[i] = v;
                moveProbe(points.read(next), gesture);
              }}
            />
          ))}
        </div>
      )}
      <div className="row">
        <span className="label">Seen by</span>
        <b className="font-medium">{project.camera.name}</b>
        <span className="text-ink2">
          at {frame.viewport.width} × {frame.viewport.height}
        </span>
      </div>
      <div className="rule">
        Working
        <WorkingButton of={flat ? 'flat' : 'screen'} label="in full" />
        <em>
          {matrix.vectors} vectors, z {figure(n.near, Number.isInteger(n.near) ? 0 : 2)} to{' '}
          {figure(n.far, Number.isInteger(n.far) ? 0 : 2)}
        </em>
      </div>
      <Working />
      <div className="result">
        {chain.ok && chain.value.picture.ok ? (
          <ScreenResult />
        ) : (
          <div className="none">
            {
              reasonSentence[
                chain.ok ? (chain.value.picture.ok ? 'behindEye' : chain.value.picture.reason) : chain.reason
              ]
            }
          </div>
        )}
        <div className="line">
          <Glyph kind={verdict.kind} size={11} />
          <b className={verdict.kind === 'inside' ? 'tl' : 'pl'}>{verdict.text}</b>
          {chain.ok && chain.value.picture.ok && (
            <span className="right">depth {figure(e.toDepth(chain.value.picture.value.shares), 6)}</span>
          )}
        </div>
        {chain.ok && chain.value.picture.ok && <DevicePixels />}
        <OffPicture />
      </div>
      <SizeThere />
      <Rectangles />
    </section>
  );
}

function ScreenResult() {
  const { chain, expression: e, frame } = useSituation();
  if (!chain.ok || !chain.value.picture.ok) return null;
  const screen = e.toScreen(frame.viewport, chain.value.picture.value.across, chain.value.picture.value.upward);
  return (
    <button
      className="big"
      title="Copy the pixel"
      onClick={() => void copy(`[${screen.map(plain).join(', ')}]`, 'the pixel')}
    >
      <output data-testid="result-screen">{screen.map((v) => figure(v, 2)).join(', ')}</output>
      <u>css px</u>
    </button>
  );
}

function DevicePixels() {
  const { chain, project, frame } = useSituation();
  if (!chain.ok || !chain.value.pixel.ok) return null;
  const picture = pixelToPicture(frame, chain.value.pixel.value);
  return (
    <div className="line">
      framebuffer
      <span className="right">
        {pictureToFramebuffer(pointerPath(project), picture)
          .map((v) => figure(v, 1))
          .join(', ')}
      </span>
    </div>
  );
}

/** A column of numbers, or a row where vectors are rows. */
const Vector = ({ numbers, rows }: { numbers: readonly string[]; rows: boolean }) => (
  <span className={`vec${rows ? ' flat' : ''}`}>
    {numbers.map((n, i) => (
      <span key={i}>{n}</span>
    ))}
  </span>
);

const Line = ({ no, children }: { no: string; children: ReactNode }) => (
  <div className="work">
    <span className="margin-no">{no}</span>
    {children}
  </div>
);

const Fraction = ({ over }: { over: string }) => (
  <span className="frac">
    <span>{over}</span>
    <span>2</span>
  </span>
);

/** The three steps with the numbers put in, written the way the conventions in force write them. */
function Working() {
  const { chain, expression: e, frame } = useSituation();
  if (!chain.ok) return null;
  const { world, clip, picture } = chain.value;
  const { vectors } = e.conventions.matrix;
  const { screen } = e.conventions;
  const rows = vectors === 'row';
  const at = e.toWorld(world);
  const four = e.toClip(clip);
  const product = rows ? (
    <>
      <div className="eq">
        <Vector rows numbers={[...at.map((v) => figure(v, 2)), '1']} /> <span className="sym">V P</span> =
      </div>
      <div className="eq mt-1">
        <Vector rows numbers={four.map((v) => figure(v, 3))} /> <Aside>clip</Aside>
      </div>
    </>
  ) : (
    <div className="eq">
      <span className="sym">P V</span>
      <Vector rows={false} numbers={[...at.map((v) => figure(v, 2)), '1']} />
      =
      <Vector rows={false} numbers={four.map((v) => figure(v, 4))} />
      <Aside>clip</Aside>
    </div>
  );
  if (!picture.ok)
    return (
      <>
        <Line no="i">{product}</Line>
        <Line no="ii">
          w = {figure(four[3], 4)} <Aside>not above 0: no division</Aside>
        </Line>
      </>
    );
  const three = e.toNdc(picture.value);
  const [x, y] = e.toScreen(frame.viewport, picture.value.across, picture.value.upward);
  const half = screen.pixelCentre === 0 ? ' − ½' : '';
  return (
    <>
      <Line no="i">{product}</Line>
      <Line no="ii">
        ÷ <span className="sym">w</span> = {figure(four[3], 4)}
        <br />
        {three.map((v) => figure(v, 4)).join(' ')} <Aside>NDC</Aside>
      </Line>
      <Line no="iii">
        <div className="eq">
          <span className="sym">x</span> = <Fraction over={`${figure(three[0], 4)} + 1`} /> × {frame.viewport.width}
          {half} = <b>{figure(x, 2)}</b>
        </div>
        <div className="eq mt-1">
          <span className="sym">y</span> ={' '}
          <Fraction
            over={
              e.screenFollowsNdc
                ? `${figure(three[1], 4)} + 1`
                : `1 − ${three[1] < 0 ? `(${figure(three[1], 4)})` : figure(three[1], 4)}`
            }
          />{' '}
          × {frame.viewport.height}
          {half} = <b>{figure(y, 2)}</b>
        </div>
      </Line>
    </>
  );
}

const Aside = ({ children }: { children: ReactNode }) => (
  <span className="font-sans text-[11.5px] text-ink2">{children}</span>
);
