/**
 * Why a question has no answer. The list is closed: interfaces make their sentences from it
 * (`app/wording`, `core/compute`).
 */
export type NullReason =
  | 'behindEye'
  | 'onEyePlane'
  | 'rayParallel'
  | 'planeBehindEye'
  | 'depthAtInfinity'
  | 'parallelToScreen'
  | 'awayFromReceiver'
  | 'outsideDepth'
  | 'eyeInside'
  | 'notWithin'
  | 'neverExceeds'
  | 'noDirection'
  | 'outOfRange';

export type ErrorCode =
  | 'lookAtDegenerate'
  | 'notOrthonormal'
  | 'quaternionNeedsOneHandedness'
  | 'quaternionZero'
  | 'zoomNotPositive'
  | 'nearNotPositive'
  | 'farNotBeyondNear'
  | 'fovOutOfRange'
  | 'viewportEmpty'
  | 'noAreaLeft'
  | 'tooManyTries'
  | 'footprintUnbounded'
  | 'footprintEmpty'
  | 'distanceNotPositive'
  | 'unequalScaleOnSphere'
  | 'parentMissing'
  | 'parentCycle'
  | 'bodyMissing'
  | 'singularTransform'
  | 'axesNotDistinct'
  | 'notIn2d'
  | 'timeNegative'
  | 'keysOutOfOrder'
  | 'noKeys'
  | 'outOfRange'
  | 'anglesCrossed'
  | 'toMissing'
  | 'mirrorNotSeen';

/** An answer, or the reason why there is none. */
export type Answer<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly reason: NullReason };
export const answer = <T>(value: T): Answer<T> => ({ ok: true, value });
/** No answer, and why. */
export const noAnswer = (reason: NullReason): { ok: false; reason: NullReason } => ({ ok: false, reason });

/**
 * Something wrong with what was asked: where (a path into the request), a code if the list has one,
 * and a sentence with the mend.
 */
export interface Problem {
  readonly path: string;
  readonly code?: ErrorCode;
  readonly message: string;
}
/** A checked value with remarks, or what is wrong with it. */
export type Checked<T> =
  | { readonly ok: true; readonly value: T; readonly warnings: readonly Problem[] }
  | { readonly ok: false; readonly problems: readonly Problem[] };

/** A value, or everything that is wrong with its input. */
export type Read<T> = { ok: true; value: T } | { ok: false; problems: Problem[] };
export const reject = (...problems: Problem[]): { ok: false; problems: Problem[] } => ({ ok: false, problems });
