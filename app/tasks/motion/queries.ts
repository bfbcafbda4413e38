import type { Query, RequestTrack } from '../../../core/compute/schema';
import { radians } from '../../../core/math/angle';
import type { ConventionCodec } from '../../../core/conventions/codec';
import type { Vec3 } from '../../../core/math/vec3';
import type { Moment } from '../../state/moment';
import { spanOf } from '../../state/span';
import { bodyCourse, dollyDistances, trackOf } from './journey';
import { travelSpan, type CameraTrack, type MotionState } from './kept';

type Triple = [number, number, number];
type Pair = [number, number];

/**
 * A track as a compute request has it, in the conventions in force: its travel, or its shake. Null for
 * rest, for a body that is gone, and for the blend, which no request asks for.
 */
export function requestTrack(
  { travel: t }: CameraTrack,
  { project, codec: e, flat, rest }: Pick<Moment, 'project' | 'codec' | 'flat' | 'rest'>,
): RequestTrack | null {
  const point = (p: Vec3): Triple | Pair => (flat ? [...e.toPair('up', [p[0], p[1]])] : [...e.toWorld(p)]);
  const triple = (p: Vec3): Triple => [...e.toWorld(p)];
  const rates = (yaw: number, pitch: number) => {
    const found = e.toAngles({ yaw: radians(yaw), pitch: radians(pitch), roll: 0 });
    return { yawRate: found.yaw, pitchRate: found.pitch };
  };
  switch (t.kind) {
    case 'rest':
    case 'blend':
      return null;
    case 'scroll':
      return { kind: 'scroll', velocity: point(t.velocity) };
    case 'follow': {
      const course = bodyCourse(project.bodies, t.body, t.lookAhead, spanOf(project));
      if (!course) return null;
      const corners = t.bounds && [e.toPair('up', t.bounds.min), e.toPair('up', t.bounds.max)];
      const side = (i: 0 | 1, pick: (...v: number[]) => number) => pick(corners![0]![i], corners![1]![i]);
      return {
        ...{ kind: 'follow', halfLife: t.halfLife, target: course.map(([time, p]): [number, Triple | Pair] => [time, point(p)]) }, // prettier-ignore
        deadZone: flat ? [t.deadZone[0], t.deadZone[1]] : t.deadZone,
        ...(flat && corners && { bounds: { min: [side(0, Math.min), side(1, Math.min)], max: [side(0, Math.max), side(1, Math.max)] } }), // prettier-ignore
      };
    }
    case 'orbit': {
      const limits = t.pitchLimits.map((pitch) => e.toAngles({ yaw: 0, pitch: radians(pitch), roll: 0 }).pitch).sort((a, b) => a - b) as Pair; // prettier-ignore
      return {
        ...{ kind: 'orbit', centre: triple(t.centre), distanceRate: t.distanceRate, pitchLimits: limits },
        ...rates(t.yawRate, t.pitchRate),
      };
    }
    case 'path':
      return {
        kind: 'path',
        keys: t.keys.map(({ time, position, yaw, pitch, roll, verticalFov, ease }) => ({
          ...{ time, ease, position: triple(position), verticalFov: e.toAngle(radians(verticalFov)) },
          ...e.toAngles({ yaw: radians(yaw), pitch: radians(pitch), roll: radians(roll) }),
        })),
      };
    case 'walk':
      return {
        ...{ kind: 'walk', pitchLimit: e.toAngle(radians(t.pitchLimit)) },
        inputs: t.inputs.map(({ yawRate, pitchRate, ...one }) => ({ ...one, ...rates(yawRate, pitchRate) })),
      };
    case 'dollyZoom':
      return {
        ...{ kind: 'dollyZoom', duration: t.duration, ease: t.ease, target: triple(t.target) },
        distance: [...dollyDistances(t, rest)],
      };
  }
}

/** The shake of a track as a compute request has it. */
export function requestShake({ shake }: CameraTrack, e: ConventionCodec): RequestTrack | null {
  if (!shake) return null;
  const { yaw, pitch, roll, seed, frequency, decay, strength, offset } = shake;
  return {
    ...{ kind: 'shake', seed, frequency, decay, strength, offset },
    angles: e.toAngles({ yaw: radians(yaw), pitch: radians(pitch), roll: radians(roll) }),
  };
}

/** The camera's track as a query, at the second now and at eight even ones; its shake, where it has one, as another. */
export function motionQueries(kept: MotionState, now: Moment<MotionState>): Query[] {
  const track = trackOf({ slice: kept, project: now.project });
  if (!track) return [];
  const far = travelSpan(track) ?? 0;
  const times = [...new Set([...Array.from({ length: 9 }, (_, i) => (far * i) / 8), now.time])];
  const travel = requestTrack(track, now);
  const shake = now.flat ? null : requestShake(track, now.codec);
  return [
    ...(travel ? [{ id: 'motion', op: 'motion', track: travel, times } as Query] : []),
    ...(shake ? [{ id: 'shake', op: 'motion', track: shake, times } as Query] : []),
  ];
}
