import { anglesOfBasis } from '../../../core/camera/orientation';
import { radians } from '../../../core/math/angle';
import { addScaled, type Vec3 } from '../../../core/math/vec3';
import { newId } from '../../state/crashLog';
import type { Moment } from '../../state/moment';
import type { MotionState, PathKey, Travel, TravelKind } from './kept';
import { aheadOf, verticalFov } from './series';
import { subjectAt, subjectOf } from './subject';

type Triple = [number, number, number];

const tidy = (v: number): number => Number(v.toPrecision(6)) || 0;
const tidied = (p: Vec3): Triple => [tidy(p[0]), tidy(p[1]), tidy(p[2])];

/** The camera as a key at a time. */
export function keyOf({ frame }: Pick<Moment, 'frame'>, time: number): PathKey {
  const { yaw, pitch, roll } = anglesOfBasis(frame);
  return {
    ...{ id: newId(), time: Number(time.toFixed(3)), position: tidied(frame.eye), ease: 'even' },
    ...{ yaw, pitch, roll },
    verticalFov: verticalFov(frame) ?? radians(45),
  };
}

/**
 * Returns a new track of a kind about the subject. All but `follow` begin where the camera is: an orbit's centre is
 * therefore on the view axis, as far ahead as the subject.
 */
export function newTravel(kind: TravelKind, now: Moment<MotionState>): Travel {
  const { rest, flat, sceneBounds: b, project } = now;
  const subject = subjectOf(now);
  const place = subject ? subjectAt(subject, 0) : addScaled(rest.eye, rest.forward, b.radius / 2);
  const target = tidied(flat ? [place[0], place[1], 0] : place);
  const ahead = aheadOf(rest, place);
  switch (kind) {
    case 'rest':
      return { kind };
    case 'scroll':
      return { kind, velocity: flat ? [tidy(b.radius / 20), 0, 0] : tidied(rest.right.map((v) => (v * b.radius) / 30) as Triple) }; // prettier-ignore
    case 'follow': {
      const moving = project.bodies.find(({ motion }) => motion !== null);
      return { kind, body: now.slice.subject ?? moving?.id ?? project.bodies[0]?.id ?? '', halfLife: 0.5, lookAhead: 0, deadZone: [0, 0, 0], bounds: null }; // prettier-ignore
    }
    case 'orbit':
      return {
        kind,
        centre: [...addScaled(rest.eye, rest.forward, ahead > 0 ? ahead : b.radius / 2)],
        yawRate: radians(12),
        pitchRate: 0,
        pitchLimits: [radians(-80), radians(80)],
        distanceRate: 0,
      };
    case 'path': {
      const first = keyOf({ frame: rest }, 0);
      const on = tidied(addScaled(addScaled(rest.eye, rest.forward, Math.max(1, ahead / 3)), rest.right, Math.max(1, ahead / 6))); // prettier-ignore
      return { kind, keys: [first, { ...first, id: newId(), time: 6, position: on }] };
    }
    case 'walk':
      return {
        ...{ kind, pitchLimit: now.slice.steering.pitchLimit },
        inputs: [
          { from: 0, to: 5, right: 0, up: 0, ahead: now.slice.steering.speed, yawRate: radians(10), pitchRate: 0 },
        ],
      };
    case 'dollyZoom': {
      const from = tidy(Math.max(ahead, 1e-3));
      return { kind, target, distance: [from, tidy(from / 3)], widest: radians(120), duration: 8, ease: 'gentle' };
    }
    case 'blend':
      return { kind, subject: target, duration: 6, ease: 'gentle' };
  }
}
