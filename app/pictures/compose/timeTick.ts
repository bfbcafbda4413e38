/**
 * Something at a moment of the time rule: an event, or a key that is taken elsewhere on it. Shown in
 * every task.
 */
export interface TimeTick {
  readonly time: number;
  /** The name of the event or key, as in “Move key 2”. */
  readonly name: string;
  /** Takes it to another time, within the gesture. */
  readonly move?: (to: number, gesture: string) => void;
}
