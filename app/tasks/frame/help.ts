import type { Passage } from '../task';

const space: readonly Passage[] = [
  {
    title: 'What the camera sees',
    text: [
      'Width and height at the probe’s distance ahead, in world units, and what a unit measures there. If nothing is in view, fit the camera to a body, a rectangle or everything: it moves along and across its gaze, and never turns.',
    ],
  },
  {
    title: 'Lens and gaze have many forms, one is held',
    text: [
      'Three fields of view, the focal length on its sensor, and what is seen at a distance say the same thing; type into any. Likewise a point looked at, yaw, pitch and roll, three basis vectors, a quaternion. The lozenge marks the one that is held when something else changes: held by a point, the camera goes on looking at it as the eye moves.',
      'A basis typed from your engine may have drifted: the page says by how much it is off square and length, and mends it.',
    ],
  },
  {
    title: 'Depth',
    text: [
      'The chart shows how far apart two depths must lie to differ, over the distance ahead. Near decides nearly everything: doubling it halves the error far away. Reversed depth helps a float buffer and does nothing for whole numbers.',
    ],
  },
  {
    title: 'When it cannot be',
    text: [
      'Near beyond far, up along the gaze, no viewport: the last picture that could be stays, marked, and a sentence says what is wrong and offers the smallest mend. Your numbers are kept as you typed them.',
    ],
  },
];

const flat: readonly Passage[] = [
  {
    title: 'Focus, anchor, zoom',
    text: [
      'The focus is the world point that lies on the anchor, a pixel. Zoom is pixels per world unit and grows about the anchor; the wheel zooms about the pointer instead. screen = zoom·R·p + t, and the working has the numbers.',
    ],
  },
  {
    title: 'Whole pixels',
    text: [
      'A translation that is no whole number puts the edges of tiles between pixels: seams and shimmer. Snapping rounds it, down or to the nearest, in the pixels of the screen as the conventions describe them. A zoom that is no whole number has tiles of unequal width whatever is snapped; the whole-number zooms say what each shows.',
    ],
  },
];

export const help = { space, flat };
