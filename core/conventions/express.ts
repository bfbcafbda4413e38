import { mat4, multiply, transpose, type Mat4 } from '../math/mat4';
import { columnsToQuat, quatToColumns, type Quat } from '../math/quat';
import type { Vec2, Vec3, Vec4 } from '../math/vec3';
import type { Viewport } from '../camera/frame';
import { inverseProjectionMatrix, projectionMatrix, type CameraFrame } from '../camera/frame';
import type { Angles, Basis } from '../camera/orientation';
import type { ClipParts, DepthShares, PicturePosition } from '../convert/project';
import {
  canonicalAxes,
  fromParts,
  handednessOf,
  partsMatrix,
  reexpress,
  reexpressMatrix,
  signOf,
  toParts,
  axisVector,
  indexOf,
  type SignedAxis,
} from './axes';
import type { Conventions } from './conventions';

export type MatrixName = 'view' | 'projection' | 'viewProjection' | 'cameraToWorld' | 'inverseViewProjection';

/**
 * The passage between the inside and one set of conventions: every value once on the way in (`from…`) and once on the way out (`to…`).
 * Vectors are signed permutations and so exact both ways.
 */
export interface Expression {
  readonly conventions: Conventions;
  readonly handedness: { readonly world: 'right' | 'left'; readonly view: 'right' | 'left' };
  toWorld(v: Vec3): Vec3;
  fromWorld(v: Vec3): Vec3;
  /** (right, up, ahead) as view coordinates. */
  toView(parts: Vec3): Vec3;
  fromView(v: Vec3): Vec3;
  toClip(clip: ClipParts): Vec4;
  toNdc(picture: PicturePosition): Vec3;
  fromNdc(ndc: Vec3): PicturePosition;
  /** NDC depth mapped so that the smaller of the near and far values is 0 and the larger 1. */
  toDepth(shares: DepthShares): number;
  fromDepth(depth: number): DepthShares;
  /** A picture position as screen coordinates of a viewport that is measured from the screen's own origin. */
  toScreen(viewport: Viewport, across: number, upward: number): Vec2;
  fromScreen(viewport: Viewport, screen: Vec2): Vec2;
  /** An unsigned angle (a field of view) in the unit in force; radians inside. */
  toAngle(radians: number): number;
  fromAngle(angle: number): number;
  toAngles(angles: Angles): Angles;
  fromAngles(angles: Angles): Angles;
  /** The quaternion that rotates view axes into the world; null where world and view differ in handedness, as no rotation does that. */
  toQuaternion(basis: Basis): Quat | null;
  fromQuaternion(q: Quat): Basis | null;
  /** An affine matrix between spaces of the inside's axes (a body's own and the world), in the letters of these conventions. */
  toModel(m: Mat4): Mat4;
  /** A matrix for column vectors as the sixteen numbers listed in these conventions. */
  toList(m: Mat4): number[];
  fromList(list: readonly number[]): Mat4;
  /** The matrices of a frame, for column vectors, between the spaces of these conventions. */
  matrix(frame: CameraFrame, name: MatrixName): Mat4;
}

/** The passage for a set of conventions whose axes are distinct and whose NDC near and far differ. */
export function expressionOf(conventions: Conventions): Expression {
  const { world, view, ndc, screen, matrix, angles } = conventions;
  const upSign = ndc.up === '+y' ? 1 : -1;
  const span = ndc.far - ndc.near;
  const rising = span > 0;
  const halfPixel = 0.5 - screen.pixelCentre;
  const perUnit = angles.unit === 'degrees' ? 180 / Math.PI : 1;
  const senses = {
    yaw: angles.yaw === 'right' ? 1 : -1,
    pitch: angles.pitch === 'up' ? 1 : -1,
    roll: angles.roll === 'right' ? 1 : -1,
  };
  const handedness = { world: handednessOf(world), view: handednessOf(view) };
  const worldIn = reexpressMatrix(canonicalAxes, world);
  const viewIn = reexpressMatrix(canonicalAxes, view);
  const ndcFlip = mat4([1, 0, 0, 0, 0, upSign, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]);
  const partsOfView = partsMatrix(view);

  const transposed = (matrix.vectors === 'row') !== (matrix.storage === 'column-major');
  const arrange = (m: Mat4) => (transposed ? transpose(m) : m);

  const projection = (frame: CameraFrame) =>
    multiply(multiply(ndcFlip, projectionMatrix(frame, ndc.near, ndc.far)), partsOfView);
  const viewMatrix = (frame: CameraFrame) => multiply(multiply(viewIn, frame.view), transpose(worldIn));
  const cameraToWorld = (frame: CameraFrame) => multiply(multiply(worldIn, frame.cameraToWorld), transpose(viewIn));

  return {
    conventions,
    handedness,
    toWorld: (v) => reexpress(canonicalAxes, world, v),
    fromWorld: (v) => reexpress(world, canonicalAxes, v),
    toView: (parts) => fromParts(view, parts),
    fromView: (v) => toParts(view, v),
    toClip: (c) => [c.x, upSign * c.y, ndc.near * c.nearPart + ndc.far * c.farPart, c.w],
    toNdc: ({ across, upward, shares }) => [across, upSign * upward, ndc.near * shares.near + ndc.far * shares.far],
    fromNdc: ([x, y, z]) => ({
      across: x,
      upward: upSign * y,
      shares: { near: (ndc.far - z) / span, far: (z - ndc.near) / span },
    }),
    toDepth: (shares) => (rising ? shares.far : shares.near),
    fromDepth: (d) => (rising ? { near: 1 - d, far: d } : { near: d, far: 1 - d }),
    toScreen: (v, across, upward) => [
      v.x + ((across + 1) / 2) * v.width - halfPixel,
      v.y + ((screen.origin === 'top-left' ? 1 - upward : upward + 1) / 2) * v.height - halfPixel,
    ],
    fromScreen: (v, [x, y]) => {
      const down = ((y + halfPixel - v.y) / v.height) * 2;
      return [((x + halfPixel - v.x) / v.width) * 2 - 1, screen.origin === 'top-left' ? 1 - down : down - 1];
    },
    toAngle: (a) => a * perUnit,
    fromAngle: (a) => a / perUnit,
    toAngles: (a) => ({
      yaw: senses.yaw * a.yaw * perUnit,
      pitch: senses.pitch * a.pitch * perUnit,
      roll: senses.roll * a.roll * perUnit,
    }),
    fromAngles: (a) => ({
      yaw: (senses.yaw * a.yaw) / perUnit,
      pitch: (senses.pitch * a.pitch) / perUnit,
      roll: (senses.roll * a.roll) / perUnit,
    }),
    toQuaternion: (basis) => {
      if (handedness.world !== handedness.view) return null;
      // The columns are where the view's x, y and z axes point in the world.
      const column = (axis: SignedAxis) => {
        const [r, u, f] = toParts(view, axisVector(axis));
        return reexpress(canonicalAxes, world, [
          basis.right[0] * r + basis.up[0] * u + basis.forward[0] * f,
          basis.right[1] * r + basis.up[1] * u + basis.forward[1] * f,
          basis.right[2] * r + basis.up[2] * u + basis.forward[2] * f,
        ]);
      };
      return columnsToQuat(column('+x'), column('+y'), column('+z'));
    },
    fromQuaternion: (q) => {
      if (handedness.world !== handedness.view) return null;
      const columns = quatToColumns(q);
      const axis = (name: keyof typeof view) => {
        const sign = signOf(view[name]);
        const c = columns[indexOf(view[name])]!;
        return reexpress(world, canonicalAxes, [c[0] * sign, c[1] * sign, c[2] * sign]);
      };
      return { right: axis('right'), up: axis('up'), forward: axis('forward') };
    },
    toModel: (m) => multiply(multiply(worldIn, m), transpose(worldIn)),
    toList: (m) => arrange(m).map(withoutNegativeZero),
    fromList: (list) => arrange(mat4(list)),
    matrix: (frame, name) => {
      switch (name) {
        case 'view':
          return viewMatrix(frame);
        case 'projection':
          return projection(frame);
        case 'viewProjection':
          return multiply(projection(frame), viewMatrix(frame));
        case 'cameraToWorld':
          return cameraToWorld(frame);
        case 'inverseViewProjection':
          return multiply(
            cameraToWorld(frame),
            multiply(transpose(partsOfView), multiply(inverseProjectionMatrix(frame, ndc.near, ndc.far), ndcFlip)),
          );
      }
    },
  };
}

/** −0 is a true double but a poor thing to print. */
export const withoutNegativeZero = (v: number): number => (v === 0 ? 0 : v);
