import { conventionProblems } from '../conventions/check';
import { codecOf, type ConventionCodec } from '../conventions/codec';
import type { Conventions } from '../conventions/conventions';
import type { Problem } from '../reasons';

/*
 * Conventions alone: presets, and the codec that converts points, angles, pixels, depths and matrices between an
 * engine's conventions and the canonical ones (right-handed, +y up, looking along −z; depth 0 at near and 1 at far).
 */
export { reexpressAngle, reexpressAngles, type ConventionCodec, type MatrixName } from '../conventions/codec';
export { defaultConventions, presets, type Conventions, type PresetName } from '../conventions/conventions';
export { handednessOf, reexpress, reexpressMatrix, type AxisFrame, type SignedAxis } from '../conventions/axes';
export type { Problem } from '../reasons';

/**
 * Creates the codec of conventions.
 *
 * @returns the codec, or the problems of axes that share a letter and of NDC depths that are equal
 */
export function createCodec(
  conventions: Conventions,
):
  | { readonly ok: true; readonly codec: ConventionCodec }
  | { readonly ok: false; readonly problems: readonly Problem[] } {
  const problems = conventionProblems(conventions);
  return problems.length ? { ok: false, problems } : { ok: true, codec: codecOf(conventions) };
}
