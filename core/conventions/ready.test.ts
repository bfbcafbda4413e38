import { describe, expect, it } from 'vitest';
import { axesAreDistinct, handednessOf } from './axes';
import { codecOf } from './codec';
import { sameConventions } from './conventions';
import { findReady, readySets } from './ready';

describe('ready conventions', () => {
  it('are each what their words say, and no two the same', () => {
    expect(readySets.length).toBe(30);
    for (const [i, { name, conventions }] of readySets.entries()) {
      const { world, view, ndc, matrix } = conventions;
      expect(axesAreDistinct(world)).toBe(true);
      expect(name).toContain(`${handednessOf(world)}-handed`);
      expect(name).toContain(`${matrix.vectors} vectors`);
      expect(name.includes('reversed')).toBe(ndc.near > ndc.far);
      // A quaternion leads from view to world: both are of one hand.
      expect(handednessOf(view)).toBe(handednessOf(world));
      expect(codecOf(conventions).handedness.world).toBe(handednessOf(world));
      for (const other of readySets.slice(i + 1)) {
        expect(sameConventions(other.conventions, conventions)).toBe(false);
        expect(other.name).not.toBe(name);
      }
    }
  });

  it('are found by words of what they are, in any order', () => {
    const names = (typed: string) => findReady(typed).map(({ name }) => name);
    expect(names('')).toHaveLength(30);
    expect(names('left z up rows reversed')).toEqual([
      'left-handed, z up, x ahead; depth 1 to 0, reversed; row vectors, row-major',
    ]);
    expect(names('reversed')).toHaveLength(10);
    expect(names('right-handed, y up')).toHaveLength(6);
    expect(names('sideways')).toEqual([]);
  });
});
