import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeBodies } from '../bodies/body';
import { frameOf, type CameraFrame } from '../camera/frame';
import { pictureToWorld } from '../convert/unproject';
import { worldToViewRuf } from '../convert/project';
import { worldTriangles } from '../order/paint';
import { pick } from '../pick/pick';
import { frames, picturePositions, shares, aheadAt } from '../testing/arbitraries';
import { scenes } from '../testing/bodies';
import { drawnPicture, placeIn } from './drawing';
import { runs } from '../testing/seed';

/* The picture of a report: what it shows is what rays meet. */

const longer = 40;
/** Whether a ray through a place of the picture, in its pixels, meets anything; null where that hangs by a hair. */
function meets(
  frame: CameraFrame,
  placed: Parameters<typeof pick>[3],
  { width, height }: { readonly width: number; readonly height: number },
  x: number,
  y: number,
): boolean | null {
  // prettier-ignore
  const hits = [[0, 0], [1, 1], [-1, 1], [1, -1], [-1, -1]].map(([i, j]) => pick(frame, (2 * (x + i! * 1e-3)) / width - 1, 1 - (2 * (y + j! * 1e-3)) / height, placed, { backFaces: true }).length > 0); // prettier-ignore
  return hits.every((hit) => hit === hits[0]) ? hits[0]! : null;
}

describe('a picture without a GPU', () => {
  it('is opaque where rays meet a body, and clear where they meet none but beside an outline', () => {
    let [full, clear] = [0, 0];
    // A face that lies in the near or far plane is in view or not by its last digits.
    const apart = (ahead: number, plane: number | null) =>
      plane === null || Math.abs(ahead - plane) > 1e-6 * Math.max(1, Math.abs(plane));
    const drawn = scenes.filter(({ frame, placed }) => {
      if (placed.body.shape.kind === 'sphere') return false;
      const { corners } = worldTriangles([placed], false);
      return Array.from({ length: corners.length / 3 }, (_, i) => {
        const [, , ahead] = worldToViewRuf(frame, [corners[3 * i]!, corners[3 * i + 1]!, corners[3 * i + 2]!]);
        return apart(ahead, frame.near) && apart(ahead, frame.far);
      }).every(Boolean);
    });
    fc.assert(
      fc.property(drawn, ({ frame, placed }) => {
        const { data, width, height, shown } = drawnPicture(frame, [placed], false, longer);
        expect(Math.max(width, height)).toBe(longer);
        expect(data).toHaveLength(4 * width * height);
        for (let y = 0; y < height; y += 3)
          for (let x = 0; x < width; x += 3) {
            const opacity = data[4 * (y * width + x) + 3]!;
            const found = [0.25, 0.75].flatMap((j) => [0.25, 0.75].map((i) => meets(frame, [placed], { width, height }, x + i, y + j))); // prettier-ignore
            if (found.every((one) => one === true)) {
              full++;
              expect(opacity).toBe(255);
              expect(shown.has(0)).toBe(true);
            }
            // What is clear is where no ray meets anything.
            if (opacity === 0) {
              clear++;
              expect(found).not.toContain(true);
            }
          }
        if (!shown.size) expect(data.every((v) => v === 0)).toBe(true);
      }),
      { numRuns: runs(150) },
    );
    expect(Math.min(full, clear)).toBeGreaterThan(runs(300));
  });

  it('says where a point lies in it: the place that leads back to the point, none behind near', () => {
    fc.assert(
      fc.property(frames, picturePositions, shares, (frame, [across, upward], share) => {
        const ahead = aheadAt(frame, share);
        const point = pictureToWorld(frame, across, upward, { kind: 'ahead', ahead });
        if (!point.ok) throw new Error('a place ahead of near');
        const size = { width: 800, height: 500 };
        const at = placeIn(frame, size, point.value);
        // On near itself rounding may fall on either side.
        if (!at) expect(Math.abs(ahead - frame.near)).toBeLessThan(1e-6 * Math.max(1, Math.abs(frame.near)));
        else {
          expect(at[0]).toBeCloseTo((across + 1) * 400, 2);
          expect(at[1]).toBeCloseTo((1 - upward) * 250, 2);
        }
      }),
      { numRuns: runs(300) },
    );
  });

  it('has the nearer of two bodies before the other, with its outline, and lights what faces the light most', () => {
    const made = frameOf(
      {
        position: [0, 0, 10],
        orientation: { kind: 'lookAt', target: [0, 0, 0] },
        projection: { kind: 'orthographic', size: { height: 8 }, near: 0.1, far: 40 },
      },
      { x: 0, y: 0, width: 80, height: 80 },
    );
    const box = (id: string, x: number, z: number, turn: number) => ({ id, shape: { kind: 'box' as const, size: [3, 3, 1] as const }, position: [x, 0, z] as const, rotation: [0, Math.sin(turn / 2), 0, Math.cos(turn / 2)] as const, scale: [1, 1, 1] as const, parent: null, castsShadow: true }); // prettier-ignore
    const placed = placeBodies([box('far', 1, -4, 0), box('near', -1, 2, 0), box('hidden', -1, -8, 0)]);
    if (!made.ok || !placed.ok) throw new Error('a proper scene');
    const { data, height, shown } = drawnPicture(made.value, placed.placed, false, 80);
    expect(height).toBe(80);
    expect([...shown].sort()).toEqual([0, 1]);
    const at = (x: number, y: number) => [...data.subarray(4 * (y * 80 + x), 4 * (y * 80 + x) + 4)];
    // Both turn the same side to the eye: one tone, parted by ink where the nearer one ends, at 0.5 of −4…4.
    expect(at(30, 40)).toEqual(at(50, 40));
    const row = Array.from({ length: 80 }, (_, x) => at(x, 40)[0]!);
    const [light, dark] = [row[30]!, Math.min(...row.slice(40, 50))];
    expect(dark).toBeLessThan(light - 60);
    expect(row.indexOf(dark, 40)).toBeGreaterThanOrEqual(44);
    expect(row.indexOf(dark, 40)).toBeLessThanOrEqual(45);
    expect(at(2, 2)).toEqual([0, 0, 0, 0]);
    // Turned to the light from the left it is lighter than turned to the right.
    const toneOf = (turn: number) => {
      const one = placeBodies([box('one', 0, 0, turn)]);
      if (!one.ok) throw new Error('a proper box');
      const { data: own } = drawnPicture(made.value, one.placed, false, 80);
      const middle = 4 * (40 * 80 + 40);
      return own[middle]! + own[middle + 1]! + own[middle + 2]!;
    };
    expect(toneOf(-0.5)).toBeGreaterThan(toneOf(0.5));
  });
});
