import { useContext, useId, useRef, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { Tempo } from '../state/derive';
import { cancelGesture, endGesture } from '../state/document';
import { useMoving } from '../state/pace';
import { Stood } from '../ui/stood';

/** What can be taken hold of in a picture goes with the hand while it holds one of them; otherwise it stands still until the hand lets go. */
export function GripTempo({ picture, children }: { picture: string; children: ReactNode }) {
  const stood = useContext(Stood);
  const held = useMoving(({ held }) => held !== null && held.grip && held.picture === picture);
  if (!stood) return null;
  return <Tempo value={held ? 'now' : 'still'}>{children}</Tempo>;
}

/** Called with where in the drawing the thing has been taken, in its pixels; one gesture is one step of undo. */
export type Move = (x: number, y: number, gesture: string) => void;

/** What a thing that can be grabbed needs: the pointer, the arrow keys, Escape to put it back. */
function useGrab(x: number, y: number, onMove: Move) {
  const id = useId();
  const count = useRef(0);
  const gesture = () => `grab ${id} ${count.current}`;
  const local = (event: PointerEvent<SVGElement>) => {
    const { left, top } = corner.current!;
    return { x: event.clientX - left, y: event.clientY - top };
  };
  // Where the drawing lies on the page, asked once when the thing is taken hold of.
  const corner = useRef<{ left: number; top: number } | null>(null);
  const offset = useRef<{ x: number; y: number } | null>(null);
  return {
    tabIndex: 0,
    onPointerDown: (event: PointerEvent<SVGElement>) => {
      if (event.button !== 0) return;
      event.stopPropagation();
      count.current++;
      event.currentTarget.setPointerCapture(event.pointerId);
      corner.current = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
      const p = local(event);
      offset.current = { x: x - p.x, y: y - p.y };
    },
    onPointerMove: (event: PointerEvent<SVGElement>) => {
      if (!offset.current) return;
      event.stopPropagation();
      const p = local(event);
      onMove(p.x + offset.current.x, p.y + offset.current.y, gesture());
    },
    onPointerUp: () => {
      offset.current = null;
      endGesture();
    },
    onKeyDown: (event: KeyboardEvent<SVGElement>) => {
      const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
      if (event.key === 'Escape') {
        cancelGesture(gesture());
        offset.current = null;
      }
      if (!by) return;
      event.preventDefault();
      const k = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
      onMove(x + by[0]! * k, y + by[1]! * k, gesture());
    },
    onBlur: endGesture,
  };
}

/** Something at a point that can be taken elsewhere. Says so on hover and focus. */
export function Handle({
  x,
  y,
  name,
  onMove,
  radius = 9,
  always = false,
  children,
}: {
  x: number;
  y: number;
  name: string;
  onMove: Move;
  radius?: number;
  always?: boolean;
  children?: ReactNode;
}) {
  const grab = useGrab(x, y, onMove);
  return (
    <g className={`handle${always ? ' always' : ''}`} role="button" aria-label={`Move ${name}`} {...grab}>
      <title>{`Drag ${name}`}</title>
      {children}
      <path className="shown" d={`M${x} ${y - 6}l6 6-6 6-6-6Z`} />
      <circle className="grab" cx={x} cy={y} r={radius} />
    </g>
  );
}

/** A line that can be taken elsewhere; its handle shows at `x, y`. */
export function GrabLine({
  path,
  x,
  y,
  name,
  cursor,
  onMove,
}: {
  path: string;
  x: number;
  y: number;
  name: string;
  cursor: string;
  onMove: Move;
}) {
  const grab = useGrab(x, y, onMove);
  return (
    <g className="handle" role="button" aria-label={`Move ${name}`} {...grab}>
      <title>{`Drag ${name}`}</title>
      <path className="grab-line" d={path} style={{ cursor }} />
      <path className="shown" d={`M${x} ${y - 6}l6 6-6 6-6-6Z`} />
    </g>
  );
}
