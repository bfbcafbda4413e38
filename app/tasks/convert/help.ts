import type { Passage } from '../task';

const common: readonly Passage[] = [
  {
    title: 'Without matrices',
    text: [
      'The way to the pixel and back as scalar formulas, for an engine that has none: differences, sines and cosines, view depth, perspective scale, screen x and y, and only the parts that matter here. In symbols or with the numbers, copied as LaTeX, as plain expressions or as the body of a function. The view matrix from position, target and up is under its button in the Chain.',
    ],
  },
  {
    title: 'Back from a pixel',
    text: [
      'A pixel is a ray; the depth says where on it. Four ways to say it stand together with their equal values: the depth value of your buffer, the distance ahead (along the gaze), the range (along the ray), a plane. The result is sent forward again, so that you see the round trip.',
      'Ahead and range differ by 1/cos of the angle off the gaze: mixing them up bends flat walls.',
    ],
  },
  {
    title: 'The pointer’s way',
    text: [
      'From the event on the page to NDC: the canvas’s place, the scale it is shown at, the device pixel ratio, the framebuffer’s scale, the viewport inside it, the turn of y. Tick what your engine leaves out to see how far it lands off; or type what it prints, and the steps that explain it are named.',
    ],
  },
  {
    title: 'Nodes',
    text: [
      'The place, rotation and scale of the probed body, its transform stack and what each level contributes, and the probe in another node’s space. Another parent keeps the place; where that would need a shear it is refused. The normal matrix is the inverse transpose: under unequal scale the model matrix itself tilts normals.',
    ],
  },
  {
    title: 'Held to the screen',
    text: [
      'A label or a button stands on the screen whatever the camera does: so far inward from an edge, from a corner, or from the middle. The list says on which pixel it comes to lie on every screen, and which point of the world lies under it, at the depth that is chosen under Back to world. Holding it to another edge leaves it where it is here.',
    ],
  },
  {
    title: 'Many points',
    text: [
      'Paste or load CSV in the conventions in force, two or three numbers a line, names if you like. What its columns are taken for is shown below, and set there: another column, another sign, another unit. The table has them in every space, by verdict, and saves as CSV; 100,000 rows are no matter. Each is a small cross in the pictures. A project keeps several sets; the one that is shown has the table, and any can be made bodies.',
    ],
  },
];

const space: readonly Passage[] = [
  {
    title: 'Off the picture',
    text: [
      'The marker for a point off the picture stands where the way to it meets the border. The way is taken from clip x and y before the division, so it is right behind the eye too, where the divided pixel is mirrored.',
    ],
  },
  ...common,
];

const flat: readonly Passage[] = [
  ...common,
  {
    title: 'Scroll and seams',
    text: [
      'The first edges of the map on the screen, free and snapped. Those between pixels are marked, and the widths that tiles come out with when each is rounded for itself.',
    ],
  },
];

export const help = { space, flat };
