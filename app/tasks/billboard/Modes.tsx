import { modesApart, type BillboardMode } from '../../../core/billboard/billboard';
import { radians } from '../../../core/math/angle';
import { DataList, type ListColumn } from '../../sheet/DataList';
import { useTaskMoment } from '../../state/tempo';
import { angleDecimals, angleText, angleUnit } from '../../ui/angles';
import { WorkingButton } from '../../working/WorkingButton';
import { chosenOf, differencesNow, placeOf, pointAheadOf } from './boards';
import { change } from './edits';
import { Field } from './fields';
import { modes, type BillboardState } from './kept';
import { modeWords } from './words';

interface Pair {
  readonly a: BillboardMode;
  readonly b: BillboardMode;
  /** In the unit in force. */
  readonly angle: number;
}
const keyOf = (a: BillboardMode, b: BillboardMode) => `${a} ${b}`;

/** The modes on copies of one board, and the angle between each pair. */
export function Modes() {
  const now = useTaskMoment<BillboardState>('billboard');
  const { slice, frame, codec: e, project } = now;
  const board = chosenOf(slice);
  const place = board && placeOf(now, board);
  if (!board || !place) return <p className="none">No board is chosen. Choose or add one under Boards.</p>;
  const pairs = modes.flatMap((a, i) => modes.slice(i + 1).map((b): Pair => ({ a, b, angle: e.toAngle(modesApart(frame, place, [a, b], board.axis)) }))); // prettier-ignore
  const columns: readonly ListColumn<Pair>[] = [
    { name: 'Between', width: '1fr', value: ({ a, b }) => `${modeWords[a].short} – ${modeWords[b].short}` },
    { name: angleUnit(e), width: '58px', value: ({ angle }) => angle, decimals: angleDecimals(e) },
  ];
  const map = differencesNow(now);
  const ahead = pointAheadOf(now, place);
  return (
    <>
      <div className="checks" role="group" aria-label="Modes that are shown">
        {modes.map((mode) => (
          <label key={mode} className="row check" title={modeWords[mode].says}>
            <input
              type="checkbox"
              checked={slice.shown.includes(mode)}
              onChange={() =>
                change('show or hide a mode', (draft) => {
                  draft.shown = modes.filter((one) => (one === mode) !== draft.shown.includes(one));
                })
              }
            />
            {modeWords[mode].name}
          </label>
        ))}
      </div>
      <label className="row check">
        <input
          type="checkbox"
          checked={slice.apart}
          onChange={() => change('draw the copies apart or not', (draft) => void (draft.apart = !draft.apart))}
        />
        Draw the copies apart
      </label>
      <p className="text-note leading-4 text-ink2">
        All are turned for the board’s own place, and drawn beside one another.
      </p>
      <DataList
        name="angles between modes"
        rows={pairs}
        keyOf={({ a, b }) => keyOf(a, b)}
        columns={columns}
        chosen={keyOf(...slice.pair)}
        onChoose={({ a, b }) => change('compare two modes', (draft) => void (draft.pair = [a, b]))}
      />
      <div className="row">
        <label className="check">
          <input
            type="checkbox"
            checked={slice.contour !== null}
            onChange={() =>
              change(
                'draw the line or not',
                (draft) => void (draft.contour = draft.contour === null ? radians(10) : null),
              )
            }
          />
          Line where these differ by
        </label>
        {slice.contour !== null && <Field at="contour" width={76} />}
      </div>
      <p className="verdict-line" data-testid="differ">
        {modeWords[slice.pair[0]].short} and {modeWords[slice.pair[1]].short}{' '}
        {map
          ? map.lines.length && map.lines[0]!.rings.length
            ? `differ by up to ${angleText(e, map.most)} in this picture, as far ahead as the board.`
            : `differ by no more than ${angleText(e, map.most)} anywhere in this picture.`
          : 'are compared in the list.'}{' '}
        <WorkingButton of="apart" />
      </p>
      <div className="rule">Facing a point instead</div>
      <div className="row">
        <span className="text-ink2">a point ahead of the eye by</span>
        <Field at="ahead" width={88} />
      </div>
      <p className="verdict-line" data-testid="point-ahead">
        {ahead
          ? `Told to face that point, the board differs from the reversed gaze by ${angleText(e, ahead.angle)}${ahead.away ? ', and turns its back: it stands nearer than the point.' : '.'}`
          : 'The board stands in that point: it has nowhere to face.'}
      </p>
      <p className="text-note leading-4 text-ink2">
        A target one step from the board itself, against the gaze, is the reversed gaze and right for all; a point ahead
        of the eye is one place in {project.unit}, which boards beyond it face and boards before it face away from.
      </p>
    </>
  );
}
