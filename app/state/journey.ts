import type { CameraFrame } from '../../core/camera/frame';
import { codecOf } from '../../core/conventions/codec';
import type { Conventions } from '../../core/conventions/conventions';
import { pictureToViewRuf, viewRufToWorld } from '../../core/convert/project';
import type { Vec2 } from '../../core/math/vec3';
import { cameraAt, type CameraMotion } from '../../core/motion/cameraMotion';
import type { Course } from '../../core/motion/course';
import type { Tracked } from '../../core/motion/noTrack';
import { boundFocus, type Reach } from '../../core/motion/follow';
import { followed, reachOf, tooFar } from '../../core/motion/track';
import { projectFrame } from '../../formats/camera';
import type { Project, ProjectCamera2d } from '../../formats/project';

/** How a flat camera moves: world units, right and up. */
export type FlatMotion =
  | { readonly kind: 'scroll'; readonly velocity: Vec2 }
  | {
      readonly kind: 'follow';
      readonly target: Course<Vec2>;
      readonly halfLife: number;
      readonly deadZone: Vec2;
      readonly bounds: { readonly min: Vec2; readonly max: Vec2 } | null;
    };

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
      readonly motion: FlatMotion;
    };

type FlatJourney = Extract<Journey, { kind: 'flat' }>;

/** How far a flat camera's picture reaches about its focus, before it is snapped, so that snapping does not push it about. */
function reachOn({ camera, viewport, conventions }: FlatJourney): Reach {
  const made = projectFrame({ camera: { ...camera, snap: 'none' }, viewport }, codecOf(conventions));
  if (!made.ok) return { below: [0, 0], above: [0, 0] };
  const corners = [-1, 1].flatMap((x) =>
    [-1, 1].map((y): Vec2 => {
      const [a, b] = viewRufToWorld(made.value, pictureToViewRuf(made.value, x, y, 0));
      return [a, b];
    }),
  );
  return reachOf(camera.focus, corners);
}

/** The focus of a flat camera that what it follows has moved by so much: kept in its bounds. */
export function focusMovedBy(journey: FlatJourney, [dx, dy]: Vec2): Vec2 {
  const { camera, motion } = journey;
  const moved: Vec2 = [camera.focus[0] + dx, camera.focus[1] + dy];
  return motion.kind === 'follow' && motion.bounds ? boundFocus(moved, reachOn(journey), motion.bounds) : moved;
}

/** The focus of a flat camera at a time. */
export function focusOnJourney(journey: FlatJourney, time: number): Vec2 {
  const { motion } = journey;
  return focusMovedBy(
    journey,
    motion.kind === 'scroll'
      ? [motion.velocity[0] * time, motion.velocity[1] * time]
      : followed(motion.target, motion, time),
  );
}

/** A flat camera with its focus elsewhere. */
export function flatAt({ camera, viewport, conventions }: FlatJourney, [a, b]: Vec2): CameraFrame | null {
  const made = projectFrame({ camera: { ...camera, focus: [a, b] }, viewport }, codecOf(conventions));
  return made.ok ? made.value : null;
}

/** The camera of a journey at a time in seconds, 0 or more, or why there is none. */
export function journeyAt(journey: Journey, time: number): Tracked<CameraFrame> {
  if (journey.kind === 'space') return cameraAt(journey.frame, journey.motion, time);
  const made = flatAt(journey, focusOnJourney(journey, time));
  return made ? { ok: true, value: made } : tooFar(time);
}
