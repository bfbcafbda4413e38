import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { worldToPixel } from '../convert/project';
import type { Vec3 } from '../math/vec3';
import { frameOf } from './frame';
import { startingCamera, startingCamera2d, type StartingCamera, type StartingSubject } from './starting';

const screen = { x: 0, y: 0, width: 1280, height: 720 };
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const subjects: fc.Arbitrary<StartingSubject> = fc.record({
  foot: fc.tuple(number(-99, 99), number(-9, 9), number(-99, 99)),
  height: number(0.2, 50),
  yaw: number(-3, 3),
  reach: number(1, 500),
  framed: fc.constant(null),
});
const seen = (kind: StartingCamera, subject: StartingSubject) => {
  const made = frameOf(startingCamera(kind, subject), screen);
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.value;
};
const pixel = (frame: ReturnType<typeof seen>, p: Vec3) => {
  const found = worldToPixel(frame, p);
  if (!found.ok) throw new Error(found.reason);
  return found.value;
};
const plus = (p: Vec3, axis: 0 | 1 | 2, by: number): Vec3 =>
  p.map((v, i) => (i === axis ? v + by : v)) as unknown as Vec3;

describe('cameras to start from', () => {
  it('see the middle of their subject on the screen, but for the one that is the subject’s own', () => {
    const kinds: StartingCamera[] = ['overTheShoulder', 'fromAbove', 'isometric', 'dimetric', 'sideOn'];
    fc.assert(
      fc.property(subjects, fc.constantFrom(...kinds), (subject, kind) => {
        const [x, y] = pixel(seen(kind, subject), plus(subject.foot, 1, subject.height / 2));
        expect(x).toBeGreaterThan(0);
        expect(x).toBeLessThan(1280);
        expect(y).toBeGreaterThan(0);
        expect(y).toBeLessThan(720);
      }),
    );
  });

  it('frame a diameter around the middle of their subject, and little more', () => {
    const kinds: StartingCamera[] = ['fromAbove', 'isometric', 'dimetric', 'sideOn'];
    fc.assert(
      fc.property(subjects, number(1, 200), fc.constantFrom(...kinds), (subject, framed, kind) => {
        const frame = seen(kind, { ...subject, framed });
        const [, middle] = pixel(frame, plus(subject.foot, 1, subject.height / 2));
        const perUnit = 720 / (frame.extents.top - frame.extents.bottom);
        expect(middle - (framed / 2) * perUnit).toBeGreaterThan(0);
        expect(middle + (framed / 2) * perUnit).toBeLessThan(720);
        expect(framed * perUnit).toBeGreaterThan(720 / 1.2);
      }),
    );
  });

  it('show three equal edges as equal where isometric, and run two across for one up where dimetric', () => {
    fc.assert(
      fc.property(subjects, number(0.1, 3), (subject, edge) => {
        const iso = seen('isometric', subject);
        const from = pixel(iso, subject.foot);
        const lengths = ([0, 1, 2] as const).map((axis) => {
          const to = pixel(iso, plus(subject.foot, axis, edge));
          return Math.hypot(to[0] - from[0], to[1] - from[1]);
        });
        for (const one of lengths) expect(Math.abs(one / lengths[0]! - 1)).toBeLessThan(1e-6);
        const two = seen('dimetric', subject);
        const start = pixel(two, subject.foot);
        for (const axis of [0, 2] as const) {
          const end = pixel(two, plus(subject.foot, axis, edge));
          expect(Math.abs(Math.abs((end[0] - start[0]) / (end[1] - start[1])) - 2)).toBeLessThan(1e-6);
        }
      }),
    );
  });

  it('stand at eye height and look level along the subject’s own gaze in the first person', () => {
    const frame = seen('firstPerson', { foot: [1, 2, 3], height: 1.8, yaw: Math.PI / 2, reach: 50, framed: null });
    expect(frame.eye[1]).toBeCloseTo(2 + 1.8 * 0.94, 12);
    expect(frame.forward[0]).toBeCloseTo(1, 12);
    expect(frame.forward[1]).toBeCloseTo(0, 12);
  });

  it('have whole zooms and whole anchor pixels on a flat world', () => {
    fc.assert(
      fc.property(number(1, 4000), fc.constantFrom('sideScroller' as const, 'pixelPerfect' as const), (least, kind) => {
        const { zoom, anchor } = startingCamera2d(kind, [3, 4], screen, least);
        expect(Number.isInteger(zoom)).toBe(true);
        expect(zoom === 1 || 1280 / zoom >= least - 1e-9).toBe(true);
        const at = [((anchor[0] + 1) / 2) * 1280, ((1 - anchor[1]) / 2) * 720];
        for (const v of at) expect(Math.abs(v - Math.round(v))).toBeLessThan(1e-9);
      }),
    );
  });
});
