import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeBodies } from '../bodies/body';
import { transformPoint } from '../math/mat4';
import { normalizeQuat, quatAbout, rotateByQuat } from '../math/quat';
import { cross, distance, dot, length, normalize, sub, type Vec3 } from '../math/vec3';
import { placedAt, poseAt, type BodyMotion, type MovingBody, type Pose } from './bodies';

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
