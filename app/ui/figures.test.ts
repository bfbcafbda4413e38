import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { counted, editable, figure, percent } from './figures';

describe('numbers for the eye', () => {
  it.each([
    [1.5, 2, '1.50'],
    [-1.5, 2, '−1.50'],
    [0, 2, '0.00'],
    [-0, 2, '0.00'],
    // A little is never shown as nothing, and what rounding left of nothing is.
    [0.0005, 2, '0.0005'],
    [-0.00123, 2, '−0.0012'],
    [3.2e-7, 2, '3.2e−7'],
    [7.95e-16, 2, '0.00'],
    [0.004, 2, '0.004'],
    [0.006, 2, '0.01'],
    [12345678, 2, '1.23e+7'],
    [Infinity, 1, '∞'],
    [-Infinity, 1, '−∞'],
  ])('%d to %d places is %s', (value, places, text) => expect(figure(value, places)).toBe(text));

  it('are never off by more than what is left out, and never nothing for something', () => {
    fc.assert(
      fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), fc.integer({ min: 0, max: 6 }), (value, places) => {
        const shown = Number(figure(value, places).replaceAll('\u2212', '-'));
        expect(Math.abs(shown - value)).toBeLessThanOrEqual(0.5000001 * 10 ** -places);
        if (Math.abs(value) >= 1e-9) expect(shown).not.toBe(0);
      }),
    );
  });

  it.each([
    [0, '0 %'],
    [1, '100 %'],
    [0.5, '50 %'],
    [0.999, 'over 99 %'],
    [1 / 40_000, '0.0025 %'],
    [1e-12, 'next to nothing'],
  ])('a share of %d is %s', (share, text) => expect(percent(share)).toBe(text));

  it('counts one and many, and edits without a minus before nothing', () => {
    expect([counted(1, 'point', 'points'), counted(0, 'body', 'bodies'), counted(1234, 'body', 'bodies')]).toEqual([
      '1 point',
      '0 bodies',
      '1,234 bodies',
    ]);
    expect([Infinity, -Infinity].map(editable)).toEqual(['∞', '−∞']);
    expect(editable(-0)).toBe('0');
  });
});
