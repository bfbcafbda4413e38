import { frameFov, pictureShape, type CameraFrame } from '../camera/frame';
import { anglesOfBasis } from '../camera/orientation';
import { multiply, type Mat4 } from '../math/mat4';
import { readLens, readView, type ReadLens, type ReadPose } from './decompose';
import type { Intended, TypedField } from './engine';
import { invert4 } from '../math/invert';
import { assembleCamera, isProperLens, squarePose } from './properCamera';
import type { Given, Instance } from './given';
import type { MatrixName } from './faults';

/** An engine by its matrices with faults. */
export interface EngineMatrices {
  readonly intended: Intended;
  /** Returns a matrix in the ways in which it can be made; none where it cannot be. */
  matrix(name: MatrixName, faults: readonly Instance[]): readonly Mat4[];
}

/** The most cameras that are searched for further faults. */
const mostCameras = 6;

/** The lens of a snapshot, as it would be read from its projection. */
export function lensOfFrame(frame: CameraFrame): ReadLens {
  const { width, height, shift } = pictureShape(frame);
  const k = frame.kind === 'perspective' ? frame.near : 1;
  return {
    kind: frame.kind,
    half: [width / 2 / k, height / 2 / k],
    shift,
    near: frame.near,
    far: frame.far,
  };
}

/** The pose of a snapshot, as it would be read from its view. */
export const poseOfFrame = ({ eye, right, up, forward }: CameraFrame): ReadPose => ({
  ...{ eye, right, up, forward },
  scale: [1, 1, 1],
  shear: 0,
  mirrored: false,
});

/** The field of view that would be typed for a lens, of the kind that the intended camera has. */
function fieldOf(frame: CameraFrame, { field, e }: Intended): TypedField | null {
  const vertical = frameFov(frame);
  if (!field || vertical === null) return null;
  const half = Math.tan(vertical / 2);
  const { aspect } = pictureShape(frame);
  const factor = { verticalFov: 1, horizontalFov: aspect, diagonalFov: Math.hypot(1, aspect) }[field.kind];
  return { kind: field.kind, number: e.toAngle(2 * Math.atan(half * factor)) };
}

/**
 * Returns the proper cameras that the given matrices may be of instead of the intended one: with another pose and
 * the intended lens, or the intended pose and another lens. A view projection is read with the other factor as
 * intended, or with one of its faults.
 *
 * @param faultsOf - faults that can be committed at a place, one at a time
 */
export function differingCameras(
  engine: EngineMatrices,
  { matrices, digits }: Given,
  faultsOf: (place: 'view' | 'projection') => readonly Instance[],
): readonly Instance[] {
  const { intended } = engine;
  const { frame, e } = intended;
  const { right, up, forward, eye } = frame;
  const found: Instance[] = [];
  const add = (place: 'view' | 'projection', made: CameraFrame | null) => {
    if (!made || found.length >= mostCameras) return;
    const camera: Intended = {
      ...intended,
      frame: made,
      angles: intended.angles && anglesOfBasis(made),
      plainUp: intended.plainUp && Math.abs(made.right[1]) <= 30 * 10 ** -digits,
      field: place === 'projection' ? fieldOf(made, intended) : intended.field,
    };
    found.push({ fault: 'differs', place, which: `differs ${found.length}`, camera });
  };
  const withPose = (pose: ReadPose | null) => {
    const square = pose && squarePose(pose, digits);
    if (square) add('view', assembleCamera(square, lensOfFrame(frame), frame.viewport));
  };
  const withLens = (lens: ReadLens | null) => {
    if (lens && isProperLens(lens) && lens.kind === frame.kind)
      add('projection', assembleCamera({ basis: { right, up, forward }, eye }, lens, frame.viewport));
  };
  const { view, cameraToWorld, projection, viewProjection } = matrices;
  const inverse = cameraToWorld && invert4(cameraToWorld);
  if (view) withPose(readView(view, e));
  else if (inverse) withPose(readView(inverse, e));
  if (projection) withLens(readLens(projection, e));
  if (!viewProjection) return found;
  const factor = (place: 'view' | 'projection', faults: readonly Instance[]): Mat4 | null => {
    const [made] = engine.matrix(place, faults);
    return made ? invert4(made) : null;
  };
  if (!view && !inverse)
    for (const faults of [[], ...faultsOf('projection').map((one) => [one])]) {
      const back = factor('projection', faults);
      if (back) withPose(readView(multiply(back, viewProjection), e));
    }
  if (!projection)
    for (const faults of [[], ...faultsOf('view').map((one) => [one])]) {
      const back = factor('view', faults);
      if (back) withLens(readLens(multiply(viewProjection, back), e));
    }
  return found;
}
