import type { Draft } from 'immer';
import { edit } from '../../state/document';
import { editSlice } from '../../state/slices';
import { currentTaskMoment } from '../../state/tempo';
import type { PickState } from './kept';

export const change = (name: string, recipe: (draft: Draft<PickState>) => void, gesture?: string): void =>
  editSlice<PickState>('pick', name, recipe, gesture ?? null);

/** Has the ray go through a pixel: canonical, from the top left, centres at .5. */
export const setPixel = (pixel: readonly [number, number], gesture: string): void =>
  edit('move the pixel', (draft) => void (draft.back.pixel = [...pixel]), gesture);

/** A click on a surface has the ray go through it from then on. */
export function followHit(_: unknown, gesture: string): void {
  if (currentTaskMoment<PickState>('pick').slice.at !== 'pixel')
    change('pick a pixel', (draft) => void (draft.at = 'pixel'), gesture);
}

export const throughCentre = (): void => change('look through the centre', (draft) => void (draft.at = 'centre'));
export const throughPointer = (): void => change('look under the pointer', (draft) => void (draft.at = 'pointer'));

/** Brings the muzzle to the eye, where its line is the ray itself. */
export function muzzleToEye(): void {
  const { frame } = currentTaskMoment<PickState>('pick');
  change('bring the muzzle to the eye', (draft) => void (draft.muzzle = [...frame.eye]));
}
