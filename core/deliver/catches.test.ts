import { describe, expect, it } from 'vitest';
import { dice, requestOf, shotBy } from '../testing/wrongEngine';
import { catchesOf } from './catches';
import { vectorsOf } from './vectors';
import { runs } from '../testing/seed';

describe('what each row of test vectors finds', () => {
  it('every fault that this camera can have fails a row, and rows fail for what they show', () => {
    for (let seed = 1; seed <= runs(30); seed++) {
      const shot = shotBy(dice(seed * 31));
      const given = vectorsOf(requestOf(shot, []), 24, seed);
      if (!given.ok) throw new Error('a proper camera');
      const { rows, unseen, faults } = catchesOf(given.vectors);
      expect(faults).toBeGreaterThan(18);
      // Leaving out what is 0 or 1 of this camera changes no number of it.
      const still = [
        ...(shot.shift[0] || shot.shift[1] ? [] : ['shiftLeftOut']),
        ...(shot.viewport.x || shot.viewport.y ? [] : ['viewportOffset']),
        ...(shot.roll ? [] : ['rollNegated']),
        // An orthographic camera divides by 1.
        ...(shot.lens === 'orthographic' ? ['notDivided'] : []),
      ];
      expect(unseen.filter((fault) => !still.includes(fault)), `${seed} ${shot.lens}`).toEqual([]);
      for (const fault of still) for (const list of rows.values()) expect(list).not.toContain(fault);
      // A row finds no fault of what it does not show.
      for (const fault of ['aspectInverted', 'depthReversed', 'halfPixel'] as const) expect(rows.get('view')).not.toContain(fault);
      for (const fault of ['translationMissing', 'upNegated', 'halfPixel'] as const) expect(rows.get('projection')).not.toContain(fault);
      for (const [id, list] of rows) {
        if (!id.startsWith('ray') && !id.startsWith('back')) continue;
        // A ray has no depth; both ways back read the pixel.
        if (id.startsWith('ray')) expect(list).not.toContain('farLeftOut');
        if (shot.viewport.x && !given.vectors.rows.some((row) => row.id === id && row.expected === null)) expect(list, `${seed} ${id}`).toContain('viewportOffset');
      }
    }
  }); // prettier-ignore

  it('a point behind the eye finds nothing by itself', () => {
    const given = vectorsOf(requestOf(shotBy(dice(31)), []), 24, 1);
    if (!given.ok) throw new Error('a proper camera');
    const behind = given.vectors.rows.filter(({ expected }) => expected === null);
    const { rows } = catchesOf(given.vectors);
    for (const { id } of behind) expect(rows.get(id)).toEqual([]);
  });
});
