import { describe, expect, it } from 'vitest';
import { dragResolution } from './dragResolution';

const after = (...delays: readonly number[]): number => {
  const resolution = dragResolution();
  delays.forEach(resolution.note);
  return resolution.share();
};
const times = (count: number, delay: number) => Array<number>(count).fill(delay);

describe('the resolution of surfaces while something moves', () => {
  it('is whole while pictures follow within 50 ms, and after single slow ones', () => {
    expect(after(...times(50, 49))).toBe(1);
    expect(after(80, 80, 20, 80, 80, 20)).toBe(1);
  });
  it('is half after three slow pictures in a row, and stays so while they would be slow again', () => {
    expect(after(80, 80, 80)).toBe(0.5);
    expect(after(...times(3, 80), ...times(100, 30))).toBe(0.5);
  });
  it('is whole again when pictures leave room for four times the pixels', () => {
    expect(after(...times(3, 80), ...times(29, 5))).toBe(0.5);
    expect(after(...times(3, 80), ...times(30, 5))).toBe(1);
  });
});
