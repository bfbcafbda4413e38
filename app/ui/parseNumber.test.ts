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
] as const)('%s is a number', (text, units, value) => {
  expect(parseNumber(text, units)).toBeCloseTo(value, 12);
});

it.each(['', 'abc', '1/0', '12 m', '3 +', 'x = 4'])('%s is none', (text) => {
  expect(parseNumber(text)).toBeNull();
});
