import { degrees, radians } from '../../../core/math/angle';
import type { ConventionCodec } from '../../../core/conventions/codec';
import type { CameraTrack, Travel } from './kept';

type Pair = [number, number];
type Triple = [number, number, number];

/** A track whose numbers, as they are written by one set of conventions, are read by another. */
export function rereadTrack(
  track: CameraTrack,
  from: ConventionCodec,
  to: ConventionCodec,
  flat: boolean,
): CameraTrack {
  const place = (p: Triple): Triple => {
    if (!flat) return [...to.fromWorld(from.toWorld(p))];
    const [a, b] = pair([p[0], p[1]]);
    return [a, b, 0];
  };
  const pair = (p: Pair): Pair => [...to.fromPair('up', from.toPair('up', p))];
  const angle = (v: number): number => degrees(to.fromAngle(from.toAngle(radians(v))));
  const angles = (yaw: number, pitch: number, roll = 0) => {
    const written = from.toAngles({ yaw: radians(yaw), pitch: radians(pitch), roll: radians(roll) });
    const read = to.fromAngles(written);
    return { yaw: degrees(read.yaw), pitch: degrees(read.pitch), roll: degrees(read.roll) };
  };
  const rates = (yawRate: number, pitchRate: number) => {
    const { yaw, pitch } = angles(yawRate, pitchRate);
    return { yawRate: yaw, pitchRate: pitch };
  };
  const { travel: t, shake } = track;
  const again = (): Travel => {
    switch (t.kind) {
      case 'rest':
        return t;
      case 'scroll':
        return { ...t, velocity: place(t.velocity) };
      case 'follow':
        return { ...t, bounds: t.bounds && { min: pair(t.bounds.min), max: pair(t.bounds.max) } };
      case 'orbit': {
        const limits = t.pitchLimits.map((v) => angles(0, v).pitch).sort((a, b) => a - b) as Pair;
        return { ...t, centre: place(t.centre), ...rates(t.yawRate, t.pitchRate), pitchLimits: limits };
      }
      case 'path':
        return {
          ...t,
          keys: t.keys.map((key) => ({
            ...{ ...key, position: place(key.position), ...angles(key.yaw, key.pitch, key.roll) },
            verticalFov: angle(key.verticalFov),
          })),
        };
      case 'walk':
        return {
          ...t,
          inputs: t.inputs.map((one) => ({ ...one, ...rates(one.yawRate, one.pitchRate) })),
          pitchLimit: angle(t.pitchLimit),
        };
      case 'dollyZoom':
        return { ...t, target: place(t.target) };
      case 'blend':
        return { ...t, subject: place(t.subject) };
    }
  };
  return { travel: again(), shake: shake && { ...shake, ...angles(shake.yaw, shake.pitch, shake.roll) } };
}
