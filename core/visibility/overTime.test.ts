import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeBodies, type Body } from '../bodies/body';
import { frameOf } from '../camera/frame';
import { absences, noticedAt, staysInView, type Instant, type Stay } from './overTime';
import { runs } from '../testing/seed';

const cameraAt = (yaw: number) => {
  const made = frameOf({ position: [0, 0, 0], orientation: { kind: 'angles', yaw, pitch: 0, roll: 0 }, projection: { kind: 'perspective', near: 0.1, far: 100, lens: { horizontalFov: Math.PI / 3 } } }, { x: 0, y: 0, width: 200, height: 100 }); // prettier-ignore
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.value;
};
const ballAt = (bearing: number, distance: number, radius: number) => {
  const made = placeBodies([{ id: 'a', shape: { kind: 'sphere', radius }, position: [distance * Math.sin(bearing), 0, -distance * Math.cos(bearing)], rotation: [0, 0, 0, 1], scale: [1, 1, 1], parent: null, castsShadow: true } satisfies Body]); // prettier-ignore
  if (!made.ok) throw new Error('ball');
  return made.placed;
};

describe('when bodies are in view', () => {
  it('of a ball beside a camera that turns evenly is when its edge meets the edge of the view', async () => {
    const number = (min: number, max: number) =>
      fc.integer({ min: 0, max: 512 }).map((v) => min + ((max - min) * v) / 512);
    await fc.assert(
      fc.asyncProperty(number(0.8, 2.6), number(5, 50), number(0.2, 2), async (bearing, distance, radius) => {
        const placed = ballAt(bearing, distance, radius);
        // One radian a second to the right, from ahead.
        const at = (time: number): Instant => ({ frame: cameraAt(time), placed });
        const stays = await staysInView(at, { span: 4, step: 0.05 });
        const half = Math.PI / 6 + Math.asin(radius / distance);
        expect(stays).toHaveLength(1);
        expect(stays[0]!.from).toBeCloseTo(Math.max(0, bearing - half), 5);
        expect(stays[0]!.to).toBeCloseTo(Math.min(4, bearing + half), 5);
      }),
      { numRuns: runs(40) },
    );
  }, 60_000);

  it('is cut at the ends of the span, and comes again', async () => {
    const placed = [...ballAt(0, 10, 1), ...ballAt(Math.PI, 10, 1)];
    const at = (time: number): Instant => ({ frame: cameraAt(Math.PI * time), placed });
    const shares: number[] = [];
    const stays = await staysInView(at, { span: 4, step: 0.02, onProgress: (share) => void shares.push(share) });
    expect(stays.map(({ body }) => body)).toEqual([0, 0, 0, 1, 1]);
    expect([stays[0]!.from, stays[2]!.to]).toEqual([0, 4]);
    expect(stays[1]!.to - stays[1]!.from).toBeCloseTo((2 * (Math.PI / 6 + Math.asin(0.1))) / Math.PI, 5);
    expect(shares.at(-1)).toBe(1);
    // Ten looks a second notice what happens at 0.31 s nine hundredths late.
    expect(noticedAt(0.31, 10)).toBeCloseTo(0.4, 12);
    expect(noticedAt(0.3, 10)).toBeCloseTo(0.3, 12);
    expect(noticedAt(0, 60)).toBe(0);
  });
});

describe('what is put away when it has left the view by a margin', () => {
  /** Stays of one body in thousandths of a second, apart from one another, and the wider ones about them. */
  const scenes = fc
    .tuple(
      fc.uniqueArray(fc.integer({ min: 0, max: 10_000 }), { minLength: 2, maxLength: 12 }),
      fc.integer({ min: 0, max: 400 }),
    )
    .map(([cuts, wider]) => {
      const ends = cuts.sort((a, b) => a - b).map((v) => v / 1000);
      const inView: Stay[] = [];
      for (let i = 0; i + 1 < ends.length; i += 2) inView.push({ body: 0, from: ends[i]!, to: ends[i + 1]! });
      const kept: Stay[] = [];
      for (const { from, to } of inView) {
        const [a, b] = [Math.max(0, from - wider / 1000), Math.min(10, to + wider / 1000)];
        const last = kept.at(-1);
        if (last && a <= last.to) kept[kept.length - 1] = { ...last, to: Math.max(last.to, b) };
        else kept.push({ body: 0, from: a, to: b });
      }
      return { inView, kept };
    });
  const within = (stays: readonly { from: number; to: number }[], time: number) =>
    stays.some(({ from, to }) => time >= from && time < to);

  it('is what a loop finds that tests once a frame', () => {
    let missedSome = 0;
    fc.assert(
      fc.property(scenes, fc.integer({ min: 1, max: 60 }), fc.boolean(), ({ inView, kept }, rate, comesBack) => {
        const found = absences(inView, kept, { bodies: 1, rate, span: 10, comesBack });
        let [there, was] = [!comesBack, false];
        for (let frame = 0; frame < 10 * rate; frame++) {
          // A hair after the test, which acts on what it finds.
          const tested = within(kept, frame / rate + 1e-7) || (kept.at(-1)?.to === 10 && frame / rate >= 10);
          if (comesBack) there = tested;
          else if (was && !tested) there = false;
          was ||= tested;
          const time = (frame + 0.5) / rate;
          const away = found.find(({ from, to }) => time > from && time < (to ?? 10));
          expect(away === undefined).toBe(there);
          if (away && time < 10) expect(within(away.missed, time)).toBe(within(inView, time));
          if (away?.missed.length) missedSome++;
        }
      }),
      { numRuns: runs(300) },
    );
    expect(missedSome).toBeGreaterThan(100);
  });

  it('pops in late by what the margin does not cover, and never where it does', () => {
    // In view from 3.05 s on, tested ten times a second.
    const inView = [{ body: 0, from: 3.05, to: 4 }];
    const away = (from: number) =>
      absences(inView, [{ body: 0, from, to: 4.2 }], { bodies: 1, rate: 10, span: 10, comesBack: true });
    expect(away(3.05)[0]).toMatchObject({ from: 0, to: 3.1, missed: [{ from: 3.05, to: 3.1 }] });
    expect(away(2.95)[0]!.missed).toEqual([]);
    expect(away(2.95)[1]).toMatchObject({ to: null });
  });
});
