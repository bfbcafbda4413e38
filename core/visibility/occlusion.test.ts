import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeBodies, type Body, type Shape } from '../bodies/body';
import { frameOf, reposed, type CameraFrame } from '../camera/frame';
import type { Vec3 } from '../math/vec3';
import { runs } from '../testing/seed';
import { occlusionOf, uncoveringStep } from './occlusion';
import { whyUnseen } from './whyNot';

const made = frameOf({ position: [0, 2, 0], orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 }, projection: { kind: 'perspective', near: 0.5, far: 200, lens: { verticalFov: 0.9 } } }, { x: 0, y: 0, width: 640, height: 360 }); // prettier-ignore
const frame = (made as { value: CameraFrame }).value;
const place = (list: readonly { readonly shape: Shape; readonly position: Vec3 }[]) => {
  const placed = placeBodies(list.map((one, i): Body => ({ id: `b${i}`, rotation: [0, 0, 0, 1], scale: [1, 1, 1], parent: null, castsShadow: true, ...one }))); // prettier-ignore
  if (!placed.ok) throw new Error(placed.problems[0]!.message);
  return placed.placed;
};
const wall = (position: Vec3, width: number, height: number) => ({ position, shape: { kind: 'quad', size: [width, height] } as const }); // prettier-ignore
const real = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('what hides a body', () => {
  it('is counted by rays: a wall over a share of it hides that share', () => {
    fc.assert(
      fc.property(real(0.05, 0.95), real(5, 30), (share, far) => {
        // Both at one distance but for a hair, so that shares are those of widths.
        const width = 4;
        const cover = wall([-width / 2 + (share * width) / 2, 2, -far + 1e-3], width * share, 9);
        const [target, other] = place([wall([0, 2, -far], width, 3), cover]);
        const { rays, visible, behind } = occlusionOf(frame, target!, [target!, other!])!;
        expect(rays).toBeGreaterThan(500);
        expect(Math.abs(visible / rays - (1 - share))).toBeLessThan(0.06);
        expect(behind.reduce((sum, one) => sum + one.rays, visible)).toBe(rays);
      }),
      { numRuns: runs(100) },
    );
  });

  it('names each body by its share, and nothing off the picture', () => {
    const scene = place([
      wall([0, 2, -20], 6, 3),
      wall([-2, 2, -10], 1.5, 9),
      { shape: { kind: 'box', size: [1, 9, 1] }, position: [1, 2, -10] },
      wall([900, 2, -20], 6, 3),
    ]);
    const found = occlusionOf(frame, scene[0]!, scene)!;
    expect(found.behind.map(({ body }) => body).sort()).toEqual(['b1', 'b2']);
    expect(occlusionOf(frame, scene[0]!, scene, new Set(['b1', 'b2']))!.behind).toEqual([]);
    expect(occlusionOf(frame, scene[3]!, scene)).toBeNull();
  });
});

describe('the step that uncovers a body', () => {
  it('shows it, and half of it does not', () => {
    fc.assert(
      fc.property(real(-3, 3), real(2, 8), real(1.5, 5), real(0.2, 1), (across, near, width, radius) => {
        const scene = place([
          { shape: { kind: 'sphere', radius }, position: [across, 2, -25] },
          wall([(across * near) / 25, 2, -near], width, 30),
        ]);
        const own = new Set<string>();
        if (whyUnseen(frame, scene[0]!, scene, { own })?.kind !== 'hidden') return;
        const step = uncoveringStep(frame, scene[0]!, scene)!;
        expect(whyUnseen(reposed(frame, { eye: step.eye })!, scene[0]!, scene)).toBeNull();
        const half = frame.eye.map((v, i) => (v + step.eye[i]!) / 2) as unknown as Vec3;
        expect(whyUnseen(reposed(frame, { eye: half })!, scene[0]!, scene)).not.toBeNull();
        expect(['left', 'right']).toContain(step.direction);
        // Past the wall's nearer edge: bodies at 25 move less in the picture than the wall at `near`.
        expect(step.by).toBeLessThan(width / 2 / (1 - near / 25) + 0.1);
      }),
      { numRuns: runs(60) },
    );
  });

  it('is none for a body in a closed box', () => {
    const scene = place([
      { shape: { kind: 'sphere', radius: 0.5 }, position: [0, 2, -10] },
      { shape: { kind: 'box', size: [3, 3, 3] }, position: [0, 2, -10] },
    ]);
    expect(uncoveringStep(frame, scene[0]!, scene)).toBeNull();
  });
});
