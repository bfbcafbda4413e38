import { encode } from 'fast-png';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { emptyFlat, emptySpace } from '../demo/empty';
import { runs } from '../core/testing/seed';
import { base64Of } from './base64';
import { bytesOfBase64, imageLimits, imageProblems, isPng, pngSize, type ProjectImage } from './images';
import { readProject } from './project';

const pngOf = (width: number, height: number): Uint8Array =>
  encode({ width, height, data: new Uint8Array(4 * width * height), channels: 4, depth: 8 });
const image = (id: string, width = 2, height = 3): ProjectImage => ({
  id,
  name: id,
  width,
  height,
  png: base64Of(pngOf(width, height)),
});

describe('PNG files', () => {
  it('have the size that they were written with', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 1, max: 60 }), (width, height) => {
        const bytes = pngOf(width, height);
        expect(pngSize(bytes)).toEqual([width, height]);
        expect([...bytesOfBase64(base64Of(bytes))]).toEqual([...bytes]);
      }),
      { numRuns: runs(30) },
    );
  });

  it('are not recognised when they are cut off, or are other files', () => {
    const bytes = pngOf(4, 4);
    expect(pngSize(bytes.subarray(0, 20))).toBeNull();
    expect(isPng(new TextEncoder().encode('x,y\n1,2\n'))).toBe(false);
    expect(pngSize(bytes.with(12, 0x78))).toBeNull();
  });
});

describe('images of a project', () => {
  it('say what is wrong with them', () => {
    expect(imageProblems([image('a'), image('b')])).toEqual([]);
    expect(imageProblems([{ ...image('a'), width: 4 }])[0]).toMatchObject({
      path: 'images[0]',
      message: 'The image “a” is said to have 4 × 3 pixels, and its file has 2 × 3. Set width and height to those of the file.', // prettier-ignore
    });
    expect(imageProblems([image('a'), image('a')])[0]!.path).toBe('images[1].id');
    expect(imageProblems([{ ...image('a'), png: 'AAAA' }])[0]!.path).toBe('images[0].png');
    expect(imageProblems([image('a', 1025, 1)])[0]!.message).toContain('takes 1024 a side');
    const padded = base64Of(new Uint8Array([...pngOf(2, 3), ...new Uint8Array(imageLimits.bytes)]));
    expect(imageProblems([{ ...image('a'), png: padded }])[0]!.message).toContain('more than 1,000,000 bytes');
    const many = Array.from({ length: imageLimits.count + 1 }, (_, i) => image(`${i}`));
    expect(imageProblems(many)[0]!.message).toContain(`takes ${imageLimits.count}`);
    const large = [image('a', 1024, 1000), image('b', 1000, 1000)];
    expect(imageProblems(large)[0]!.message).toContain('2,024,000 pixels');
  });

  it('are named by quads and tiles of 2D projects alone', () => {
    const body = { id: 'b', name: 'Body', shape: { kind: 'quad', size: [1, 1] }, position: [0, 0, 0], image: 'a' };
    const project = { ...emptyFlat('p'), images: [image('a')], bodies: [body] };
    const pathsOf = (value: object) => {
      const read = readProject(value);
      return read.ok ? [] : read.problems.map(({ path }) => path);
    };
    expect(pathsOf(project)).toEqual([]);
    expect(pathsOf({ ...project, bodies: [{ ...body, image: 'c' }] })).toEqual(['bodies[0].image']);
    expect(pathsOf({ ...project, bodies: [{ ...body, shape: { kind: 'sphere', radius: 1 } }] })).toEqual(['bodies[0].image']); // prettier-ignore
    expect(pathsOf({ ...project, bodies: [{ ...body, foot: [0, 0, 1] }] })).toEqual(['bodies[0].foot[2]']);
    expect(pathsOf({ ...emptySpace('s'), images: [image('a')], bodies: [body] })).toEqual(['bodies[0].image']);
    const tiles = { name: 'map', corner: [0, 0], size: 16, columns: 1, values: [0], images: ['a', null, 'c'] };
    expect(pathsOf({ ...project, tiles })).toEqual(['tiles.images[2]']);
  });
});
