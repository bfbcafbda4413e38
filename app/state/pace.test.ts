import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { saltmarrow } from '../../demo/saltmarrow';
import type { ActiveDrag } from '../ui/activeDrag';

let held: ActiveDrag | null = null;
vi.mock('../ui/activeDrag', () => ({ activeDrag: () => held, onDragEnd: () => () => undefined }));

const { edit, openProject, useDocument } = await import('./document');
const { useClock } = await import('./clock');
const { followDocument, reading, useMoving, useNow, useStill } = await import('./pace');
followDocument();

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

  it('keeps the same pace while the clock plays, and is in step when it stops', () => {
    rename('at rest');
    useClock.setState({ playing: true });
    const still = useStill.getState();
    const seen = new Set<number>();
    for (let i = 1; i <= 600; i++) {
      const before = parts.map((one) => one.getState().time);
      useClock.setState({ time: i / 60 });
      expect(parts.filter((one, k) => one.getState().time !== before[k]).length).toBeLessThanOrEqual(1);
      expect(useNow.getState().time).toBe(i / 60);
      seen.add(reading.sheet.getState().time);
      vi.advanceTimersByTime(16);
    }
    expect(seen.size).toBeGreaterThan(5);
    expect(seen.size).toBeLessThan(60);
    expect(useStill.getState()).toBe(still);
    expect(useMoving.getState().playing).toBe(true);
    useClock.setState({ playing: false });
    expect([...parts, useStill].map((one) => one.getState().time)).toEqual([10, 10, 10, 10]);
    useClock.setState({ time: 0 });
  });

  it('catches up when the hand holds still', () => {
    held = { picture: 'plan', grip: true };
    for (let i = 0; i < 5; i++) rename(`step ${i}`);
    expect(inStep()).toBeLessThan(parts.length);
    vi.advanceTimersByTime(500);
    expect(inStep()).toBe(parts.length);
  });
});
