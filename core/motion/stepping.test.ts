import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { worldToViewRuf } from '../convert/project';
import { add, addScaled, cross, distance, normalize, type Vec3 } from '../math/vec3';
import { frames, real, vectors } from '../testing/arbitraries';
import { blended } from './blend';
import { cameraAt, type CameraMotion } from './cameraMotion';
import { follower, onCourse, type Course } from './course';
import { frameTimes, heldInSteps, mannersOf, steppedCameras } from './rates';
import { frameStages, stalenessOf, type FrameStage } from './stages';
import { followed } from './track';
import { turnedInSteps } from './turning';
import { seamsOf } from './wholePixels';
import { runs } from '../testing/seed';

const course: fc.Arbitrary<Course<Vec3>> = fc
  .array(fc.tuple(real(0.1, 3), vectors(20)), { minLength: 1, maxLength: 6 })
  .map((list) => {
    let time = 0;
    return list.map(([step, p]) => [(time += step), p] as const);
  });

describe('a follower', () => {
  it('is where one long run brings it, whichever moments were asked before', () => {
    fc.assert(
      fc.property(course, real(0, 2), real(0, 3), fc.array(real(0, 20), { maxLength: 5 }), real(0, 20), (way, halfLife, zone, before, time) => {
        const terms = { halfLife, deadZone: [zone, zone / 2, 0] };
        const asked = follower(way, terms);
        for (const t of before) asked(t);
        expect(asked(time)).toEqual(follower(way, terms)(time));
        expect(followed(way, terms, time)).toEqual(asked(time));
      }),
    ); // prettier-ignore
  });

  it('stands on the course at bends and straight between them', () => {
    const way: Course<Vec3> = [[1, [0, 0, 0]], [3, [4, 2, 0]]]; // prettier-ignore
    expect([0, 1, 2, 3, 9].map((t) => onCourse(way, t))).toEqual([[0, 0, 0], [0, 0, 0], [2, 1, 0], [4, 2, 0], [4, 2, 0]]); // prettier-ignore
  });
});

describe('a motion stepped by the frame', () => {
  it('comes to the right place at the rate that the factor was tuned for, as the target rests', () => {
    // At rest the factor of a sixtieth of a second is the exact one.
    const way: Course<Vec3> = [[0, [0, 0, 0]], [1 / 60, [6, 0, -3]]]; // prettier-ignore
    const terms = { halfLife: 0.4, deadZone: [0, 0, 0] };
    const times = frameTimes(60, 2);
    const held = heldInSteps(way, terms, times, 'factor');
    const exact = follower(way, terms);
    const off = (i: number) => distance(held[i]!, exact(times[i]!));
    // What the two differ by in the first frame, in which the target leaps, halves with each half-life.
    for (const i of [24, 48, 96]) expect(off(i)).toBeCloseTo(off(1) * 2 ** (-(i - 1) / 24), 9);
    const slow = heldInSteps(way, terms, frameTimes(30, 2), 'factor');
    expect(distance(slow[15]!, exact(0.5))).toBeGreaterThan(0.5);
  });

  it('is the closed form when stepped right, whatever the rate, and comes to it by Euler as steps shrink', () => {
    fc.assert(
      fc.property(frames, course, real(0.1, 1), (frame, way, halfLife) => {
        const motion: CameraMotion = { travel: { kind: 'follow', target: way, halfLife, deadZone: [0.5, 0, 0] }, shake: null }; // prettier-ignore
        const exact = cameraAt(frame, motion, 2);
        const right = steppedCameras(frame, motion, 'right', frameTimes(30, 2)).at(-1);
        if (!exact.ok || !right) return;
        expect(right.eye).toEqual(exact.value.eye);
        const terms = { halfLife, deadZone: [0.5, 0, 0] };
        const fine = heldInSteps(way, terms, frameTimes(3840, 2), 'euler').at(-1)!;
        const scale = 1 + Math.max(...way.map(([, p]) => Math.hypot(...p)));
        expect(distance(fine, follower(way, terms)(2))).toBeLessThan(1e-2 * scale);
      }),
      { numRuns: runs(40) },
    );
  });

  it('leaves the way by steps alone where it bends: a walk that turns, an orbit that draws near', () => {
    const frame = fc.sample(frames, { seed: 4, numRuns: 1 })[0]!;
    const walk: CameraMotion = { travel: { kind: 'walk', pitchLimit: 1.5, inputs: [{ from: 0, to: 4, right: 0, up: 0, ahead: 3, yawRate: 0.6, pitchRate: 0 }] }, shake: null }; // prettier-ignore
    const at = (motion: CameraMotion, manner: 'right' | 'euler' | 'noStep', rate: number) => steppedCameras(frame, motion, manner, frameTimes(rate, 4)).at(-1)!.eye; // prettier-ignore
    const [right, rough, finer] = [at(walk, 'right', 30), at(walk, 'euler', 30), at(walk, 'euler', 300)];
    expect(distance(rough, right)).toBeGreaterThan(0.01);
    // The error of Euler's method falls with the length of the step.
    expect(distance(finer, right) / distance(rough, right)).toBeCloseTo(0.1, 2);
    // Without a time step half the frames go half the way.
    const straight: CameraMotion = { travel: { kind: 'scroll', velocity: [2, 0, 0] }, shake: null };
    expect(distance(at(straight, 'noStep', 30), frame.eye)).toBeCloseTo(4, 9);
    expect(distance(at(straight, 'right', 30), frame.eye)).toBeCloseTo(8, 9);
    expect(mannersOf('scroll')).toEqual(['right', 'noStep']);
  });

  it('has frames from 0 to the end, the uneven ones the same for one seed', () => {
    expect(frameTimes(30, 1)).toHaveLength(31);
    const uneven = frameTimes('uneven', 3, 7);
    expect(uneven).toEqual(frameTimes('uneven', 3, 7));
    const steps = uneven.slice(1).map((t, i) => t - uneven[i]!);
    expect(Math.min(...steps)).toBeGreaterThanOrEqual(1 / 144 - 1e-12);
    expect(Math.max(...steps)).toBeLessThanOrEqual(1 / 20 + 1e-12);
  });
});

describe('a blend to orthographic', () => {
  it('holds the height at the subject, keeps near and far in the world, and ends parallel', () => {
    let blends = 0;
    fc.assert(
      fc.property(frames, real(1.5, 40), real(0, 0.999), (frame, times, share) => {
        if (frame.kind !== 'perspective') return;
        const subject = addScaled(frame.eye, frame.forward, frame.near * times);
        const made = blended(frame, subject, share);
        const flat = blended(frame, subject, 1);
        if (!made.ok || !flat.ok) return;
        blends++;
        const height = (one: typeof frame) =>
          (one.extents.top - one.extents.bottom) *
          (one.kind === 'perspective' ? worldToViewRuf(one, subject)[2] / one.near : 1);
        expect(height(made.value as typeof frame) / height(frame)).toBeCloseTo(1, 9);
        expect(height(flat.value as typeof frame) / height(frame)).toBeCloseTo(1, 9);
        expect(flat.value.kind).toBe('orthographic');
        const back = distance(made.value.eye, frame.eye);
        expect((made.value.near - back) / frame.near).toBeCloseTo(1, 6);
      }),
    );
    expect(blends).toBeGreaterThan(20);
  });
});

describe('the order of a frame', () => {
  it('is fresh throughout when it is right, and a frame old where what is needed comes later', () => {
    for (const one of stalenessOf(frameStages, 'bodies')) {
      const early = frameStages.indexOf(one.stage);
      expect(one.camera).toBe(early < 2 ? 1 : 0);
      expect(one.bodies).toBe(early < 1 ? 1 : 0);
    }
    const order: FrameStage[] = ['billboards', 'input', 'camera', 'bodies', 'followers', 'spawns', 'picking', 'draw'];
    const at = (stage: FrameStage, source: 'input' | 'bodies' | null) => stalenessOf(order, source).find((one) => one.stage === stage)!; // prettier-ignore
    // Turned before the camera moved, which itself follows what stood a frame ago.
    expect(at('billboards', 'bodies')).toEqual({ stage: 'billboards', camera: 2, bodies: 1 });
    expect(at('billboards', null).camera).toBe(1);
    expect(at('draw', 'bodies').camera).toBe(1);
    expect(at('draw', 'input')).toEqual({ stage: 'draw', camera: 0, bodies: 0 });
  });
});

describe('whole pixels', () => {
  it('leaves no seam where sizes are whole, and as many as the size is off over a row', () => {
    fc.assert(
      fc.property(real(-500, 500), fc.integer({ min: 1, max: 64 }), fc.integer({ min: 1, max: 200 }), (start, size, count) => {
        expect(seamsOf(start, size, count)).toEqual({ gaps: 0, overlaps: 0 });
      }),
    ); // prettier-ignore
    // A start beside a half, and a size that is whole but for rounding: ties are no seams.
    expect(seamsOf(-32.500000000000114, 48, 30)).toEqual({ gaps: 0, overlaps: 0 });
    expect(seamsOf(0.5, 48 + 1e-13, 30)).toEqual({ gaps: 0, overlaps: 0 });
    fc.assert(
      fc.property(real(-500, 500), real(1, 60), fc.integer({ min: 2, max: 200 }), (start, size, count) => {
        const { gaps, overlaps } = seamsOf(start, size, count);
        // Gaps and overlaps make up for what the size was rounded by, to the pixels at the ends.
        const round = Math.floor(size + 0.5);
        expect(Math.abs(gaps - overlaps - (count - 1) * (size - round))).toBeLessThanOrEqual(1);
        expect(gaps && overlaps).toBe(0);
      }),
    );
  });
});

describe('a basis turned by small steps', () => {
  it('drifts in single precision and not in double, and is mended by repair', () => {
    const start = { right: [1, 0, 0], up: [0, 1, 0], forward: [0, 0, -1] } as const;
    const axis = normalize([0.3, 1, 0.2])!;
    const turned = (precision: 'double' | 'float', repairEvery: number | null) =>
      turnedInSteps(start, { axis, rate: 0.7, stepsPerSecond: 60, precision, repairEvery }, 120, 24);
    const [double, float, mended] = [turned('double', null), turned('float', null), turned('float', 1)];
    expect(double).toHaveLength(25);
    expect(double.at(-1)!.error).toBeLessThan(1e-11);
    expect(float.at(-1)!.error).toBeGreaterThan(1e-5);
    expect(mended.at(-1)!.error).toBeLessThan(float.at(-1)!.error / 10);
    expect(double.at(-1)!.off).toBeLessThan(1e-10);
    // What was turned wrong stays, however often it is made square again.
    expect(mended.at(-1)!.off).toBeGreaterThan(1e-6);
    expect(float.map(({ time }) => time)).toEqual(Array.from({ length: 25 }, (_, i) => i * 5));
  });
});

it('a shake comes upon a track: in the axes of the camera that was moved', () => {
  const frame = fc.sample(frames, { seed: 9, numRuns: 1 })[0]!;
  const terms = {
    seed: 3,
    frequency: 4,
    decay: 0,
    angles: { yaw: 0, pitch: 0, roll: 0 },
    offset: [0.5, 0.25] as const,
  };
  const shake = { kind: 'shake', strength: 1, ...terms } as const;
  const travel = { kind: 'scroll', velocity: [1, 2, 3] } as const;
  const [plain, both] = [cameraAt(frame, { travel, shake: null }, 0.37), cameraAt(frame, { travel, shake }, 0.37)];
  if (!plain.ok || !both.ok) throw new Error('neither leads nowhere');
  const off = distance(both.value.eye, plain.value.eye);
  expect(off).toBeGreaterThan(0);
  expect(off).toBeLessThanOrEqual(Math.hypot(0.5, 0.25));
  expect(distance(plain.value.eye, add(frame.eye, [0.37, 0.74, 1.11]))).toBeLessThan(1e-12);
  expect(Math.hypot(...cross(both.value.forward, frame.forward))).toBeLessThan(1e-12);
});
