import { flatCamera } from '../../../formats/camera';
import { useTaskMoment } from '../../state/tempo';
import { angleSuffix, inDegrees } from '../../ui/angles';
import { figure } from '../../ui/figures';
import { change } from './edits';
import type { BillboardState } from './kept';

/** On a flat world every sprite faces the viewer: what is left is whether it turns with the world. */
export function Upright() {
  const { slice, project, codec: e } = useTaskMoment<BillboardState>('billboard');
  const { rotation } = flatCamera(project);
  const unit = angleSuffix(e);
  const turn = e.toAngle((rotation * Math.PI) / 180);
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
        The camera turns the world by {figure(turn, inDegrees(e) ? 1 : 3)}
        {unit}: {slice.upright ? 'each board is turned back by as much.' : 'boards turn with it.'}
      </p>
    </>
  );
}
