/* What the help says, by task and world: for someone who writes cameras and wants to know how this page reads. */

export interface Passage {
  readonly title: string;
  readonly text: readonly string[];
}

const everywhere: readonly Passage[] = [
  {
    title: 'The Chain, and what drives',
    text: [
      'The probe is one point. The Chain on the left has it in every space, a rung a space, in the conventions at the top of the page. One rung drives and has editable figures; “drive from here” on another has the rest follow from it. Arrows leave the driven rung: down for a step of your renderer, up for one undone.',
      'The button on a connector opens its matrix as your conventions list it, with what it multiplies and where its numbers come from.',
    ],
  },
  {
    title: 'Conventions',
    text: [
      'Axes of world and view, NDC, screen origin, pixel centres, matrix layout and angles are set at the top. A change re-expresses every number and moves nothing. If it is the numbers that are right and the convention that was wrong, use “keep the numbers” there: it says beforehand what will move.',
    ],
  },
  {
    title: 'Where a number comes from',
    text: [
      '“Working” opens a result into its formula with the numbers put in. Every number there is a link to the field that set it. Results copy by a click, in the conventions in force and with a plain minus sign.',
    ],
  },
];

const frameInSpace: readonly Passage[] = [
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

const frameFlat: readonly Passage[] = [
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

const projects: readonly Passage[] = [
  {
    title: 'Kept as you work',
    text: [
      'Every change is kept in this browser within a second. Undo goes back through everything; a version is a state to go back to later, kept by hand or whenever you save a file.',
      'Two tabs on one project go along with each other. Where both have changed it, yours is kept as a version and you say which goes on.',
    ],
  },
  {
    title: 'What comes in',
    text: [
      'A project file, a compute request, an OBJ model, points as CSV: chosen here each becomes a project of its own. Numbers of a model or of points are read in the conventions in force. What cannot be read is named by its line, and nothing changes.',
    ],
  },
];

const convertCommon: readonly Passage[] = [
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
      'The transform stack of the probed body, what each level contributes, and the probe in another node’s space. Another parent keeps the place; where that would need a shear it is refused. The normal matrix is the inverse transpose: under unequal scale the model matrix itself tilts normals.',
    ],
  },
  {
    title: 'Many points',
    text: [
      'Paste or load CSV in the conventions in force, two or three numbers a line, names if you like. The table has them in every space, by verdict, and saves as CSV; 100,000 rows are no matter. Each is a small cross in the pictures.',
    ],
  },
];

const convertInSpace: readonly Passage[] = [
  {
    title: 'Off the picture',
    text: [
      'The marker for a point off the picture stands where the way to it meets the border. The way is taken from clip x and y before the division, so it is right behind the eye too, where the divided pixel is mirrored.',
    ],
  },
  ...convertCommon,
];

const convertFlat: readonly Passage[] = [
  ...convertCommon,
  {
    title: 'Scroll and seams',
    text: [
      'The first edges of the map on the screen, free and snapped. Those between pixels are marked, and the widths that tiles come out with when each is rounded for itself.',
    ],
  },
];

/** The passages for a task, the most particular first. */
export function helpFor(route: string, flat: boolean): readonly Passage[] {
  const own: Readonly<Record<string, readonly [readonly Passage[], readonly Passage[]]>> = {
    frame: [frameInSpace, frameFlat],
    convert: [convertInSpace, convertFlat],
    projects: [projects, projects],
  };
  return [...(own[route]?.[flat ? 1 : 0] ?? []), ...everywhere];
}
