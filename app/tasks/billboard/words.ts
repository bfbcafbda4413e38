import type { BillboardMode } from '../../../core/billboard/billboard';
import type { LetteringFault, Reading } from '../../../core/billboard/lettering';

/** The modes in words: in a picture, on the sheet, and what they do. */
export const modeWords: Readonly<
  Record<BillboardMode, { readonly short: string; readonly name: string; readonly says: string }>
> = {
  viewPlane: {
    short: 'view plane',
    name: 'view plane',
    says: 'Parallel to the view plane: the reversed gaze is its normal, wherever it stands',
  },
  eyePoint: {
    short: 'eye',
    name: 'towards the eye',
    says: 'Its normal runs to the eye, its up as near to the world’s as that allows',
  },
  axisEye: {
    short: 'axis, eye',
    name: 'axis, by the eye',
    says: 'Turns about its axis alone, as near to the eye as that allows',
  },
  axisView: {
    short: 'axis, gaze',
    name: 'axis, by the gaze',
    says: 'Turns about its axis alone, as near to the reversed gaze as that allows',
  },
};

/** What an engine gets wrong about lettering, and the mend. */
export const faultWords: Readonly<
  Record<LetteringFault | 'pictureMirrored', { readonly name: string; readonly why: string }>
> = {
  frontAxis: {
    name: 'the other front axis',
    why: 'the mesh’s back is turned to the viewer: its front axis is the other way round. Give the mesh’s front with the other sign, or turn it half round about its up.',
  },
  handedness: {
    name: 'right by the wrong product',
    why: 'right was made by the cross product the wrong way round, so the three columns are of the other handedness and no rotation. Exchange the two factors.',
  },
  winding: {
    name: 'triangles run the other way',
    why: 'its triangles run the other way round: what is its front is left out as back. Exchange two corners of each, or say that clockwise is front.',
  },
  pictureMirrored: {
    name: 'mirrored picture',
    why: 'the picture itself is mirrored: left and right of the lens are exchanged.',
  },
};

/** How the lettering is seen, as a sentence. */
export function readingSentence({ reads, shows, causes }: Reading, culled: boolean): string {
  if (reads === 'edgeOn') return 'It is seen edge-on: nothing of it is to be read.';
  const seen = culled
    ? 'It is not drawn: to the rasteriser it shows its back, which is left out'
    : reads === 'mirrored'
      ? 'Its lettering is mirrored'
      : shows === 'back'
        ? 'Its lettering reads right, but its triangles show their back'
        : 'Its lettering reads right';
  return causes.length ? `${seen}; ${causes.map((cause) => faultWords[cause].why).join(' And ')}` : `${seen}.`;
}
