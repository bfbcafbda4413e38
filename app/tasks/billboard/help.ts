import type { Passage } from '../task';

const boards: Passage = {
  title: 'Boards',
  text: [
    'A board stands in the world or goes with a body. What is written on it is drawn in its own plane, so that it is turned, hidden and mirrored as the board is. The sheet is about the one that is chosen in the list: it can be taken hold of in any picture.',
  ],
};
const size: Passage = {
  title: 'Size on the screen',
  text: [
    'The world height that takes so many pixels grows with the distance ahead. Nearer and farther than the limits a board keeps the world size of the limit; it fades evenly between two distances.',
  ],
};

const space: readonly Passage[] = [
  {
    title: 'Modes side by side',
    text: [
      'Parallel to the view plane, towards the eye, about an axis by the eye, about an axis by the gaze: all turned for the place of one board and drawn beside one another, with their normals in every picture. The list says the angle between each two; a pair that is chosen is held against each other over the whole picture, with a line where they differ by the angle that is set.',
      'A board that is told to face a point ahead of the eye is right for one distance alone, and turns its back where it stands nearer than the point.',
    ],
  },
  boards,
  {
    title: 'What turns it',
    text: [
      'The axes, the matrix, the quaternion and the angles in the conventions in force, for a mesh whose front and up you say, and the two lines of code that make them. Suppose a fault, and the lettering says what it does: mirrored, or not drawn, and why.',
    ],
  },
  {
    title: 'Straight above',
    text: [
      'A board that turns about an upright axis has to turn faster the nearer the eye passes over it: v ÷ d at most. Straight over it there is no rate that would do. Keeping the last right within a cone holds it still there, and puts the turn off to the edge of the cone.',
    ],
  },
  size,
  {
    title: 'Lean of flat sprites',
    text: [
      'In a picture that looks up or down what is upright leans to the vertical vanishing point. A sprite drawn flat on the screen has to be turned by as much to stand among the rest.',
    ],
  },
  {
    title: 'From the frame before',
    text: [
      'Boards that are turned before the camera has moved show the turn of the frame before: so many degrees and pixels off, more the faster the camera turns. The order of a frame puts it right.',
    ],
  },
];
const flat: readonly Passage[] = [
  boards,
  {
    title: 'Upright',
    text: [
      'On a flat world boards face the viewer by themselves. They turn with the world, or stay upright on the screen: then each is turned back by as much as the camera turns the world.',
    ],
  },
  size,
];

export const help = { space, flat };
