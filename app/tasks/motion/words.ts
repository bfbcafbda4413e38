import type { Manner } from '../../../core/motion/rates';
import type { FrameStage } from '../../../core/motion/stages';
import type { Ease } from '../../../core/motion/path';
import type { TravelKind } from './kept';

export const travelWords: Readonly<Record<TravelKind, string>> = {
  rest: 'stands',
  scroll: 'scrolls evenly',
  follow: 'follows a body',
  orbit: 'orbits a centre',
  path: 'goes through keys',
  walk: 'walks, steered',
  dollyZoom: 'dolly zoom',
  blend: 'blends to orthographic',
};
export const easeWords: Readonly<Record<Ease, string>> = {
  even: 'evenly',
  gentle: 'gently at both ends',
  gentleStart: 'gently at the start',
  gentleEnd: 'gently at the end',
};
export const mannerWords: Readonly<Record<Manner, { readonly short: string; readonly says: string }>> = {
  right: { short: 'by the time', says: 'Solved for the time of the frame' },
  factor: { short: 'a factor', says: 'Each frame makes up one share of what is left: right at 60 frames a second' },
  noStep: { short: 'no time step', says: 'Each frame counts as a sixtieth of a second, however long it was' },
  euler: { short: 'summed', says: 'Rates times the length of the frame, added up' },
};
export const stageWords: Readonly<Record<FrameStage, string>> = {
  input: 'input is read',
  bodies: 'bodies move',
  camera: 'the camera moves',
  followers: 'what goes with the camera',
  billboards: 'billboards turn',
  spawns: 'bodies appear',
  picking: 'the pointer picks',
  draw: 'the picture is drawn',
};
