import type { MatrixRole, PastedRole } from '../../../formats/pasted';
import type { Said } from './answers';

export type Triple = readonly [number, number, number];

/** What each role is called. */
export const roleWords: Readonly<Record<PastedRole, string>> = {
  view: 'view',
  cameraToWorld: 'camera to world',
  projection: 'projection',
  viewProjection: 'view projection',
  world: 'in the world',
  screen: 'on the screen',
  point: 'a point, both',
  unused: 'not used',
};
export const whereWords: Readonly<Record<MatrixRole | 'points' | 'matrices', string>> = {
  view: 'view',
  cameraToWorld: 'camera to world',
  projection: 'projection',
  viewProjection: 'view projection',
  points: 'points',
  matrices: 'all matrices',
};
/** A fault in words: its name with the humps apart. */
export const faultWords = ({ fault, which }: Pick<Said, 'fault' | 'which'>): string =>
  fault === 'otherCamera'
    ? `another camera’s: ${which}`
    : fault === 'differs'
      ? 'a proper camera, but another'
      : fault.replace(/([A-Z])/g, ' $1').toLowerCase().replace('fov ', 'field of view ').replace(/^w /, 'w '); // prettier-ignore
/** A set of faults in a line: “view: right negated, projection: half angle missing”. */
export const setWords = (set: readonly Said[]): string =>
  set.map((one) => `${whereWords[one.where]}: ${faultWords(one)}`).join(', ');
