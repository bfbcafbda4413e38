import { describe, expect, it } from 'vitest';
import { axesAreDistinct, handednessOf } from './axes';
import { codecOf } from './codec';
import { defaultConventions, sameConventions, type Conventions } from './conventions';
import { findConventions } from './findConventions';
import { readySets } from './ready';

const search = (typed: string) => findConventions(typed, defaultConventions);
const best = (typed: string): Conventions => search(typed).found[0]!.set.conventions;

describe('ready conventions', () => {
  it('are each what their words say, and no two the same', () => {
    expect(readySets.length).toBe(7 * 4 * 4 * 2);
    const names = new Set(readySets.map(({ name }) => name));
    expect(names.size).toBe(readySets.length);
    for (const { name, conventions } of readySets) {
      const { world, view, ndc, matrix } = conventions;
      expect(axesAreDistinct(world)).toBe(true);
      expect(name).toContain(`${handednessOf(world)}-handed`);
      expect(name).toContain(`${matrix.vectors} vectors`);
      expect(name.includes('reversed')).toBe(ndc.near > ndc.far);
      // A quaternion leads from view to world: both are of one hand.
      expect(handednessOf(view)).toBe(handednessOf(world));
      expect(codecOf(conventions).handedness.world).toBe(handednessOf(world));
    }
  });

  it('are found by their own words', () => {
    for (const { name, conventions } of readySets) {
      const { found, typed } = search(name);
      expect(
        typed.filter(({ isKnown }) => !isKnown),
        name,
      ).toEqual([]);
      expect(
        found.some(({ set, unmet }) => !unmet.length && sameConventions(set.conventions, conventions)),
        name,
      ).toBe(true);
    }
  });
});

describe('conventions by words of the trade', () => {
  it.each([
    ['y forward', (c: Conventions) => c.world.forward === '+y'],
    ['forward is y', (c: Conventions) => c.world.forward === '+y'],
    ['-z ahead', (c: Conventions) => c.world.forward === '-z'],
    ['z back', (c: Conventions) => c.world.forward === '-z'],
    ['z-up', (c: Conventions) => c.world.up === '+z'],
    ['up: z', (c: Conventions) => c.world.up === '+z'],
    ['x left', (c: Conventions) => c.world.right === '-x'],
    ['y down', (c: Conventions) => c.world.up === '-y' || c.ndc.up === '-y'],
    ['ndc y down', (c: Conventions) => c.ndc.up === '-y'],
    ['reversed-z', (c: Conventions) => c.ndc.near > c.ndc.far],
    ['reverse z', (c: Conventions) => c.ndc.near > c.ndc.far],
    ['inverted depth', (c: Conventions) => c.ndc.near > c.ndc.far],
    ['0..1', (c: Conventions) => c.ndc.near === 0 && c.ndc.far === 1],
    ['[1, 0]', (c: Conventions) => c.ndc.near === 1 && c.ndc.far === 0],
    ['−1 to 1', (c: Conventions) => c.ndc.near === -1 && c.ndc.far === 1],
    ['minus one to one', (c: Conventions) => c.ndc.near === -1 && c.ndc.far === 1],
    ['vulkan', (c: Conventions) => c.ndc.up === '-y' && c.ndc.near === 0],
    ['webgl', (c: Conventions) => c.ndc.near === -1 && c.ndc.up === '+y'],
    ['opengl 4.6', (c: Conventions) => c.ndc.near === -1 && c.ndc.up === '+y'],
    ['directx12', (c: Conventions) => c.ndc.near === 0 && c.ndc.up === '+y'],
    ['d3d11 reversed', (c: Conventions) => c.ndc.near === 1 && c.ndc.far === 0],
    ['metal', (c: Conventions) => c.ndc.near === 0],
    ['webgpu', (c: Conventions) => c.ndc.near === 0],
    ['glTF', (c: Conventions) => c.world.forward === '+z' && c.world.right === '-x'],
    ['LH', (c: Conventions) => handednessOf(c.world) === 'left'],
    ['left z up', (c: Conventions) => handednessOf(c.world) === 'left' && c.world.up === '+z'],
    ['left is -x', (c: Conventions) => c.world.right === '+x'],
    ['left-handed y up', (c: Conventions) => handednessOf(c.world) === 'left' && c.world.up === '+y'],
    ['rows', (c: Conventions) => c.matrix.vectors === 'row'],
    ['column vectors row-major', (c: Conventions) => c.matrix.vectors === 'column' && c.matrix.storage === 'row-major'],
    ['radians', (c: Conventions) => c.angles.unit === 'radians'],
    ['bottom-left origin', (c: Conventions) => c.screen.origin === 'bottom-left'],
  ])('understand “%s”', (typed, isMeant) => {
    const { typed: words, found } = search(typed);
    expect(words.filter(({ isKnown }) => !isKnown)).toEqual([]);
    expect(found[0]!.unmet).toEqual([]);
    expect(isMeant(best(typed))).toBe(true);
  });

  it('prefer the usual listing of the vectors', () => {
    expect(best('left z up rows reversed').matrix).toEqual({ vectors: 'row', storage: 'row-major' });
  });

  it('leave unknown words out, and search by the rest', () => {
    const { typed, found } = search('sideways z up wobbly');
    expect(typed.filter(({ isKnown }) => !isKnown).map(({ text }) => text)).toEqual(['sideways', 'wobbly']);
    expect(found[0]!.set.conventions.world.up).toBe('+z');
    expect(search('sideways').found).toEqual([]);
  });

  it('come as the best match with what it does not fit', () => {
    const [first] = search('left-handed z up -y forward reversed').found;
    expect(first!.unmet.length).toBe(1);
    expect(first!.set.conventions.world.up).toBe('+z');
    expect(first!.set.conventions.ndc.near).toBeGreaterThan(first!.set.conventions.ndc.far);
  });

  it('keep screen and angles, and prefer what is near the present conventions', () => {
    const now: Conventions = { ...defaultConventions, angles: { ...defaultConventions.angles, unit: 'radians' }, matrix: { vectors: 'row', storage: 'row-major' } }; // prettier-ignore
    const [first] = findConventions('z up y forward', now).found;
    expect(first!.set.conventions).toEqual({ ...now, world: { right: '+x', up: '+z', forward: '+y' } });
  });
});
