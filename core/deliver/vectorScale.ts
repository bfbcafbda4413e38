import { pictureShape } from '../camera/frame';
import { multiply, mat4, type Mat4 } from '../math/mat4';
import { distance, length, type Vec3 } from '../math/vec3';
import { worldToViewRuf } from '../convert/project';
import type { VectorContext } from './vectorAnswers';
import type { VectorKind } from './vectorKinds';

/*
 * Sizes that tolerances of test vectors are a share of. A share of the answer itself would ask for too much of a
 * number that is small by cancellation (a pixel near the edge), and for too little of small numbers beside large ones
 * (a rotation beside a translation).
 */

/**
 * How much of the positions' size counts: single precision keeps 1/170 of the usual tolerance, 1e-5, and an answer
 * is made of a few operations.
 */
export const positionShare = 1 / 32;
const absolute = (m: Mat4): Mat4 => mat4(m.map(Math.abs));

/** The scale of an entry: its own size, and for small entries a share of the largest of its row. */
const byRows = (m: Mat4): Mat4 =>
  mat4(
    m.map((v, i) => {
      const row = i - (i % 4);
      return Math.max(Math.abs(v), 1e-3 * Math.max(...[0, 1, 2, 3].map((c) => Math.abs(m[row + c]!))));
    }),
  );

/** The scales of the entries of a matrix, listed in the conventions. */
function matrixScale(
  { frame, codec }: VectorContext,
  kind: 'view' | 'projection' | 'viewProjection' | 'cameraToWorld',
) {
  const eye = Math.max(length(frame.eye), 1e-3);
  // Rotations have size 1, translations that of the eye's position.
  const rigid = mat4(Array.from({ length: 16 }, (_, i) => (i % 4 === 3 && i < 12 ? eye : 1)));
  if (kind === 'view' || kind === 'cameraToWorld') return codec.toList(rigid);
  const projection = byRows(codec.matrix(frame, 'projection'));
  return codec.toList(kind === 'projection' ? projection : multiply(absolute(projection), rigid));
}

/**
 * Computes the sizes that a tolerance is a share of, one for each output of a row of a 3D camera: how much the
 * outputs change when the inputs and the camera's numbers change by a small share, as a multiple of that share.
 *
 * @returns positive numbers in the units of the outputs
 */
export function scale3d(
  context: VectorContext,
  kind: VectorKind,
  input: readonly number[],
  expected: readonly number[],
): readonly number[] {
  const { frame, codec } = context;
  const { viewport: v, near, kind: lens } = frame;
  const eye = length(frame.eye);
  const size = (...list: number[]) => Math.max(1e-6, ...list.map(Math.abs));
  const all = (value: number) => expected.map(() => value);
  const at = codec.fromWorld(input.slice(0, 3) as unknown as Vec3);
  /** The size of the positions that are subtracted. */
  const positions = positionShare * (eye + length(at));
  switch (kind) {
    case 'view':
    case 'projection':
    case 'viewProjection':
    case 'cameraToWorld':
      return matrixScale(context, kind);
    case 'worldToScreen': {
      const ahead = Math.abs(worldToViewRuf(frame, at)[2]);
      const { width, height } = pictureShape(frame);
      const k = lens === 'perspective' ? ahead / near : 1;
      const pixels = Math.max(v.width / width, v.height / height) / k;
      const pixel = size(v.width, v.height, v.x, v.y, expected[0]!, expected[1]!) + positions * pixels;
      const depthPerAhead = lens === 'perspective' ? near / (ahead * ahead) : 1 / (frame.far - near);
      const depth = size(expected[2]!, depthPerAhead * (ahead + positions), lens === 'perspective' ? 0 : near / (frame.far - near)); // prettier-ignore
      return [pixel, pixel, depth, size(ahead, positions)];
    }
    case 'screenToWorld': {
      const point = codec.fromWorld(expected as unknown as Vec3);
      return all(size(distance(point, frame.eye), positionShare * (eye + length(point)), near));
    }
    case 'ray': {
      const { width, height } = pictureShape(frame);
      const origin = lens === 'perspective' ? size(near, positionShare * eye) : size(width, height, eye);
      return expected.map((_, i) => (i < 3 ? origin : 1));
    }
    case 'sphereOutside':
    case 'boxOutside':
    case 'mayAppear':
      return [1];
    case 'boardInViewPlane':
    case 'boardAboutAxis':
      return all(1);
    case 'boardTowardsEye':
    case 'boardUpright':
      return all(1 + (lens === 'perspective' ? positions / Math.max(distance(at, frame.eye), 1e-9) : 0));
    case 'fovForHeight':
      return all(size(...expected));
    case 'follow':
      return all(size(...input.slice(0, 3)));
    case 'heightAt':
      return all(size(...expected));
    case 'keyAhead':
    case 'keyDistance':
      return all(size(distance(at, frame.eye), positions));
    case 'keyScreenHeight': {
      const [, up, ahead] = worldToViewRuf(frame, at);
      if (lens === 'orthographic') return all(size(up, positions));
      return all(1 + Math.abs(up / ahead) + positions / Math.abs(ahead));
    }
    default: {
      // Planes: a unit normal, and an offset made of the eye's position and the distance of the plane.
      const offset = size(expected[3]!, positionShare * (eye + Math.abs(expected[3]!)), near);
      return expected.map((_, i) => (i < 3 ? 1 : offset));
    }
  }
}
