import { Lazy } from './lazy';

/** A result with all its lists. */
export const whole = <R extends object>(result: R): R =>
  Object.fromEntries(
    Object.entries(result).map(([key, value]: [string, unknown]) => [
      key,
      value instanceof Lazy ? value.whole() : value,
    ]),
  ) as R;
