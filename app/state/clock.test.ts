import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { advanced, pause, play, setTime, stepFrames, useClock } from './clock';

const frames: ((now: number) => void)[] = [];
let now = 0;
const frame = (milliseconds: number) => {
  now += milliseconds;
  frames.splice(0).forEach((run) => run(now));
};
beforeEach(() => {
  now = 1000;
  frames.length = 0;
  vi.stubGlobal('requestAnimationFrame', (run: (now: number) => void) => frames.push(run));
  vi.stubGlobal('cancelAnimationFrame', () => void (frames.length = 0));
  vi.spyOn(performance, 'now').mockImplementation(() => now);
  useClock.setState({ time: 0, playing: false, rate: 1, loop: true, span: 10 });
});
afterEach(() => {
  pause();
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});
const time = () => useClock.getState().time;

it('plays by the time that has passed, at its rate, and stands when it is paused', () => {
  play();
  for (let i = 0; i < 60; i++) frame(1000 / 60);
  expect(time()).toBeCloseTo(1, 9);
  useClock.setState({ rate: 0.5 });
  for (let i = 0; i < 20; i++) frame(100);
  expect(time()).toBeCloseTo(2, 9);
  pause();
  frame(500);
  expect(time()).toBeCloseTo(2, 9);
  // A page that was out of sight goes on from where it was.
  play();
  frame(60_000);
  expect(time()).toBeCloseTo(2.125, 9);
});

it('begins again at the end, or stops there', () => {
  setTime(9.9);
  play();
  frame(200);
  expect(time()).toBeCloseTo(0.1, 9);
  pause();
  useClock.setState({ loop: false });
  setTime(9.9);
  play();
  frame(200);
  expect(useClock.getState()).toMatchObject({ time: 10, playing: false });
  play();
  frame(100);
  expect(time()).toBeCloseTo(0.1, 9);
  expect(advanced({ time: 1, rate: -1, loop: true, span: 10 }, 3)).toBeCloseTo(8, 12);
});

it('steps on whole frames, on and back to the same place, within the rule', () => {
  setTime(0.51);
  stepFrames(1);
  const there = time();
  stepFrames(5);
  stepFrames(-5);
  expect(time()).toBe(there);
  stepFrames(-1000);
  expect(time()).toBe(0);
});
