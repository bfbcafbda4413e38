import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeBodies } from '../bodies/body';
import { transformPoint } from '../math/mat4';
import { normalizeQuat, quatAbout, rotateByQuat } from '../math/quat';
import { cross, distance, dot, length, normalize, sub, type Vec3 } from '../math/vec3';
import { courseOf, placedAt, poseAt, type BodyMotion, type MovingBody, type Pose } from './bodies';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const vector = fc.tuple(number(-50, 50), number(-50, 50), number(-50, 50));
const axis = vector.map((v) => normalize(v)).filter((v): v is Vec3 => v !== null);
const rests: fc.Arbitrary<Pose> = fc.record({
  position: vector,
  rotation: fc.tuple(number(-1, 1), number(-1, 1), number(-1, 1), number(0.1, 1)).map((q) => normalizeQuat(q)!),
});
const period = fc.oneof(number(0.5, 60), number(-60, -0.5));
const motions: fc.Arbitrary<BodyMotion> = fc.oneof(
  fc.record({ kind: fc.constant('drift' as const), velocity: vector, axis, turnRate: number(-3, 3) }),
  fc.record({ kind: fc.constant('orbit' as const), centre: vector, axis, period, turns: fc.boolean() }),
  fc.record({ kind: fc.constant('shuttle' as const), to: vector, period }),
  fc.record({ kind: fc.constant('swing' as const), pivot: vector, axis, amplitude: number(0, 1.5), period }),
  fc.record({
    ...{ kind: fc.constant('path' as const), turns: fc.boolean(), axis },
    keys: fc
      .array(fc.record({ step: number(0.1, 9), place: vector }), { minLength: 1, maxLength: 5 })
      .map((list) => list.reduce<{ time: number; place: Vec3 }[]>((so, { step, place }) => [...so, { time: (so.at(-1)?.time ?? 0) + step, place }], [])), // prettier-ignore
  }),
);
const near = (a: Vec3, b: Vec3, by = 1e-9) => expect(distance(a, b)).toBeLessThan(by * (1 + length(b)));
/** How far from an axis a point lies, and how far along it. */
const about = (p: Vec3, through: Vec3, along: Vec3) => {
  const d = sub(p, through);
  return [length(cross(d, along)), dot(d, along)] as const;
};

describe('bodies that move by themselves', () => {
  it('are where they rest at time 0, and keep a unit rotation', () => {
    fc.assert(
      fc.property(motions, rests, number(-100, 100), (motion, rest, time) => {
        near(poseAt(motion, rest, 0).position, rest.position, 1e-12);
        expect(Math.hypot(...poseAt(motion, rest, time).rotation)).toBeCloseTo(1, 9);
      }),
    );
  });

  it('drift evenly: the place at two times together is that of their sum', () => {
    fc.assert(
      fc.property(vector, rests, number(-9, 9), number(-9, 9), (velocity, rest, a, b) => {
        const motion: BodyMotion = { kind: 'drift', velocity, axis: [0, 1, 0], turnRate: 0.3 };
        const [whole, then] = [poseAt(motion, rest, a + b), poseAt(motion, poseAt(motion, rest, a), b)];
        near(then.position, whole.position, 1e-10);
        expect(Math.abs(then.rotation.reduce((sum, v, i) => sum + v * whole.rotation[i]!, 0))).toBeCloseTo(1, 9);
      }),
    );
  });

  it('orbit at one distance from their axis, and are back after a period', () => {
    fc.assert(
      fc.property(vector, axis, period, rests, number(-200, 200), (centre, along, T, rest, time) => {
        const motion: BodyMotion = { kind: 'orbit', centre, axis: along, period: T, turns: true };
        const there = poseAt(motion, rest, time);
        const [r0, h0] = about(rest.position, centre, along);
        const [r1, h1] = about(there.position, centre, along);
        expect(Math.abs(r1 - r0)).toBeLessThan(1e-9 * (1 + r0));
        expect(Math.abs(h1 - h0)).toBeLessThan(1e-9 * (1 + Math.abs(h0) + r0));
        near(poseAt(motion, rest, time + T).position, there.position, 1e-8);
        // What it faces turns with the way: the direction to the centre keeps its place in the
        // body's own space.
        const own = (pose: Pose) => {
          const [x, y, z, w] = pose.rotation;
          return rotateByQuat([-x, -y, -z, w], sub(centre, pose.position));
        };
        near(own(there), own(rest), 1e-8);
      }),
    );
  });

  it('shuttle between the two ends and never past them, slowest at either', () => {
    fc.assert(
      fc.property(vector, period, rests, number(0, 200), (to, T, rest, time) => {
        const motion: BodyMotion = { kind: 'shuttle', to, period: T };
        const way = distance(rest.position, to);
        near(poseAt(motion, rest, T / 2).position, to);
        const there = poseAt(motion, rest, time).position;
        expect(distance(there, rest.position) + distance(there, to)).toBeLessThan(way + 1e-9 * (1 + way + length(to)));
        const early = distance(poseAt(motion, rest, T / 1000).position, rest.position);
        expect(early).toBeLessThan(1e-4 * way + 1e-12);
      }),
    );
  });

  it('swing to either side as far as their amplitude and no farther', () => {
    fc.assert(
      fc.property(
        vector,
        axis,
        number(0.01, 1.5),
        number(0.5, 60),
        rests,
        number(0, 99),
        (pivot, along, a, T, rest, t) => {
          const motion: BodyMotion = { kind: 'swing', pivot, axis: along, amplitude: a, period: T };
          const turned = (time: number) => {
            const { rotation: q } = poseAt(motion, rest, time);
            const [x, y, z, w] = rest.rotation;
            // The real part of q·rest⁻¹ is the cosine of half the turn.
            return 2 * Math.acos(Math.min(1, Math.abs(q[3] * w + q[0] * x + q[1] * y + q[2] * z)));
          };
          expect(Math.abs(turned(T / 4) - a)).toBeLessThan(1e-6);
          expect(turned(t)).toBeLessThan(a + 1e-6);
          expect(Math.abs(length(sub(poseAt(motion, rest, t).position, pivot)) - length(sub(rest.position, pivot)))).toBeLessThan(1e-8 * 200); // prettier-ignore
        },
      ),
    );
  });

  it('take along what hangs on them, and leave everything else the same object', () => {
    const body = (id: string, parent: string | null, position: Vec3, motion: BodyMotion | null = null): MovingBody => ({
      ...{ id, shape: { kind: 'point' }, position, rotation: [0, 0, 0, 1], scale: [1, 1, 1], parent },
      ...{ castsShadow: false, motion },
    });
    const bodies = [
      // A part is listed before what it hangs on.
      body('lamp', 'boat', [0, 3, 0]),
      body('boat', null, [10, 0, 0], { kind: 'orbit', centre: [0, 0, 0], axis: [0, 1, 0], period: 4, turns: true }),
      body('quay', null, [0, 0, 5]),
    ];
    const made = placeBodies(bodies);
    if (!made.ok) throw new Error();
    const rest = new Map(made.placed.map((one) => [one.body.id, one]));
    expect(placedAt(bodies, rest, 0)).toBe(rest);
    const then = placedAt(bodies, rest, 1);
    expect([...then.keys()]).toEqual(['lamp', 'boat', 'quay']);
    expect(then.get('quay')).toBe(rest.get('quay'));
    near(transformPoint(then.get('lamp')!.toWorld, [1, 0, 0]), [0, 3, -11], 1e-12);
    near(transformPoint(then.get('lamp')!.toLocal, [0, 3, -10]), [0, 0, 0], 1e-12);
  });

  it('go through the places of a path at their times, smoothly, turned as the way turns, and stand at the last', () => {
    const motion: BodyMotion = {
      ...{ kind: 'path', turns: true, axis: [0, 1, 0] },
      keys: [{ time: 2, place: [10, 0, 0] }, { time: 5, place: [10, 0, 12] }, { time: 9, place: [-4, 3, 12] }], // prettier-ignore
    };
    const rest: Pose = { position: [0, 0, 0], rotation: [0, 0, 0, 1] };
    expect(poseAt(motion, rest, 0)).toEqual(rest);
    for (const { time, place } of motion.keys) near(poseAt(motion, rest, time).position, place, 1e-12);
    near(poseAt(motion, rest, 99).position, [-4, 3, 12], 1e-12);
    // No leap in the place, nor in the speed, at a key.
    const speed = (t: number) => sub(poseAt(motion, rest, t + 1e-6).position, poseAt(motion, rest, t - 1e-6).position);
    for (const { time } of motion.keys.slice(0, 2)) near(speed(time - 1e-4), speed(time + 1e-4), 1e-8);
    // Its bow goes with the way: it set out towards +x.
    for (const t of [0.5, 1.7, 3, 4.4, 7]) {
      const [bow, way] = [rotateByQuat(poseAt(motion, rest, t).rotation, normalize(speed(1e-6 * 2))!), speed(t)];
      const level = normalize([way[0], 0, way[2]])!;
      near([bow[0], 0, bow[2]], level, 1e-4);
    }
  });

  it('have a course that is the place of their own origin, through all they hang on', () => {
    const body = (id: string, parent: string | null, position: Vec3, motion: BodyMotion | null = null): MovingBody => ({
      ...{ id, parent, position, motion, rotation: quatAbout([0, 0, 1], 0.3), scale: [2, 2, 2], castsShadow: true },
      shape: { kind: 'point' },
    });
    fc.assert(
      fc.property(motions, motions, number(0, 40), (a, b, time) => {
        const bodies = [body('boat', null, [3, 1, -2], a), body('lamp', 'boat', [0, 4, 0], b)];
        const made = placeBodies(bodies);
        if (!made.ok) throw new Error();
        const rest = new Map(made.placed.map((one) => [one.body.id, one]));
        const there = transformPoint(placedAt(bodies, rest, time).get('lamp')!.toWorld, [0, 0, 0]);
        near(courseOf(bodies, 'lamp', [0, time])[1]!, there, 1e-9);
      }),
    );
    expect(courseOf([], 'nobody', [0, 1])).toEqual([]);
  });

  it('turn a vector by a quaternion as its matrix does', () => {
    fc.assert(
      fc.property(axis, number(-3, 3), vector, (along, angle, v) => {
        const turned = rotateByQuat(quatAbout(along, angle), v);
        // Rodrigues' rotation.
        const c = Math.cos(angle);
        const s = Math.sin(angle);
        const k = cross(along, v);
        const expected = v.map((x, i) => x * c + k[i]! * s + along[i]! * dot(along, v) * (1 - c)) as unknown as Vec3;
        near(turned, expected, 1e-12);
      }),
    );
  });
});
