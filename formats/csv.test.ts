import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readPoints, writeTable } from './csv';

const read = (text: string, size: 2 | 3 = 3) => {
  const found = readPoints(text, size);
  return found.ok ? { points: [...found.value.coordinates], names: found.value.names } : found.problems;
};

describe('points from text', () => {
  it.each([
    ['commas', '1,2,3\n4,5,6'],
    ['semicolons', '1;2;3\n4;5;6'],
    ['tabs', '1\t2\t3\r\n4\t5\t6\r\n'],
    ['blanks', '  1   2 3\n4 5  6  '],
    ['brackets', '[1, 2, 3]\n(4, 5, 6)'],
    ['a log’s floats', '1.0f, 2.0f, 3.0f\n4f, 5f, 6f'],
    ['headings in another order', 'z,x,y\n3,1,2\n6,4,5'],
    ['more columns', 'time,x,y,z,w\n0,1,2,3,1\n1,4,5,6,1'],
    ['empty lines', '\n1,2,3\n\n4,5,6\n\n'],
  ])('%s', (_, text) => expect(read(text)).toEqual({ points: [1, 2, 3, 4, 5, 6], names: null }));

  it('takes names from their column, or from a first column of words', () => {
    expect(read('name,x,y,z\nbuoy,1,2,3')).toEqual({ points: [1, 2, 3], names: ['buoy'] });
    expect(read('buoy,1,2,3\n"quay, north",4,5,6')).toEqual({
      points: [1, 2, 3, 4, 5, 6],
      names: ['buoy', 'quay, north'],
    });
    expect(read('x;y\n1;2', 2)).toEqual({ points: [1, 2], names: null });
  });

  it.each([
    ['nothing', '', '', /no lines/],
    ['headings alone', 'x,y,z\n', 'line 1', /nothing below/],
    ['a heading short', 'x,y\n1,2', 'line 1', /not z/],
    ['too few numbers', '1,2', 'line 1', /has 2 numbers, and a point has 3/],
    ['a word', '1,2,3\n4,five,6', 'line 2', /y is “five”/],
    ['a torn line', 'x,y,z\n\n1,2,3\n4,5', 'line 4', /z is missing/],
    ['no finite number', '1,2,3\n4,5,1e999', 'line 2', /no number/],
  ])('refuses %s by its line', (_, text, path, says) => {
    const problems = read(text) as { path: string; message: string }[];
    expect(problems[0]).toMatchObject({ path, message: expect.stringMatching(says) });
  });

  it('is undone by what it is written as, to the last digit', () => {
    const rows = fc.array(fc.tuple(fc.string(), ...[0, 1, 2].map(() => fc.double({ noNaN: true, noDefaultInfinity: true }))), { minLength: 1, maxLength: 20 }); // prettier-ignore
    fc.assert(
      fc.property(rows, (list) => {
        const found = read(writeTable(['name', 'x', 'y', 'z'], list)) as { points: number[]; names: string[] };
        expect(found.points).toEqual(list.flatMap(([, ...p]) => p.map((v) => (v === 0 ? 0 : v))));
      }),
    );
  });

  it('takes or refuses anything with a sentence', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...'0123456789.,;-e \n"[]xyz\t|') }), (text) => {
        const found = readPoints(text, 3);
        if (!found.ok) for (const { message } of found.problems) expect(message).toMatch(/.{15,}\.$/);
      }),
      { numRuns: 500 },
    );
  });
});
