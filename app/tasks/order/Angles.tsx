import { angularError, angularOfPicture } from '../../../core/order/angular';
import { pictureToPixel, pixelToPicture } from '../../../core/convert/project';
import { showPane } from '../../edits/panes';
import { useTaskMoment } from '../../state/tempo';
import { angleText } from '../../ui/angles';
import { figure } from '../../ui/figures';
import { WorkingButton } from '../../working/WorkingButton';
import { errorMap } from './contours';
import { change } from './edits';
import type { OrderState } from './kept';
import { FovChart } from './FovChart';

/** A picture of equal angles per pixel beside the plane projection: where they differ, and by how much. */
export function Angles() {
  const now = useTaskMoment<OrderState>('order');
  const { slice, frame, codec: e, chain } = now;
  const map = errorMap(frame);
  if (!map)
    return (
      <p className="text-note leading-4 text-ink2">
        Orthographic rays all run one way: there are no angles between them to be mapped.
      </p>
    );
  const screen = (pixel: readonly [number, number]) => e.toScreen(frame.viewport, ...pixelToPicture(frame, pixel));
  const pair = (values: readonly number[], decimals = 1) => values.map((v) => figure(v, decimals)).join(', ');
  const picture = chain.ok && chain.value.picture.ok ? chain.value.picture.value : null;
  const found = picture && angularOfPicture(frame, [picture.across, picture.upward]);
  const pixel = picture && pictureToPixel(frame, picture.across, picture.upward);
  const error = pixel && angularError(frame, pixel);
  return (
    <>
      <div className="result">
        <p className="verdict-line" data-testid="angles-most">
          The two differ by up to {figure(map.most, map.most < 10 ? 2 : 0)} pixels, at {pair(screen(map.at), 0)}.
        </p>
        {found && pixel && error && (
          <>
            <div className="line">
              at the probe
              <span className="right" title="Bearing to the right of the gaze, elevation above its level">
                {angleText(e, found.direction[0])}, {angleText(e, found.direction[1])}
              </span>
            </div>
            <div className="line">
              equal angles <WorkingButton of="equalAngles" />
              <span className="right" data-testid="angles-pixel">
                {pair(e.toScreen(frame.viewport, ...found.picture))}
              </span>
            </div>
            <div className="line">
              off by
              <span className="right" data-testid="angles-error">
                {figure(Math.hypot(...error), 2)} px
              </span>
            </div>
          </>
        )}
      </div>
      <label className="row check">
        <input
          type="checkbox"
          checked={slice.contours}
          onChange={() => change('show or hide the contours', (draft) => void (draft.contours = !draft.contours))}
        />
        Contours of the error over the picture
      </label>
      <div className="row">
        <button className="plain-button" onClick={() => showPane('order/angles')}>
          Show the picture of equal angles
        </button>
      </div>
      <div className="rule">
        The greatest error <em>px, by horizontal field of view</em>
      </div>
      <FovChart />
    </>
  );
}
