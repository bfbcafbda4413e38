import { tiltOf } from '../../../core/billboard/billboard';
import { worldUp } from '../../../core/camera/orientation';
import { negate } from '../../../core/math/vec3';
import { vanishingPoint } from '../../../core/order/horizon';
import { useTaskMoment } from '../../state/tempo';
import { angleText } from '../../ui/angles';
import { figure } from '../../ui/figures';
import { reasonSentence } from '../../state/wording';
import { WorkingButton } from '../../working/WorkingButton';
import { chosenOf, placeOf } from './boards';
import type { BillboardState } from './kept';

/** How far upright things lean on the screen, which sprites that are drawn flat have to follow. */
export function Lean() {
  const now = useTaskMoment<BillboardState>('billboard');
  const { slice, frame, codec: e } = now;
  const board = chosenOf(slice);
  const place = board && placeOf(now, board);
  const tilt = place && tiltOf(frame, place, worldUp);
  // Looking down, upright things run together below: it is one place for up and down.
  const above = vanishingPoint(frame, worldUp);
  const top = above.ok ? above : vanishingPoint(frame, negate(worldUp));
  return (
    <>
      <p className="text-note leading-4 text-ink2">
        A sprite that is drawn flat on the screen stands straight up; what is upright in the world leans to the vertical
        vanishing point. Turned by so much, clockwise, it leans with the world.
      </p>
      <div className="result">
        {board && tilt ? (
          tilt.ok ? (
            <div className="line">
              {board.name} <WorkingButton of="lean" />
              <span className="right" data-testid="lean">
                {angleText(e, tilt.value)}
              </span>
            </div>
          ) : (
            <p className="none">{reasonSentence[tilt.reason]}</p>
          )
        ) : (
          <p className="none">No board is chosen.</p>
        )}
        <div className="line">
          vertical vanishing point
          <span className="right" data-testid="vertical-vanishing">
            {top.ok
              ? e
                  .toScreen(frame.viewport, top.value[0], top.value[1])
                  .map((v) => figure(v, 0))
                  .join(', ')
              : 'none: the gaze is level'}
          </span>
        </div>
      </div>
      <p className="text-note leading-4 text-ink2">
        The leans of all boards stand in the list of boards, and are drawn over the picture while this section is open.
      </p>
    </>
  );
}
