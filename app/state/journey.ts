import type { CameraFrame } from '../../core/camera/frame';
import { codecOf } from '../../core/conventions/codec';
import type { Conventions } from '../../core/conventions/conventions';
import type { Vec2 } from '../../core/math/vec3';
import { cameraAt, type CameraMotion } from '../../core/motion/cameraMotion';
import { focusAlong, focusMovedBy, type FlatStart, type FlatTrack } from '../../core/motion/focusTrack';
import type { Tracked } from '../../core/motion/noTrack';
import { tooFar } from '../../core/motion/track';
import { projectFrame } from '../../formats/camera';
import type { Project, ProjectCamera2d } from '../../formats/project';

/**
 * Where the project's camera goes as time passes, as data: a job in a worker asks it for any moment
 * as the page does. What it is in space begins at the frame at rest, on a flat world at the camera.
 */
export type Journey =
  | { readonly kind: 'space'; readonly frame: CameraFrame; readonly motion: CameraMotion }
  | {
      readonly kind: 'flat';
      readonly camera: ProjectCamera2d;
      readonly viewport: Project['viewport'];
      readonly conventions: Conventions;
      readonly motion: FlatTrack;
    };

type FlatJourney = Extract<Journey, { kind: 'flat' }>;

/** The 2D camera of a journey at its beginning. */
const startOf = ({ camera, viewport, conventions }: FlatJourney): FlatStart => ({
  focus: camera.focus,
  unsnapped: () => {
    const made = projectFrame({ camera: { ...camera, snap: 'none' }, viewport }, codecOf(conventions));
    return made.ok ? made.value : null;
  },
});

/** Returns the focus of a 2D camera moved by a displacement of the body it follows, inside its bounds. */
export const journeyFocusMovedBy = (journey: FlatJourney, by: Vec2): Vec2 =>
  focusMovedBy(startOf(journey), journey.motion, by);

/** Returns the focus of a 2D camera at a time. */
export const journeyFocus = (journey: FlatJourney, time: number): Vec2 =>
  focusAlong(startOf(journey), journey.motion, time);

/** A flat camera with its focus elsewhere. */
export function flatAt({ camera, viewport, conventions }: FlatJourney, [a, b]: Vec2): CameraFrame | null {
  const made = projectFrame({ camera: { ...camera, focus: [a, b] }, viewport }, codecOf(conventions));
  return made.ok ? made.value : null;
}

/** The camera of a journey at a time in seconds, 0 or more, or why there is none. */
export function journeyAt(journey: Journey, time: number): Tracked<CameraFrame> {
  if (journey.kind === 'space') return cameraAt(journey.frame, journey.motion, time);
  const made = flatAt(journey, journeyFocus(journey, time));
  return made ? { ok: true, value: made } : tooFar(time);
}
