import {
  Fragment,
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
import { GlyphMark } from '../ui/Glyph';
import { anglesNow, goAhead, holdDistance, panBetween, scaleView, turnBetween } from './camera';
import { bringUnder, pointUnder, turnWorld, wholeStep, zoomAbout } from './camera2d';
import { Anchor, tileFigures } from './FlatPlate';
import { Handle } from './Handle';
import { around, overlap, place, textWidth, type Label, type Rect } from './labels';
import { n2, ProbeMark } from './marks';

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
          {!situation.flat && <Ground width={width} scale={scale} />}
          <PictureHand width={width} height={height} scale={scale} />
          <Suspense>{Overlay && <Overlay width={width} height={height} scale={scale} />}</Suspense>
          <Words width={width} height={height} scale={scale} />
          <Rulers width={width} height={height} scale={scale} />
          {situation.flat && <Anchor scale={scale} />}
          <ProbeHandle width={width} height={height} scale={scale} />
        </g>
      </svg>
      {/* A sheet of its own: what moves with the pointer does not have the rest painted again. */}
      <svg className="overlay pointer-sheet" width={outer.w} height={outer.h} aria-hidden="true">
        <g transform={`translate(${inner.x} ${inner.y})`}>
          <RulerFigures width={width} height={height} />
          <Pointer width={width} height={height} scale={scale} />
        </g>
      </svg>
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

function Ground({ width, scale }: { width: number; scale: number }) {
  const situation = useSituation();
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
  return (
    <g clipPath="url(#picture-clip)" pointerEvents="none">
      {horizon && <path className="horz" d={path(horizon)} />}
      {far && <path className="farl" d={path(far)} />}
      {horizon && (
        <text className="se m2 halo" x={n2(hx)} y={n2(hy - 4)}>
          horizon
        </text>
      )}
      {far && (!horizon || Math.abs(fy - hy) > 16) && (
        <text className="se m2 halo" x={n2(fx)} y={n2(fy - 4)}>
          far limit {figure(frame.far!, Number.isInteger(frame.far) ? 0 : 1)}
        </text>
      )}
    </g>
  );
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
const Words = memo(function Words({ width, height, scale }: Props & { scale: number }) {
  const situation = useSituation();
  const { frame, project, placed, roots, chain, flat } = situation;
  const selected = useSelection((state) => state.ids);
  const landmarks = useMemo(() => landmarksOf(project.bodies, placed, roots), [project.bodies, placed, roots]);
  const laid = useMemo(() => {
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
    const off = outside.filter(({ apparent }) => apparent >= leastNamed).sort((a, b) => a.ahead - b.ahead);
    const named = place(
      large.map(({ word }) => word),
      bounds,
      taken,
    );
    const edge = place(
      off.slice(0, 6).map(({ word }) => word),
      { x: 0, y: 0, width, height },
      [...taken, ...named.placed.map(({ box }) => box)],
    );
    const filled = [...taken, ...named.placed.map(({ box }) => box), ...edge.placed.map(({ box }) => box)];
    const figures = (flat ? tileFigures(situation, width, height, scale) : []).filter(
      ({ x, y }) => !filled.some((box) => overlap(box, { x: x - 14, y: y - 7, width: 28, height: 14 })),
    );
    return {
      figures,
      probe,
      probeLabel,
      probeName,
      named,
      edge,
      outside,
      unnamed: inside.length - named.placed.length,
      off: outside.length - edge.placed.length,
    };
  }, [situation, frame, flat, selected, landmarks, project, roots, chain, width, height, scale]);

  const { probe, probeLabel, probeName, named, edge, outside, figures } = laid;
  return (
    <g pointerEvents="none">
      {figures.length > 0 && (
        <g className="soundings">
          {figures.map(({ key, x, y, text }) => (
            <text key={key} x={n2(x)} y={n2(y + 4)}>
              {text}
            </text>
          ))}
        </g>
      )}
      {named.placed.map(({ label, at, spot, box }) => {
        const end: Vec2 = [spot.anchor === 'end' ? box.x + box.width - 1 : box.x + 1, at.y - 4];
        return (
          <Fragment key={label.key}>
            <path className="lead" d={`M${n2(label.px)} ${n2(label.py)}L${n2(end[0])} ${n2(end[1])}`} />
            <rect className="ldot" x={n2(label.px - 1)} y={n2(label.py - 1)} width="2" height="2" />
            <text
              className={`lb halo${selected.includes(label.key) ? ' chosen' : ''}`}
              x={n2(at.x)}
              y={n2(at.y)}
              textAnchor={spot.anchor}
            >
              {label.text}
            </text>
          </Fragment>
        );
      })}
      {edge.placed.map(({ label, box }) => {
        const { angle, ex, ey } = outside.find(({ word }) => word === label)!;
        const [bx, by] = [Math.max(6, Math.min(width - 6, ex)), Math.max(6, Math.min(height - 6, ey))];
        return (
          <Fragment key={label.key}>
            <path
              className="idx"
              d="M5 0L-3 -3.5V3.5Z"
              transform={`translate(${n2(bx)} ${n2(by)}) rotate(${n2(angle)})`}
            />
            <GlyphMark kind="outside" x={box.x + 7} y={box.y + 7.5} r={4.5} />
            <text className="lb halo" x={n2(box.x + 15)} y={n2(box.y + 11.5)}>
              {label.text}
            </text>
          </Fragment>
        );
      })}
      {laid.unnamed + laid.off > 0 && (
        <text className="se m2 halo" x={width - 8} y={height - 8} textAnchor="end">
          {[laid.unnamed ? `${laid.unnamed} more in view` : '', laid.off ? `${laid.off} more off the picture` : '']
            .filter(Boolean)
            .join(', ')}
        </text>
      )}
      {probe && probeLabel && (
        <>
          <ProbeMark x={probe[0] * scale} y={probe[1] * scale} r={8} />
          <text className="lb b6 halo" x={n2(probeLabel.x)} y={n2(probeLabel.y - 5)} textAnchor={probeLabel.anchor}>
            {probeName}
          </text>
          <ProbeFigures x={probeLabel.x} y={probeLabel.y + 9} anchor={probeLabel.anchor} />
        </>
      )}
    </g>
  );
});

function ProbeFigures({ x, y, anchor }: { x: number; y: number; anchor: 'start' | 'middle' | 'end' }) {
  const { chain, expression: e, frame } = useSituation();
  if (!chain.ok || !chain.value.picture.ok) return null;
  const screen = e.toScreen(frame.viewport, chain.value.picture.value.across, chain.value.picture.value.upward);
  return (
    <text className="nm bt halo" x={n2(x)} y={n2(y)} textAnchor={anchor}>
      {screen.map((v) => figure(v, 2)).join(', ')}
    </text>
  );
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
function RulerFigures({ width, height }: Props) {
  const { expression: e, frame } = useSituation();
  const css = usePointer((state) => state.css);
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
  return (
    <>
      {x.map(
        ([at, text]) =>
          Math.abs(at - px) >= 28 &&
          at > 6 - rulerX && (
            <text key={text} className="rn" x={n2(at)} y={-11} textAnchor="middle">
              {text}
            </text>
          ),
      )}
      {y.map(
        ([at, text]) =>
          Math.abs(at - py) >= 14 && (
            <text key={text} className="rn" x={-12} y={n2(at + 4)} textAnchor="end">
              {text}
            </text>
          ),
      )}
      {[-1, -0.5, 0, 0.5, 1].map((q) => {
        const [qx, qy] = [((q + 1) / 2) * width, ((1 - e.fromNdc([0, q, 0]).upward) / 2) * height];
        return (
          <Fragment key={q}>
            {Math.abs(qx - px) >= 36 && qx < width + 1 && (
              <text className="rn" x={n2(q === 1 ? qx - 6 : qx)} y={height + 19} textAnchor="middle">
                {shortNdc(q, 1)}
              </text>
            )}
            {Math.abs(qy - py) >= 14 && (
              <text className="rn" x={width + 34} y={n2(qy + (qy > height - 4 ? 0 : 4))} textAnchor="end">
                {shortNdc(q, 1)}
              </text>
            )}
          </Fragment>
        );
      })}
    </>
  );
}

/** The hairlines and their tags in the rulers. */
function Pointer({ width, height, scale }: Props & { scale: number }) {
  const situation = useSituation();
  const { css } = usePointer();
  const { expression: e, frame } = situation;
  const [x, y] = [css[0] * scale, css[1] * scale];
  if (x < 0 || y < 0 || x > width || y > height) return null;
  const reading = readPointer(situation, css);
  const screen = e.toScreen(frame.viewport, ...reading.picture);
  const ndc = e.toNdc({ across: reading.picture[0], upward: reading.picture[1], shares: { near: 1, far: 0 } });
  const [hx, hy] = [Math.round(x) + 0.5, Math.round(y) + 0.5];
  const range = reading.hit?.distance ?? reading.groundRange;
  const decimals =
    Number.isInteger(css[0]) && Number.isInteger(css[1]) && e.conventions.screen.pixelCentre === 0.5 ? 0 : 1;
  return (
    <g pointerEvents="none">
      <path
        className="hair"
        d={`M${hx} 0V${hy - 9}M${hx} ${hy + 9}V${height}M0 ${hy}H${hx - 9}M${hx + 9} ${hy}H${width}`}
      />
      <path className="hairc" d={`M${hx} ${hy - 5}V${hy + 5}M${hx - 5} ${hy}H${hx + 5}`} />
      {range !== null && <RangeNote x={hx} y={hy} left={x > width - 80} text={figure(range, 2)} />}
      <Tag x={x} y={-12.5} text={figure(screen[0], decimals)} anchor="middle" />
      {/* The left field has room for four characters. */}
      <Tag x={-7} y={y} text={figure(screen[1], Math.abs(screen[1]) < 100 ? decimals : 0)} anchor="end" />
      <Tag x={x} y={height + 12.5} text={shortNdc(ndc[0], 3)} anchor="middle" />
      <Tag x={width + 35} y={y} text={shortNdc(ndc[1], 3)} anchor="end" />
    </g>
  );
}

/** The range at the pointer, backed so that it reads over any label. */
function RangeNote({ x, y, left, text }: { x: number; y: number; left: boolean; text: string }) {
  const wide = text.length * 6.95 + 6;
  const start = left ? x - 8 - wide : x + 6;
  return (
    <>
      <rect className="range-note" x={n2(start)} y={n2(y + 6)} width={n2(wide)} height="15" />
      <text className="nm" x={n2(start + 3)} y={n2(y + 17.5)}>
        {text}
      </text>
    </>
  );
}

function Tag({ x, y, text, anchor }: { x: number; y: number; text: string; anchor: 'middle' | 'end' }) {
  const wide = text.length * 6.95 + 6;
  const start = anchor === 'middle' ? x - wide / 2 : x - wide;
  return (
    <>
      <rect className="tag-box" x={n2(start)} y={n2(y - 8)} width={n2(wide)} height="16" rx="1" />
      <text className="tag-text" x={n2(start + wide / 2)} y={n2(y + 4)} textAnchor="middle">
        {text}
      </text>
    </>
  );
}
