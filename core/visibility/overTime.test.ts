import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeBodies, type Body } from '../bodies/body';
import { frameOf } from '../camera/frame';
import { noticedAt, staysInView, type Instant } from './overTime';

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
      { numRuns: 40 },
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
