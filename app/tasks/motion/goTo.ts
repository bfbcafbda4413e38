import { pause, setTime } from '../../state/clock';

/** Takes the moment to a time, and stands there. */
export function goTo(time: number): void {
  pause();
  setTime(time);
}
