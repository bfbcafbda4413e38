import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readPoints, sizeOf, writeTable } from './csv';
import { readingWords, type Reading } from './pointColumns';
import { runs } from '../core/testing/seed';

const xyz = ['x', 'y', 'z'];
const read = (text: string, size: 2 | 3 = 3, reading?: Reading) => {
  const found = readPoints(text, xyz.slice(0, size), reading);
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
    ['an index before headings of places', 'id,pos_x,pos_y,pos_z\n0,1,2,3\n1,4,5,6', [1, 2, 3, 4, 5, 6]],
    ['camel case', 'frame,posX,posY,posZ\n7,1,2,3', [1, 2, 3]],
    ['letters with units', 'x (m);y (m);z (m)\n1;2;3', [1, 2, 3]],
    ['places rather than speeds', 'vel_x,vel_y,vel_z,position.x,position.y,position.z\n9,9,9,1,2,3', [1, 2, 3]],
    ['a column that counts the lines', '1,10,20,30\n2,10,21,30\n3,10,22,31', [10, 20, 30, 10, 21, 30, 10, 22, 31]],
    ['a column headed as a time', 'time,a,b,c\n0.5,1,2,3', [1, 2, 3]],
    ['decimals with commas', '1,5;2,5;3\n4;5;6,25', [1.5, 2.5, 3, 4, 5, 6.25]],
    ['decimals with commas between blanks', '1,5 2,5 3,5\n4,5 5,5 6,5', [1.5, 2.5, 3.5, 4.5, 5.5, 6.5]],
    ['headings behind the mark of a comment', '# x y z\n1 2 3\n# the end\n4 5 6', [1, 2, 3, 4, 5, 6]],
    ['the mark of the byte order', '\uFEFFx,y,z\n1,2,3', [1, 2, 3]],
  ])('finds the places with %s', (_, text, points) => expect(read(text)).toMatchObject({ points }));

  it('says what it takes the columns for, and takes them as it is told', () => {
    const text = 'id,pos_x,pos_y,pos_z\n7,1,2,3\n8,4,5,6';
    const found = readPoints(text, xyz);
    if (!found.ok) throw new Error();
    expect(readingWords(found.columns, found.reading, xyz)).toBe(
      'x from pos_x, y from pos_y, z from pos_z, names from id',
    );
    expect(found.columns.map(({ sample }) => sample)).toEqual(['7', '1', '2', '3']);
    const coordinates = [3, 2, 1].map((column) => ({ column, negated: column === 2 }));
    const told: Reading = { coordinates, naming: null, unit: 0.01 };
    expect(read(text, 3, told)).toEqual({ points: [0.03, -0.02, 0.01, 0.06, -0.05, 0.04], names: null });
    expect(readingWords(found.columns, told, xyz)).toBe('x from pos_z, −y from pos_y, z from pos_x, each times 0.01');
  });

  it('gives the columns with what is wrong, so that others can be chosen', () => {
    const found = readPoints('x,y,height\n1,2,3', xyz);
    if (found.ok) throw new Error();
    expect(found.problems[0]!.message).toMatch(/columns for x and y, and not for z/);
    expect(found.columns?.map(({ heading }) => heading)).toEqual(['x', 'y', 'height']);
    const coordinates = found.reading!.coordinates.map((one, k) => (k === 2 ? { column: 2, negated: false } : one));
    expect(read('x,y,height\n1,2,3', 3, { ...found.reading!, coordinates })).toMatchObject({ points: [1, 2, 3] });
  });

  it('has as many dimensions as its headings or its columns say, not as one line does', () => {
    expect(sizeOf('x,y,z\n1,2,3\n4,5,six')).toBe(3);
    expect(sizeOf('1,2,3\n4,5,6\n7,8,9\n4,5,6\n4,5,x\n4,5,6')).toBe(3);
    expect(sizeOf('x,y\n1,2')).toBe(2);
    expect(sizeOf('a,1,2\nb,3,4')).toBe(2);
    expect(sizeOf('id,x,y\n1,2,3')).toBe(2);
  });

  it.each([
    ['nothing', '', '', /no lines/],
    ['several points in a line', '(1,2,3)(4,5,6)\n(1,2,3)(4,5,6)', 'line 1', /more than one point/],
    ['a quotation mark that is not closed', 'x,y,z\n1,2,3\n"4,5,6\n7,8,9', 'line 3', /quotation mark/],
    ['decimals both ways', '1.5;2.5;3.5\n4,5;5.5;6.5', 'line 2', /comma for its decimals/],
    ['headings alone', 'x,y,z\n', 'line 1', /nothing below/],
    ['a heading short', 'x,y\n1,2', 'line 1', /not for z/],
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

  it('has names of any letters, brackets side by side included', () => {
    const names = ['0){-', 'buoy (1)(2)', '(1,2,3)(4,5,6)'];
    const text = writeTable(['name', 'x', 'y', 'z'], names.map((name) => [name, 1, 2, 3])); // prettier-ignore
    expect(read(text)).toMatchObject({ names });
    expect(read('(1,2,3)(4,5,6)')).toMatchObject([{ path: 'line 1', message: expect.stringContaining('more than one point') }]); // prettier-ignore
  });

  it('is not held up by a cell of endless digits', () => {
    const digits = '1'.repeat(200_000);
    expect(read(`1,2,${digits}x`)).toMatchObject([{ path: 'line 1' }]);
  });

  it('takes or refuses anything with a sentence', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...'0123456789.,;-e \n"[]xyz\t|') }), (text) => {
        const found = readPoints(text, xyz);
        if (!found.ok) for (const { message } of found.problems) expect(message).toMatch(/.{15,}\.$/);
      }),
      { numRuns: runs(500) },
    );
  });
});

describe('cells that spreadsheets would run', () => {
  it('are guarded in a table that is written, and read back as they were', () => {
    const names = ['=1+1', '+cmd', '-2+3', '@SUM(A1)', '-12.5', '+3e2', '.5', 'Buoy = 4', "'=x", '\t=1'];
    const text = writeTable(
      ['name', 'x', 'y', 'z'],
      names.map((name, i) => [name, i, -i, 0.5 * i]),
    );
    const cells = text
      .trimEnd()
      .split('\n')
      .slice(1)
      .map((line) => line.replace(/^"/, ''));
    for (const cell of cells) expect(/^[=@\t]|^[+-](?!\d|\.)/.test(cell), cell).toBe(false);
    const read = readPoints(text, ['x', 'y', 'z']);
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    expect(read.value.names!.slice(0, 8)).toEqual(names.slice(0, 8));
    expect(Array.from(read.value.coordinates.slice(0, 6))).toEqual([0, 0, 0, 1, -1, 0.5]);
  });

  it('two columns of one name are a problem', () => {
    const read = readPoints('x,y,z,X\n1,2,3,4\n', ['x', 'y', 'z']);
    expect(read).toMatchObject({ ok: false, problems: [{ path: 'line 1', message: expect.stringContaining('“x”') }] });
  });
});
