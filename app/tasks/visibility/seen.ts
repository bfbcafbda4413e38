import type { CameraFrame } from '../../../core/camera/frame';
import type { PlacedBody } from '../../../core/bodies/body';
import { clearanceOf, type Clearance } from '../../../core/visibility/clearance';
import { apparentSize, isBehind, type SeenBy, type SeenVerdict, visibilityBy } from '../../../core/visibility/size';
import { visibility, type Verdict } from '../../../core/visibility/visibility';
import { occlusionOf, uncoveringStep, type Occlusion } from '../../../core/visibility/occlusion';
import { showingChanges, type ShowingChange } from '../../../core/visibility/showing';
import { whyUnseen, type Unseen } from '../../../core/visibility/whyNot';
import { bodiesOf } from '../../state/bodyList';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import type { VisibilityState } from './kept';
import { seenByOf } from './state';

/* What Visibility's sheet and pictures have in common: each worked out once, here. */

/** A body's verdict, what the planes say of it, and how far it is from another. */
export interface Seen {
  readonly id: string;
  readonly verdict: Verdict;
  /** By the customary test: outside only where it lies wholly beyond one plane. */
  readonly planes: Verdict;
  readonly rejectedBy: readonly string[];
  /** Kept by the planes, and nothing of it is in the frustum. */
  readonly falseAlarm: boolean;
  readonly clearance: Clearance | null;
}

const seen = memo(
  (frame: CameraFrame, bodies: readonly PlacedBody[], margin: number, flat: boolean): readonly Seen[] => {
    const exact = visibility(frame, bodies, { method: 'exact', margin, flat });
    const planes = visibility(frame, bodies, { method: 'planes', margin, flat });
    return bodies.map((placed, i): Seen => {
      const { verdict, rejectedBy } = exact[i]!;
      return {
        ...{ id: placed.body.id, verdict, planes: planes[i]!.verdict, rejectedBy },
        falseAlarm: verdict === 'outside' && planes[i]!.verdict !== 'outside',
        clearance: clearanceOf(frame, placed, verdict, { margin, flat }),
      };
    });
  },
);

/** Whether a margin leaves anything of the viewport. */
export const marginFits = ({ frame, slice }: Pick<Moment<VisibilityState>, 'frame' | 'slice'>): boolean =>
  Math.min(frame.viewport.width, frame.viewport.height) + 2 * slice.margin > 0;

/** Every body, in the project's order. */
export const seenNow = (now: Moment<VisibilityState>): readonly Seen[] =>
  seen(now.frame, bodiesOf(now), marginFits(now) ? now.slice.margin : 0, now.flat);

/** The verdict that a body is tinted by. */
export const shownVerdict = ({ method }: VisibilityState, one: Seen): Verdict =>
  method === 'exact' ? one.verdict : one.planes;

const shortcut = memo(
  (frame: CameraFrame, bodies: readonly PlacedBody[], kept: VisibilityState, flat: boolean): readonly SeenVerdict[] =>
    visibilityBy(frame, bodies, seenByOf(kept) satisfies SeenBy, flat),
);
/** What the shortcut says of every body. */
export const shortcutNow = (now: Moment<VisibilityState>): readonly SeenVerdict[] =>
  shortcut(now.frame, bodiesOf(now), now.slice, now.flat);

/** Why one body is not seen, and the least changes that show it. */
export interface WhyNot {
  readonly why: Unseen | null;
  readonly changes: readonly ShowingChange[];
  /** Its diameter on the screen. */
  readonly pixels: number | null;
  /** What hides it and how much of it; null off the picture and in 2D. */
  readonly occlusion: Occlusion | null;
}
/** Returns the ids of a body and of all that is attached to it: they do not hide it. */
const ownParts = (bodies: readonly PlacedBody[], roots: ReadonlyMap<string, string>, id: string): ReadonlySet<string> =>
  new Set(bodies.flatMap(({ body }) => (roots.get(body.id) === roots.get(id) ? [body.id] : [])));

const whyNot = memo(
  (
    frame: CameraFrame,
    bodies: readonly PlacedBody[],
    roots: ReadonlyMap<string, string>,
    id: string,
    flat: boolean,
  ): WhyNot | null => {
    const placed = bodies.find(({ body }) => body.id === id);
    if (!placed) return null;
    const own = ownParts(bodies, roots, id);
    const why = whyUnseen(frame, placed, bodies, { flat, own });
    const size = apparentSize(frame, placed, flat);
    return {
      why,
      changes: why && !flat ? showingChanges(frame, placed, why) : [],
      occlusion: !flat && (!why || why.kind === 'hidden') ? occlusionOf(frame, placed, bodies, own) : null,
      pixels: size.diameter.ok && !isBehind(frame, size) ? size.diameter.value : null,
    };
  },
);
export const whyNotNow = (now: Moment<VisibilityState>, id: string): WhyNot | null =>
  whyNot(now.frame, bodiesOf(now), now.roots, id, now.flat);

/** Returns the step of the camera that uncovers a hidden body. Takes too long for every frame of a drag. */
export function uncoveringStepNow(now: Moment<VisibilityState>, id: string): ReturnType<typeof uncoveringStep> {
  const bodies = bodiesOf(now);
  const placed = bodies.find(({ body }) => body.id === id);
  return placed ? uncoveringStep(now.frame, placed, bodies, ownParts(bodies, now.roots, id)) : null;
}

/** The level of a diameter: 0 from the largest threshold on, and one more below each. */
export const levelOf = (thresholds: readonly number[], pixels: number): number =>
  thresholds.filter((one) => pixels < one).length;
