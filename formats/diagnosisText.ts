import type { Diagnosed, Diagnosed2d, Said } from './diagnosisAnswers';
import type { MatrixRole } from './pasted';

/** The given things, as they are called in sentences. */
export const givenText: Readonly<Record<MatrixRole | 'points' | 'matrices', string>> = {
  view: 'view',
  cameraToWorld: 'camera to world',
  projection: 'projection',
  viewProjection: 'view projection',
  points: 'points',
  matrices: 'all matrices',
};

/** A fault in words: its name with spaces between its parts. */
export function faultText({ fault, which }: Pick<Said, 'fault' | 'which'>): string {
  if (fault === 'otherCamera') return `another camera’s: ${which}`;
  if (fault === 'differs') return 'a proper camera, but another';
  return fault
    .replace(/([A-Z])/g, ' $1')
    .toLowerCase()
    .replace('fov ', 'field of view ')
    .replace('other handed', 'of the other handedness');
}
/** The given things of a 2D camera, in sentences. */
export const givenText2d = (where: string): string =>
  ({ worldToPixel: 'world to pixel', pixelToWorld: 'pixel to world' })[where] ?? where;

/** A fault of a 2D camera in words. */
export const fault2dText = ({
  fault,
  which,
}: {
  readonly fault: string;
  readonly which?: string | undefined;
}): string =>
  fault === 'otherCamera'
    ? `another camera’s: ${which}`
    : fault === 'differs'
      ? 'a proper camera, but another'
      : fault.replace(/([A-Z])/g, ' $1').toLowerCase();

/**
 * The verdict on a 2D camera as a sentence.
 *
 * @param decimal - formats a number to some decimals
 */
export function verdict2dText(
  { verdict, residual, explanations }: Diagnosed2d,
  decimal: (v: number, decimals: number) => string,
): string {
  if (verdict === 'agrees') return 'These are the camera’s numbers, to the digits that were printed.';
  const off =
    residual === null
      ? 'They are no mapping'
      : residual < 0.005
        ? 'The points are right'
        : `They put points up to ${decimal(residual, residual < 10 ? 2 : 1)} px off`;
  const [first] = explanations;
  if (!first) return `No known fault explains these numbers. ${off}.`;
  if (first.faults[0]!.fault === 'differs')
    return `${off}. No fault is needed to explain them: they are another proper camera’s.`;
  return `${first.faults.length === 1 ? 'One thing is' : 'Two things are'} wrong. ${off}.`;
}

/** A set of faults in a line: “view: right negated, projection: half angle missing”. */
export const faultSetText = (set: readonly Said[]): string =>
  set.map((one) => `${givenText[one.where]}: ${faultText(one)}`).join(', ');

/**
 * The verdict as a sentence, with the residuals before and after the faults are undone.
 *
 * @param decimal - formats a number to some decimals
 */
export function verdictText(
  { verdict, residual, depthResidual, explanations }: Diagnosed,
  decimal: (v: number, decimals: number) => string,
): string {
  const pixels = (v: number): string => `${decimal(v, v < 10 ? 2 : 1)} px`;
  const off =
    residual === null
      ? 'They have no picture to be off in'
      : residual < 0.01 && depthResidual !== null && depthResidual > 1e-6
        ? `No pixel moves; depth is off by up to ${decimal(depthResidual, 4)}`
        : `They put points up to ${pixels(residual)} off`;
  if (verdict === 'agrees') return 'These are the camera’s numbers, to the digits that were printed.';
  const [first] = explanations;
  if (!first) return `No known fault explains these numbers. ${off}.`;
  const count = first.faults.length;
  if (count === 1 && first.faults[0]!.fault === 'differs')
    return `${off}. No fault is needed to explain them: they are another proper camera’s.`;
  const after =
    first.residual === null ? '' : `, and ${pixels(first.residual)} with ${count > 1 ? 'them' : 'it'} undone`;
  return `${['One thing is', 'Two things are', 'Three things are'][count - 1]} wrong. ${off}${after}.`;
}
