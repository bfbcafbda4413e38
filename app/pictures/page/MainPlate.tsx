import { degrees } from '../../../core/math/angle';
import { cameraInSpace, flatCamera } from '../../../formats/camera';
import { memo, useEffect, useLayoutEffect, useMemo, useRef, useState, type PointerEvent, type WheelEvent } from 'react';
import { flushSync } from 'react-dom';
import { clientToCss } from '../../../core/convert/pointer';
import { worldToViewRuf } from '../../../core/convert/project';
import type { Vec2 } from '../../../core/math/vec3';
import { currentMoment, usePart } from '../../state/tempo';
import { edit, endGesture } from '../../state/document';
import { followTo, stopFollowing, useFollow } from '../../state/follow';
import { usePointer } from '../../state/pointer';
import { readPointer } from '../../state/pointerReadout';
import { toggleSelected } from '../../state/selection';
import { anglesNow, goAhead, holdDistance, panBetween, scaleView, turnBetween } from '../../edits/camera';
import { bringUnder, pointUnder, turnWorld, wholeStep, zoomAbout } from '../../edits/camera2d';
import { plateMarks, rulerMarks } from '../compose/furniture';
import { FixedMarks, SetMarks } from './svgMarks';
import { plateSize, rulerX, rulerY, type Slot } from '../compose/slots';
import { viewIn } from '../compose/views';
import { useStanding, type Looked } from './Drawing';
import { Handles } from './Handles';

interface Props {
  /** The picture's size on the page, in CSS pixels. */
  readonly width: number;
  readonly height: number;
}

/**
 * Everything that lies over the camera's picture in the page: rulers, labels, probe. The hand in it
 * moves the camera.
 */
export function MainPlate({ slot, looked }: { slot: Slot; looked: Looked }) {
  const { width, height } = plateSize(slot);
  const layers = useStanding('main');
  const { wide } = usePart(({ frame }) => ({ wide: frame.viewport.width }));
  const scale = width / wide;
  // While it follows the pointer there is nothing of the probe to take hold of.
  const follows = useFollow((state) => state.gesture !== null);
  const [outerWidth, outerHeight] = [width + 2 * rulerX, height + 2 * rulerY];
  const plate = useMemo(() => plateMarks({ width, height }), [width, height]);
  return (
    <svg
      className="overlay"
      width={outerWidth}
      height={outerHeight}
      viewBox={`0 0 ${outerWidth} ${outerHeight}`}
      aria-label="Through the camera"
      role="group"
    >
      <g transform={`translate(${rulerX} ${rulerY})`}>
        <FixedMarks marks={plate} />
        <clipPath id="picture-clip">
          <rect width={width} height={height} />
        </clipPath>
        <PictureHand width={width} height={height} scale={scale} onHit={looked.onHit} />
        {layers.map(({ marks, within }, i) => (
          <g key={i} clipPath={within === 'picture' ? 'url(#picture-clip)' : undefined}>
            <SetMarks marks={marks} />
          </g>
        ))}
        <Rulers width={width} height={height} />
        <Handles
          picture="main"
          viewOf={(now) => viewIn('camera', slot, now, looked, looked.task(now))}
          ofTask={looked.ofTask}
          without={follows ? ['probe'] : []}
        />
      </g>
    </svg>
  );
}

/** How many measures are kept for whoever looks at them: the bench reads them while they come. */
const mostMeasures = 400;
let measures = 0;
/**
 * Measures from a pointer event to the numbers that follow from it; never more than a few are kept.
 */
function measured(start: number): void {
  if (measures++ >= mostMeasures) {
    performance.clearMeasures('pointer to numbers');
    measures = 1;
  }
  performance.measure('pointer to numbers', { start });
}

/**
 * What a drag does, from where it began: called with the pixel it has come to, and whether shift is
 * held.
 */
type Drag = (to: Vec2, shift: boolean, gesture: string) => void;

/** In space: turns the camera, with shift moves it across. */
function spaceDrag(from: Vec2): Drag {
  const start = anglesNow();
  const eye = cameraInSpace(currentMoment().project).position;
  const ahead = holdDistance(from);
  return (to, shift, gesture) =>
    shift ? panBetween(from, to, eye, ahead, gesture) : turnBetween(from, to, start, gesture);
}

/** On a flat world: takes the world along, with shift turns it about the focus. */
function flatDrag(from: Vec2): Drag {
  const world = pointUnder(from);
  const { anchor, rotation } = flatCamera(currentMoment().project);
  const bearing = ([x, y]: Vec2) => degrees(Math.atan2(anchor[1] - y, x - anchor[0]));
  return (to, shift, gesture) => {
    if (shift) turnWorld(rotation + bearing(to) - bearing(from), gesture);
    else if (world) bringUnder(world, to, gesture);
  };
}

/**
 * The picture under the hand: drag turns (or takes a flat world along), shift moves across (or
 * turns it), the wheel goes ahead (or zooms), a click probes.
 */
function PictureHand({ width, height, scale, onHit }: Props & { scale: number; onHit: Looked['onHit'] }) {
  const held = useRef<{ from: Vec2; drag: Drag; moved: boolean; gesture: string } | null>(null);
  const [dragging, setDragging] = useState(false);
  const wheel = useRef({ gesture: '', time: 0 });
  // Where the picture lies on the page, asked once for as long as it lies there: every asking would
  // have the page laid out in the middle of a move.
  const corner = useRef<Vec2 | null>(null);
  const forget = () => {
    corner.current = null;
  };
  useLayoutEffect(forget, [width, height, scale]);
  useEffect(() => {
    window.addEventListener('resize', forget);
    return () => window.removeEventListener('resize', forget);
  }, []);
  const pixelOf = (event: { currentTarget: Element; clientX: number; clientY: number }): Vec2 => {
    if (!corner.current) {
      const box = event.currentTarget.getBoundingClientRect();
      corner.current = [box.left, box.top];
    }
    return clientToCss({ canvas: corner.current, cssScale: scale }, [event.clientX, event.clientY]);
  };
  const onMove = (event: PointerEvent<SVGRectElement>) => {
    const start = performance.now();
    const css = pixelOf(event);
    const grip = held.current;
    // Rendered at once: what the hand does and what the numbers say belong to one moment.
    flushSync(() => {
      if (grip) {
        const far = Math.hypot(css[0] - grip.from[0], css[1] - grip.from[1]) * scale > 3;
        if (far || grip.moved) {
          grip.moved = true;
          grip.drag(css, event.shiftKey, grip.gesture);
        }
      }
      if (!grip) followTo(css);
      usePointer.setState({ css, here: true });
    });
    measured(start);
  };
  const onUp = (event: PointerEvent<SVGRectElement>) => {
    const grip = held.current;
    held.current = null;
    setDragging(false);
    endGesture();
    if (!grip || grip.moved) return;
    // What followed the pointer stays where it is clicked down.
    if (useFollow.getState().gesture !== null) return stopFollowing();
    if (event.ctrlKey || event.metaKey) selectAt(pixelOf(event));
    else probeAt(pixelOf(event), onHit);
  };
  return (
    <rect
      width={width}
      height={height}
      fill="transparent"
      style={{ cursor: dragging ? 'grabbing' : 'crosshair' }}
      data-testid="picture"
      onPointerEnter={forget}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        forget();
        const from = pixelOf(event);
        event.currentTarget.setPointerCapture(event.pointerId);
        const drag = currentMoment().flat ? flatDrag(from) : spaceDrag(from);
        held.current = { from, drag, moved: false, gesture: `drag ${performance.now()}` };
        setDragging(true);
      }}
      onPointerMove={onMove}
      onPointerUp={onUp}
      onPointerCancel={() => {
        held.current = null;
        setDragging(false);
        endGesture();
      }}
      onPointerLeave={() => usePointer.setState({ here: false })}
      onWheel={(event: WheelEvent) => {
        const now = performance.now();
        if (now - wheel.current.time > 400) wheel.current.gesture = `wheel ${now}`;
        wheel.current.time = now;
        const turn = Math.max(-3, Math.min(3, event.deltaY / 100));
        const { flat, project } = currentMoment();
        if (flat) {
          const { zoom } = flatCamera(project);
          if (!event.deltaY) return;
          zoomAbout(
            pixelOf(event),
            event.altKey ? wholeStep(zoom, turn < 0) : zoom * 1.06 ** -turn,
            wheel.current.gesture,
          );
        } else if (event.altKey) scaleView(1.06 ** turn, wheel.current.gesture);
        else goAhead(-0.04 * turn, wheel.current.gesture);
      }}
    />
  );
}

/** A click with Ctrl: selects the body under the pixel, or no longer. */
function selectAt(pixel: Vec2): void {
  const moment = currentMoment();
  const { hit } = readPointer(moment, pixel);
  if (hit) toggleSelected(moment.roots.get(hit.body)!);
}

/**
 * A click: probes what is under the pixel, and makes the pixel the one that goes back to the world.
 */
function probeAt(pixel: Vec2, onHit: Looked['onHit']): void {
  const moment = currentMoment();
  const { frame, project, roots } = moment;
  const reading = readPointer(moment, pixel);
  const { hit } = reading;
  const point = hit?.point ?? (reading.ground?.ok ? reading.ground.value : null);
  if (!point) return;
  const body = hit ? roots.get(hit.body)! : null;
  const name = body ? project.bodies.find(({ id }) => id === body)!.name : (project.ground?.name ?? 'a point');
  const gesture = `probe ${performance.now()}`;
  edit(
    `probe ${name}`,
    (draft) => {
      draft.probe = { body, drive: { rung: 'world', value: [...point] } };
      draft.back = { pixel: [...pixel], route: 'ahead', value: worldToViewRuf(frame, point)[2] };
    },
    gesture,
  );
  if (hit) onHit?.(hit, gesture);
  endGesture();
}

/** The rulers follow the viewport and the conventions alone: they are not rendered while the camera moves. */
const Rulers = memo(function Rulers({ width, height }: Props) {
  const { e, wide, high } = usePart(({ codec, frame: { viewport } }) => ({
    ...{ e: codec, wide: viewport.width, high: viewport.height },
  }));
  const marks = useMemo(
    () => rulerMarks(e, { width: wide, height: high }, { width, height }),
    [e, wide, high, width, height],
  );
  return <FixedMarks marks={marks} />;
});
