import { useMemo } from 'react';
import { screenSize, screenSizeAt } from '../../../core/billboard/size';
import { worldToViewRuf } from '../../../core/convert/project';
import { Curves } from '../../sheet/Curves';
import { NumberField } from '../../sheet/NumberField';
import { useTaskMoment } from '../../state/tempo';
import { reasonSentence } from '../../state/wording';
import { figure } from '../../ui/figures';
import { lengths, pixels } from '../../ui/parseNumber';
import { WorkingButton } from '../../working/WorkingButton';
import { chosenOf, placeOf } from './boards';
import { change } from './edits';
import type { BillboardState } from './state';

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
  const field = (
    name: string,
    label: string,
    value: number,
    set: (draft: BillboardState['screen'], v: number) => void,
    refuse: (v: number) => string | null,
    source?: string,
  ) => (
    <NumberField
      name={name}
      label={label}
      width="50%"
      value={value}
      units={label === 'px' ? pixels : lengths}
      source={source}
      refuse={refuse}
      onChange={(v, gesture) =>
        change(`set the ${name.toLowerCase()}`, (draft) => set(draft.screen as BillboardState['screen'], v), gesture)
      }
    />
  );
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
        {field(
          'Height on the screen',
          'px',
          screen.pixels,
          (draft, v) => void (draft.pixels = v),
          (v) => (v > 0 ? null : 'A height above 0 pixels.'),
          'screenSize',
        )}
      </div>
      {!flat && (
        <>
          <div className="row">
            {field(
              'Nearest distance',
              'from',
              nearest,
              (draft, v) => void (draft.nearest = v),
              (v) => (v > 0 && v <= farthest ? null : `From above 0 to the farthest, ${figure(farthest, 1)}.`),
            )}
            {field(
              'Farthest distance',
              'to',
              farthest,
              (draft, v) => void (draft.farthest = v),
              (v) => (v >= nearest ? null : `Not nearer than the nearest, ${figure(nearest, 1)}.`),
            )}
          </div>
          <div className="row">
            {field(
              'Fades from',
              'fades from',
              fade[0],
              (draft, v) => void (draft.fade[0] = v),
              (v) => (v <= fade[1] ? null : `Not beyond where it is gone, ${figure(fade[1], 1)}.`),
            )}
            {field(
              'Gone at',
              'gone at',
              fade[1],
              (draft, v) => void (draft.fade[1] = v),
              (v) => (v >= fade[0] ? null : `Not nearer than where it begins to fade, ${figure(fade[0], 1)}.`),
            )}
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
