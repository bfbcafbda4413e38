import type { ConventionCodec } from '../conventions/codec';
import type { FaultName } from './faults';

/** What is to be done about each fault, in one sentence. */
export const mends: Readonly<Record<FaultName | 'otherCamera' | 'differs', string>> = {
  anglesInOtherUnit: 'Yaw, pitch and roll are taken for the other unit: convert them before sine and cosine.',
  yawNegated: 'The yaw counts the other way round: negate it.',
  pitchNegated: 'The pitch counts the other way round: negate it.',
  rollNegated: 'The roll counts the other way round: negate it.',
  rotationOrder:
    'The pitch turns before the yaw: turn about the world’s up first, then about the right that has turned.',
  upNotSquare: 'The world’s up is kept as the camera’s: take right × forward for it.',
  notNormalised: 'Forward × up is used as right without being normalised: normalise it, and make up from it.',
  forwardNegated: 'The camera looks away: negate forward before right is made from it.',
  aheadNegated: 'The ahead row of the view is negated: take the sign that the view’s axes have.',
  rightNegated: 'The right row is negated: the cross product is taken the wrong way round.',
  upNegated: 'The up row is negated: the cross product is taken the wrong way round.',
  translationNotNegated: 'The translation of the view is +R·eye: negate it.',
  translationNotRotated: 'The translation of the view is −eye: multiply it by the rotation, −R·eye.',
  translationMissing: 'The translation of the view is 0: put −R·eye there.',
  fovInOtherUnit: 'The field of view is taken for the other unit: convert it before the tangent.',
  halfAngleTwice: 'The field of view is halved twice: take tan(fov/2).',
  halfAngleMissing: 'The field of view is not halved: take tan(fov/2).',
  fovAxis: 'The vertical field of view is used as the horizontal one: divide the other row by the aspect.',
  aspectInverted: 'The aspect is height over width: divide width by height.',
  aspectMissing: 'The aspect is left out: divide the x row by width over height.',
  shiftLeftOut: 'The lens shift is left out: put it into the third column, or take extents off centre.',
  farLeftOut: 'Far is taken as infinite: use the far that is meant.',
  depthRangeOther: 'The depth runs over the other range, −1 to 1 or 0 to 1: take the depth row of this one.',
  depthReversed: 'Depth is reversed, near and far exchanged: exchange them in the depth row.',
  projectionOtherHanded:
    'The projection is written for a view space of the other handedness: negate its ahead column, so that w is the distance ahead.',
  wNegated: 'w is −f: take the sign that the view’s axes have, so that w is the distance ahead.',
  yFlipped: 'y is flipped: negate the y row, or measure from the other edge, once.',
  xFlipped: 'x is flipped: negate the x row, or measure from the other edge, once.',
  transposed: 'It is the transpose: list or multiply it the other way.',
  inverted: 'It is the inverse: give the other of the two, the view or the camera’s own transform.',
  identity: 'It was never set: it is the identity.',
  factorsSwapped: 'The factors are multiplied the other way round: projection · view for column vectors.',
  notDivided: 'Clip is taken for NDC: divide by w.',
  viewportMissing: 'NDC is taken for the screen: put it through the viewport.',
  viewportOffset: 'The viewport’s x and y are left out: add them.',
  devicePixelRatio: 'The device pixel ratio is applied once too often or once too little: pixels of the page and of the device differ by it.', // prettier-ignore
  halfPixel: 'The points are off by half a pixel each way: the middle of a pixel is where the conventions have it.',
  otherCamera: 'It is another camera’s: update the camera before it is used, or keep the one that was drawn with.',
  differs: 'It is a proper camera, and another one: compare what differs.',
};

/** Returns the sentence of `mends`, in the conventions: the direction of depth by its name. */
export function fixText(fault: keyof typeof mends, { conventions: { ndc } }: ConventionCodec): string {
  if (fault !== 'depthReversed') return mends[fault];
  return ndc.near > ndc.far
    ? 'Depth is forward where reversed depth is meant: exchange near and far in the depth row.'
    : 'Depth is reversed where forward depth is meant: exchange near and far in the depth row.';
}

/** Which of several sets of faults that give the same numbers is named first: the commonest. */
export const rankOf: Readonly<Partial<Record<FaultName | 'otherCamera' | 'differs', number>>> = {
  ...{
    transposed: 1,
    inverted: 2,
    otherCamera: 2,
    yFlipped: 3,
    aspectInverted: 3,
    fovAxis: 4,
    translationNotNegated: 4,
    projectionOtherHanded: 4,
  },
  ...{ fovInOtherUnit: 4, anglesInOtherUnit: 4, depthRangeOther: 4, aheadNegated: 5, factorsSwapped: 5, identity: 5 },
};
