import type { FaultName2d } from './engine2d';

/** What to do about each fault of a 2D camera, in one sentence. */
export const fixes2d: Readonly<Record<FaultName2d | 'otherCamera' | 'differs', string>> = {
  yFlipped: 'y is flipped about the anchor: negate the second row of the linear part, once.',
  xFlipped: 'x is flipped about the anchor: negate the first row of the linear part, once.',
  rotationNegated: 'The rotation turns the other way: negate its angle.',
  rotationInOtherUnit: 'The rotation is taken for the other unit: convert it before sine and cosine.',
  rotationMissing: 'The rotation is left out: multiply by R(θ).',
  focusNotNegated: 'The focus is added: subtract it, p − focus.',
  focusMissing: 'The focus is left out: subtract it, p − focus.',
  focusNotRotated: 'The focus is subtracted after the rotation: subtract it before, R·(p − focus).',
  focusNotScaled: 'The focus is subtracted after the zoom: subtract it before, zoom·(p − focus).',
  anchorMissing: 'The anchor is left out: add it, so that the focus is not in the corner.',
  anchorFromOtherEdge: 'The anchor is measured from the other edge: take height − y.',
  zoomInverted: 'The zoom is inverted: it is pixels per world unit, and multiplies.',
  zoomMissing: 'The zoom is left out: multiply by it.',
  snapBeforeZoom: 'The focus is rounded in world units: round the translation in pixels instead.',
  inverted: 'It is the inverse: give the other of the two matrices.',
  transposed: 'It is the transpose: list or multiply it the other way.',
  snapMissing: 'The translation is not snapped: round it to whole pixels.',
  halfPixel: 'The points are off by half a pixel each way: the middle of a pixel is where the conventions have it.',
  devicePixelRatio: 'The device pixel ratio is applied once too often or once too little.',
  viewportOffset: 'The viewport’s x and y are left out: add them.',
  otherCamera: 'It is another camera’s: update the camera before it is used.',
  differs: 'It is a proper 2D camera, and another one: compare what differs.',
};

/** Which of several sets of faults that give the same numbers is named first: the lowest sum. */
export const rankOf2d: Readonly<Partial<Record<FaultName2d, number>>> = {
  ...{
    transposed: 1,
    inverted: 2,
    yFlipped: 3,
    rotationNegated: 4,
    zoomInverted: 4,
    focusNotRotated: 5,
    snapMissing: 3,
  },
  ...{ halfPixel: 4, viewportOffset: 4 },
};
