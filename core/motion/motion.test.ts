import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anglesOfBasis, orthonormalError } from '../camera/orientation';
import { distance, length, sub, type Vec2, type Vec3 } from '../math/vec3';
import { boundFocus, focusOfParallax, follow, parallaxFocus } from './follow';
import { orbit, orbitAbout, orbitCamera, type Orbit } from './orbit';
import { alongPath, eased, type Key } from './path';
import { shake, shakeOffset, smoothNoise, type ShakeTerms } from './shake';
import { followEvenly, followOutside, glide, rateOf } from './smoothing';
import { defaultPitchLimit, walk, type Walker } from './walk';
import { runs } from '../testing/seed';

const real = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const rates = [30, 60, 144] as const;
/** Runs `seconds` of steps at each rate; `step` is told the time at which its step begins. */
function atEachRate<State>(seconds: number, start: State, step: (state: State, time: number, dt: number) => State) {
  return rates.map((rate) => {
    let state = start;
    for (let i = 0; i < seconds * rate; i++) state = step(state, i / rate, 1 / rate);
    return state;
  });
}
const alike = (values: readonly number[], tolerance: number) =>
  expect(Math.max(...values) - Math.min(...values)).toBeLessThan(tolerance);

describe('30, 60 and 144 steps a second end at the same place', () => {
  /** A target that turns at sixths of a second, which are whole numbers of steps at every rate. */
  const zigzag = fc.array(real(-40, 40), { minLength: 13, maxLength: 13 }).map((stops) => (time: number) => {
    const at = time * 6;
    const i = Math.min(11, Math.floor(at + 1e-9));
    return stops[i]! + (stops[i + 1]! - stops[i]!) * (at - i);
  });
  it('following, with a dead zone and a half-life, exactly', () => {
    fc.assert(
      fc.property(zigzag, zigzag, real(0, 1.5), real(0, 8), real(-20, 20), (x, y, halfLife, reach, start) => {
        const target = (t: number): Vec2 => [x(t), y(t)];
        const ends = atEachRate<Vec2>(2, [start, -start], (held, t, dt) =>
          follow(held, target(t), target(t + dt), { deadZone: [reach, reach / 2], halfLife }, dt),
        );
        alike(ends.map((p) => p[0]), 1e-6); // prettier-ignore
        alike(ends.map((p) => p[1]), 1e-6); // prettier-ignore
      }),
    );
  });
  it('scrolling up to a speed, exactly', () => {
    fc.assert(
      fc.property(real(-50, 50), real(-50, 50), real(0, 2), (speed, wanted, halfLife) => {
        const ends = atEachRate(2, { place: 3, speed }, (s, _t, dt) => glide(s, wanted, rateOf(halfLife), dt));
        alike(ends.map((s) => s.place), 1e-9); // prettier-ignore
        alike(ends.map((s) => s.speed), 1e-9); // prettier-ignore
      }),
    );
  });
  it('orbiting, against its limits too, exactly', () => {
    fc.assert(
      fc.property(real(-2, 2), real(-2, 2), real(-1, 1), (yaw, pitch, zoom) => {
        const ends = atEachRate<Orbit>(2, { yaw: 0.3, pitch: 0.1, distance: 10 }, (s, _t, dt) =>
          orbit(s, { yaw, pitch, zoom }, { pitch: [-1.5, 1.5], distance: [2, 40] }, dt),
        );
        alike(ends.map((s) => s.yaw), 1e-12); // prettier-ignore
        alike(ends.map((s) => s.pitch), 1e-12); // prettier-ignore
        alike(ends.map((s) => s.distance), 1e-11); // prettier-ignore
      }),
    );
  });
  it('walking in turns, along the arc itself', () => {
    const steering = fc.record({ right: real(-5, 5), up: real(-2, 2), ahead: real(-5, 5), yawRate: real(-4, 4), pitchRate: real(-3, 3) }); // prettier-ignore
    fc.assert(
      fc.property(steering, steering, (one, two) => {
        const ends = atEachRate<Walker>(2, { eye: [1, 2, 3], yaw: 0.4, pitch: 0 }, (s, t, dt) =>
          walk(s, t < 1 - 1e-9 ? one : two, dt),
        );
        for (const axis of [0, 1, 2]) alike(ends.map((s) => s.eye[axis]!), 1e-10); // prettier-ignore
        alike(ends.map((s) => s.yaw), 1e-12); // prettier-ignore
        expect(Math.abs(ends[0]!.pitch)).toBeLessThanOrEqual(defaultPitchLimit);
        alike(ends.map((s) => s.pitch), 1e-12); // prettier-ignore
      }),
    );
  });
  it('shaking, with blows on the way', () => {
    const terms: ShakeTerms = { seed: 5, frequency: 9, decay: 0.7, angles: { yaw: 0.05, pitch: 0.05, roll: 0.1 }, offset: [0.2, 0.1] }; // prettier-ignore
    const ends = atEachRate(1.5, { strength: 0, time: 0 }, (s, t, dt) =>
      shake(s, Math.abs(t - 0.5) < 1e-9 ? 0.9 : 0, terms, dt),
    );
    alike(ends.map((s) => s.strength), 1e-12); // prettier-ignore
    expect(ends[0]!.strength).toBeCloseTo(0.2, 12);
    alike(ends.map((s) => shakeOffset(s, terms).angles.roll), 1e-9); // prettier-ignore
  });
});

describe('smoothing', () => {
  it('halves what is left in a half-life, and is the limit of ever smaller plain steps', () => {
    expect(followEvenly(0, 8, 8, rateOf(0.5), 0.5)).toBeCloseTo(4, 14);
    expect(followEvenly(0, 8, 9, rateOf(0), 0.1)).toBe(9);
    fc.assert(
      fc.property(real(-9, 9), real(-9, 9), real(-9, 9), real(0.05, 2), real(0, 3), (y, from, to, halfLife, reach) => {
        const [rate, steps] = [rateOf(halfLife), 20_000];
        let plain = y;
        for (let i = 0; i < steps; i++) {
          const off = from + ((to - from) * (i + 0.5)) / steps - plain;
          plain += (rate * (off - Math.max(-reach, Math.min(reach, off)))) / steps;
        }
        // The plain steps themselves are off by about their own length.
        expect(Math.abs(followOutside(y, from, to, reach, rate, 1) - plain)).toBeLessThan(3e-3 * (1 + rate * rate));
      }),
      { numRuns: runs(60) },
    );
  });
  it('rests in the dead zone, and holds its edge when it follows at once', () => {
    expect(followOutside(0, 1, -1.9, 2, rateOf(0.1), 1)).toBe(0);
    expect(followOutside(0, 0, 5, 2, Infinity, 1)).toBe(3);
    // Away beyond the right edge and back beyond the left one within a step.
    expect(followOutside(0, 6, -6, 2, Infinity, 1)).toBe(-4);
  });
});

describe('bounds and layers', () => {
  const reach = { below: [4, 3], above: [4, 3] };
  it('keep the picture inside the world, or the world in the middle of it', () => {
    const bounds = { min: [0, 0] as Vec2, max: [100, 5] as Vec2 };
    expect(boundFocus<Vec2>([1, 1], reach, bounds)).toEqual([4, 2.5]);
    expect(boundFocus<Vec2>([99, 9], reach, bounds)).toEqual([96, 2.5]);
    expect(boundFocus<Vec2>([50, 2], reach, bounds)).toEqual([50, 2.5]);
  });
  it('move layers by their factor and come back', () => {
    expect(parallaxFocus([10, 4], [2, 0], 0.5)).toEqual([6, 2]);
    expect(parallaxFocus([10, 4], [2, 0], 0)).toEqual([2, 0]);
    expect(focusOfParallax([6, 2], [2, 0], 0.5)).toEqual([10, 4]);
    expect(focusOfParallax([6, 2], [2, 0], 0)).toBeNull();
  });
});

describe('orbits', () => {
  it('look at their target from their distance, and come back', () => {
    const target: Vec3 = [3, -2, 5];
    fc.assert(
      fc.property(real(-3, 3), real(-1.5, 1.5), real(0.1, 50), (yaw, pitch, away) => {
        const { eye, angles } = orbitCamera(target, { yaw, pitch, distance: away });
        expect(distance(eye, target)).toBeCloseTo(away, 10);
        expect(angles).toEqual({ yaw, pitch, roll: 0 });
        const back = orbitAbout(target, eye)!;
        expect(back.distance).toBeCloseTo(away, 10);
        expect(back.pitch).toBeCloseTo(pitch, 9);
        expect(Math.cos(back.yaw - yaw)).toBeCloseTo(1, 9);
      }),
    );
    expect(orbitAbout(target, target)).toBeNull();
    expect(orbitAbout([0, 0, 0], [0, 2, 0])).toMatchObject({ yaw: 0, pitch: -Math.PI / 2 });
  });
});

describe('paths', () => {
  const key = (time: number, position: Vec3, yaw: number, verticalFov: number, ease: Key['ease'] = 'even'): Key => ({
    ...{ time, position, verticalFov, ease },
    ...{ yaw, pitch: 0.1, roll: 0 },
  });
  const keys = [
    key(0, [0, 0, 0], 0, 1),
    key(1, [10, 0, 0], 0.5, 0.6, 'gentle'),
    key(3, [10, 8, -4], 3, 1.4, 'gentleEnd'),
  ];
  it('pass through every key, stand outside them, and do not jump', () => {
    for (const { time, position, yaw, verticalFov } of keys) {
      const at = alongPath(keys, time)!;
      expect(distance(at.eye, position)).toBeLessThan(1e-12);
      expect(anglesOfBasis(at.basis).yaw).toBeCloseTo(yaw, 9);
      expect(at.verticalFov).toBeCloseTo(verticalFov, 12);
    }
    expect(alongPath(keys, -5)!.eye).toEqual([0, 0, 0]);
    expect(alongPath(keys, 99)!.eye).toEqual([10, 8, -4]);
    expect(alongPath([], 0)).toBeNull();
    for (let t = 0; t < 3; t += 1 / 240) {
      const [a, b] = [alongPath(keys, t)!, alongPath(keys, t + 1 / 240)!];
      expect(length(sub(b.eye, a.eye))).toBeLessThan(0.1);
      expect(distance(b.basis.forward, a.basis.forward)).toBeLessThan(0.03);
      expect(orthonormalError(a.basis)).toBeLessThan(1e-14);
    }
  });
  it('ease from 0 to 1 and never back', () => {
    for (const ease of ['even', 'gentle', 'gentleStart', 'gentleEnd'] as const) {
      expect([eased(ease, 0), eased(ease, 1)]).toEqual([0, 1]);
      for (let t = 0; t < 1; t += 0.01) expect(eased(ease, t + 0.01)).toBeGreaterThan(eased(ease, t));
    }
  });
});

describe('smooth noise', () => {
  it('stays within 1, passes smoothly through its cells, and is the same from a seed', () => {
    let [low, high] = [0, 0];
    for (let t = 0; t < 400; t += 0.01) {
      const v = smoothNoise(3, t);
      low = Math.min(low, v);
      high = Math.max(high, v);
      expect(Math.abs(smoothNoise(3, t + 1e-4) - v)).toBeLessThan(1e-3);
    }
    expect(low).toBeLessThan(-0.5);
    expect(high).toBeGreaterThan(0.5);
    expect(Math.max(-low, high)).toBeLessThanOrEqual(1);
    expect(smoothNoise(3, 1.25)).toBe(smoothNoise(3, 1.25));
    expect(smoothNoise(3, 1.25)).not.toBe(smoothNoise(4, 1.25));
  });
});
