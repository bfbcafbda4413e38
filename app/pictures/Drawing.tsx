import { cameraInSpace } from '../../formats/camera';
import { useRef, useState, type ReactNode } from 'react';
import type { SignedAxis } from '../../core/conventions/axes';
import { addScaled, distance, dot, sub, type Vec2, type Vec3 } from '../../core/math/vec3';
import { moveProbe } from '../shell/actions';
import { currentSituation, usePart, useSituation } from '../state/derive';
import { drawnWorld, useDrawings } from '../state/drawings';
import type { Situation } from '../state/situation';
import { unitMark } from '../wording';
import { anglesNow, moveEye, setDepthLimit, setHeight, setVerticalFov, turnTo } from './camera';
import { cutOf, drawingClip, drawingMarks, inkedIn, sharedOf } from './construction';
import {
  drawingPoint,
  fitted,
  headingOf,
  roundLength,
  type DrawingName,
  type DrawingView,
  type Size,
} from './drawings';
import { GrabLine, GripTempo, Handle, type Move } from './Handle';
import { SetMarks } from './ink';
import { n2, open, type Mark } from './marks';

/** The view a drawing is shown in: the user's, or one that fits the first time it is asked for. */
export function useDrawingView(name: DrawingName, size: Size): DrawingView {
  const situation = useSituation();
  const kept = useDrawings((state) => state[name]);
  const fits = useDrawings((state) => state.fits);
  // One fit for a project and size: a drawing does not jump while the camera in it is dragged.
  const of = drawnWorld(situation.project);
  const key = `${of} ${size.width}×${size.height} ${fits}`;
  const [first, setFirst] = useState<{ key: string; view: DrawingView } | null>(null);
  if (kept?.of === of) return kept;
  if (first?.key === key) return first.view;
  const view = fitted(name, size, situation);
  setFirst({ key, view });
  return view;
}

/** Brings the camera and what it sees into a drawing again. */
export const fitDrawing = (name: DrawingName): void =>
  useDrawings.setState(({ fits }) => ({ [name]: null, fits: fits + 1 }));

/** Everything that lies over Plan or Section: the frustum, dimensions, names, and what can be grabbed. */
export function Drawing({ name, size, view }: { name: DrawingName; size: Size; view: DrawingView }) {
  const situation = useSituation();
  return (
    <DrawingSheet
      name={name}
      label={name === 'plan' ? 'Plan' : 'Section'}
      size={size}
      view={view}
      inked={inkedIn(name, situation)}
      marks={drawingMarks(name, size, view, situation)}
    >
      {name === 'plan' && <Furniture size={size} view={view} situation={situation} />}
      <GripTempo picture={name}>
        <Grips name={name} size={size} view={view} />
      </GripTempo>
    </DrawingSheet>
  );
}

/** The paper of a drawing with its marks, and over them what can be taken hold of. */
export function DrawingSheet({
  name,
  label,
  size,
  view,
  inked,
  marks,
  children,
}: {
  name: DrawingName;
  label: string;
  size: Size;
  view: DrawingView;
  /** Classes that the marks are drawn by. */
  inked: string;
  marks: readonly Mark[];
  children: ReactNode;
}) {
  const { width, height } = size;
  return (
    <svg
      className={`overlay ${inked}`}
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="group"
      aria-label={label}
    >
      <clipPath id={`${name}-clip`}>
        <rect {...drawingClip(size)} />
      </clipPath>
      <g clipPath={`url(#${name}-clip)`}>
        <Sheet name={name} view={view} size={size} />
        <SetMarks marks={marks} />
        {children}
      </g>
      <rect className="neat" x=".5" y=".5" width={width - 1} height={height - 1} pointerEvents="none" />
    </svg>
  );
}

/** The paper itself: dragging moves the drawing, the wheel scales it. */
function Sheet({ name, view, size }: { name: DrawingName; view: DrawingView; size: Size }) {
  const held = useRef<{ x: number; y: number; middle: Vec2 } | null>(null);
  const set = (next: DrawingView) =>
    useDrawings.setState({ [name]: { ...next, of: drawnWorld(currentSituation().project) } });
  // The plan's second coordinate is z, which grows downward.
  const { flat } = usePart(({ flat }) => ({ flat }));
  const flip = name === 'plan' && !flat ? 1 : -1;
  return (
    <rect
      width={size.width}
      height={size.height}
      fill="transparent"
      style={{ cursor: 'move' }}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = { x: event.clientX, y: event.clientY, middle: view.middle };
      }}
      onPointerMove={(event) => {
        const grip = held.current;
        if (!grip) return;
        const [dx, dy] = [(event.clientX - grip.x) * view.unitsPerPixel, (event.clientY - grip.y) * view.unitsPerPixel];
        set({ ...view, middle: [grip.middle[0] - dx, grip.middle[1] - dy * flip] });
      }}
      onPointerUp={() => {
        held.current = null;
      }}
      onWheel={(event) => {
        const box = event.currentTarget.getBoundingClientRect();
        const k = 1.1 ** Math.max(-3, Math.min(3, event.deltaY / 100));
        const offset = [event.clientX - box.left - size.width / 2, event.clientY - box.top - size.height / 2] as const;
        const shift = view.unitsPerPixel * (1 - k);
        set({
          unitsPerPixel: view.unitsPerPixel * k,
          middle: [view.middle[0] + offset[0] * shift, view.middle[1] + offset[1] * shift * flip],
        });
      }}
    />
  );
}

const signed = (axis: SignedAxis) => axis.replace('-', '\u2212');

/** The axes by letter as the conventions name them, and the scale bar. */
export function Furniture({
  size,
  view,
  situation: { expression: e, project, flat },
}: {
  size: Size;
  view: DrawingView;
  situation: Situation;
}) {
  const nameOf = (inside: Vec3): string => {
    const v = e.toWorld(inside);
    const i = v.findIndex((x) => x !== 0);
    return signed(`${v[i]! > 0 ? '+' : '-'}${'xyz'[i]}` as SignedAxis);
  };
  const h = size.height;
  const unit = roundLength(view.unitsPerPixel * 18);
  const w = unit / view.unitsPerPixel;
  const x0 = size.width - 34 - 5 * w;
  const mark = ` ${unitMark(project.unit)}`;
  const bars = [0, 2, 4].map((i) => `M${n2(x0 + i * w)} ${h - 16.5}h${n2(w)}v4h${n2(-w)}Z`).join('');
  return (
    <g pointerEvents="none">
      <path className="dl" d={`M16.5 ${h - 16.5}V${h - 37}M16.5 ${h - 16.5}H37`} />
      <path className="dh" d={`M16.5 ${h - 42}l-2 7h4ZM42 ${h - 16.5}l-7-2v4Z`} />
      <text className="nm halo" x="22" y={h - 33}>
        {nameOf(flat ? [0, 1, 0] : [0, 0, -1])}
      </text>
      <text className="nm halo" x="45" y={h - 13}>
        {nameOf([1, 0, 0])}
      </text>
      <rect className="baro" x={n2(x0)} y={h - 16.5} width={n2(w * 5)} height="4" />
      <path className="bar" d={bars} />
      <text className="nm halo" x={n2(x0)} y={h - 21} textAnchor="middle">
        0
      </text>
      <text className="nm halo" x={n2(x0 + 5 * w)} y={h - 21} textAnchor="middle">{`${unit * 5}${mark}`}</text>
    </g>
  );
}

/** What can be taken hold of in a drawing: the eye, the aim, the edges of the field of view, near, far, the probe. */
function Grips({ name, size, view }: { name: DrawingName; size: Size; view: DrawingView }) {
  const situation = useSituation();
  const { drawing, at } = sharedOf(name, size, view, situation);
  const { frame, chain, project } = situation;
  const plan = name === 'plan';
  const cut = cutOf(name, situation);
  const { heading, right } = headingOf(frame);
  const pointAt = (x: number, y: number, through: Vec3) => drawingPoint(drawing, [x, y], through);
  /** How far along the gaze and off it a place in the drawing is; in the plan the level way is stretched to the gaze's slope. */
  const alongAndOff = (x: number, y: number): Vec2 => {
    const d = sub(pointAt(x, y, frame.eye), frame.eye);
    if (!plan) return [dot(d, frame.forward), dot(d, frame.up)];
    const level = Math.max(0.05, Math.hypot(frame.forward[0], frame.forward[2]));
    return [dot(d, heading) / level, dot(d, right)];
  };
  const moveEyeTo: Move = (x, y, gesture) => moveEye(pointAt(x, y, frame.eye), gesture);
  const o = cameraInSpace(project).orientation;
  const reach =
    o.kind === 'lookAt'
      ? distance(frame.eye, o.target)
      : Math.min(cut.far * 0.62, chain.ok && chain.value.parts[2] > 0 ? chain.value.parts[2] * 0.8 : cut.far * 0.5);
  const aim = addScaled(frame.eye, frame.forward, reach);
  const moveAim: Move = (x, y, gesture) => {
    const d = sub(pointAt(x, y, aim), frame.eye);
    const now = anglesNow();
    if (plan) {
      if (Math.hypot(d[0], d[2]) > 1e-6) turnTo((Math.atan2(d[0], -d[2]) * 180) / Math.PI, now.pitch, gesture);
    } else turnTo(now.yaw, (Math.atan2(d[1], Math.max(1e-6, dot(d, heading))) * 180) / Math.PI, gesture);
  };
  const moveEdge: Move = (x, y, gesture) => {
    const [along, off] = alongAndOff(x, y);
    const { extents: e, near } = frame;
    const aspect = (e.right - e.left) / (e.top - e.bottom);
    const half = plan ? Math.abs(off) / aspect : Math.abs(off);
    if (frame.kind === 'orthographic') setHeight(half * 2, gesture);
    else if (along > near * 0.1) setVerticalFov((2 * Math.atan(half / along) * 180) / Math.PI, gesture);
  };
  const moveLimit =
    (end: 'near' | 'far'): Move =>
    (x, y, gesture) =>
      setDepthLimit(end, alongAndOff(x, y)[0], gesture);
  const takeProbe: Move = (x, y, gesture) => {
    const { chain: now } = currentSituation();
    if (!now.ok) return;
    // No finer than a drag is: to the thousandth of a unit.
    moveProbe(pointAt(x, y, now.value.world).map((v) => Number(v.toFixed(3))) as unknown as Vec3, gesture);
  };
  const half = (a: Vec2, b: Vec2): Vec2 => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  const [n0, n1, f0, f1] = [at(cut.near0), at(cut.near1), at(cut.far0), at(cut.far1)];
  const shown = ([x, y]: Vec2) => x > 0 && y > 0 && x < size.width && y < size.height;
  const eye = at(frame.eye);
  const aimed = at(aim);
  // An edge is held at the middle of what is seen of it.
  const edgeAt = (a: Vec2, b: Vec2): Vec2 =>
    [0.75, 0.5, 0.3].map((t): Vec2 => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t]).find(shown) ?? half(a, b);
  const [farX, farY] = half(f0, f1);
  const [nearX, nearY] = half(n0, n1);
  const sides = [
    [n0, f0],
    [n1, f1],
  ] as const;
  // Which way an edge, and which way a limit is taken.
  const [across, along] = plan ? ['ew-resize', 'ns-resize'] : ['ns-resize', 'ew-resize'];
  return (
    <>
      {sides.map(([n, f], i) => {
        const [x, y] = edgeAt(n, f);
        return (
          <GrabLine
            key={i}
            path={open([n, f])}
            x={x}
            y={y}
            name="the field of view"
            cursor={across}
            onMove={moveEdge}
          />
        );
      })}
      {frame.far !== null && (
        <GrabLine
          path={open([f0, f1])}
          x={farX}
          y={farY}
          name="the far limit"
          cursor={along}
          onMove={moveLimit('far')}
        />
      )}
      <GrabLine
        path={open([n0, n1])}
        x={nearX}
        y={nearY}
        name="the near limit"
        cursor={along}
        onMove={moveLimit('near')}
      />
      <Handle x={aimed[0]} y={aimed[1]} name="the aim" onMove={moveAim} />
      {chain.ok && (
        <Handle x={at(chain.value.world)[0]} y={at(chain.value.world)[1]} name="the probe" onMove={takeProbe} />
      )}
      <Handle x={eye[0]} y={eye[1]} name="the eye" onMove={moveEyeTo} />
    </>
  );
}
