/*
 * The faults that an engine's numbers are searched for, in the order in which two of one set are
 * committed (`docs/compute.md`, "Diagnose").
 */

/** What can be given, in the order in which an engine makes it. */
export const givenNames = ['view', 'cameraToWorld', 'projection', 'viewProjection', 'points'] as const;
export type GivenName = (typeof givenNames)[number];
export type MatrixName = Exclude<GivenName, 'points'>;

export const angleFaults = ['anglesInOtherUnit', 'yawNegated', 'pitchNegated', 'rollNegated', 'rotationOrder'] as const;
export const basisFaults = ['upNotSquare', 'notNormalised'] as const;
export const rowFaults = ['forwardNegated', 'aheadNegated', 'rightNegated', 'upNegated'] as const;
export const translationFaults = ['translationNotNegated', 'translationNotRotated', 'translationMissing'] as const;
export const poseFaults = [...angleFaults, ...basisFaults, ...rowFaults, ...translationFaults] as const;
export const lensFaults = [
  ...(['fovInOtherUnit', 'halfAngleTwice', 'halfAngleMissing', 'fovAxis'] as const),
  ...(['aspectInverted', 'aspectMissing', 'shiftLeftOut'] as const),
] as const;
export const depthFaults = ['farLeftOut', 'depthRangeOther', 'depthReversed', 'wNegated'] as const;
export const handFaults = ['projectionOtherHanded'] as const;
export const ndcRowFaults = ['yFlipped', 'xFlipped'] as const;
export const wholeFaults = ['transposed', 'inverted', 'identity'] as const;
export const pointFaults = [
  ...(['notDivided', 'viewportMissing', 'viewportOffset'] as const),
  ...(['devicePixelRatio', 'halfPixel'] as const),
] as const;

export const faultNames = [
  ...poseFaults,
  ...lensFaults,
  ...depthFaults,
  ...handFaults,
  ...ndcRowFaults,
  ...wholeFaults,
  'factorsSwapped',
  ...pointFaults,
] as const;
export type FaultName = (typeof faultNames)[number];

/** Where in the making of the numbers a fault is committed. */
export type Place = GivenName;

/** The things made after each, which take its faults along. */
export const downstream: Readonly<Record<Place, readonly GivenName[]>> = {
  view: ['cameraToWorld', 'viewProjection', 'points'],
  cameraToWorld: [],
  projection: ['viewProjection', 'points'],
  viewProjection: ['points'],
  points: [],
};

const includes = (list: readonly string[], name: string): boolean => list.includes(name);

/** The places where a fault can be committed. */
export function placesOf(fault: FaultName): readonly Place[] {
  if (includes(poseFaults, fault)) return ['view', 'cameraToWorld'];
  if (includes(lensFaults, fault) || includes(depthFaults, fault)) return ['projection'];
  if (includes(handFaults, fault)) return ['projection', 'viewProjection'];
  if (includes(ndcRowFaults, fault)) return ['projection', 'viewProjection', 'points'];
  if (fault === 'factorsSwapped') return ['viewProjection'];
  if (includes(pointFaults, fault)) return ['points'];
  return ['view', 'cameraToWorld', 'projection', 'viewProjection'];
}
