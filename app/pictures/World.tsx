import { worldToPixel } from '../../core/convert/project';
import type { Vec2, Vec3 } from '../../core/math/vec3';
import { flatCamera } from '../../formats/project';
import { moveProbe } from '../shell/actions';
import { useSituation } from '../state/derive';
import { figure } from '../ui/figures';
import { unitMark } from '../wording';
import { setFocus, turnWorld, zoomAbout } from './camera2d';
import { DrawingSheet, Furniture } from './Drawing';
import { drawingPoint, pictureCorners, worldFrame, type DrawingView, type Size } from './drawings';
import { GrabLine, Handle, type Move } from './Handle';
import { around, place, textWidth, type Label, type Rect } from './labels';
import { closed, dimensionMarks, n2, open, probeMarks, type Mark } from './marks';

interface Word extends Label {
  readonly text: string;
  readonly className: string;
}

/** The plan of a flat world: all of it, with the camera's picture as a frame on it that can be taken hold of. */
export function World({ size, view }: { size: Size; view: DrawingView }) {
  const situation = useSituation();
  const { frame, chain, project } = situation;
  const { focus, anchor } = flatCamera(project);
  const drawing = worldFrame(view, size);
  const at = (p: Vec3): Vec2 => {
    const pixel = worldToPixel(drawing, p);
    return pixel.ok ? pixel.value : [0, 0];
  };
  const corners = pictureCorners(frame, 0).map(at) as [Vec2, Vec2, Vec2, Vec2];
  const [, lowerRight, upperRight, upperLeft] = corners;
  const focused = at([...focus, 0]);
  const probe = chain.ok ? at(chain.value.world) : null;
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
  const marks: Mark[] = [
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
  return (
    <DrawingSheet name="plan" label="World" size={size} view={view} inked="on-water" marks={marks}>
      <Furniture shared={{ size, view }} situation={situation} />
      <Grips
        corners={corners}
        focused={focused}
        anchor={anchor}
        probe={probe}
        pointAt={(x, y) => drawingPoint(drawing, [x, y], [0, 0, 0])}
      />
    </DrawingSheet>
  );
}

/** What can be taken hold of: the focus, the edges of what is seen, the turn, the probe. */
function Grips({
  corners: [lowerLeft, lowerRight, upperRight, upperLeft],
  focused,
  anchor,
  probe,
  pointAt,
}: {
  corners: readonly [Vec2, Vec2, Vec2, Vec2];
  focused: Vec2;
  anchor: Vec2;
  probe: Vec2 | null;
  pointAt: (x: number, y: number) => Vec3;
}) {
  const { project, frame } = useSituation();
  const { viewport: v } = frame;
  const { focus } = flatCamera(project);
  const middle = (a: Vec2, b: Vec2): Vec2 => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  /** An edge is so many pixels from the anchor: where it is taken to says how many there are to a unit. */
  const edge = (name: string, a: Vec2, b: Vec2, pixels: number, axis: 'right' | 'up') => {
    const [x, y] = middle(a, b);
    const onMove: Move = (px, py, gesture) => {
      const p = pointAt(px, py);
      const way = (p[0] - focus[0]) * frame[axis][0] + (p[1] - focus[1]) * frame[axis][1];
      const zoom = pixels / way;
      if (zoom > 0 && Number.isFinite(zoom)) zoomAbout(anchor, zoom, gesture);
    };
    // An edge that passes through the anchor stays where it is at any zoom.
    if (Math.abs(pixels) < 20) return null;
    return <GrabLine path={open([a, b])} x={x} y={y} name={name} cursor="move" onMove={onMove} />;
  };
  const [topX, topY] = middle(upperLeft, upperRight);
  const [bottomX, bottomY] = middle(lowerLeft, lowerRight);
  const tall = Math.hypot(topX - bottomX, topY - bottomY) || 1;
  const turner: Vec2 = [topX + ((topX - bottomX) / tall) * 22, topY + ((topY - bottomY) / tall) * 22];
  const up = pointAt(...turner);
  const start = Math.atan2(up[1] - focus[1], up[0] - focus[0]);
  const turn: Move = (x, y, gesture) => {
    const p = pointAt(x, y);
    const now = Math.atan2(p[1] - focus[1], p[0] - focus[0]);
    // The frame turns with the hand, so the world in it turns the other way.
    turnWorld(flatCamera(project).rotation - ((now - start) * 180) / Math.PI, gesture);
  };
  return (
    <>
      {edge('the left edge of what is seen', lowerLeft, upperLeft, -anchor[0], 'right')}
      {edge('the right edge of what is seen', lowerRight, upperRight, v.width - anchor[0], 'right')}
      {edge('the upper edge of what is seen', upperLeft, upperRight, anchor[1], 'up')}
      {edge('the lower edge of what is seen', lowerLeft, lowerRight, anchor[1] - v.height, 'up')}
      <path className="turner" d={open([[topX, topY], turner])} pointerEvents="none" />
      <Handle x={turner[0]} y={turner[1]} name="the turn of the camera" onMove={turn}>
        <circle className="turner" cx={turner[0]} cy={turner[1]} r="3" />
      </Handle>
      {probe && (
        <Handle
          x={probe[0]}
          y={probe[1]}
          name="the probe"
          onMove={(x, y, gesture) =>
            moveProbe(pointAt(x, y).map((n) => Number(n.toFixed(3))) as unknown as Vec3, gesture)
          }
        />
      )}
      <Handle
        x={focused[0]}
        y={focused[1]}
        name="the focus"
        onMove={(x, y, gesture) => {
          const p = pointAt(x, y);
          setFocus([p[0], p[1]], gesture);
        }}
      />
    </>
  );
}
