import { describe, expect, it } from 'vitest';
import type { PolygonWinding } from '../../core/order/winding';
import { supposedWinding, turnsOver } from './order/followed';

/* A supposition changes the words, the area and the picture of a winding together. */

const front: PolygonWinding = { facing: 'front', area: { ok: true, value: 120 } };
const nothing = { mirrored: false, negative: false, yDown: false };

describe('a supposed winding', () => {
  it('is the face as it is while nothing is supposed', () => {
    expect(supposedWinding(front, nothing, true)).toEqual({ area: 120, counterClockwise: true });
  });

  it('is turned over by each supposition, and by two of them not at all', () => {
    for (const key of ['mirrored', 'negative', 'yDown'] as const)
      expect(supposedWinding(front, { ...nothing, [key]: true }, true)).toEqual({
        area: -120,
        counterClockwise: false,
      });
    expect(supposedWinding(front, { ...nothing, mirrored: true, yDown: true }, true).counterClockwise).toBe(true);
    expect(turnsOver({ mirrored: true, negative: true, yDown: true }, true)).toBe(true);
  });

  it('takes a negative scale for the face of the body alone', () => {
    const negative = { ...nothing, negative: true };
    expect(supposedWinding(front, negative, false)).toEqual({ area: 120, counterClockwise: true });
    expect(supposedWinding(front, negative, true).counterClockwise).toBe(false);
  });

  it('has no direction edge-on, and nothing behind the eye', () => {
    expect(
      supposedWinding({ facing: 'edgeOn', area: { ok: true, value: 0 } }, nothing, false).counterClockwise,
    ).toBeNull();
    expect(supposedWinding({ facing: 'back', area: { ok: false, reason: 'behindEye' } }, nothing, false)).toEqual({ area: null, counterClockwise: null }); // prettier-ignore
  });
});
