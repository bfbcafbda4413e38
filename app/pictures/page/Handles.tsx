import './Handle.css';
import { useDrag } from '@use-gesture/react';
import { useContext, useId, useRef, type KeyboardEvent } from 'react';
import type { Vec2 } from '../../../core/math/vec3';
import { cancelGesture, endGesture } from '../../state/document';
import type { Moment } from '../../state/moment';
import { useMoving } from '../../state/pace';
import { editSlice } from '../../state/slices';
import { Tempo, useMoment } from '../../state/tempo';
import { FirstPaintDone } from '../../ui/firstPaint';
import type { PictureView } from '../compose/contract';
import { houseHandles, pointUnderHand, type AnyHandle } from './handles';
import { n2 } from '../compose/marks';

/** What a task has to take hold of in a picture; given by the page, which knows the tasks. */
export type TaskHandles = (view: PictureView) => {
  readonly task: string;
  readonly handles: readonly AnyHandle[];
};

interface Props {
  readonly picture: string;
  /** Makes the picture's view of a moment: the handles follow the hand while the drawing stands. */
  readonly viewOf: (now: Moment) => PictureView | null;
  readonly ofTask?: TaskHandles | undefined;
  /** Those that are left out at the moment, by their ids. */
  readonly without?: readonly string[];
}

/**
 * What can be taken hold of in a picture. It goes with the hand while it holds one of them;
 * otherwise it stands still until the hand lets go.
 */
export function Handles(props: Props) {
  const done = useContext(FirstPaintDone);
  const held = useMoving(({ held }) => held !== null && held.grip && held.picture === props.picture);
  if (!done) return null;
  return (
    <Tempo value={held ? 'now' : 'still'}>
      <AllHandles {...props} />
    </Tempo>
  );
}

function AllHandles({ viewOf, ofTask, without = [] }: Props) {
  const now = useMoment();
  const view = viewOf(now);
  if (!view) return null;
  const task = ofTask?.(view);
  return (
    <>
      {houseHandles(view, now)
        .filter(({ id }) => !without.includes(id))
        .map((spec) => (
          <Handle key={spec.id} spec={spec} view={view} task={null} />
        ))}
      {task?.handles.map((spec) => (
        <Handle key={`task ${spec.id}`} spec={spec} view={view} task={task.task} />
      ))}
    </>
  );
}

/**
 * One thing that can be taken elsewhere: pointer, pen and touch drag it, the arrow keys move it,
 * Escape puts it back.
 */
function Handle({ spec, view, task }: { spec: AnyHandle; view: PictureView; task: string | null }) {
  const id = useId();
  const count = useRef(0);
  const gesture = () => `grab ${id} ${count.current}`;
  const at = view.point(spec.at);
  // Where it was taken hold of, and how far from its middle.
  const start = useRef<Vec2 | null>(null);
  const moveTo = (place: Vec2) => {
    const to = pointUnderHand(view, spec, place);
    const name = gesture();
    if (to) spec.move(to, (label, recipe) => task !== null && editSlice(task, label, recipe, name), name, place);
  };
  const bind = useDrag(
    ({ first, last, movement: [dx, dy], event, tap, canceled }) => {
      event.stopPropagation();
      if (first) {
        count.current++;
        start.current = at;
      }
      if (start.current && !tap && !canceled && (dx || dy)) moveTo([start.current[0] + dx, start.current[1] + dy]);
      if (last) {
        start.current = null;
        endGesture();
      }
    },
    { pointer: { keys: false, buttons: 1 }, filterTaps: false, threshold: 0 },
  );
  if (!at) return null;
  const [x, y] = [at[0], at[1]];
  const onKeyDown = (event: KeyboardEvent<SVGElement>) => {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    if (event.key === 'Escape') {
      cancelGesture(gesture());
      start.current = null;
    }
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    const k = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
    moveTo([x + by[0]! * k, y + by[1]! * k]);
  };
  const path = spec.path ? view.line(spec.path) : '';
  return (
    <g
      className="handle"
      role="button"
      aria-label={`Move ${spec.name}`}
      data-handle={spec.id}
      tabIndex={0}
      {...bind()}
      onKeyDown={onKeyDown}
      onBlur={() => {
        count.current++;
        endGesture();
      }}
    >
      <title>{`Drag ${spec.name}`}</title>
      {spec.sign === 'turner' && <circle className="ink-turn-handle" cx={n2(x)} cy={n2(y)} r="3" />}
      {path && <path className="grab-line" d={path} style={{ cursor: spec.cursor }} />}
      <path className="shown" d={`M${n2(x)} ${n2(y - 6)}l6 6-6 6-6-6Z`} />
      {!path && <circle className="grab" cx={n2(x)} cy={n2(y)} r={spec.radius ?? 9} />}
    </g>
  );
}
