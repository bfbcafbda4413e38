import './Tray.css';
import { memo } from 'react';
import type { CameraFrame } from '../../core/camera/frame';
import { sizeAt, worldToViewRuf } from '../../core/convert/project';
import { usePart } from '../state/tempo';
import { setViewport } from '../edits/viewport';
import { figure } from '../ui/figures';
import { unitMark } from '../state/wording';
import type { Look, Size } from './contract';
import { SetMarks } from './svgMarks';
import { standingOf, type OpenTask } from './taskMarks';
import { pictureView } from './view';
import { n2 } from './marks';
import { layTray, screenFrame } from './screens';

/**
 * The screens side by side at true proportion, with what each shows. Their pictures are drawn below
 * by the renderer.
 */
export const Tray = memo(function Tray({
  size,
  frame,
  task,
  selected,
  folds,
}: {
  size: Size;
  frame: CameraFrame;
  task: OpenTask | null;
} & Look) {
  const { screens, unit, probe } = usePart(({ project, chain }) => ({
    screens: project.screens,
    unit: project.unit,
    probe: chain.ok ? chain.value.world : null,
  }));
  const { fit, sizes } = screens;
  const { scale, places } = layTray(sizes, size);
  const distance = probe && worldToViewRuf(frame, probe)[2];
  const ahead = distance !== null && distance > 0 ? distance : null;
  // A unit without a short mark would have neighbours touch; the worksheet names it.
  const mark = unitMark(unit).length > 2 ? '' : ` ${unitMark(unit)}`;
  /** What the open task has standing on a screen. */
  const marksOn = (i: number, made: CameraFrame, scale: number) => {
    const { width, height } = made.viewport;
    const view = pictureView(`screen/${i}`, made, { width: width * scale, height: height * scale });
    return standingOf(task, view, { selected, folds }).marks ?? [];
  };
  return (
    <svg
      className="overlay"
      width={size.width}
      height={size.height}
      viewBox={`0 0 ${size.width} ${size.height}`}
      role="group"
      aria-label="Screens"
    >
      {sizes.map((screen, i) => {
        const { x, y, width, height } = places[i]!;
        const made = screenFrame(frame, fit, screen);
        const v = made?.viewport;
        const middle = n2(x + width / 2);
        const known = frame.kind === 'orthographic' || ahead !== null;
        const seen = made && known ? sizeAt(made, ahead ?? 1).map((side) => figure(side, 0)) : null;
        return (
          <g key={i}>
            {v && (v.width < screen.width || v.height < screen.height) && (
              <path
                className="tray-bars"
                fillRule="evenodd"
                d={`M${n2(x)} ${n2(y)}h${n2(width)}v${n2(height)}h${n2(-width)}ZM${n2(x + v.x * scale)} ${n2(y + v.y * scale)}v${n2(v.height * scale)}h${n2(v.width * scale)}v${n2(-v.height * scale)}Z`}
              />
            )}
            {made && (
              // What lies off the screen is cut off by its edge.
              <svg
                x={n2(x + made.viewport.x * scale)}
                y={n2(y + made.viewport.y * scale)}
                width={n2(made.viewport.width * scale)}
                height={n2(made.viewport.height * scale)}
              >
                <SetMarks marks={marksOn(i, made, scale)} />
              </svg>
            )}
            <rect className="neat-line" x={n2(x)} y={n2(y)} width={n2(width)} height={n2(height)} />
            <rect
              className="tray-pick"
              x={n2(x)}
              y={n2(y)}
              width={n2(width)}
              height={n2(height)}
              role="button"
              tabIndex={0}
              aria-label={`Take ${screen.name}, ${screen.width} × ${screen.height}, as the viewport`}
              onClick={() => take(screen)}
              onKeyDown={(event) => event.key === 'Enter' && take(screen)}
            >
              <title>{`${screen.name}: take ${screen.width} × ${screen.height} as the viewport`}</title>
            </rect>
            <text className="ink-figure-bare" x={middle} y={n2(y + height + 12)} textAnchor="middle">
              {screen.width}×{screen.height}
            </text>
            {seen && (
              <text className="ink-name-muted" x={middle} y={n2(y + height + 25)} textAnchor="middle">
                {`${seen[0]} × ${seen[1]}${mark}`}
              </text>
            )}
          </g>
        );
      })}
      {!sizes.length && (
        <text className="ink-note-bare-muted" x={size.width / 2} y={size.height / 2} textAnchor="middle">
          No screens in the tray
        </text>
      )}
    </svg>
  );
});

const take = ({ width, height }: Size) => setViewport({ width, height }, null, 'take a screen as the viewport');
