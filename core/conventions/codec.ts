import { mat4, multiply, transpose, type Mat4 } from '../math/mat4';
import { columnsToQuat, quatToColumns, type Quat } from '../math/quat';
import type { Vec2, Vec3, Vec4 } from '../math/vec3';
import type { Viewport } from '../camera/frame';
import { inverseProjectionMatrix, projectionMatrix, type CameraFrame } from '../camera/frame';
import type { Angles, Basis } from '../camera/orientation';
import type { ClipParts, Depth01, PicturePosition } from '../convert/project';
import {
  canonicalAxes,
  fromRuf,
  handednessOf,
  rufMatrix,
  reexpress,
  reexpressMatrix,
  signOf,
  toRuf,
  axisVector,
  indexOf,
  type SignedAxis,
} from './axes';
import type { Conventions } from './conventions';

export type MatrixName =
  'view' | 'projection' | 'viewProjection' | 'cameraToWorld' | 'inverseProjection' | 'inverseViewProjection';

/**
 * The passage between canonical space and one set of conventions: every value once on the way in
 * (`from…`) and once on the way out (`to…`). Vectors are signed permutations and so exact both
 * ways.
 */
export interface ConventionCodec {
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
  toDepth(shares: Depth01): number;
  fromDepth(depth: number): Depth01;
  /**
   * A picture position as screen coordinates of a viewport that is measured from the screen's own
   * origin.
   */
  toScreen(viewport: Viewport, across: number, upward: number): Vec2;
  fromScreen(viewport: Viewport, screen: Vec2): Vec2;
  /** An unsigned angle (a field of view) in the unit in force; radians inside. */
  toAngle(radians: number): number;
  fromAngle(angle: number): number;
  toAngles(angles: Angles): Angles;
  fromAngles(angles: Angles): Angles;
  /**
   * The quaternion that rotates view axes into the world; null where world and view differ in
   * handedness, as no rotation does that.
   */
  toQuaternion(basis: Basis): Quat | null;
  fromQuaternion(q: Quat): Basis | null;
  /**
   * A rotation of a body: between axes that carry the world's letters on both sides, so that it
   * exists in any conventions.
   */
  toRotation(q: Quat): Quat;
  fromRotation(q: Quat): Quat;
  /**
   * Numbers that go along the axes whichever way those point (sizes, scales): they change letters
   * and keep their signs.
   */
  toSizes(v: Vec3): Vec3;
  fromSizes(v: Vec3): Vec3;
  /**
   * Two coordinates of a surface, to the right and along `second`, as the world's own numbers on
   * those axes' letters.
   */
  toPair(second: 'up' | 'forward', pair: Vec2): Vec2;
  fromPair(second: 'up' | 'forward', pair: Vec2): Vec2;
  /** A height as the world's own number on its up axis. */
  toHeight(height: number): number;
  fromHeight(height: number): number;
  /** Whether screen y grows towards the top of the picture. */
  readonly screenGrowsUp: boolean;
  /** Whether screen y grows with NDC y. */
  readonly screenFollowsNdc: boolean;
  /**
   * An affine matrix between spaces of the canonical axes (a body's own and the world), in the
   * letters of these conventions.
   */
  toModel(m: Mat4): Mat4;
  /**
   * A matrix for column vectors from canonical world to (right, up, ahead), as these conventions'
   * world to view.
   */
  toViewMatrix(m: Mat4): Mat4;
  fromViewMatrix(m: Mat4): Mat4;
  /**
   * A matrix for column vectors from (right, up, ahead) to clip with y up, as these conventions' view
   * to clip. What its depth row makes of near and far is its own.
   */
  toProjection(m: Mat4): Mat4;
  fromProjection(m: Mat4): Mat4;
  /** The same from canonical world to clip with y up, as these conventions' world to clip. */
  toViewProjection(m: Mat4): Mat4;
  fromViewProjection(m: Mat4): Mat4;
  /** Whether the list of a matrix holds the columns of the one for column vectors, one after another; else its rows. */
  readonly listsColumns: boolean;
  /** A matrix for column vectors as the sixteen numbers listed in these conventions. */
  toList(m: Mat4): number[];
  fromList(list: readonly number[]): Mat4;
  /** The matrices of a frame, for column vectors, between the spaces of these conventions. */
  matrix(frame: CameraFrame, name: MatrixName): Mat4;
}

/**
 * The passage for a set of conventions whose axes are distinct and whose NDC near and far differ.
 */
export function codecOf(conventions: Conventions): ConventionCodec {
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
  const partsOfView = rufMatrix(view);

  const listsColumns = (matrix.vectors === 'row') !== (matrix.storage === 'column-major');
  const arrange = (m: Mat4) => (listsColumns ? transpose(m) : m);

  const toProjection = (m: Mat4) => multiply(multiply(ndcFlip, m), partsOfView);
  const projection = (frame: CameraFrame) => toProjection(projectionMatrix(frame, ndc.near, ndc.far));
  const unprojection = (frame: CameraFrame) =>
    multiply(transpose(partsOfView), multiply(inverseProjectionMatrix(frame, ndc.near, ndc.far), ndcFlip));
  const viewMatrix = (frame: CameraFrame) => multiply(multiply(viewIn, frame.view), transpose(worldIn));
  const cameraToWorld = (frame: CameraFrame) => multiply(multiply(worldIn, frame.cameraToWorld), transpose(viewIn));

  // A quaternion seen through a change of axes: where each axis goes, in the other letters, and
  // back.
  const turned = (q: Quat, there: (v: Vec3) => Vec3, back: (v: Vec3) => Vec3): Quat => {
    const [a, b, c] = quatToColumns(q);
    const column = (axis: Vec3) => {
      const [x, y, z] = back(axis);
      const part = (i: 0 | 1 | 2) => a[i] * x + b[i] * y + c[i] * z;
      return there([part(0), part(1), part(2)]);
    };
    return columnsToQuat(column([1, 0, 0]), column([0, 1, 0]), column([0, 0, 1]));
  };
  const toWorld = (v: Vec3) => reexpress(canonicalAxes, world, v);
  const fromWorld = (v: Vec3) => reexpress(world, canonicalAxes, v);
  const unsigned = (move: (v: Vec3) => Vec3) => {
    const [x, y, z] = move([1, 1, 1]);
    return (v: Vec3): Vec3 => {
      const [a, b, c] = move(v);
      return [a * x, b * y, c * z];
    };
  };
  // A sign is its own inverse: the pairs and heights below go both ways alike.
  const signedPair = (second: 'up' | 'forward', [a, b]: Vec2): Vec2 => [
    signOf(world.right) * a,
    signOf(world[second]) * b,
  ];
  const signedHeight = (height: number) => signOf(world.up) * height;

  return {
    conventions,
    handedness,
    toRotation: (q) => turned(q, toWorld, fromWorld),
    fromRotation: (q) => turned(q, fromWorld, toWorld),
    toSizes: unsigned(toWorld),
    fromSizes: unsigned(fromWorld),
    toPair: signedPair,
    fromPair: signedPair,
    toHeight: signedHeight,
    fromHeight: signedHeight,
    listsColumns,
    screenGrowsUp: screen.origin === 'bottom-left',
    screenFollowsNdc: (ndc.up === '+y') === (screen.origin === 'bottom-left'),
    toWorld,
    fromWorld,
    toView: (parts) => fromRuf(view, parts),
    fromView: (v) => toRuf(view, v),
    toClip: (c) => [c.x, upSign * c.y, ndc.near * c.nearPart + ndc.far * c.farPart, c.w],
    toNdc: ({ across, upward, depth01 }) => [across, upSign * upward, ndc.near * depth01.near + ndc.far * depth01.far],
    fromNdc: ([x, y, z]) => ({
      across: x,
      upward: upSign * y,
      depth01: { near: (ndc.far - z) / span, far: (z - ndc.near) / span },
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
        const [r, u, f] = toRuf(view, axisVector(axis));
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
    // Axes are signed permutations and the flip a sign: undone by transposing, and by doing it again.
    toViewMatrix: (m) => multiply(multiply(transpose(partsOfView), m), transpose(worldIn)),
    fromViewMatrix: (m) => multiply(multiply(partsOfView, m), worldIn),
    toProjection,
    fromProjection: (m) => multiply(multiply(ndcFlip, m), transpose(partsOfView)),
    toViewProjection: (m) => multiply(multiply(ndcFlip, m), transpose(worldIn)),
    fromViewProjection: (m) => multiply(multiply(ndcFlip, m), worldIn),
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
        case 'inverseProjection':
          return unprojection(frame);
        case 'inverseViewProjection':
          return multiply(cameraToWorld(frame), unprojection(frame));
      }
    },
  };
}

/**
 * An unsigned angle from one set of conventions in another, to the digit where the unit is the
 * same.
 */
export const reexpressAngle = (angle: number, from: ConventionCodec, to: ConventionCodec): number =>
  from.conventions.angles.unit === to.conventions.angles.unit ? angle : to.toAngle(from.fromAngle(angle));

/** Yaw, pitch and roll from one set of conventions in another. */
export function reexpressAngles(angles: Angles, from: ConventionCodec, to: ConventionCodec): Angles {
  const [a, b] = [from.conventions.angles, to.conventions.angles];
  const turn = (name: keyof Angles) =>
    withoutNegativeZero(reexpressAngle(angles[name], from, to) * (a[name] === b[name] ? 1 : -1));
  return { yaw: turn('yaw'), pitch: turn('pitch'), roll: turn('roll') };
}

/** −0 is a true double but a poor thing to print. */
export const withoutNegativeZero = (v: number): number => (v === 0 ? 0 : v);
