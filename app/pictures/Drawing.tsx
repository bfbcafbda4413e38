import { memo, useRef, useState, type ReactNode } from 'react';
import { cameraInSpace } from '../../formats/project';
import { worldToPixel } from '../../core/convert/project';
import { fieldOfView } from '../../core/camera/projection';
import { addScaled, distance, dot, sub, type Vec2, type Vec3 } from '../../core/math/vec3';
import { letterOf, type SignedAxis } from '../../core/conventions/axes';
import type { CameraFrame } from '../../core/camera/frame';
import { useMoving } from '../state/pace';
import { currentSituation, usePart, useSituation, type Situation } from '../state/derive';
import { moveProbe } from '../shell/actions';
import { unitMark } from '../wording';
import { figure } from '../ui/figures';
import { moveEye, setDepthLimit, setHeight, setVerticalFov, turnTo, anglesNow } from './camera';
import {
  cutPoint,
  drawingPoint,
  drawnFar,
  drawnWorld,
  fitted,
  headingOf,
  planFrame,
  roundLength,
  sectionFrame,
  useDrawings,
  type DrawingName,
  type DrawingView,
  type Size,
} from './drawings';
import { GrabLine, Handle, type Move } from './Handle';
import { around, place, textWidth, type Label, type Rect, type Spot } from './labels';
import { PaintedMarks, SetMarks, usePainting } from './ink';
import { closed, dimensionMarks, n2, open, probeMarks, type Mark } from './marks';

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

export interface Shared {
  readonly drawing: CameraFrame;
  readonly size: Size;
  readonly view: DrawingView;
  readonly at: (p: Vec3) => Vec2;
}

/** Everything that lies over Plan or Section: the frustum, dimensions, names, and what can be grabbed. */
export function Drawing({ name, size, view }: { name: DrawingName; size: Size; view: DrawingView }) {
  const situation = useSituation();
  const { frame, extent } = situation;
  const drawing = name === 'plan' ? planFrame(view, size, extent) : sectionFrame(view, size, frame, extent);
  const at = (p: Vec3): Vec2 => {
    const pixel = worldToPixel(drawing, p);
    return pixel.ok ? pixel.value : [0, 0];
  };
  const shared: Shared = { drawing, size, view, at };
  const moving = useMoving(({ where }) => where);
  return (
    <DrawingSheet
      name={name}
      label={name === 'plan' ? 'Plan' : 'Section'}
      size={size}
      view={view}
      inked={name === 'plan' && situation.project.ground ? 'on-water' : ''}
      marks={[...constructionOf(name, shared, situation), ...namesOf(name, shared, situation)]}
    >
      {name === 'plan' ? <Furniture shared={shared} situation={situation} /> : null}
      <Grips name={name} shared={shared} situation={situation} still={moving !== null && moving !== name} />
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
  const painting = usePainting();
  const { width, height } = size;
  const clip = { x: 1, y: 1, width: width - 2, height: height - 2 };
  return (
    <>
      <svg
        className={`overlay ${inked}`}
        width={width}
        height={height}
        viewBox={`0 0 ${width} ${height}`}
        role="group"
        aria-label={label}
      >
        <clipPath id={`${name}-clip`}>
          <rect {...clip} />
        </clipPath>
        <g clipPath={`url(#${name}-clip)`}>
          <Sheet name={name} view={view} size={size} />
          {!painting && (
            <g pointerEvents="none">
              <SetMarks marks={marks} />
            </g>
          )}
          {children}
        </g>
        <rect className="neat" x=".5" y=".5" width={width - 1} height={height - 1} pointerEvents="none" />
      </svg>
      {painting && <PaintedMarks layers={[{ marks, clip }]} width={width} height={height} inked={inked} />}
    </>
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

/** The four corners of the frustum's cut by the drawing's plane through the axis: near and far, on either side. */
function cutOf(name: DrawingName, situation: Situation) {
  const { frame } = situation;
  const { extents: e } = frame;
  const far = drawnFar(situation);
  const corner = (ahead: number, side: 0 | 1): Vec3 =>
    name === 'plan'
      ? cutPoint(frame, ahead, [e.left, e.right][side]!, 0)
      : cutPoint(frame, ahead, 0, [e.bottom, e.top][side]!);
  return {
    far,
    near0: corner(frame.near, 0),
    near1: corner(frame.near, 1),
    far0: corner(far, 0),
    far1: corner(far, 1),
  };
}

/** The frustum in a drawing, its axis and angle, and how far the probe is. */
function constructionOf(name: DrawingName, shared: Shared, situation: Situation): Mark[] {
  const { at } = shared;
  const { frame, chain, expression: e } = situation;
  const cut = cutOf(name, situation);
  const [n0, n1, f0, f1] = [at(cut.near0), at(cut.near1), at(cut.far0), at(cut.far1)];
  const eye = at(frame.eye);
  const axisEnd = at(addScaled(frame.eye, frame.forward, cut.far * 1.03));
  const perspective = frame.kind === 'perspective';
  const infinite = frame.far === null;
  const size = name === 'plan' ? frame.extents.right - frame.extents.left : frame.extents.top - frame.extents.bottom;
  const field = perspective ? e.toAngle(fieldOfView(size, frame.near)) : null;
  const degrees = e.conventions.angles.unit === 'degrees';
  // The arc of the field of view, as long as the drawing has room for.
  const reach = Math.hypot(f0[0] - eye[0], f0[1] - eye[1]);
  const radius = Math.min(46, reach * 0.4);
  const onArc = (p: Vec2): Vec2 => {
    const d = Math.hypot(p[0] - eye[0], p[1] - eye[1]) || 1;
    return [eye[0] + ((p[0] - eye[0]) / d) * radius, eye[1] + ((p[1] - eye[1]) / d) * radius];
  };
  const [a0, a1] = [onArc(f0), onArc(f1)];
  const middle: Vec2 = [(a0[0] + a1[0]) / 2, (a0[1] + a1[1]) / 2];
  const outward = Math.hypot(middle[0] - eye[0], middle[1] - eye[1]) || 1;
  const arcText: Vec2 = [
    middle[0] + ((middle[0] - eye[0]) / outward) * 14,
    middle[1] + ((middle[1] - eye[1]) / outward) * 14,
  ];
  const sweep = (a0[0] - eye[0]) * (a1[1] - eye[1]) - (a0[1] - eye[1]) * (a1[0] - eye[0]) > 0 ? 1 : 0;
  const probe = chain.ok ? chain.value.world : null;
  const marks: Mark[] = [{ className: 'fru', d: closed([n0, f0, f1, n1]) }];
  if (perspective) marks.push({ className: 'fruv', d: `${open([eye, n0])}${open([eye, n1])}` });
  marks.push(
    { className: 'frul', d: infinite ? open([f0, n0, n1, f1]) : closed([n0, f0, f1, n1]) },
    { className: 'axis-line', d: open([eye, axisEnd]) },
  );
  if (field !== null && radius > 18)
    marks.push(
      {
        className: 'dl',
        d: `M${n2(a0[0])} ${n2(a0[1])}A${n2(radius)} ${n2(radius)} 0 0 ${sweep} ${n2(a1[0])} ${n2(a1[1])}`,
      },
      {
        className: 'nm halo',
        x: arcText[0],
        y: arcText[1] + 4,
        anchor: 'middle',
        text: `${figure(field, degrees ? 2 : 4)}${degrees ? '°' : ''}`,
      },
    );
  if (probe) marks.push(...probeDistance(name, probe, shared, situation));
  marks.push({
    className: 'eye-mark',
    x: eye[0],
    y: eye[1],
    turn: (Math.atan2(axisEnd[1] - eye[1], axisEnd[0] - eye[0]) * 180) / Math.PI + 90,
    d: 'M0 -5.5L4 4H-4Z',
  });
  return probe ? [...marks, ...probeMarks(at(probe), 5.5)] : marks;
}

/** Plan: the level distance along the heading. Section: the distance ahead along the gaze. Each clear of the frustum's axis on the probe's side. */
function probeDistance(name: DrawingName, probe: Vec3, { at, view }: Shared, { frame }: Situation): Mark[] {
  const d = sub(probe, frame.eye);
  const { heading, right } = headingOf(frame);
  const plan = name === 'plan';
  const [along, across] = plan ? [heading, right] : [frame.forward, frame.up];
  const [length, off] = [dot(d, along), dot(d, across)];
  const sight: Mark = { className: 'sightl', d: open([at(frame.eye), at(probe)]) };
  if (length <= 0) return [sight];
  const side = plan ? (off < 0 ? -1 : 1) : -1;
  const clear = plan ? off + side * 34 * view.unitsPerPixel : Math.min(off, 0) - 62 * view.unitsPerPixel;
  const point = (a: number, b: number) => at(addScaled(addScaled(frame.eye, along, a), across, b));
  const past = clear + side * 4 * view.unitsPerPixel;
  return [
    sight,
    {
      className: 'ext',
      d: `${open([point(0, side * 5 * view.unitsPerPixel), point(0, past)])}${open([point(length, off + side * 8 * view.unitsPerPixel), point(length, past)])}`,
    },
    ...dimensionMarks(point(0, clear), point(length, clear), `${figure(length, 2)} ${plan ? 'level' : 'ahead'}`, {
      className: plan ? '' : 'on-water',
    }),
  ];
}

interface Word extends Label {
  readonly text: string;
  readonly className: string;
}

/** What is named in a drawing: the probe first, then the eye and the limits. */
function namesOf(name: DrawingName, { at, size }: Shared, situation: Situation): Mark[] {
  const { frame, chain, project, expression: e } = situation;
  const cut = cutOf(name, situation);
  const words: Word[] = [];
  const word = (key: string, text: string, p: Vec2, className: string, spots: readonly Spot[] = around, mono = false) =>
    words.push({ key, text, x: p[0], y: p[1], className, spots, width: textWidth(text, mono) });
  const taken: Rect[] = [];
  if (chain.ok) {
    const p = at(chain.value.world);
    taken.push({ x: p[0] - 9, y: p[1] - 9, width: 18, height: 18 });
    const label = project.bodies.find(({ id }) => id === project.probe.body)?.name ?? 'Free point';
    word('probe', label, p, 'lb b6 halo');
  }
  const eye = at(frame.eye);
  taken.push({ x: eye[0] - 6, y: eye[1] - 6, width: 12, height: 12 });
  const beside: Spot[] = [
    { dx: 10, dy: 8, anchor: 'start' },
    { dx: -10, dy: 8, anchor: 'end' },
    { dx: 0, dy: -14, anchor: 'middle' },
    { dx: 0, dy: 18, anchor: 'middle' },
  ];
  word('eye', 'eye', eye, 'se halo', beside);
  const short = (v: number) => figure(v, Number.isInteger(v) ? 0 : 2);
  word(
    'near',
    `near ${short(frame.near)}`,
    at(cut.near1),
    'nm bt halo',
    [
      { dx: 8, dy: -6, anchor: 'start' },
      { dx: 8, dy: 10, anchor: 'start' },
      { dx: -8, dy: -6, anchor: 'end' },
      { dx: 0, dy: 16, anchor: 'middle' },
    ],
    true,
  );
  const farMiddle: Vec2 = [(at(cut.far0)[0] + at(cut.far1)[0]) / 2, (at(cut.far0)[1] + at(cut.far1)[1]) / 2];
  const inward: Spot[] = [
    { dx: -8, dy: -14, anchor: 'end' },
    { dx: 0, dy: 14, anchor: 'middle' },
    { dx: -8, dy: 14, anchor: 'end' },
    { dx: 8, dy: 14, anchor: 'start' },
  ];
  word('far', frame.far === null ? 'no far limit' : `far ${short(frame.far)}`, farMiddle, 'nm bt halo', inward, true);
  const ground = project.ground;
  if (name === 'section' && ground) {
    const up = e.conventions.world.up;
    const level = at([frame.eye[0], ground.height, frame.eye[2]])[1];
    word(
      'ground',
      `${letterOf(up)} = ${short(e.toHeight(ground.height))}`,
      [size.width - 44, level],
      'nm m2 halo',
      [
        { dx: 36, dy: 10, anchor: 'end' },
        { dx: 36, dy: -10, anchor: 'end' },
      ],
      true,
    );
  }
  const { placed } = place(words, { x: 3, y: 3, width: size.width - 6, height: size.height - 6 }, taken);
  const named = placed.map(({ label, at: { x, y }, spot }): Mark => ({
    className: label.className,
    x,
    y,
    anchor: spot.anchor,
    text: label.text,
  }));
  if (name !== 'section' || !ground) return named;
  const level = at([frame.eye[0], ground.height, frame.eye[2]])[1];
  return [{ className: 'horz', d: `M0 ${n2(level)}H${size.width}` }, ...named];
}

const signed = (axis: SignedAxis) => axis.replace('-', '\u2212');

/** The axes by letter as the conventions name them, and the scale bar. */
export function Furniture({
  shared: { size, view },
  situation: { expression: e, project, flat },
}: {
  shared: Pick<Shared, 'size' | 'view'>;
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

interface GripsProps {
  readonly name: DrawingName;
  readonly shared: Shared;
  readonly situation: Situation;
  /** While the hand moves something elsewhere nothing here can be taken hold of: it follows when the hand lets go. */
  readonly still: boolean;
}

/** What can be taken hold of in a drawing: the eye, the aim, the edges of the field of view, near, far, the probe. */
const Grips = memo(
  function Grips({ name, shared: { drawing, at, size }, situation }: GripsProps): ReactNode {
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
    const [side0, side1] = [edgeAt(n0, f0), edgeAt(n1, f1)];
    const line = (a: Vec2, b: Vec2) => open([a, b]);
    return (
      <>
        <GrabLine
          path={line(n0, f0)}
          x={side0[0]}
          y={side0[1]}
          name="the field of view"
          cursor={plan ? 'ew-resize' : 'ns-resize'}
          onMove={moveEdge}
        />
        <GrabLine
          path={line(n1, f1)}
          x={side1[0]}
          y={side1[1]}
          name="the field of view"
          cursor={plan ? 'ew-resize' : 'ns-resize'}
          onMove={moveEdge}
        />
        {frame.far !== null && (
          <GrabLine
            path={line(f0, f1)}
            x={farX}
            y={farY}
            name="the far limit"
            cursor={plan ? 'ns-resize' : 'ew-resize'}
            onMove={moveLimit('far')}
          />
        )}
        <GrabLine
          path={line(n0, n1)}
          x={nearX}
          y={nearY}
          name="the near limit"
          cursor={plan ? 'ns-resize' : 'ew-resize'}
          onMove={moveLimit('near')}
        />
        <Handle x={aimed[0]} y={aimed[1]} name="the aim" onMove={moveAim} />
        {chain.ok && (
          <Handle x={at(chain.value.world)[0]} y={at(chain.value.world)[1]} name="the probe" onMove={takeProbe} />
        )}
        <Handle x={eye[0]} y={eye[1]} name="the eye" onMove={moveEyeTo} />
      </>
    );
  },
  (_before, { still }) => still,
);
