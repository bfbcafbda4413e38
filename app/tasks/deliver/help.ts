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
    title: 'Test vectors and harness',
    text: [
      'Rows of what goes into an engine’s functions and what is to come out, for this very camera. A row finds the faults that would change its answer; those that change no number of this camera are named.',
      'The harness runs the code over the table and prints answers; call your own functions where those of the code are called, and give what it prints to “check”, which says what is off and which fault explains it.',
    ],
  },
  {
    title: 'Pictures, files, report',
    text: [
      'Every picture is saved as it stands, with the marks of the open task: as SVG, which has its letters with it, or as PNG up to 8192 pixels wide, drawn anew for that size.',
      'glTF holds bodies in their tree, cameras and their motions, in and out; what it cannot hold is said. The report is one page of HTML with pictures, numbers, working, test vectors and code.',
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
