import { letterOf } from '../../../core/conventions/axes';
import type { Vec2, Vec3 } from '../../../core/math/vec3';
import { pictureToPixel, worldToPixel } from '../../../core/convert/project';
import { horizonPitches, horizonPlace, horizonPoints, vanishingPoint } from '../../../core/order/horizon';
import { useTaskMoment } from '../../state/tempo';
import { reasonSentence } from '../../state/wording';
import { angleText, turnText } from '../../ui/angles';
import { copy } from '../../ui/notices';
import { figure, plain } from '../../ui/figures';
import { WorkingButton } from '../../working/WorkingButton';
import type { OrderState } from './kept';

const up: Vec3 = [0, 1, 0];
const places = {
  above: 'It lies above the picture',
  below: 'It lies below the picture',
  left: 'It lies left of the picture',
  right: 'It lies right of the picture',
  atInfinity: 'It lies infinitely far off: the gaze runs straight up or down',
} as const;

/** Where the horizon and the vanishing points lie, and at which pitch the horizon leaves the picture. */
export function Horizon() {
  const { frame, codec: e, chain } = useTaskMoment<OrderState>('order');
  if (frame.kind === 'orthographic')
    return (
      <p className="text-note leading-4 text-ink2">
        Orthographic rays all run one way: there is no horizon, and parallels stay parallel.
      </p>
    );
  const screen = (p: Vec2) => e.toScreen(frame.viewport, ...p);
  const points = horizonPoints(frame, up);
  const pitches = horizonPitches(frame);
  const pitch = (v: number) => turnText(e, 'pitch', v);
  const own = Math.asin(Math.max(-1, Math.min(1, frame.forward[1])));
  const { world } = e.conventions;
  const axes: readonly (readonly [string, Vec3])[] = (
    [
      ['right', [1, 0, 0]],
      ['up', [0, 1, 0]],
      ['forward', [0, 0, -1]],
    ] as const
  ).flatMap(([axis, d]): (readonly [string, Vec3])[] => {
    const letter = letterOf(world[axis]);
    const [here, there] = world[axis].startsWith('-') ? ['\u2212', '+'] : ['+', '\u2212'];
    return [
      [`${here}${letter}`, d],
      [`${there}${letter}`, [-d[0], -d[1], -d[2]]],
    ];
  });
  const leaning = lean(frame, chain.ok ? chain.value.world : null);
  return (
    <>
      <div className="result">
        <p className="verdict-line" data-testid="horizon">
          {points
            ? `It crosses the picture from ${pair(screen(points[0]))} to ${pair(screen(points[1]))}.`
            : `${places[horizonPlace(frame, up)]}.`}
        </p>
        {pitches && (
          <div className="line">
            in it at pitch <WorkingButton of="horizonPitch" />
            <span className="right" data-testid="horizon-pitches">
              {pitch(pitches[0])} … {pitch(pitches[1])}
            </span>
          </div>
        )}
        <div className="line">
          pitch now
          <span className="right">{pitch(own)}</span>
        </div>
      </div>
      <div className="rule">
        Vanishing points <em>pixels</em>
      </div>
      {axes.map(([name, direction]) => {
        const found = vanishingPoint(frame, direction);
        const at = found.ok ? screen(found.value) : null;
        return (
          <div className="row wide" key={name}>
            <span className="label">parallels of {name}</span>
            {at ? (
              <button
                className="number ml-auto"
                title={`Copy where parallels of ${name} run to`}
                data-testid={`vanishing ${name}`}
                onClick={() => void copy(`[${at.map(plain).join(', ')}]`, `the vanishing point of ${name}`)}
              >
                {pair(at)}
              </button>
            ) : (
              <span className="ml-auto text-ink2" title={found.ok ? undefined : reasonSentence[found.reason]}>
                {found.ok ? '' : found.reason === 'behindEye' ? 'behind the eye' : 'along the screen'}
              </span>
            )}
          </div>
        );
      })}
      {leaning !== null && (
        <>
          <div className="rule">How upright things lean</div>
          <div className="row wide">
            <span className="label">At the probe</span>
            <span className="ml-auto font-mono" data-testid="lean">
              {angleText(e, Math.abs(leaning))}{' '}
              {Math.abs(leaning) < 1e-6 ? '' : leaning > 0 ? 'to the right' : 'to the left'}
            </span>
          </div>
          <p className="text-note leading-4 text-ink2">
            Upright things run to the vertical vanishing point: they lean the more the farther off the middle they
            stand.
          </p>
        </>
      )}
    </>
  );
}

const pair = (values: Vec2) => values.map((v) => figure(v, Math.abs(v) >= 1e5 ? 0 : 1)).join(', ');

/** By how much what is upright at a point leans on the screen, clockwise; null where the point has no picture. */
function lean(frame: Parameters<typeof worldToPixel>[0], point: Vec3 | null): number | null {
  if (!point) return null;
  const at = worldToPixel(frame, point);
  if (!at.ok) return null;
  for (const [direction, sign] of [
    [up, 1],
    [[0, -1, 0], -1],
  ] as const) {
    const found = vanishingPoint(frame, direction);
    if (!found.ok) continue;
    const to = pictureToPixel(frame, ...found.value);
    return Math.atan2(sign * (to[0] - at.value[0]), sign * (at.value[1] - to[1]));
  }
  // Upright things run along the screen: by the camera's own axes.
  return Math.atan2(frame.right[1], frame.up[1]);
}
