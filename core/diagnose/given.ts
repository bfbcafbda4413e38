import type { Mat4 } from '../math/mat4';
import type { Vec2, Vec3 } from '../math/vec3';
import type { FaultName, MatrixName, Place } from './faults';
import type { Intended } from './engine';

/** A point as it was given: in the world, on the screen, how deep if said. */
export interface GivenPoint {
  readonly world: Vec3;
  readonly screen: Vec2;
  readonly depth: number | null;
}

/** An engine's numbers: matrices of column vectors in the request's axes, and points. */
export interface Given {
  readonly matrices: Readonly<Partial<Record<MatrixName, Mat4>>>;
  readonly points: readonly GivenPoint[];
  /** How many digits of the numbers can be trusted. */
  readonly digits: number;
}

/** A fault at a place, and how it is done where there are two ways. */
export interface Instance {
  readonly fault: FaultName | 'otherCamera' | 'differs';
  /** Where it is committed; `matrices` for the same in all given matrices at once. */
  readonly place: Place | 'matrices';
  readonly up?: boolean;
  /** The name of another camera; of `differs`, a key. */
  readonly which?: string;
  /** The camera used instead of the intended one: of `otherCamera` and `differs`. */
  readonly camera?: Intended;
}

/** Another camera that the engine may have used. */
export interface Other {
  readonly name: string;
  readonly intended: Intended;
}
