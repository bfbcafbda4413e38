import { flatCamera } from '../../../formats/camera';
import type { Vec2 } from '../../../core/math/vec3';
import type { Moment } from '../../state/moment';
import { figure } from '../../ui/figures';
import { unitMark } from '../../state/wording';
import { placeIn } from './drawingGeometry';
import type { PictureView, Word } from './contract';
import { pictureCorners } from './drawings';
import type { Rect } from './labels';
import { dimensionMarks } from './dimension';
import { closed, n2, probeMarks, type Mark } from './marks';

/** Where in the plan of a flat world the things lie that can be taken hold of. */
export function worldPlaces(view: PictureView, { frame, chain, project }: Moment) {
  const at = placeIn(view);
  return {
    corners: pictureCorners(frame, 0).map(at) as [Vec2, Vec2, Vec2, Vec2],
    focused: at([...flatCamera(project).focus, 0]),
    probe: chain.ok ? at(chain.value.world) : null,
  };
}

/**
 * What is drawn over the plan of a flat world: the camera's picture as a frame with its sides, the
 * focus, the probe.
 */
export function worldMarks(view: PictureView, moment: Moment): { marks: Mark[]; words: Word[]; taken: Rect[] } {
  const { frame, project } = moment;
  const { corners, focused, probe } = worldPlaces(view, moment);
  const [, lowerRight, upperRight, upperLeft] = corners;
  const { extents: e } = frame;
  const mark = unitMark(project.unit);
  const side = (v: number) => `${figure(v, Number.isInteger(v) ? 0 : v < 10 ? 2 : 1)} ${mark}`;
  const words: Word[] = [];
  const taken: Rect[] = [focused, ...(probe ? [probe] : [])].map(([x, y]) => ({
    x: x - 9,
    y: y - 9,
    width: 18,
    height: 18,
  }));
  const name = project.bodies.find(({ id }) => id === project.probe.body)?.name ?? 'Free point';
  if (probe) words.push({ text: name, at: probe, ink: 'name-strong', priority: 0 });
  words.push({ text: 'focus', at: focused, ink: 'note', priority: 5 });
  // The dimension lines stand outside the frame, along its upper and its right edge.
  const beside = (a: Vec2, b: Vec2, by: number): [Vec2, Vec2] => {
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const long = Math.hypot(dx, dy) || 1;
    const [nx, ny] = [(dy / long) * by, (-dx / long) * by];
    return [
      [a[0] + nx, a[1] + ny],
      [b[0] + nx, b[1] + ny],
    ];
  };
  const [above, right] = [beside(upperLeft, upperRight, 9), beside(lowerRight, upperRight, -11)];
  const marks: Mark[] = [
    { ink: 'frustum-fill', d: closed(corners) },
    { ink: 'frustum-line', d: closed(corners) },
    ...dimensionMarks(...above, side(e.right - e.left), { taken }),
    ...dimensionMarks(...right, side(e.top - e.bottom), { taken }),
    {
      ink: 'anchor',
      d: `M${n2(focused[0] - 9)} ${n2(focused[1])}h18M${n2(focused[0])} ${n2(focused[1] - 9)}v18`,
    },
    ...(probe ? probeMarks(probe, 5.5) : []),
  ];
  return { marks, words, taken };
}
