import { flatCamera } from '../../formats/camera';
import type { Vec2 } from '../../core/math/vec3';
import type { Situation } from '../state/situation';
import { figure } from '../ui/figures';
import { unitMark } from '../wording';
import { placeIn } from './construction';
import { pictureCorners, worldFrame, type DrawingView, type Size } from './drawings';
import { around, place, textWidth, type Label, type Rect } from './labels';
import { closed, dimensionMarks, n2, probeMarks, type Mark } from './marks';

interface Word extends Label {
  readonly text: string;
  readonly className: string;
}

/** Where in the plan of a flat world the things lie that can be taken hold of. */
export function worldPlaces(size: Size, view: DrawingView, { frame, chain, project }: Situation) {
  const drawing = worldFrame(view, size);
  const at = placeIn(drawing);
  return {
    drawing,
    corners: pictureCorners(frame, 0).map(at) as [Vec2, Vec2, Vec2, Vec2],
    focused: at([...flatCamera(project).focus, 0]),
    probe: chain.ok ? at(chain.value.world) : null,
  };
}

/** What is drawn over the plan of a flat world: the camera's picture as a frame with its sides, the focus, the probe. */
export function worldMarks(size: Size, view: DrawingView, situation: Situation): Mark[] {
  const { frame, project } = situation;
  const { corners, focused, probe } = worldPlaces(size, view, situation);
  const [, lowerRight, upperRight, upperLeft] = corners;
  const { extents: e } = frame;
  const mark = unitMark(project.unit);
  const side = (v: number) => `${figure(v, Number.isInteger(v) ? 0 : v < 10 ? 2 : 1)} ${mark}`;
  const words: Word[] = [];
  const word = (key: string, text: string, p: Vec2, className: string) =>
    words.push({ key, text, x: p[0], y: p[1], className, spots: around, width: textWidth(text) });
  const taken: Rect[] = [focused, ...(probe ? [probe] : [])].map(([x, y]) => ({
    x: x - 9,
    y: y - 9,
    width: 18,
    height: 18,
  }));
  if (probe)
    word(
      'probe',
      project.bodies.find(({ id }) => id === project.probe.body)?.name ?? 'Free point',
      probe,
      'lb b6 halo',
    );
  word('focus', 'focus', focused, 'se halo');
  const { placed } = place(words, { x: 3, y: 3, width: size.width - 6, height: size.height - 6 }, taken);
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
  return [
    { className: 'fru', d: closed(corners) },
    { className: 'frul', d: closed(corners) },
    ...dimensionMarks(...above, side(e.right - e.left), { at: 0.27 }),
    ...dimensionMarks(...right, side(e.top - e.bottom)),
    {
      className: 'anchor',
      d: `M${n2(focused[0] - 9)} ${n2(focused[1])}h18M${n2(focused[0])} ${n2(focused[1] - 9)}v18`,
    },
    ...(probe ? probeMarks(probe, 5.5) : []),
    ...placed.map(({ label, at: { x, y }, spot }): Mark => ({
      className: label.className,
      x,
      y,
      anchor: spot.anchor,
      text: label.text,
    })),
  ];
}
