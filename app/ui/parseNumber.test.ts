import { expect, it } from 'vitest';
import { anglesIn, lengths, parseNumber } from './parseNumber';

it.each([
  ['12.5', {}, 12.5],
  ['\u22124', {}, -4],
  ['2*pi/3', {}, (2 * Math.PI) / 3],
  ['1/60', {}, 1 / 60],
  ['35mm', lengths, 0.035],
  ['(1+2) km', lengths, 3000],
  ['60deg', anglesIn('radians'), Math.PI / 3],
  ['0.5 turn', anglesIn('degrees'), 180],
  ['1e3', {}, 1000],
  ['-2^2', {}, -4],
  ['2^3^2', {}, 512],
  ['2 - -3', {}, 5],
  ['sqrt(2)*max(1, 3)', {}, 3 * Math.SQRT2],
  ['16 × 9 ÷ 3', {}, 48],
  ['.5', {}, 0.5],
] as const)('%s is a number', (text, units, value) => {
  expect(parseNumber(text, units)).toBeCloseTo(value, 12);
});

it.each([
  '',
  'abc',
  '1/0',
  '12 m',
  '3 +',
  'x = 4',
  '5 constructor',
  'constructor',
  '"3"',
  '[1]',
  'a.b',
  '1, 2',
  'sqrt()',
  '1e308 km',
  '1 2',
])('%s is none', (text) => {
  expect(parseNumber(text)).toBeNull();
  expect(parseNumber(text, lengths)).toBe(text === '12 m' ? 12 : null);
});
