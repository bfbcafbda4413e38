import { angleBetween } from '../../../core/convert/compare';
import { pictureToViewRuf, viewRufToWorld, worldToPixel, worldToViewRuf } from '../../../core/convert/project';
import { add, sub, type Vec3 } from '../../../core/math/vec3';
import { stalenessOf } from '../../../core/motion/stages';
import { OrderList } from '../../sheet/OrderList';
import { journeyAt } from '../../state/journey';
import { useTaskMoment } from '../../state/tempo';
import { angleText } from '../../ui/angles';
import { counted, figure } from '../../ui/figures';
import { moveStage, rightOrder } from './edits';
import { Field } from './fields';
import { journeyOf, trackOf } from './journey';
import { sourceOf } from './moves';
import type { MotionState } from './kept';
import { subjectAt, subjectOf } from './subject';
import { stageWords } from './words';

/** The order of a frame, and what each of its stages works with. */
export function Order() {
  const now = useTaskMoment<MotionState>('motion');
  const { slice, time, codec: e } = now;
  const track = trackOf(now);
  const journey = journeyOf(now);
  const subject = subjectOf(now);
  const lags = stalenessOf(slice.order, track ? sourceOf(track) : null);
  const drawn = lags.find(({ stage }) => stage === 'draw')!;
  const h = 1 / slice.framesPerSecond;
  const at = (frames: number) => {
    const made = journey && journeyAt(journey, Math.max(0, time - frames * h));
    return made?.ok ? made.value : now.frame;
  };
  // The subject, and places at its distance half way out to the corners of the picture.
  const middle = subject && worldToViewRuf(at(0), subjectAt(subject, time));
  const places = middle
    ? [[0, 0], [-0.5, -0.5], [0.5, -0.5], [0.5, 0.5], [-0.5, 0.5]].map(([x, y]) => viewRufToWorld(at(0), pictureToViewRuf(at(0), x!, y!, middle[2]))) // prettier-ignore
    : [];
  const moved = (bodies: number): Vec3 =>
    subject ? sub(subjectAt(subject, Math.max(0, time - bodies * h)), subjectAt(subject, time)) : [0, 0, 0];
  /** Where the places stand in a camera, both so many frames old. */
  const pixels = (camera: number, bodies: number) =>
    [...(subject ? [subjectAt(subject, time)] : []), ...places].map((p) => {
      const found = worldToPixel(at(camera), add(p, moved(bodies)));
      return found.ok ? found.value : null;
    });
  const apart = (a: ReturnType<typeof pixels>, b: ReturnType<typeof pixels>) =>
    a.reduce<number | null>((most, p, i) => {
      const q = b[i];
      return p && q ? Math.max(most ?? 0, Math.hypot(p[0] - q[0], p[1] - q[1])) : most;
    }, null);
  const picture = pixels(drawn.camera, drawn.bodies);
  const right = pixels(0, 0);
  const rows = lags.map(({ stage, camera, bodies }) => {
    // The picture itself is held against what it should be; all else against the picture.
    const off = apart(pixels(camera, bodies), stage === 'draw' ? right : picture);
    const turn = angleBetween(at(camera).forward, at(stage === 'draw' ? 0 : drawn.camera).forward);
    return { stage, camera, bodies, off, turn };
  });
  const late = rows.filter(({ camera, bodies, stage }) => (camera > 0 || bodies > 0) && !['input', 'bodies', 'camera'].includes(stage)); // prettier-ignore
  const worst = late.reduce((most, { off }) => Math.max(most, off ?? 0), 0);
  return (
    <>
      <OrderList
        name="Stages of a frame"
        items={rows.map(({ stage, camera, bodies, off, turn }) => ({
          key: stage,
          label: stageWords[stage],
          aside: ['input', 'bodies', 'camera'].includes(stage) ? undefined : (
            <span
              className={camera || bodies ? 'stage-late' : 'stage-right'}
              data-testid={`stage ${stage}`}
              title={`The camera ${camera ? `${counted(camera, 'frame', 'frames')} old` : 'of this frame'}, bodies ${bodies ? `${counted(bodies, 'frame', 'frames')} old` : 'of this frame'}; turned by ${angleText(e, turn, 3)}`}
            >
              {camera || bodies ? `${off === null ? '–' : figure(off, 1)} px` : 'fresh'}
            </span>
          ),
        }))}
        onMove={moveStage}
      />
      <div className="row">
        <Field at="framesPerSecond" unit="/s" />
        <button className="plain-button" onClick={rightOrder}>
          In order
        </button>
      </div>
      <p className="verdict-line" data-testid="order" aria-live="polite">
        {!late.length
          ? 'Every stage works with this frame.'
          : `${late.map(({ stage, camera, bodies }) => `${stageWords[stage]} with ${[camera ? `a camera ${counted(camera, 'frame', 'frames')} old` : null, bodies ? `bodies ${counted(bodies, 'frame', 'frames')} old` : null].filter(Boolean).join(' and ')}`).join('; ')}. At this moment up to ${figure(worst, 2)} pixels${subject ? ` about ${subject.name}` : ''}, ${angleText(e, Math.max(0, ...late.map(({ turn }) => turn)), 3)}.`}
      </p>
      <p className="text-note leading-4 text-ink2">
        Drag a stage, or use its arrows. Billboard, Pick and Spawn take a camera that is late from here.
      </p>
    </>
  );
}
