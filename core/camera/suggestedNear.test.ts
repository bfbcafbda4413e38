import { expect, it } from 'vitest';
import { frameOf } from './frame';
import { suggestedNear } from './projection';

it('the near distance that a message suggests is the one that the fix sets, and a camera can have it', () => {
  for (const far of [140, 0.05, 5_000, null]) {
    const of = (near: number) =>
      frameOf(
        {
          position: [0, 0, 0],
          orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 },
          projection: { kind: 'perspective', near, far, lens: { verticalFov: 1 } },
        },
        { x: 0, y: 0, width: 20, height: 10 },
      );
    const made = of(0);
    if (made.ok) throw new Error('near 0 was taken');
    expect(made.problems[0]!.message).toContain(`Try ${suggestedNear(far)}.`);
    expect(of(suggestedNear(far)).ok).toBe(true);
  }
});
