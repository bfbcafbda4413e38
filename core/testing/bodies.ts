import fc from 'fast-check';
import { placeBodies, type Body, type PlacedBody, type Shape } from '../bodies/body';
import { viewRufToWorld, pictureToViewRuf } from '../convert/project';
import { normalizeQuat, type Quat } from '../math/quat';
import { add, type Vec3 } from '../math/vec3';
import { aheadAt, frames, picturePositions, real, shares, vectors } from './arbitraries';

const sizes = fc.tuple(real(0.05, 20), real(0.05, 20), real(0.05, 20));
export const tetrahedron: Shape = {
  kind: 'mesh',
  positions: [0, 0, 0, 3, 0, 0, 0, 2, 0, 0, 0, 4],
  indices: [0, 2, 1, 0, 1, 3, 0, 3, 2, 1, 2, 3],
};
export const shapes: fc.Arbitrary<Shape> = fc.oneof(
  fc.constant<Shape>({ kind: 'point' }),
  real(0.05, 20).map((radius): Shape => ({ kind: 'sphere', radius })),
  sizes.map((size): Shape => ({ kind: 'box', size })),
  sizes.map(([w, h]): Shape => ({ kind: 'quad', size: [w, h] })),
  fc.constant(tetrahedron),
);
export const rotations: fc.Arbitrary<Quat> = fc
  .tuple(real(-1, 1), real(-1, 1), real(-1, 1), real(-1, 1))
  .map((q) => normalizeQuat(q))
  .filter((q) => q !== null);
export const scales = fc.tuple(real(0.2, 3), real(0.2, 3), real(-3, -0.2));

export const placeOne = (shape: Shape, position: Vec3, rotation: Quat, stretch: Vec3): PlacedBody => {
  const body: Body = {
    id: 'b',
    shape,
    position,
    rotation,
    scale: shape.kind === 'sphere' ? [1, 1, 1] : stretch,
    parent: null,
    castsShadow: true,
  };
  const made = placeBodies([body]);
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.placed[0]!;
};

/**
 * Bodies near the frustum, so that every verdict comes up: about a picture position at a distance
 * ahead, pushed off by their size.
 */
export const scenes = fc
  .tuple(frames, picturePositions, shares, shapes, rotations, scales, vectors(15))
  .map(([frame, [x, y], share, shape, rotation, stretch, off]) => {
    const ahead = Math.min(aheadAt(frame, share), frame.near + 200);
    const at = add(viewRufToWorld(frame, pictureToViewRuf(frame, 1.3 * x, 1.3 * y, ahead)), off);
    return { frame, placed: placeOne(shape, at, rotation, stretch) };
  });
