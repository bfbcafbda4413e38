import type { Passage } from '../task';

const paste: Passage = {
  title: 'Paste',
  text: [
    'Matrices and points are read as they come out of logs, debuggers and source: in any brackets, as rows on lines, as initialisers, as JSON, with labels, times and levels before them. What was read is lit in the text; the list says what each part was taken for, and can be corrected. A place in the world with a place on the screen beside it is a point.',
    'A matrix that was printed as a square is taken the way that its numbers tell, by where its 0, 0, 0, 1 or its w stands; a flat list is taken as the conventions list one.',
  ],
};
const space: readonly Passage[] = [
  paste,
  {
    title: 'Verdict',
    text: [
      'The project’s camera is the one that is meant. The smallest set of known faults that makes the given numbers, to the digits that were printed, explains them: one fault before two. Sets that make the same numbers are one explanation with several names, and the number that would decide between them is named.',
      'The engine’s picture is drawn over the right one, dashed; streaks join where a given point belongs to where it was put. The corner shows the whole of the engine’s picture, where its numbers are a camera’s at all.',
    ],
  },
  {
    title: 'By themselves',
    text: [
      'Without a camera that is meant: every assignment of view axes, NDC depths and listing under which the numbers are a proper camera, likeliest first, with what is decided and what would decide the rest. Conventions and camera can be taken into the project.',
    ],
  },
  {
    title: 'Digits',
    text: [
      'Nothing is claimed that the digits cannot hold: a number is right when it is off by no more than the last printed figure allows. Fewer digits make more explanations equal.',
    ],
  },
];
const flat: readonly Passage[] = [
  {
    title: 'Paste',
    text: [
      'A matrix from the world to pixels, or back, is read from two rows of three numbers, three of three, or four of four; three rows of two are the matrix of row vectors. World x, y with pixel x, y on one line is a point. The words before a matrix say which way it goes; the list of what was read can be corrected.',
    ],
  },
  {
    title: 'Verdict',
    text: [
      'The project’s camera is the intended one. The smallest set of known faults that makes the given numbers, to the digits that were printed, explains them. Another proper camera is compared number by number.',
    ],
  },
];
export const help = { space, flat };
