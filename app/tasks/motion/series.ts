import { worldToPixel, worldToViewRuf } from '../../../core/convert/project';
import { distance, dot, sub, type Vec3 } from '../../../core/math/vec3';
import { sphereSize } from '../../../core/visibility/size';
import { frameFov, type CameraFrame } from '../../../core/camera/frame';
import { journeyAt, type Journey } from '../../state/journey';
import { memo } from '../../state/memo';
import { subjectAt, type Subject } from './subject';

/** What is charted, at a second. */
export interface Sample {
  readonly time: number;
  /** Radians over the height; null in orthographic. */
  readonly fov: number | null;
  /** World units from the eye to the subject's middle; on a flat world, from the focus. */
  readonly distance: number;
  /** World units a second, of the eye. */
  readonly speed: number;
  /** Canonical pixels; null behind the eye. */
  readonly x: number | null;
  readonly y: number | null;
  /** Diameter of the subject's sphere in pixels; null with the eye in it. */
  readonly size: number | null;
}

/** The vertical field of view in radians; null in orthographic. */
export const verticalFov = (frame: CameraFrame): number | null => frameFov(frame);

/** How far two places of the eye are apart; a flat camera is where its picture is. */
const apart = (a: Vec3, b: Vec3, flat: boolean) => (flat ? Math.hypot(a[0] - b[0], a[1] - b[1]) : distance(a, b));

/** The camera and the subject in its picture, at a second; null where there is no camera. */
export function sampleAt(journey: Journey, subject: Subject, time: number): Sample | null {
  const made = journeyAt(journey, time);
  if (!made.ok) return null;
  const { value: frame } = made;
  const flat = journey.kind === 'flat';
  const place = subjectAt(subject, time);
  const h = 1e-3;
  const [before, after] = [journeyAt(journey, Math.max(0, time - h)), journeyAt(journey, time + h)];
  const seconds = h + Math.min(h, time);
  const speed = before.ok && after.ok ? apart(after.value.eye, before.value.eye, flat) / seconds : NaN;
  const pixel = worldToPixel(frame, place);
  const size = sphereSize(frame, place, subject.radius).diameter;
  return {
    ...{ time, fov: verticalFov(frame), distance: apart(frame.eye, place, flat), speed },
    ...{ x: pixel.ok ? pixel.value[0] : null, y: pixel.ok ? pixel.value[1] : null, size: size.ok ? size.value : null },
  };
}

/** Even samples of a journey; what has no camera is left out. */
export const seriesOf = memo(
  (journey: Journey, subject: Subject, span: number, count: number): readonly Sample[] =>
  Array.from({ length: count + 1 }, (_, i) => sampleAt(journey, subject, (span * i) / count)).filter((one) => one !== null), // prettier-ignore
);

/** The way of the eye, for drawing: empty where it stands. */
export const wayOf = memo((journey: Journey, span: number): readonly Vec3[] => {
  const points = Array.from({ length: 241 }, (_, i) => journeyAt(journey, (span * i) / 240)).flatMap((one) =>
    one.ok ? [one.value.eye] : [],
  );
  const first = points[0];
  return first && points.some((p) => dot(sub(p, first), sub(p, first)) > 1e-12) ? points : [];
});

/** Ahead of the camera, for a subject: below 0 behind it. */
export const aheadOf = (frame: CameraFrame, place: Vec3): number => worldToViewRuf(frame, place)[2];
