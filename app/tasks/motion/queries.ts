import type { Query, RequestTrack } from '../../../core/compute/schema';
import { writeValue } from '../../../core/quantities/convert';
import type { Moment } from '../../state/moment';
import { spanOf } from '../../state/span';
import { bodyCourse, dollyDistances, trackOf } from './journey';
import { cameraTrack, travelSpan, type CameraTrack, type MotionState } from './kept';

/**
 * A track as a compute request has it, in the conventions in force: its travel, or its shake. Null for
 * rest, for a body that is gone, and for the blend, which no request asks for.
 */
export function requestTrack(
  { travel }: CameraTrack,
  { project, codec, world, rest }: Pick<Moment, 'project' | 'codec' | 'world' | 'rest'>,
): RequestTrack | null {
  const written = writeValue(cameraTrack.shape.travel, travel, { codec, world });
  switch (written.kind) {
    case 'rest':
    case 'blend':
      return null;
    case 'scroll':
    case 'orbit':
    case 'walk':
      return written;
    case 'follow': {
      const course = bodyCourse(project.bodies, written.body, written.lookAhead, spanOf(project));
      if (!course) return null;
      const { bounds, deadZone, halfLife } = written;
      const side = (i: 0 | 1, pick: (...v: number[]) => number) => pick(bounds!.min[i], bounds!.max[i]);
      return {
        ...{ kind: 'follow', halfLife, target: course.map(([time, p]) => [time, world.writePoint(p, codec)]) },
        deadZone: deadZone.slice(0, world.dimensions),
        ...(!world.hasDepth && bounds && { bounds: { min: [side(0, Math.min), side(1, Math.min)], max: [side(0, Math.max), side(1, Math.max)] } }), // prettier-ignore
      } as RequestTrack;
    }
    case 'path':
      return {
        kind: 'path',
        keys: written.keys.map(({ time, position, yaw, pitch, roll, verticalFov, ease }) => ({ time, position, yaw, pitch, roll, verticalFov, ease })), // prettier-ignore
      };
    case 'dollyZoom': {
      const { duration, ease, target } = written;
      return {
        kind: 'dollyZoom',
        duration,
        ease,
        target,
        distance: [...dollyDistances(travel as typeof written, rest)],
      };
    }
  }
}

/** The shake of a track as a compute request has it. */
export function requestShake(
  { shake }: CameraTrack,
  { codec, world }: Pick<Moment, 'codec' | 'world'>,
): RequestTrack | null {
  if (!shake) return null;
  const { yaw, pitch, roll, ...terms } = writeValue(cameraTrack.shape.shake, shake, { codec, world })!;
  return { kind: 'shake', ...terms, angles: { yaw, pitch, roll } };
}

/** The camera's track as a query, at the second now and at eight even ones; its shake, where it has one, as another. */
export function motionQueries(kept: MotionState, now: Moment<MotionState>): Query[] {
  const track = trackOf({ slice: kept, project: now.project });
  if (!track) return [];
  const far = travelSpan(track) ?? 0;
  const times = [...new Set([...Array.from({ length: 9 }, (_, i) => (far * i) / 8), now.time])];
  const travel = requestTrack(track, now);
  const shake = now.world.hasDepth ? requestShake(track, now) : null;
  return [
    ...(travel ? [{ id: 'motion', op: 'motion', track: travel, times } as Query] : []),
    ...(shake ? [{ id: 'shake', op: 'motion', track: shake, times } as Query] : []),
  ];
}
