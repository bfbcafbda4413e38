import { radians } from '../../../core/math/angle';
import { useDragAndWheel } from '../../ui/gestures';
import { useMemo, useRef, useState } from 'react';
import type { Hit } from '../../../core/pick/pick';
import type { Vec2, Vec3 } from '../../../core/math/vec3';
import {
  fitView,
  setOutside,
  setView,
  useDrawings,
  viewKey,
  type DrawingView,
  type OutsideView,
} from '../../state/drawings';
import type { Moment } from '../../state/moment';
import { currentMoment, useMoment, usePart } from '../../state/tempo';
import { viewIn } from '../compose/views';
import type { PictureView, Size } from '../compose/contract';
import { fitted, fittedOutside, type DrawingName } from '../compose/drawings';
import { Handles, type TaskHandles } from './Handles';
import { caption, type Slot } from '../compose/slots';
import type { Shown } from '../compose/snapshots';
import { clipOf, groundOf, type StandingLayer } from '../compose/clips';
import { axesAndScaleMarks, neatLineMarks } from '../compose/furniture';
import { useStandingMarks } from './picturesClient';
import { FixedMarks, SetMarks } from './svgMarks';
import { type OpenTask } from '../compose/taskMarks';

/** The view a drawing is shown in: the user's, or one that fits the first time it is asked for. */
export function useDrawingView(name: DrawingName, size: Size): DrawingView {
  const moment = useMoment();
  const key = viewKey(moment.project, name);
  const kept = useDrawings((state) => state.views[key]);
  const fits = useDrawings((state) => state.fits);
  // One fit for a project, camera and size: a drawing does not jump while the camera in it is
  // dragged.
  const of = `${key} ${size.width}×${size.height} ${fits}`;
  const [first, setFirst] = useState<{ of: string; view: DrawingView } | null>(null);
  if (kept) return kept;
  if (first?.of === of) return first.view;
  const view = fitted(name, size, moment);
  setFirst({ of, view });
  return view;
}

/** The same of the free view from outside. */
export function useOutsideView(): OutsideView {
  const moment = useMoment();
  const key = viewKey(moment.project, 'outside');
  const kept = useDrawings((state) => state.outside[key]);
  const fits = useDrawings((state) => state.fits);
  const of = `${key} ${fits}`;
  const [first, setFirst] = useState<{ of: string; view: OutsideView } | null>(null);
  if (kept) return kept;
  if (first?.of === of) return first.view;
  const view = fittedOutside(moment);
  setFirst({ of, view });
  return view;
}

/** Brings the camera and what it sees into a drawing again. */
export const fitDrawing = (name: string): void => fitView(viewKey(currentMoment().project, name));

/** How the pictures of the centre are looked at: what they share. */
export interface Looked {
  readonly plan: DrawingView;
  readonly section: DrawingView;
  readonly outside: OutsideView;
  readonly task: (now: Moment) => OpenTask | null;
  readonly selected: readonly string[];
  readonly folds: Readonly<Record<string, boolean>>;
  readonly shown: Shown;
  readonly ofTask?: TaskHandles | undefined;
  /** What the open task does with a surface that is clicked, within the same step of undo. */
  readonly onHit?: ((hit: Hit, gesture: string) => void) | undefined;
}

const none: readonly StandingLayer[] = [];
/** Returns the marks of a pane that the page sets. */
export const useStanding = (pane: string): readonly StandingLayer[] =>
  useStandingMarks(({ panes }) => panes.get(pane) ?? none);

/** Returns the view of a picture at the current state; null where there is nothing to show. */
function usePictureView(name: string, slot: Slot, { plan, section, outside, task }: Looked): PictureView | null {
  const now = useMoment();
  return useMemo(
    () => viewIn(name, slot, now, { plan, section, outside }, task(now)),
    [name, slot, now, plan, section, outside, task],
  );
}

const labels: Readonly<Record<string, string>> = {
  plan: 'Plan',
  section: 'Section',
  world: 'World',
  outside: 'Outside',
};

/**
 * Everything that lies over a picture below the plate: its marks, its furniture, and what can be
 * taken hold of.
 */
export function Drawing({ name, slot, looked, title }: { name: string; slot: Slot; looked: Looked; title?: string }) {
  const moment = useMoment();
  const view = usePictureView(name, slot, looked);
  const layers = useStanding(name);
  const size: Size = { width: slot.width, height: slot.height };
  if (!view)
    return (
      <div className="empty-pane" style={size}>
        <p>There is nothing to show here yet.</p>
      </div>
    );
  const { width, height } = size;
  const clip = clipOf(view, 'picture');
  const id = name.replace(/[^a-z0-9]+/g, '-');
  return (
    <svg
      className={groundOf(view, moment) === 'water' ? 'overlay on-water' : 'overlay'}
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="group"
      aria-label={title ?? labels[view.name] ?? view.name}
    >
      <clipPath id={`${id}-clip`}>
        <rect {...clip} />
      </clipPath>
      <g clipPath={`url(#${id}-clip)`}>
        {view.name === 'outside' ? (
          <FreePaper size={size} view={looked.outside} />
        ) : name === 'plan' || name === 'section' ? (
          <Paper name={name} view={name === 'plan' ? looked.plan : looked.section} size={size} />
        ) : null}
        {layers.map(({ marks }, i) => (
          <SetMarks key={i} marks={marks} />
        ))}
        {name === 'plan' && <FixedMarks marks={axesAndScaleMarks(view, moment)} />}
        <Handles
          picture={name}
          viewOf={(now) => viewIn(name, slot, now, looked, looked.task(now))}
          ofTask={looked.ofTask}
        />
      </g>
      <FixedMarks marks={neatLineMarks(size)} />
    </svg>
  );
}

/** The paper itself: dragging moves the drawing, the wheel scales it. */
function Paper({ name, view, size }: { name: DrawingName; view: DrawingView; size: Size }) {
  const start = useRef<Vec2 | null>(null);
  const set = (next: DrawingView) => setView(viewKey(currentMoment().project, name), next);
  // The plan's second coordinate is z, which grows downward.
  const { flat } = usePart(({ flat }) => ({ flat }));
  const flip = name === 'plan' && !flat ? 1 : -1;
  const bind = useDragAndWheel(
    {
      onDrag: ({ first, last, movement: [dx, dy] }) => {
        if (first) start.current = view.middle;
        const from = start.current;
        if (from && (dx || dy))
          set({
            ...view,
            middle: [from[0] - dx * view.unitsPerPixel, from[1] - dy * view.unitsPerPixel * flip],
          });
        if (last) start.current = null;
      },
      onWheel: ({ event, delta: [, dy] }) => {
        const box = (event.currentTarget as Element).getBoundingClientRect();
        const k = 1.1 ** Math.max(-3, Math.min(3, dy / 100));
        const offset = [event.clientX - box.left - size.width / 2, event.clientY - box.top - size.height / 2] as const;
        const shift = view.unitsPerPixel * (1 - k);
        set({
          unitsPerPixel: view.unitsPerPixel * k,
          middle: [view.middle[0] + offset[0] * shift, view.middle[1] + offset[1] * shift * flip],
        });
      },
    },
    { drag: { pointer: { keys: false, buttons: 1 } } },
  );
  return <rect {...bind()} width={size.width} height={size.height} fill="transparent" style={{ cursor: 'move' }} />;
}

/**
 * The free view's paper: dragging goes round what is looked at, with Shift across it, the wheel
 * nearer or farther.
 */
function FreePaper({ view, size }: { view: OutsideView; size: Size }) {
  const start = useRef<OutsideView | null>(null);
  const set = (next: OutsideView) => setOutside(viewKey(currentMoment().project, 'outside'), next);
  const bind = useDragAndWheel(
    {
      onDrag: ({ first, last, movement: [dx, dy], shiftKey }) => {
        if (first) start.current = view;
        const from = start.current;
        if (from && (dx || dy)) set(shiftKey ? across(from, dx, dy, size) : about(from, dx, dy));
        if (last) start.current = null;
      },
      onWheel: ({ delta: [, dy] }) =>
        set({ ...view, distance: view.distance * 1.1 ** Math.max(-3, Math.min(3, dy / 100)) }),
    },
    { drag: { pointer: { keys: false, buttons: 1 } } },
  );
  return <rect {...bind()} width={size.width} height={size.height} fill="transparent" style={{ cursor: 'move' }} />;
}

const about = (from: OutsideView, dx: number, dy: number): OutsideView => ({
  ...from,
  yaw: from.yaw + dx * 0.4,
  pitch: Math.max(-89, Math.min(89, from.pitch - dy * 0.4)),
});

function across(from: OutsideView, dx: number, dy: number, size: Size): OutsideView {
  const per = (2 * from.distance * Math.tan(radians(20))) / size.height;
  const [yaw, pitch] = [radians(from.yaw), radians(from.pitch)];
  const [s, c] = [Math.sin(yaw), Math.cos(yaw)];
  const right: Vec3 = [c, 0, s];
  const up: Vec3 = [-s * Math.sin(pitch), Math.cos(pitch), c * Math.sin(pitch)];
  const target = from.target.map((v, i) => v - right[i]! * dx * per + up[i]! * dy * per) as unknown as Vec3;
  return { ...from, target };
}

/** Where a drawing stands under its caption. */
export const paneStyle = (slot: Slot) => ({
  left: slot.x,
  top: slot.y,
  width: slot.width,
  height: slot.height + caption,
});
