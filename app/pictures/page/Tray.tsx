import './Tray.css';
import { memo, useMemo } from 'react';
import type { CameraFrame } from '../../../core/camera/frame';
import { setViewport } from '../../edits/viewport';
import { usePart } from '../../state/tempo';
import type { Look, Size } from '../compose/contract';
import { n2 } from '../compose/marks';
import { layTray } from '../compose/screens';
import type { OpenTask } from '../compose/taskMarks';
import { trayLayers } from '../compose/tray';
import { FixedMarks } from './svgMarks';

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
  const now = usePart(({ project, chain, flat }) => ({ project, chain, flat }));
  const layers = useMemo(
    () => trayLayers(size, frame, now, task, { selected, folds }),
    [size, frame, now, task, selected, folds],
  );
  const { sizes } = now.project.screens;
  const { places } = layTray(sizes, size);
  return (
    <svg
      className="overlay"
      width={size.width}
      height={size.height}
      viewBox={`0 0 ${size.width} ${size.height}`}
      role="group"
      aria-label="Screens"
    >
      {layers.map(({ marks, x, y, clip }, i) => (
        // A task's marks are cut off at the edge of their screen.
        <svg key={i} x={n2(x)} y={n2(y)} width={n2(clip.width)} height={n2(clip.height)}>
          <FixedMarks marks={marks} />
        </svg>
      ))}
      {sizes.map((screen, i) => {
        const { x, y, width, height } = places[i]!;
        return (
          <rect
            key={i}
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
        );
      })}
    </svg>
  );
});

const take = ({ width, height }: Size) => setViewport({ width, height }, null, 'take a screen as the viewport');
