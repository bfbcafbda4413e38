import { orthonormalError, repairBasis, type Basis } from '../camera/orientation';
import { angleBetween } from '../convert/compare';
import type { Vec3 } from '../math/vec3';

/** How a basis is turned on by small steps. */
export interface TurnTerms {
  /** A unit axis of world space. */
  readonly axis: Vec3;
  /** Radians a second. */
  readonly rate: number;
  readonly stepsPerSecond: number;
  readonly precision: 'double' | 'float';
  /** Seconds between two repairs; null for never. */
  readonly repairEvery: number | null;
}

/** A basis after a time of being turned. */
export interface Turned {
  readonly time: number;
  /** By how much it is no longer orthonormal (`orthonormalError`). */
  readonly error: number;
  /** Radians by which its forward is off where it should be. */
  readonly off: number;
}

/**
 * A basis turned about an axis by many small steps, each a product of matrices in single or double
 * precision: how far it drifts from orthonormal and from where it should be, at `samples` + 1 even
 * moments from 0 to `seconds`. A repair (`repairBasis`) makes it orthonormal again; what it has
 * turned wrong stays. A basis that has fallen together is sampled as it is.
 */
export function turnedInSteps(start: Basis, terms: TurnTerms, seconds: number, samples: number): readonly Turned[] {
  const { axis, rate, stepsPerSecond, precision, repairEvery } = terms;
  const round = precision === 'float' ? Math.fround : (v: number) => v;
  const rotation = (angle: number): readonly number[] => {
    const [x, y, z] = axis;
    const [s, c] = [Math.sin(angle), Math.cos(angle)];
    const k = 1 - c;
    return [x * x * k + c, x * y * k - z * s, x * z * k + y * s, y * x * k + z * s, y * y * k + c, y * z * k - x * s, z * x * k - y * s, z * y * k + x * s, z * z * k + c]; // prettier-ignore
  };
  const applied = (m: readonly number[], [x, y, z]: Vec3, own: (v: number) => number): Vec3 => {
    const row = (i: number) => own(own(own(m[i]! * x) + own(m[i + 1]! * y)) + own(m[i + 2]! * z));
    return [row(0), row(3), row(6)];
  };
  const step = rotation(rate / stepsPerSecond).map(round);
  const turn = (b: Basis): Basis => ({
    right: applied(step, b.right, round),
    up: applied(step, b.up, round),
    forward: applied(step, b.forward, round),
  });
  const rounded = (v: Vec3): Vec3 => [round(v[0]), round(v[1]), round(v[2])];
  let now: Basis = { right: rounded(start.right), up: rounded(start.up), forward: rounded(start.forward) };
  const repairs = repairEvery === null ? Infinity : Math.max(1, Math.round(repairEvery * stepsPerSecond));
  const all = Math.round(seconds * stepsPerSecond);
  const found: Turned[] = [];
  const note = (done: number) => {
    const time = done / stepsPerSecond;
    const wanted = applied(rotation(rate * time), start.forward, (v) => v);
    found.push({ time, error: orthonormalError(now), off: angleBetween(wanted, now.forward) });
  };
  note(0);
  for (let done = 1, next = 1; done <= all; done++) {
    now = turn(now);
    if (done % repairs === 0) {
      const mended = repairBasis(now);
      if (mended) now = { right: rounded(mended.right), up: rounded(mended.up), forward: rounded(mended.forward) };
    }
    while (next <= samples && done >= Math.round((all * next) / samples)) {
      note(done);
      next++;
    }
  }
  return found;
}
