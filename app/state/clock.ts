import { create } from 'zustand';

/** The steps that the clock takes by hand, a second. */
export const framesPerSecond = 60;

interface Clock {
  /** Seconds. */
  readonly time: number;
  readonly playing: boolean;
  /** Seconds of the clock to a second. */
  readonly rate: number;
  /** Whether it begins again at the end rather than stop there. */
  readonly loop: boolean;
  /** Where the time rule ends, seconds. */
  readonly span: number;
}

/**
 * The moment that is looked at. No part of the document: playing is no change and nothing to undo.
 */
export const useClock = create<Clock>(() => ({ time: 0, playing: false, rate: 1, loop: true, span: 60 }));

/** The time after so many seconds of playing: round again, or at the end. */
export function advanced({ time, rate, loop, span }: Omit<Clock, 'playing'>, seconds: number): number {
  const next = time + rate * seconds;
  if (next < span && next >= 0) return next;
  return loop ? ((next % span) + span) % span : Math.max(0, Math.min(span, next));
}

let frame = 0;
let last = 0;
/** Once a frame while it plays; a frame that took long is not made up for by a leap. */
function tick(now: number): void {
  const clock = useClock.getState();
  if (!clock.playing) return;
  frame = requestAnimationFrame(tick);
  const seconds = Math.min(0.25, Math.max(0, (now - last) / 1000));
  last = now;
  const time = advanced(clock, seconds);
  useClock.setState({ time, playing: clock.loop || (time < clock.span && time > 0) });
}

export function play(): void {
  const { time, span, playing } = useClock.getState();
  if (playing) return;
  useClock.setState({ playing: true, time: time >= span ? 0 : time });
  last = performance.now();
  cancelAnimationFrame(frame);
  frame = requestAnimationFrame(tick);
}

export const pause = (): void => useClock.setState({ playing: false });

export const togglePlay = (): void => (useClock.getState().playing ? pause() : play());

/** Stops the clock at 0, where every project opens. */
export const resetClock = (): void => useClock.setState({ time: 0, playing: false });
/** Takes the moment to a time within the rule; what plays goes on from there. */
export const setTime = (time: number): void =>
  useClock.setState(({ span }) => ({ time: Math.max(0, Math.min(span, time)) }));

/** So many steps onward or back, and stands. */
export function stepFrames(count: number): void {
  const { time } = useClock.getState();
  pause();
  // On whole steps, so that as many back lead to where it was.
  setTime((Math.round(time * framesPerSecond) + count) / framesPerSecond);
}
