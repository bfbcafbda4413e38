import { describe, expect, it } from 'vitest';
import { readLog } from './logReading';
import { readPasted } from './pasted';

/* Whatever is pasted is read in time that grows with its length: ten times the text takes about ten times as long. */

const kinds: Readonly<Record<string, string>> = {
  digits: '1',
  'digits before a letter': '1',
  dots: '.',
  letters: 'a',
  slashes: '/',
  'paths of sources': 'a/b.',
  'hexadecimal prefixes': '0x0x',
  'hexadecimal digits': '0xabcdef',
  spaces: ' ',
  'blank lines': '\n',
  'a word before spaces': 'frame      ',
  'numbers in a row': '1.5 ',
  'numbers, a line each': '-0.25\n',
  'indices in brackets': '[1]',
  'open brackets': '[',
  'closed brackets': ')',
  'brackets about brackets': '[(',
  'quoted keys': '{"0": 1, ',
  vectors: '(1.0, 2.0, 3.0) ',
  'matrices by their names': 'view: [[1, 0, 0, 0.5], [0, 1, 0, 0], [0, 0, 1, 0], [0, 0, 0, 1]]\n',
  'points and pixels': '(1.0, 2.0, 3.0) -> (4.0, 5.0)\n',
  'log lines': '2026-11-01 10:00:00 [INFO] main.cpp:42: frame 7\n',
  minus: '-',
  arrows: '->',
};
const textOf = (unit: string, kind: string, length: number) =>
  unit.repeat(Math.ceil(length / unit.length)).slice(0, length) + (kind === 'digits before a letter' ? 'g' : '');

/** Processor time of the quickest of a few readings, in microseconds. */
function quickest(text: string): number {
  let least = Infinity;
  for (let i = 0; i < 5; i++) {
    const before = process.cpuUsage();
    readLog(text, { byColumns: false, vectors: 'column' });
    const { user, system } = process.cpuUsage(before);
    least = Math.min(least, user + system);
  }
  return least;
}

describe('text of one kind', () => {
  it.each(Object.entries(kinds))('%s is read in time that grows with its length', (kind, unit) => {
    // Below a few milliseconds the clock has more of the time than the reading.
    const timeOf = (length: number) => Math.max(4_000, quickest(textOf(unit, kind, length)));
    // What else the machine does adds to one of the two: the least ratio of a few is that of the reader.
    let ratio = Infinity;
    for (let i = 0; i < 4 && ratio >= 15; i++) ratio = Math.min(ratio, timeOf(100_000) / timeOf(10_000));
    expect(ratio).toBeLessThan(15);
  });
});

it('brackets about brackets, 20,000 deep, are read as if the deepest were not there', () => {
  const matrix = '[[1, 0, 0, 0], [0, 1, 0, 0], [0, 0, 1, 0], [0, 0, 0, 1]]';
  const deep = `frame\n${'['.repeat(20_000)}7${']'.repeat(20_000)}\n${matrix}`;
  expect(readPasted(deep).items).toHaveLength(1);
  // The reading says where.
  expect(readLog(deep, { byColumns: false, vectors: 'column' }).tooDeepLine).toBe(2);
  expect(readLog(matrix, { byColumns: false, vectors: 'column' }).tooDeepLine).toBeNull();
  expect(() => readPasted('['.repeat(100_000))).not.toThrow();
});
