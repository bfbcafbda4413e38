import { useMemo } from 'react';
import { screenSize, screenSizeAt } from '../../../core/billboard/size';
import { worldToViewRuf } from '../../../core/convert/project';
import { Curves } from '../../sheet/Curves';
import { useTaskMoment } from '../../state/tempo';
import { reasonSentence } from '../../state/wording';
import { figure } from '../../ui/figures';
import { WorkingButton } from '../../working/WorkingButton';
import { chosenOf, placeOf } from './boards';
import { change } from './edits';
import { Field } from './fields';
import type { BillboardState } from './kept';

const short = (v: number) => figure(v, v < 10 ? 1 : 0);

/** A constant size on the screen: the world size that it takes, its limits, and where boards fade. */
export function ScreenSize() {
  const now = useTaskMoment<BillboardState>('billboard');
  const { slice, frame, flat, project } = now;
  const { screen } = slice;
  const board = chosenOf(slice);
  const place = board && placeOf(now, board);
  const found = place && screenSize(frame, place, screen);
  const data = useMemo(() => {
    const far = Math.max(screen.fade[1], screen.farthest) * 1.15;
    return Array.from({ length: 81 }, (_, i) => {
      const ahead = frame.near + ((far - frame.near) * (i + 0.02)) / 80;
      const at = screenSizeAt(frame, ahead, screen);
      return {
        ahead,
        height: at.ok ? at.value.height : null,
        seen: at.ok && at.value.opacity > 0 ? at.value.height * at.value.opacity : null,
      };
    });
  }, [frame, screen]);
  const { nearest, farthest, fade } = screen;
  return (
    <>
      <label className="row check">
        <input
          type="checkbox"
          checked={screen.on}
          onChange={() =>
            change('keep the size on the screen or not', (draft) => void (draft.screen.on = !draft.screen.on))
          }
        />
        Boards keep their size on the screen
      </label>
      <div className="row">
        <Field at={['screen', 'pixels']} />
      </div>
      {!flat && (
        <>
          <div className="row">
            <Field
              at={['screen', 'nearest']}
              reject={(v) =>
                v <= farthest ? null : `Nearest distance is at most the farthest, ${figure(farthest, 1)}.`
              }
            />
            <Field
              at={['screen', 'farthest']}
              reject={(v) =>
                v >= nearest ? null : `Farthest distance is at least the nearest, ${figure(nearest, 1)}.`
              }
            />
          </div>
          <div className="row">
            <Field
              at={['screen', 'fade', 0]}
              reject={(v) => (v <= fade[1] ? null : `Boards fade before they are gone at ${figure(fade[1], 1)}.`)}
            />
            <Field
              at={['screen', 'fade', 1]}
              reject={(v) =>
                v >= fade[0] ? null : `Boards are gone after they begin to fade at ${figure(fade[0], 1)}.`
              }
            />
          </div>
        </>
      )}
      {board && found && (
        <div className="result" data-testid="screen-size">
          {found.ok ? (
            <>
              {!flat && (
                <div className="line">
                  {board.name} ahead <span className="right">{figure(worldToViewRuf(frame, place)[2], 2)}</span>
                </div>
              )}
              <div className="line">
                height in {project.unit} <WorkingButton of="screenHeight" />
                <span className="right" data-testid="screen-height">
                  {figure(found.value.height, 4)}
                </span>
              </div>
              <div className="line">
                on the screen <span className="right">{figure(found.value.pixels, 1)} px</span>
              </div>
              {!flat && (
                <div className="line">
                  opacity <span className="right">{figure(found.value.opacity, 2)}</span>
                </div>
              )}
            </>
          ) : (
            <p className="none">{reasonSentence[found.reason]}</p>
          )}
        </div>
      )}
      {!flat && (
        <>
          <Curves
            data={data}
            over="ahead"
            x={{ show: short }}
            y={{ show: short }}
            curves={[
              { of: 'height', color: 'plum' },
              { of: 'seen', color: 'teal', dash: '5 3' },
            ]}
            lines={[
              { x: nearest, color: 'hair2' },
              { x: farthest, color: 'hair2' },
              ...(found?.ok ? [{ x: found.value.ahead, color: 'brass' }] : []),
            ]}
          />
          <p className="text-note leading-4 text-ink2">
            World height over the distance ahead; dashed: times its opacity.
          </p>
        </>
      )}
    </>
  );
}
