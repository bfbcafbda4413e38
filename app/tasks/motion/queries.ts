import type { Query } from '../../../core/compute/operations';
import { trackSchema, type WrittenTrack } from '../../../core/motion/trackSchema';
import { writeValue } from '../../../core/quantities/convert';
import type { Moment } from '../../state/moment';
import { spanOf } from '../../state/span';
import { shakeOf, trackOf, travelTrack } from './journey';
import { travelSpan, type CameraTrack, type MotionState } from './kept';

/**
 * Writes the travel of a track as a compute request has it. Null for rest, for a body that does not exist, and for
 * the blend, which no request asks for.
 */
export function requestTrack(
  { travel }: CameraTrack,
  { project, codec, world, rest }: Pick<Moment, 'project' | 'codec' | 'world' | 'rest'>,
): WrittenTrack | null {
  const track = travelTrack(travel, { bodies: project.bodies, far: spanOf(project), rest, world });
  return track && track.kind !== 'blend' ? writeValue(trackSchema, track, { codec, world }) : null;
}

/** Writes the shake of a track as a compute request has it. */
export const requestShake = ({ shake }: CameraTrack, context: Pick<Moment, 'codec' | 'world'>): WrittenTrack | null =>
  shake ? writeValue(trackSchema, shakeOf(shake), context) : null;

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
