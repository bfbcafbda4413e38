import type { ReactNode } from 'react';
import { pictureToFramebuffer } from '../../../core/convert/pointer';
import { pixelToPicture } from '../../../core/convert/project';
import { pointerPath } from '../../../formats/camera';
import { moveProbe } from '../../edits/actions';
import { useMoment } from '../../state/tempo';
import { copy } from '../../ui/notices';
import { figure, plain } from '../../ui/figures';
import { Glyph } from '../../ui/Glyph';
import { NumberField } from '../../sheet/NumberField';
import { lengths } from '../../ui/parseNumber';
import { FormulasButton } from '../../working/FormulasButton';
import { WorkingButton } from '../../working/WorkingButton';
import { OffPicture, Rectangles, SizeThere } from './Reach';
import { countsOf, probeVerdict, reasonSentence, screenUnit } from '../../state/wording';

export function PointToScreen() {
  const moment = useMoment();
  const { project, chain, codec: e, frame, points, flat } = moment;
  const { matrix, ndc: n } = e.conventions;
  const verdict = probeVerdict(moment);
  return (
    <>
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
          <b className={verdict.kind === 'inside' ? 'text-teal' : 'text-plum'}>{verdict.text}</b>
          {chain.ok && chain.value.picture.ok && (
            <span className="right">depth {figure(e.toDepth(chain.value.picture.value.depth01), 6)}</span>
          )}
        </div>
        {chain.ok && chain.value.picture.ok && <DevicePixels />}
        <OffPicture />
        {chain.ok && chain.value.picture.ok && (
          <div className="line">
            <FormulasButton of="there" />
          </div>
        )}
      </div>
      <SizeThere />
      <Rectangles />
    </>
  );
}

function ScreenResult() {
  const { chain, codec: e, frame } = useMoment();
  if (!chain.ok || !chain.value.picture.ok) return null;
  const screen = e.toScreen(frame.viewport, chain.value.picture.value.across, chain.value.picture.value.upward);
  return (
    <button
      className="big"
      title="Copy the pixel"
      onClick={() => void copy(`[${screen.map(plain).join(', ')}]`, 'the pixel')}
    >
      <output data-testid="result-screen">{screen.map((v) => figure(v, 2)).join(', ')}</output>
      <u>
        {screenUnit(e)}, {countsOf(e)}
      </u>
    </button>
  );
}

function DevicePixels() {
  const { chain, project, codec, frame } = useMoment();
  if (!chain.ok || !chain.value.pixel.ok) return null;
  const picture = pixelToPicture(frame, chain.value.pixel.value);
  return (
    <div className="line">
      framebuffer <em>{countsOf(codec)}</em>
      <span className="right">
        {pictureToFramebuffer(pointerPath(project, codec.conventions), picture)
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
  const { chain, codec: e, frame } = useMoment();
  if (!chain.ok) return null;
  const { world, clip, picture } = chain.value;
  const { vectors } = e.conventions.matrix;
  const { screen } = e.conventions;
  const rows = vectors === 'row';
  const at = e.toWorld(world);
  const four = e.toClip(clip);
  const product = rows ? (
    <>
      <div className="equation">
        <Vector rows numbers={[...at.map((v) => figure(v, 2)), '1']} /> <span className="sym">V P</span> =
      </div>
      <div className="equation mt-1">
        <Vector rows numbers={four.map((v) => figure(v, 3))} /> <Aside>clip</Aside>
      </div>
    </>
  ) : (
    <div className="equation">
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
        <div className="equation">
          <span className="sym">x</span> = <Fraction over={`${figure(three[0], 4)} + 1`} /> × {frame.viewport.width}
          {half} = <b>{figure(x, 2)}</b>
        </div>
        <div className="equation mt-1">
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
  <span className="font-sans text-small text-ink2">{children}</span>
);
