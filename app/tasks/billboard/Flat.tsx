import { flatCamera } from '../../../formats/camera';
import { useTaskMoment } from '../../state/tempo';
import { angleText } from '../../ui/angles';
import { radians } from '../../../core/math/angle';
import { change } from './edits';
import type { BillboardState } from './kept';

/** On a flat world every sprite faces the viewer: what is left is whether it turns with the world. */
export function Upright() {
  const { slice, project, codec: e } = useTaskMoment<BillboardState>('billboard');
  const { rotation } = flatCamera(project);
  return (
    <>
      <p className="verdict-line">On a flat world every board faces the viewer, and none can be mirrored by turning.</p>
      <label className="row check">
        <input
          type="checkbox"
          checked={slice.upright}
          onChange={() => change('keep boards upright or not', (draft) => void (draft.upright = !draft.upright))}
        />
        Boards stay upright on the screen
      </label>
      <p className="text-note leading-4 text-ink2" data-testid="upright">
        The camera turns the world by {angleText(e, radians(rotation), 1)}:{' '}
        {slice.upright ? 'each board is turned back by as much.' : 'boards turn with it.'}
      </p>
    </>
  );
}
