import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { saltmarrow } from '../../demo/saltmarrow';
import type { Held } from '../ui/hand';

let held: Held | null = null;
vi.mock('../ui/hand', () => ({ handHolds: () => held }));

const { edit, openProject, useDocument } = await import('./document');
const { reading, useStill } = await import('./pace');

const parts = Object.values(reading);
const rename = (name: string) =>
  edit('rename', (draft) => {
    draft.name = name;
  });
const now = () => useDocument.getState().project;
const inStep = () => parts.filter((one) => one.getState().project === now()).length;

describe('what is read while the hand moves something', () => {
  beforeEach(() => {
    vi.useFakeTimers();
    held = null;
    openProject(saltmarrow());
    vi.advanceTimersByTime(1000);
  });
  afterEach(() => vi.useRealTimers());

  it('is in step while it moves nothing, or a number beside the pictures', () => {
    rename('a');
    expect([inStep(), useStill.getState().project === now()]).toEqual([parts.length, true]);
    held = { picture: null, grip: false };
    rename('b');
    expect([inStep(), useStill.getState().project === now()]).toEqual([parts.length, false]);
  });

  it.each([4, 16, 90])('follows one part at a time, each as often as it can be read, at %d ms a frame', (frame) => {
    held = { picture: 'main', grip: false };
    const still = useStill.getState().project;
    const changes = new Map(parts.map((one) => [one, [] as number[]]));
    let last = 0;
    let two = 0;
    for (let time = 0; time < 3000; time += frame) {
      const before = parts.map((one) => one.getState().project);
      rename(`at ${time}`);
      const followed = parts.filter((one, i) => one.getState().project !== before[i]);
      expect(followed.length).toBeLessThanOrEqual(1);
      for (const one of followed) changes.get(one)!.push(time);
      two = followed.length && last ? two + 1 : two;
      last = followed.length;
      vi.advanceTimersByTime(frame);
    }
    expect(two, 'frames in a row that are not the pictures’ own').toBe(0);
    for (const times of changes.values()) {
      const gaps = times.slice(1).map((t, i) => t - times[i]!);
      expect(Math.min(...gaps)).toBeGreaterThanOrEqual(200 - frame);
      // A part waits for the others, each of which has a frame and leaves one free.
      expect(Math.max(...gaps)).toBeLessThanOrEqual(Math.max(200, 2 * parts.length * frame) + 2 * frame);
    }
    expect(useStill.getState().project).toBe(still);
  });

  it('catches up when the hand holds still', () => {
    held = { picture: 'plan', grip: true };
    for (let i = 0; i < 5; i++) rename(`step ${i}`);
    expect(inStep()).toBeLessThan(parts.length);
    vi.advanceTimersByTime(500);
    expect(inStep()).toBe(parts.length);
  });
});
