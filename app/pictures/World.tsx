import { flatCamera } from '../../formats/camera';
import type { Vec2, Vec3 } from '../../core/math/vec3';
import { moveProbe } from '../shell/actions';
import { useSituation } from '../state/derive';
import { setFocus, turnWorld, zoomAbout } from './camera2d';
import { DrawingSheet, Furniture } from './Drawing';
import { drawingPoint, type DrawingView, type Size } from './drawings';
import { inkedIn } from './construction';
import { GrabLine, GripTempo, Handle, type Move } from './Handle';
import { open } from './marks';
import { worldMarks, worldPlaces } from './worldMarks';

/** The plan of a flat world: all of it, with the camera's picture as a frame on it that can be taken hold of. */
export function World({ size, view }: { size: Size; view: DrawingView }) {
  const situation = useSituation();
  return (
    <DrawingSheet
      name="plan"
      label="World"
      size={size}
      view={view}
      inked={inkedIn('plan', situation)}
      marks={worldMarks(size, view, situation)}
    >
      <Furniture size={size} view={view} situation={situation} />
      <GripTempo picture="plan">
        <Grips size={size} view={view} />
      </GripTempo>
    </DrawingSheet>
  );
}

/** What can be taken hold of: the focus, the edges of what is seen, the turn, the probe. */
function Grips({ size, view }: { size: Size; view: DrawingView }) {
  const situation = useSituation();
  const { project, frame } = situation;
  const { drawing, corners, focused, probe } = worldPlaces(size, view, situation);
  const [lowerLeft, lowerRight, upperRight, upperLeft] = corners;
  const { anchor } = flatCamera(project);
  const pointAt = (x: number, y: number): Vec3 => drawingPoint(drawing, [x, y], [0, 0, 0]);
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
