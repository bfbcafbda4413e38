import {
  memo,
  Suspense,
  type ComponentType,
  useMemo,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
  type PointerEvent,
  type WheelEvent,
} from 'react';
import { flushSync } from 'react-dom';
import type { OverlayProps } from '../tasks';
import { clientToCss } from '../../core/convert/pointer';
import { horizonPixels } from '../../core/order/horizon';
import { partsToWorld, pictureToParts, pixelsPerUnit, worldToParts, worldToPixel } from '../../core/convert/project';
import { boundingSphere, localBounds } from '../../core/bodies/body';
import type { CameraFrame } from '../../core/camera/frame';
import { cameraInSpace, flatCamera, type ProjectBody } from '../../formats/project';
import { transformPoint } from '../../core/math/mat4';
import type { Vec2, Vec3 } from '../../core/math/vec3';
import { currentSituation, usePart, useSituation, type Situation } from '../state/derive';
import { edit, endGesture } from '../state/document';
import { followTo, stopFollowing, useFollow } from '../state/follow';
import { readPointer, usePointer } from '../state/pointer';
import { toggleSelected, useSelection } from '../state/selection';
import { driveFromPixel } from '../shell/actions';
import { figure } from '../ui/figures';
import { anglesNow, goAhead, holdDistance, panBetween, scaleView, turnBetween } from './camera';
import { bringUnder, pointUnder, turnWorld, wholeStep, zoomAbout } from './camera2d';
import { Anchor, tileFigures } from './FlatPlate';
import { Handle } from './Handle';
import { around, overlap, place, textWidth, type Label, type Rect } from './labels';
import { PaintedMarks, SetMarks, usePainting } from './ink';
import { n2, probeMarks, type Mark } from './marks';

/** The chrome round the picture: ruler fields left and right, top and bottom. */
export const rulerX = 40;
export const rulerY = 26;

interface Props {
  /** The picture's size on the page, in CSS pixels. */
  readonly width: number;
  readonly height: number;
}

/** Everything that lies over the camera's picture: rulers, labels, probe, pointer. The hand in it moves the camera. */
export function MainPlate({ width, height, Overlay }: Props & { Overlay?: ComponentType<OverlayProps> | undefined }) {
  const situation = useSituation();
  const scale = width / situation.frame.viewport.width;
  const ground = useMemo(() => (situation.flat ? [] : groundMarks(situation, width, scale)), [situation, width, scale]);
  const words = useWords(width, height, scale);
  const painting = usePainting();
  const [outer, inner] = [
    { w: width + 2 * rulerX, h: height + 2 * rulerY },
    { x: rulerX, y: rulerY },
  ];
  return (
    <>
      <svg
        className="overlay"
        width={outer.w}
        height={outer.h}
        viewBox={`0 0 ${outer.w} ${outer.h}`}
        aria-label="Through the camera"
        role="group"
      >
        <path
          className="plate-field"
          fillRule="evenodd"
          d={`M0 0H${outer.w}V${outer.h}H0ZM${inner.x} ${inner.y}V${inner.y + height}H${inner.x + width}V${inner.y}Z`}
        />
        <rect className="plate-outer" x=".75" y=".75" width={outer.w - 1.5} height={outer.h - 1.5} />
        <rect className="plate-inner" x="4.5" y="4.5" width={outer.w - 9} height={outer.h - 9} />
        <g transform={`translate(${inner.x} ${inner.y})`}>
          <clipPath id="picture-clip">
            <rect width={width} height={height} />
          </clipPath>
          <PictureHand width={width} height={height} scale={scale} />
          <Suspense>{Overlay && <Overlay width={width} height={height} scale={scale} />}</Suspense>
          {!painting && (
            <g pointerEvents="none">
              <g clipPath="url(#picture-clip)">
                <SetMarks marks={ground} />
              </g>
              <SetMarks marks={words} />
            </g>
          )}
          <Rulers width={width} height={height} scale={scale} />
          {situation.flat && <Anchor scale={scale} />}
          <ProbeHandle width={width} height={height} scale={scale} />
        </g>
      </svg>
      {painting && (
        <PaintedMarks
          layers={[{ marks: ground, clip: { x: 0, y: 0, width, height } }, { marks: words }]}
          width={outer.w}
          height={outer.h}
          left={inner.x}
          top={inner.y}
        />
      )}
      <PointerSheet width={width} height={height} scale={scale} />
    </>
  );
}

/** Where the far plane cuts the ground, as pixels of the viewport; null where it does not within the picture. */
function farLine({ frame, project }: Situation): [Vec2, Vec2] | null {
  const { ground } = project;
  if (!ground || frame.far === null) return null;
  const far = frame.far;
  const corner = (x: number, y: number) => partsToWorld(frame, pictureToParts(frame, x, y, far));
  const corners: Vec3[] = [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)];
  const points: Vec3[] = [];
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % 4]!;
    const [ha, hb] = [a[1] - ground.height, b[1] - ground.height];
    if (ha < 0 === hb < 0) return;
    const t = ha / (ha - hb);
    points.push([a[0] + (b[0] - a[0]) * t, ground.height, a[2] + (b[2] - a[2]) * t]);
  });
  const [a, b] = points.map((p) => worldToPixel(frame, p));
  if (!a?.ok || !b?.ok) return null;
  return a.value[0] <= b.value[0] ? [a.value, b.value] : [b.value, a.value];
}

/** The horizon of the ground, and how far of it is in the picture. */
function groundMarks(situation: Situation, width: number, scale: number): Mark[] {
  const { frame, project } = situation;
  const horizon = project.ground ? horizonPixels(frame, [0, 1, 0]) : null;
  const far = farLine(situation);
  const path = ([a, b]: [Vec2, Vec2]) =>
    `M${n2(a[0] * scale)} ${n2(a[1] * scale)}L${n2(b[0] * scale)} ${n2(b[1] * scale)}`;
  const at = ([a, b]: [Vec2, Vec2], x: number): Vec2 => {
    const t = Math.max(0, Math.min(1, (x / scale - a[0]) / (b[0] - a[0] || 1)));
    return [(a[0] + (b[0] - a[0]) * t) * scale, (a[1] + (b[1] - a[1]) * t) * scale];
  };
  const [hx, hy] = horizon ? at(horizon, 10) : [0, 0];
  const [fx, fy] = far ? at(far, width * 0.3) : [0, 0];
  const marks: Mark[] = [];
  if (horizon)
    marks.push({ className: 'horz', d: path(horizon) }, { className: 'se m2 halo', x: hx, y: hy - 4, text: 'horizon' });
  if (far) marks.push({ className: 'farl', d: path(far) });
  if (far && (!horizon || Math.abs(fy - hy) > 16))
    marks.push({
      className: 'se m2 halo',
      x: fx,
      y: fy - 4,
      text: `far limit ${figure(frame.far!, Number.isInteger(frame.far) ? 0 : 1)}`,
    });
  return marks;
}

/** What a drag does, from where it began: called with the pixel it has come to, and whether shift is held. */
type Drag = (to: Vec2, shift: boolean, gesture: string) => void;

/** In space: turns the camera, with shift moves it across. */
function spaceDrag(from: Vec2): Drag {
  const start = anglesNow();
  const eye = cameraInSpace(currentSituation().project).position;
  const ahead = holdDistance(from);
  return (to, shift, gesture) =>
    shift ? panBetween(from, to, eye, ahead, gesture) : turnBetween(from, to, start, gesture);
}

/** On a flat world: takes the world along, with shift turns it about the focus. */
function flatDrag(from: Vec2): Drag {
  const world = pointUnder(from);
  const { anchor, rotation } = flatCamera(currentSituation().project);
  const bearing = ([x, y]: Vec2) => (Math.atan2(anchor[1] - y, x - anchor[0]) * 180) / Math.PI;
  return (to, shift, gesture) => {
    if (shift) turnWorld(rotation + bearing(to) - bearing(from), gesture);
    else if (world) bringUnder(world, to, gesture);
  };
}

/** The picture under the hand: drag turns (or takes a flat world along), shift moves across (or turns it), the wheel goes ahead (or zooms), a click probes. */
function PictureHand({ width, height, scale }: Props & { scale: number }) {
  const held = useRef<{ from: Vec2; drag: Drag; moved: boolean; gesture: string } | null>(null);
  const [dragging, setDragging] = useState(false);
  const wheel = useRef({ gesture: '', time: 0 });
  // Where the picture lies on the page, asked once for as long as it lies there: every asking would have the page laid out in the middle of a move.
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
    performance.mark('pointer');
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
    performance.measure('pointer to numbers', 'pointer');
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
    else probeAt(pixelOf(event));
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
        const drag = currentSituation().flat ? flatDrag(from) : spaceDrag(from);
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
        const { flat, project } = currentSituation();
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
  const situation = currentSituation();
  const { hit } = readPointer(situation, pixel);
  if (hit) toggleSelected(situation.roots.get(hit.body)!);
}

/** A click: probes what is under the pixel, and makes the pixel the one that goes back to the world. */
function probeAt(pixel: Vec2): void {
  const situation = currentSituation();
  const { frame, project, roots } = situation;
  const reading = readPointer(situation, pixel);
  const { hit } = reading;
  const point = hit?.point ?? (reading.ground?.ok ? reading.ground.value : null);
  if (!point) return;
  const body = hit ? roots.get(hit.body)! : null;
  const name = body ? project.bodies.find(({ id }) => id === body)!.name : (project.ground?.name ?? 'a point');
  edit(`probe ${name}`, (draft) => {
    draft.probe = { body, drive: { rung: 'world', value: [...point] } };
    draft.back = { pixel: [...pixel], route: 'ahead', value: worldToParts(frame, point)[2] };
  });
}

function ProbeHandle({ width, height, scale }: Props & { scale: number }) {
  const { chain } = useSituation();
  // While it follows the pointer there is nothing to take hold of.
  const follows = useFollow((state) => state.gesture !== null);
  if (follows || !chain.ok || !chain.value.pixel.ok) return null;
  const [x, y] = chain.value.pixel.value.map((v) => v * scale) as [number, number];
  if (x < -4 || y < -4 || x > width + 4 || y > height + 4) return null;
  return (
    <Handle
      x={x}
      y={y}
      name="the probe, its distance ahead kept"
      radius={12}
      onMove={(px, py, gesture) => driveFromPixel([px / scale, py / scale], gesture)}
    />
  );
}

interface Word extends Label {
  readonly text: string;
  readonly px: number;
  readonly py: number;
}

interface Landmark {
  readonly id: string;
  readonly name: string;
  /** The handle, then the middles and corners of the body's and its parts' own boxes, in the world. */
  readonly points: readonly Vec3[];
  readonly radius: number;
}

/** What can be named in the picture: bodies that are no part of another. */
function landmarksOf(
  bodies: readonly ProjectBody[],
  placed: Situation['placed'],
  roots: Situation['roots'],
): Landmark[] {
  const found = new Map<string, { id: string; name: string; points: Vec3[]; radius: number }>();
  for (const { id, name, handle } of bodies) {
    const one = placed.get(id)!;
    const root = roots.get(id)!;
    const { centre, half } = localBounds(one.body.shape);
    const at = (x: number, y: number, z: number) =>
      transformPoint(one.toWorld, [centre[0] + half[0] * x, centre[1] + half[1] * y, centre[2] + half[2] * z]);
    const signs = [-1, 1] as const;
    const corners = signs.flatMap((x) => signs.flatMap((y) => signs.map((z) => at(x, y, z))));
    if (root === id)
      found.set(id, { id, name, points: [transformPoint(one.toWorld, handle)], radius: boundingSphere(one).radius });
    // A part may be listed before what it is a part of.
    found.get(root)?.points.push(at(0, 0, 0), ...corners);
  }
  return [...found.values()];
}

/** Where in the picture a landmark is named: at its handle, or at the point of it that lies nearest the middle of what is in the picture. */
function shownSpot(frame: CameraFrame, points: readonly Vec3[]): Vec2 | null {
  const { width, height } = frame.viewport;
  const seen: Vec2[] = [];
  for (const [i, p] of points.entries()) {
    if (worldToParts(frame, p)[2] < frame.near) continue;
    const pixel = worldToPixel(frame, p);
    if (!pixel.ok) continue;
    const [x, y] = pixel.value;
    if (x < 0 || y < 0 || x > width || y > height) continue;
    if (i === 0) return pixel.value;
    seen.push(pixel.value);
  }
  if (!seen.length) return null;
  const middle = [0, 1].map((i) => seen.reduce((sum, p) => sum + p[i as 0 | 1], 0) / seen.length) as [number, number];
  const off = (p: Vec2) => Math.hypot(p[0] - middle[0], p[1] - middle[1]);
  return seen.reduce((best, p) => (off(p) < off(best) ? p : best));
}

/** The least radius on the page, in pixels, that a body must show to be named. */
const leastNamed = 10;
/** The most names that are tried: more find no room. */
const mostNamed = 60;

/** The names in the picture: the probe's first, then the nearest; bodies off the picture at its edge; the rest counted. */
function useWords(width: number, height: number, scale: number): Mark[] {
  const situation = useSituation();
  const { frame, project, placed, roots, chain, flat, expression: e } = situation;
  const selected = useSelection((state) => state.ids);
  const landmarks = useMemo(() => landmarksOf(project.bodies, placed, roots), [project.bodies, placed, roots]);
  return useMemo(() => {
    const bounds: Rect = { x: 3, y: 3, width: width - 6, height: height - 6 };
    // The line that counts what has no name keeps its place.
    const taken: Rect[] = [{ x: width - 206, y: height - 22, width: 206, height: 20 }];
    if (flat) {
      const [x, y] = flatCamera(project).anchor;
      taken.push({ x: x * scale - 9, y: y * scale - 9, width: 18, height: 18 });
    }
    const probe = chain.ok && chain.value.pixel.ok && !chain.value.outside.length ? chain.value.pixel.value : null;
    const probeRoot = project.probe.body === null ? null : roots.get(project.probe.body);
    let probeLabel: { x: number; y: number; anchor: 'start' | 'middle' | 'end' } | null = null;
    const probeName = project.bodies.find(({ id }) => id === project.probe.body)?.name ?? 'Free point';
    if (probe) {
      const [x, y] = [probe[0] * scale, probe[1] * scale];
      taken.push({ x: x - 17, y: y - 17, width: 34, height: 34 });
      const wide = Math.max(textWidth(probeName) + 8, 104);
      // Beside the mark, left for choice; where neither side has room, above or below it.
      const side = x - 22 - wide > 0 ? 'end' : x + 20 + wide < width ? 'start' : 'middle';
      const beside = side === 'middle' ? (y > 60 ? y - 34 : y + 34) : y;
      probeLabel = {
        x: side === 'end' ? x - 20 : side === 'start' ? x + 20 : Math.max(wide / 2, Math.min(width - wide / 2, x)),
        y: Math.max(16, Math.min(height - 14, beside)),
        anchor: side,
      };
      const left = side === 'end' ? x - 20 - wide : side === 'start' ? x + 18 : probeLabel.x - wide / 2;
      taken.push({ x: left, y: probeLabel.y - 17, width: wide, height: 30 });
    }
    const inside: { word: Word; ahead: number; apparent: number; isPoint: boolean }[] = [];
    const outside: { word: Word; apparent: number; ahead: number; angle: number; ex: number; ey: number }[] = [];
    for (const { id, name, points, radius } of landmarks) {
      if (id === probeRoot) continue;
      const parts = worldToParts(frame, points[0]!);
      // The handle if it is in the picture, else the middle of what is.
      const spot = shownSpot(frame, points);
      const far = frame.far !== null && parts[2] > frame.far;
      const apparent = radius * pixelsPerUnit(frame, Math.hypot(...parts))[0] * scale;
      if (spot) {
        const [x, y] = [spot[0] * scale, spot[1] * scale];
        const text = far ? `${name}, beyond far` : name;
        inside.push({
          apparent,
          // A point's mark is as large wherever it is.
          isPoint: radius === 0,
          // On a flat world the nearest are those nearest the middle.
          ahead: flat ? Math.hypot(...parts) : parts[2],
          word: { key: id, x, y, px: x, py: y, text, width: textWidth(text), spots: around },
        });
        continue;
      }
      // Behind the eye too, the way to turn is where the point lies to the right and above.
      const pixel = worldToPixel(frame, points[0]!);
      const [cx, cy] = [width / 2, height / 2];
      const [dx, dy] = pixel.ok ? [pixel.value[0] * scale - cx, pixel.value[1] * scale - cy] : [parts[0], -parts[1]];
      const k = Math.min(cx / Math.max(1e-9, Math.abs(dx)), cy / Math.max(1e-9, Math.abs(dy)));
      const [ex, ey] = [cx + dx * k, cy + dy * k];
      const spots =
        Math.abs(Math.abs(dx) * k - cx) < 0.5
          ? [{ dx: dx > 0 ? -25 : 25, dy: 0, anchor: dx > 0 ? ('end' as const) : ('start' as const) }]
          : [0, -60, 60].map((shift) => ({ dx: shift + 8, dy: dy > 0 ? -20 : 20, anchor: 'middle' as const }));
      outside.push({
        apparent,
        ahead: Math.hypot(...parts),
        angle: (Math.atan2(dy, dx) * 180) / Math.PI,
        ex,
        ey,
        word: {
          key: id,
          x: ex,
          y: Math.max(10, Math.min(height - 10, ey)),
          px: ex,
          py: ey,
          text: name,
          width: textWidth(name) + 14,
          spots,
        },
      });
    }
    // What is too small to be told apart gets no name before it is come nearer to.
    const chosen = ({ word }: { word: Word }) => selected.includes(word.key);
    const large = inside
      .filter((one) => one.apparent >= leastNamed || one.isPoint || chosen(one))
      .sort((a, b) => Number(chosen(b)) - Number(chosen(a)) || a.ahead - b.ahead)
      .slice(0, mostNamed);
    const near = outside.filter(({ apparent }) => apparent >= leastNamed).sort((a, b) => a.ahead - b.ahead);
    const named = place(
      large.map(({ word }) => word),
      bounds,
      taken,
    );
    const edge = place(
      near.slice(0, 6).map(({ word }) => word),
      { x: 0, y: 0, width, height },
      [...taken, ...named.placed.map(({ box }) => box)],
    );
    const filled = [...taken, ...named.placed.map(({ box }) => box), ...edge.placed.map(({ box }) => box)];
    const figures = (flat ? tileFigures(situation, width, height, scale) : []).filter(
      ({ x, y }) => !filled.some((box) => overlap(box, { x: x - 14, y: y - 7, width: 28, height: 14 })),
    );
    const marks: Mark[] = figures.map(({ x, y, text }) => ({
      className: 'sounding',
      x,
      y: y + 4,
      anchor: 'middle',
      text,
    }));
    for (const { label, at, spot, box } of named.placed)
      marks.push(
        {
          className: 'lead',
          d: `M${n2(label.px)} ${n2(label.py)}L${n2(spot.anchor === 'end' ? box.x + box.width - 1 : box.x + 1)} ${n2(at.y - 4)}`,
        },
        { className: 'ldot', x: label.px - 1, y: label.py - 1, d: 'M0 0h2v2h-2Z' },
        {
          className: `lb halo${selected.includes(label.key) ? ' chosen' : ''}`,
          x: at.x,
          y: at.y,
          anchor: spot.anchor,
          text: label.text,
        },
      );
    for (const { label, box } of edge.placed) {
      const { angle, ex, ey } = outside.find(({ word }) => word === label)!;
      const [x, y] = [Math.max(6, Math.min(width - 6, ex)), Math.max(6, Math.min(height - 6, ey))];
      marks.push(
        { className: 'idx', x, y, turn: angle, d: 'M5 0L-3 -3.5V3.5Z' },
        // The ring of what is outside.
        {
          className: 'edge-ring',
          x: box.x + 7,
          y: box.y + 7.5,
          d: 'M3.825 0A3.825 3.825 0 1 1 -3.825 0A3.825 3.825 0 1 1 3.825 0Z',
        },
        { className: 'lb halo', x: box.x + 15, y: box.y + 11.5, text: label.text },
      );
    }
    const [unnamed, off] = [inside.length - named.placed.length, outside.length - edge.placed.length];
    if (unnamed + off > 0)
      marks.push({
        className: 'se m2 halo',
        x: width - 8,
        y: height - 8,
        anchor: 'end',
        text: [unnamed ? `${unnamed} more in view` : '', off ? `${off} more off the picture` : '']
          .filter(Boolean)
          .join(', '),
      });
    if (probe && probeLabel) {
      const { x, y, anchor } = probeLabel;
      marks.push(...probeMarks([probe[0] * scale, probe[1] * scale], 8), {
        className: 'lb b6 halo',
        x,
        y: y - 5,
        anchor,
        text: probeName,
      });
      if (chain.ok && chain.value.picture.ok) {
        const { across, upward } = chain.value.picture.value;
        const screen = e.toScreen(frame.viewport, across, upward);
        marks.push({ className: 'nm bt halo', x, y: y + 9, anchor, text: screen.map((v) => figure(v, 2)).join(', ') });
      }
    }
    return marks;
  }, [situation, frame, flat, selected, landmarks, project, roots, chain, e, width, height, scale]);
}

const chequer = 4;

/** A block of the pixel rulers: the round number of pixels that is at least 40 px on the page. */
const blockOf = (scale: number) => [10, 20, 50, 100, 200, 500, 1000, 2000].find((b) => b * scale >= 40) ?? 5000;

/** Pixels above and left, NDC below and right, in the conventions in force. */
const Rulers = memo(function Rulers({ width, height, scale }: Props & { scale: number }) {
  // The viewport and the conventions alone: while the camera is moved nothing here is drawn anew.
  const { e, wide, high } = usePart(({ expression, frame: { viewport } }) => ({
    ...{ e: expression, wide: viewport.width, high: viewport.height },
  }));
  const v = { x: 0, y: 0, width: wide, height: high };
  const block = blockOf(scale);
  const across = (user: number) => ((e.fromScreen(v, [user, 0])[0] + 1) / 2) * width;
  const down = (user: number) => ((1 - e.fromScreen(v, [0, user])[1]) / 2) * height;
  let [pixels, ndc, ticks] = ['', '', ''];
  for (let u = 0; u <= v.width; u += block / 5) {
    const x = across(u);
    const major = Math.abs(u / block - Math.round(u / block)) < 1e-9;
    if (x < -0.01 || x > width + 0.01) continue;
    ticks += `M${n2(x)} ${-chequer}v${major ? -4 : -2}`;
    if (major && Math.round(u / block) % 2 === 0) {
      pixels += `M${n2(x)} ${-chequer}H${n2(Math.min(width, across(u + block)))}V0H${n2(x)}Z`;
    }
  }
  for (let u = 0; u <= v.height; u += block / 5) {
    const y = down(u);
    const major = Math.abs(u / block - Math.round(u / block)) < 1e-9;
    if (y < -0.01 || y > height + 0.01) continue;
    ticks += `M${-chequer} ${n2(y)}h${major ? -4 : -2}`;
    if (major && Math.round(u / block) % 2 === 0)
      pixels += `M${-chequer} ${n2(y)}V${n2(Math.max(0, Math.min(height, down(u + block))))}H0V${n2(y)}Z`;
  }
  for (let i = 0; i < 8; i += 2)
    ndc += `M${n2((i * width) / 8)} ${height}h${n2(width / 8)}v${chequer}h${n2(-width / 8)}ZM${width} ${n2(((i + 1) * height) / 8)}v${n2(height / 8)}h${chequer}v${n2(-height / 8)}Z`;
  for (let i = -20; i <= 20; i++) {
    const long = i % 5 ? 2 : 4;
    ticks += `M${n2(((i / 20 + 1) / 2) * width)} ${height + chequer}v${long}M${width + chequer} ${n2(((1 - i / 20) / 2) * height)}h${long}`;
  }
  return (
    <g pointerEvents="none">
      <path
        className="zebf"
        fillRule="evenodd"
        d={`M${-chequer} ${-chequer}H${width + chequer}V${height + chequer}H${-chequer}ZM0 0V${height}H${width}V0Z`}
      />
      <path className="zeb" d={pixels + ndc} />
      <rect className="zebo" x={-chequer} y={-chequer} width={width + 2 * chequer} height={height + 2 * chequer} />
      <rect className="neat" width={width} height={height} />
      <path className="tick" d={ticks} />
      <text className="ru" x={-33} y={-10.5}>
        css
      </text>
      <text className="ru" x={width + 34} y={height + 19} textAnchor="end">
        NDC
      </text>
    </g>
  );
});

/** NDC as it stands on the rulers: no leading zero, so that the side fields keep their width. */
const shortNdc = (v: number, decimals: number) =>
  v === 0 ? '0' : figure(v, Math.abs(v) === 1 ? 0 : decimals).replace('0.', '.');

/** The figures of the rulers; one gives way where the pointer's tag stands. */
function rulerFigures({ expression: e, frame }: Situation, css: Vec2, width: number, height: number): Mark[] {
  const { viewport: v } = frame;
  const block = blockOf(width / v.width);
  const [px, py] = [(css[0] / v.width) * width, (css[1] / v.height) * height];
  const figures = (size: number, step: number, at: (user: number) => number, room: number) => {
    const out: (readonly [number, string])[] = [];
    for (let u = 0; u <= size; u += step) if (at(u) >= -0.01 && at(u) <= room + 0.01) out.push([at(u), String(u)]);
    return out;
  };
  const x = figures(v.width, 2 * block, (u) => ((e.fromScreen(v, [u, 0])[0] + 1) / 2) * width, width);
  const y = figures(v.height, block, (u) => ((1 - e.fromScreen(v, [0, u])[1]) / 2) * height, height);
  const marks: Mark[] = [];
  const write = (x: number, y: number, anchor: 'middle' | 'end', text: string) =>
    marks.push({ className: 'rn', x, y, anchor, text });
  for (const [at, text] of x) if (Math.abs(at - px) >= 28 && at > 6 - rulerX) write(at, -11, 'middle', text);
  for (const [at, text] of y) if (Math.abs(at - py) >= 14) write(-12, at + 4, 'end', text);
  for (const q of [-1, -0.5, 0, 0.5, 1]) {
    const [qx, qy] = [((q + 1) / 2) * width, ((1 - e.fromNdc([0, q, 0]).upward) / 2) * height];
    if (Math.abs(qx - px) >= 36 && qx < width + 1) write(q === 1 ? qx - 6 : qx, height + 19, 'middle', shortNdc(q, 1));
    if (Math.abs(qy - py) >= 14) write(width + 34, qy + (qy > height - 4 ? 0 : 4), 'end', shortNdc(q, 1));
  }
  return marks;
}

/** The hairlines and their tags in the rulers. */
function pointerMarks(situation: Situation, css: Vec2, width: number, height: number, scale: number): Mark[] {
  const { expression: e, frame } = situation;
  const [x, y] = [css[0] * scale, css[1] * scale];
  if (x < 0 || y < 0 || x > width || y > height) return [];
  const reading = readPointer(situation, css);
  const screen = e.toScreen(frame.viewport, ...reading.picture);
  const ndc = e.toNdc({ across: reading.picture[0], upward: reading.picture[1], shares: { near: 1, far: 0 } });
  const [hx, hy] = [Math.round(x) + 0.5, Math.round(y) + 0.5];
  const range = reading.hit?.distance ?? reading.groundRange;
  const decimals =
    Number.isInteger(css[0]) && Number.isInteger(css[1]) && e.conventions.screen.pixelCentre === 0.5 ? 0 : 1;
  return [
    { className: 'hair', d: `M${hx} 0V${hy - 9}M${hx} ${hy + 9}V${height}M0 ${hy}H${hx - 9}M${hx + 9} ${hy}H${width}` },
    { className: 'hairc', d: `M${hx} ${hy - 5}V${hy + 5}M${hx - 5} ${hy}H${hx + 5}` },
    ...(range === null ? [] : rangeNote(hx, hy, x > width - 80, figure(range, 2))),
    ...tag(x, -12.5, figure(screen[0], decimals), 'middle'),
    // The left field has room for four characters.
    ...tag(-7, y, figure(screen[1], Math.abs(screen[1]) < 100 ? decimals : 0), 'end'),
    ...tag(x, height + 12.5, shortNdc(ndc[0], 3), 'middle'),
    ...tag(width + 35, y, shortNdc(ndc[1], 3), 'end'),
  ];
}

const box = (x: number, y: number, width: number, height: number) =>
  `M${n2(x)} ${n2(y)}h${n2(width)}v${n2(height)}h${n2(-width)}Z`;
const figureWidth = (text: string) => textWidth(text, true) + 6;

/** The range at the pointer, backed so that it reads over any label. */
function rangeNote(x: number, y: number, left: boolean, text: string): Mark[] {
  const wide = figureWidth(text);
  const start = left ? x - 8 - wide : x + 6;
  return [
    { className: 'range-note', d: box(start, y + 6, wide, 15) },
    { className: 'nm', x: start + 3, y: y + 17.5, text },
  ];
}

function tag(x: number, y: number, text: string, anchor: 'middle' | 'end'): Mark[] {
  const wide = figureWidth(text);
  const start = anchor === 'middle' ? x - wide / 2 : x - wide;
  return [
    { className: 'tag-box', d: box(start, y - 8, wide, 16) },
    { className: 'tag-text', x: start + wide / 2, y: y + 4, anchor: 'middle', text },
  ];
}

/** What moves with the pointer, on a sheet of its own: the rest is not painted again for it. The pointer strip says the same to who does not see it. */
function PointerSheet({ width, height, scale }: Props & { scale: number }) {
  const situation = useSituation();
  const css = usePointer((state) => state.css);
  return (
    <PaintedMarks
      layers={[
        {
          marks: [
            ...rulerFigures(situation, css, width, height),
            ...pointerMarks(situation, css, width, height, scale),
          ],
        },
      ]}
      width={width + 2 * rulerX}
      height={height + 2 * rulerY}
      left={rulerX}
      top={rulerY}
    />
  );
}
