import type { Passage } from '../task';

const space: readonly Passage[] = [
  {
    title: 'Code',
    text: [
      'The mathematics of exactly this camera in the conventions in force, without dependencies: axes, depths, listing and angles are decided in the code, with a comment where one decides a sign. Tick what is wanted; everything reads the frame, which is made once from the camera.',
      'With this camera’s own numbers the code has a function that gives them, and follows while the camera is moved; without, the camera is a parameter alone.',
    ],
  },
  {
    title: 'Example and commands',
    text: [
      'The example uses the code on the probe and says what is expected to come out. The commands write the same code and the expected answers on a machine without a page, for exactly this project.',
    ],
  },
];
export const help = { space, flat: space };
