/*
 * Matrix functions. A matrix is sixteen numbers, row by row, for column vectors: `transform(m, v)` is m·v. Lists of an
 * engine are read and written by a codec (`fromList`, `toList` of `createCodec`).
 */
export { affine, identity, invertAffine, mat4 as matrixOf, multiply, transform, transformDirection, transformPoint, transpose, type Mat4 } from '../math/mat4'; // prettier-ignore
export { invert4 as invert } from '../math/invert';
export type { Vec2, Vec3, Vec4 } from '../math/vec3';
