import type { BillboardMode } from '../../../core/billboard/billboard';
import { degrees, radians } from '../../../core/math/angle';
import { Curves } from '../../sheet/Curves';
import { DataList, type ListColumn } from '../../sheet/DataList';
import { useTaskMoment } from '../../state/tempo';
import { angleDecimals, angleText, angleUnit } from '../../ui/angles';
import { Choice } from '../../ui/Choice';
import { figure } from '../../ui/figures';
import { beforeNow, chosenOf, placeOf, staleAt, staleOf, type Stale as Found } from './boards';
import { change } from './edits';
import { Field } from './fields';
import { modes, type BillboardState } from './kept';
import { modeWords } from './words';

interface Row extends Found {
  readonly mode: BillboardMode;
}

/** What a board that is turned by the frame before is off by. */
export function Stale() {
  const now = useTaskMoment<BillboardState>('billboard');
  const { slice, frame, codec: e } = now;
  const { stale } = slice;
  const board = chosenOf(slice);
  const place = board && placeOf(now, board);
  const then = beforeNow(now);
  const decimals = angleDecimals(e, 3);
  const rows =
    board && place && then ? modes.map((mode): Row => ({ mode, ...staleOf(frame, then, place, board, mode) })) : [];
  const columns: readonly ListColumn<Row>[] = [
    { name: 'Mode', width: '1fr', value: ({ mode }) => modeWords[mode].short },
    { name: `normal ${angleUnit(e)}`, width: '58px', value: ({ angle }) => e.toAngle(angle), decimals },
    { name: `turn ${angleUnit(e)}`, width: '50px', value: ({ turn }) => e.toAngle(turn), decimals },
    { name: 'px', width: '44px', value: ({ pixels }) => pixels, decimals: 2 },
  ];
  const own = rows.find(({ mode }) => mode === board?.mode);
  const curve =
    board && place
      ? Array.from({ length: 25 }, (_, i) => {
          const rate = 15 * i;
          const of = (mode: BillboardMode) => staleAt(now, place, board, radians(rate), mode);
          const turn = (mode: BillboardMode) => degrees(of(mode)?.turn ?? 0);
          return { rate, gaze: turn('viewPlane'), eye: turn('axisEye'), pixels: of(board.mode)?.pixels ?? null };
        })
      : [];
  const most = Math.max(1, ...curve.map(({ gaze, eye, pixels }) => Math.max(gaze, eye, pixels ?? 0)));
  return (
    <>
      <div className="row">
        <span className="label">Turned</span>
        <Choice
          name="When boards are turned"
          value={stale.on ? 'before' : 'after'}
          options={[
            { value: 'after', label: 'after the camera', title: 'The camera has moved when boards are turned' },
            {
              value: 'before',
              label: 'before it',
              title: 'Boards are turned first, by the camera of the frame before',
            },
          ]}
          onChange={(value) =>
            change('change the order of a frame', (draft) => void (draft.stale.on = value === 'before'))
          }
        />
      </div>
      <div className="row">
        <Field at={['stale', 'turnRate']} />
        <Field at={['stale', 'speed']} />
      </div>
      <div className="row">
        <Field at={['stale', 'frameRate']} />
      </div>
      <p className="verdict-line" data-testid="stale" aria-live="polite">
        {!own
          ? 'No board is chosen.'
          : `${board!.name}, turned by the frame before, is ${angleText(e, own.turn, 3)} off${own.pixels === null ? '' : `, ${figure(own.pixels, 2)} px at its farthest corner`}. ${stale.on ? 'So it is drawn: turn boards after the camera.' : 'It is turned after the camera, and right.'}`}
      </p>
      {now.stale.billboards && board && place && !stale.on && (
        <p className="warning" data-testid="stale-order">
          By the order of a frame in Motion boards are turned before the camera has moved:{' '}
          {angleText(e, staleOf(frame, now.stale.billboards, place, board, board.mode).turn, 3)} off at this moment, and
          so they are drawn.
        </p>
      )}
      <DataList name="boards of the frame before" rows={rows} keyOf={({ mode }) => mode} columns={columns} />
      <Curves
        data={curve}
        over="rate"
        x={{ domain: [0, 360], ticks: [0, 90, 180, 270, 360], show: (v) => `${v}` }}
        y={{ domain: [0, most], show: (v) => figure(v, most < 10 ? 1 : 0) }}
        curves={[
          { of: 'gaze', color: 'plum' },
          { of: 'eye', color: 'teal', dash: '6 3' },
          { of: 'pixels', color: 'ink', dash: '1.5 2.5' },
        ]}
        lines={[{ x: Math.abs(degrees(stale.turnRate)), color: 'brass' }]}
      />
      <p className="text-note leading-4 text-ink2">
        Degrees off over the degrees a second that the camera turns, by the gaze; dashed: by the eye; dotted: pixels, in
        the board’s own mode. While the clock plays the camera’s own motion counts too.
      </p>
    </>
  );
}
