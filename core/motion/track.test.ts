import type { Track } from './trackSchema';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { CameraFrame } from '../camera/frame';
import { anglesOfBasis, orthonormalError } from '../camera/orientation';
import { worldToViewRuf } from '../convert/project';
import { add, cross, distance, dot, length, scale, sub, type Vec3 } from '../math/vec3';
import { frames, real, vectors } from '../testing/arbitraries';
import { defaultPitchLimits, followed, frameAlong, timesProblem } from './track';
import type { Course } from './course';
import { runs } from '../testing/seed';

const times = real(0, 30);
const at = (frame: CameraFrame, track: Track, time: number): CameraFrame => {
  const made = frameAlong(frame, track, time);
  if (!made.ok) throw new Error(made.message);
  return made.value;
};
const course = fc
  .array(fc.tuple(real(0.1, 3), vectors(20)), { minLength: 1, maxLength: 5 })
  .map((legs): Course<Vec3> => {
    let time = 0;
    return legs.map(([span, p]) => [(time += span), p] as const);
  });

/** A basis may be given to six digits: then lengths along it have no more. */
const exact = (frame: CameraFrame): boolean => orthonormalError(frame) < 1e-12;

describe('a camera along a track', () => {
  it('scrolls evenly, and is where it began at time 0', () => {
    fc.assert(
      fc.property(frames, vectors(5), times, (frame, velocity, time) => {
        const track: Track = { kind: 'scroll', velocity };
        expect(distance(at(frame, track, 0).eye, frame.eye)).toBe(0);
        expect(distance(at(frame, track, time).eye, add(frame.eye, scale(velocity, time)))).toBeLessThan(1e-9);
      }),
    );
  });

  it('follows its target as the equation says, by ever smaller plain steps too', () => {
    fc.assert(
      fc.property(course, real(0.05, 2), fc.tuple(real(0, 2), real(0, 2), real(0, 2)), (course, halfLife, deadZone) => {
        const [end, steps] = [course.at(-1)![0] + 1, 20_000];
        const dt = end / steps;
        const rate = Math.LN2 / halfLife;
        const target = (t: number): Vec3 => {
          const next = course.findIndex(([time]) => time > t);
          if (next <= 0) return (next === 0 ? course[0]! : course.at(-1)!)[1];
          const [[a, p], [b, q]] = [course[next - 1]!, course[next]!];
          return add(p, scale(sub(q, p), (t - a) / (b - a)));
        };
        const held: number[] = [...course[0]![1]];
        for (let i = 0; i < steps; i++) {
          const x = target((i + 0.5) * dt);
          for (let k = 0; k < 3; k++) {
            const off = x[k]! - held[k]!;
            if (Math.abs(off) > deadZone[k]!) held[k]! += rate * (off - Math.sign(off) * deadZone[k]!) * dt;
          }
        }
        const found = add(course[0]![1], followed(course, { halfLife, deadZone }, end));
        expect(distance(found, held as unknown as Vec3)).toBeLessThan(0.05);
      }),
      { numRuns: runs(25) },
    );
  });

  it('keeps what is followed at the edge of its zone when it follows at once, and rests before the first point', () => {
    fc.assert(
      fc.property(course, times, (course, time) => {
        const terms = { halfLife: 0, deadZone: [0, 0, 0] };
        expect(followed(course, terms, course[0]![0])).toEqual([0, 0, 0]);
        if (time >= course.at(-1)![0])
          expect(distance(followed(course, terms, time), sub(course.at(-1)![1], course[0]![1]))).toBeLessThan(1e-9);
      }),
    );
  });

  it('orbits with its gaze on the centre, level, within its limits, by e-folds of the distance', () => {
    let orbits = 0;
    fc.assert(
      fc.property(
        frames,
        vectors(30),
        real(-1, 1),
        real(-1, 1),
        real(-0.1, 0.1),
        times,
        (frame, off, yawRate, pitchRate, distanceRate, time) => {
          // prettier-ignore
          const centre = add(frame.eye, off);
          const track: Track = { kind: 'orbit', centre, yawRate, pitchRate, pitchLimits: defaultPitchLimits, distanceRate }; // prettier-ignore
          const made = frameAlong(frame, track, time);
          if (!made.ok) {
            expect(made.code).toBe('lookAtDegenerate');
            return;
          }
          // Very near the centre the eye's own digits are what is left of the distance.
          if (length(off) < 0.1) return;
          orbits++;
          const { eye, forward, right } = made.value;
          const gaze = sub(centre, eye);
          expect(length(gaze) / (length(off) * Math.exp(distanceRate * time))).toBeCloseTo(1, 9);
          expect(length(cross(forward, gaze)) / length(gaze)).toBeLessThan(1e-9);
          expect(Math.abs(right[1])).toBeLessThan(1e-12);
          expect(Math.abs(anglesOfBasis(made.value).pitch)).toBeLessThan(defaultPitchLimits[1] + 1e-9);
        },
      ),
      { numRuns: runs(400) },
    );
    expect(orbits).toBeGreaterThan(20);
  });

  it('walks alike whether its stretches are cut or not, and holds its pitch at the limit', () => {
    const rates = fc.record({ right: real(-3, 3), up: real(-3, 3), ahead: real(-3, 3), yawRate: real(-2, 2), pitchRate: real(-0.3, 0.3) }); // prettier-ignore
    fc.assert(
      fc.property(
        frames,
        rates,
        rates,
        real(0, 4),
        real(4, 8),
        real(0.1, 0.9),
        times,
        (frame, a, b, from, to, share, time) => {
          // prettier-ignore
          const pitchLimit = 1.2;
          const cut = from + (to - from) * share;
          const whole: Track = { kind: 'walk', pitchLimit, inputs: [{ from, to, ...a }, { from: 2, to: 6, ...b }] }; // prettier-ignore
          const parted: Track = { kind: 'walk', pitchLimit, inputs: [{ from, to: cut, ...a }, { from: 2, to: 6, ...b }, { from: cut, to, ...a }] }; // prettier-ignore
          const [p, q] = [at(frame, whole, time), at(frame, parted, time)];
          expect(distance(p.eye, q.eye)).toBeLessThan(1e-9 * (1 + length(p.eye)));
          expect(distance(p.forward, q.forward)).toBeLessThan(1e-9);
          expect(Math.abs(anglesOfBasis(p).pitch)).toBeLessThan(pitchLimit + 1e-9);
        },
      ),
    );
  });

  it('goes through the keys of its path with their fields of view, and keeps shift and an orthographic size', () => {
    const keys = fc.array(fc.tuple(real(0.2, 3), vectors(20), real(-3, 3), real(-1.4, 1.4), real(-1, 1), real(0.2, 2.5)), { minLength: 1, maxLength: 4 }); // prettier-ignore
    fc.assert(
      fc.property(frames, keys, (frame, given) => {
        let time = 0;
        const keys = given.map(([span, eye, yaw, pitch, roll, verticalFov]) => ({ time: (time += span), position: eye, yaw, pitch, roll, verticalFov, ease: 'gentle' as const })); // prettier-ignore
        for (const key of keys) {
          const there = at(frame, { kind: 'path', keys }, key.time);
          expect(distance(there.eye, key.position)).toBeLessThan(1e-9);
          const [a, b] = [there.extents, frame.extents];
          if (frame.kind === 'orthographic') expect(a).toEqual(b);
          else {
            expect(Math.abs(a.top - a.bottom) / 2 / frame.near / Math.tan(key.verticalFov / 2)).toBeCloseTo(1, 9);
            expect((a.right + a.left) * (b.top - b.bottom)).toBeCloseTo((b.right + b.left) * (a.top - a.bottom), 6);
          }
        }
      }),
    );
  });

  it('keeps the height at the target while it dollies, from the first distance to the last', () => {
    let seen = 0;
    fc.assert(
      fc.property(
        frames,
        vectors(30),
        real(1, 50),
        real(1, 50),
        real(0, 10),
        times,
        (frame, off, first, last, duration, time) => {
          // prettier-ignore
          const target = add(frame.eye, off);
          const track: Track = { kind: 'dollyZoom', target, distance: [first, last], duration, ease: 'gentle' };
          const made = frameAlong(frame, track, time);
          if (!made.ok) {
            expect(dot(off, frame.forward)).toBeLessThan(1e-9);
            return;
          }
          if (dot(off, frame.forward) < 0.1 || !exact(frame)) return;
          seen++;
          const there = worldToViewRuf(made.value, target);
          const share = time >= duration ? 1 : (time / duration) ** 2 * (3 - (2 * time) / duration);
          expect(Math.abs(there[2] - (first + (last - first) * share))).toBeLessThan(1e-6 * (1 + length(frame.eye)));
          // What is seen in height at the target is what it was; an orthographic picture keeps its size.
          const height = ({ extents: e, kind }: CameraFrame, ahead: number) => (e.top - e.bottom) * (kind === 'perspective' ? ahead : 1); // prettier-ignore
          const kept = height(made.value, there[2]) / height(frame, dot(off, frame.forward));
          const { top, bottom } = frame.extents;
          // Edges close together far off the axis have few digits of their difference.
          const digits = 1 + Math.max(Math.abs(top), Math.abs(bottom)) / Math.abs(top - bottom);
          expect(Math.abs(kept - 1)).toBeLessThan(1e-7 * (1 + length(frame.eye)) * digits);
        },
      ),
      { numRuns: runs(400) },
    );
    expect(seen).toBeGreaterThan(runs(6));
  });

  it('shakes within its bounds, and no longer than its strength lasts', () => {
    const terms = { seed: 5, frequency: 3, decay: 0.5, offset: [0.2, 0.1] as const, angles: { yaw: 0.01, pitch: 0.02, roll: 0.03 } }; // prettier-ignore
    let moved = 0;
    fc.assert(
      fc.property(frames, real(0, 1), times, (frame, strength, time) => {
        const there = at(frame, { kind: 'shake', strength, ...terms }, time);
        const by = sub(there.eye, frame.eye);
        expect(Math.abs(dot(by, frame.right))).toBeLessThanOrEqual(0.2 + 1e-9);
        expect(Math.abs(dot(by, frame.up))).toBeLessThanOrEqual(0.1 + 1e-9);
        expect(Math.abs(dot(by, frame.forward))).toBeLessThan(1e-9);
        if (time >= 2 * strength) expect(length(by)).toBe(0);
        else if (length(by) > 0) moved++;
      }),
      { numRuns: runs(200) },
    );
    expect(moved).toBeGreaterThan(0);
  });

  it('says what is wrong with its times', () => {
    const follow = (...times: number[]): Track => ({
      kind: 'follow',
      target: times.map((time) => [time, [0, 0, 0]] as const),
      halfLife: 0,
    });
    const dolly = (duration: number): Track => ({ kind: 'dollyZoom', target: [0, 0, 0], distance: [1, 2], duration, ease: 'even' }); // prettier-ignore
    expect(timesProblem(dolly(0), 1)).toBeNull();
    expect(timesProblem(follow(0, 1), 1)).toBeNull();
    expect(timesProblem(dolly(-1), 1)).toMatchObject({ code: 'timeNegative' });
    expect(timesProblem(dolly(1), -1)).toMatchObject({ code: 'timeNegative' });
    expect(timesProblem(follow(), 0)).toMatchObject({ code: 'noKeys' });
    expect(timesProblem(follow(0, 1, 1), 0)).toMatchObject({ code: 'keysOutOfOrder' });
    expect(timesProblem(follow(0, -2), 0)).toMatchObject({ code: 'timeNegative' });
  });
});
