import type { CameraFrame } from '../../../core/camera/frame';
import { sizeAt, worldToViewRuf } from '../../../core/convert/project';
import type { Moment } from '../../state/moment';
import { unitMark } from '../../state/wording';
import { figure } from '../../ui/figures';
import type { Look, Size } from './contract';
import { rectangle } from './furniture';
import type { Rect } from './labels';
import { n2, type Mark } from './marks';
import { layTray, screenFrame } from './screens';
import { standingOf, type OpenTask } from './taskMarks';
import { pictureView } from './view';

/** Marks of the tray that are cut off together. Places are in the tray's pixels, `clip` in the layer's. */
export interface TrayLayer {
  readonly marks: readonly Mark[];
  readonly x: number;
  readonly y: number;
  readonly clip: Rect;
}

/**
 * Returns the marks of the tray: bars beside pictures that do not fill their screens, the task's marks on
 * each, and below each its size and how much of the world it shows at the probe.
 */
export function trayLayers(
  size: Size,
  frame: CameraFrame,
  { project, chain, flat }: Pick<Moment, 'project' | 'chain' | 'flat'>,
  task: OpenTask | null,
  look: Look,
): TrayLayer[] {
  const { fit, sizes } = project.screens;
  const layer = (marks: readonly Mark[]): TrayLayer => ({
    ...{ marks, x: 0, y: 0, clip: { x: 0, y: 0, width: size.width, height: size.height } },
  });
  if (!sizes.length)
    return [
      layer([
        {
          ...{ ink: 'note-bare-muted', x: size.width / 2, y: size.height / 2, anchor: 'middle' },
          text: 'No screens in the tray',
        },
      ]),
    ];
  const { scale, places } = layTray(sizes, size);
  const probe = chain.ok ? chain.value.world : null;
  const distance = probe && worldToViewRuf(frame, probe)[2];
  const ahead = distance !== null && distance > 0 ? distance : null;
  const isKnown = frame.kind === 'orthographic' || ahead !== null;
  // A unit without a short mark would have neighbours touch; the worksheet names it.
  const short = unitMark(project.unit);
  const unit = short.length > 2 ? '' : ` ${short}`;
  return sizes.flatMap((screen, i): TrayLayer[] => {
    const { x, y, width, height } = places[i]!;
    const made = screenFrame(frame, fit, screen, flat);
    const middle = x + width / 2;
    const own: Mark[] = [];
    const layers: TrayLayer[] = [];
    if (made) {
      const { viewport: v } = made;
      const [w, h] = [v.width * scale, v.height * scale];
      const [left, top] = [x + v.x * scale, y + v.y * scale];
      if (v.width < screen.width || v.height < screen.height)
        own.push({
          ink: 'screen-bars',
          d: `${rectangle(x, y, width, height)}M${n2(left)} ${n2(top)}v${n2(h)}h${n2(w)}v${n2(-h)}Z`,
        });
      const view = pictureView(`screen/${i}`, made, { width: w, height: h });
      const marks = standingOf(task, view, look).marks ?? [];
      if (marks.length) layers.push({ marks, x: left, y: top, clip: { x: 0, y: 0, width: w, height: h } });
    }
    own.push({ ink: 'neat-line', d: rectangle(x, y, width, height) });
    const below: Mark[] = [
      { ink: 'figure-bare', x: middle, y: y + height + 12, anchor: 'middle', text: `${screen.width}×${screen.height}` },
    ];
    if (made && isKnown) {
      const [w, h] = sizeAt(made, ahead ?? 1).map((side) => figure(side, 0));
      below.push({
        ...{ ink: 'name-muted', x: middle, y: y + height + 25, anchor: 'middle', text: `${w} × ${h}${unit}` },
      });
    }
    return [layer(own.slice(0, -1)), ...layers, layer([...own.slice(-1), ...below])];
  });
}
