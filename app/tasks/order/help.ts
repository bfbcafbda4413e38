import type { Passage } from '../task';

const draw: Passage = {
  title: 'Draw order',
  text: [
    'Bodies far to near by a key of their origins, and the pairs that the key orders against the distance ahead. Painting in that order, without a depth buffer, is done in the camera’s picture: whole bodies, or every face for itself. What comes out wrong is found pixel by pixel, by a picture of the numbers of all faces painted both ways; it is hatched and counted, and the pairs that do it are listed.',
    'Three spars over one another in a ring: whichever is painted last covers one that lies before it. No key of whole bodies can be right; bodies that are cut, faces, or a depth buffer are.',
  ],
};

const space: readonly Passage[] = [
  {
    title: 'Through the eye’s plane',
    text: [
      'A face that runs from behind the eye to before it cannot be divided by w as it is: behind the eye w is negative, and its corners come out mirrored through the vanishing point, as ghosts; the edges to them sweep across the picture as streaks. So a face is cut at near first. The pane Three ways has the face divided uncut, cut at near, cut at the frustum, its corners named alike everywhere: 1, 2, 3 as given, 1–2 where a cut has made one between them.',
      'Click a face in the picture to follow it. The gangway’s corners are taken hold of in plan, section and outside, or typed.',
    ],
  },
  {
    title: 'Winding',
    text: [
      'Whether a face fronts the eye is a matter of the world: from the eye’s side its corners run counter-clockwise. How it runs on the screen follows, unless something turns the picture over: mirrored extents or view, a negative scale on a node, a framebuffer whose y runs the other way. The front-face rule and culling go by the screen. Each of the three can be supposed, to see what it would do, without being made.',
    ],
  },
  draw,
  {
    title: 'Horizon and vanishing points',
    text: [
      'Parallels run to one point of the picture, level ones to the horizon. Upright things run to the vertical vanishing point, so in a picture that looks down they lean outward: sprites drawn upright on the screen look wrong beside them.',
    ],
  },
  {
    title: 'Shadow on a plane',
    text: [
      'A light from the sky, set on the compass and the arc, or a lamp that is taken hold of in the drawings; the level that shadows fall on; the matrix that flattens the world onto it. Shadows are drawn in every picture, and bodies that are seen by their shadow alone are listed: culled with their bodies, they would pop.',
    ],
  },
  {
    title: 'Equal angles against a plane',
    text: [
      'A plane projection gives equal lengths on a plane equal pixels; a mapping by angles gives equal angles equal pixels: x = k·bearing in the place of x = d·tan bearing. Where one is taken for the other the error grows outward; contours show it over the picture, the chart over the field of view, and the pane Equal angles has the whole picture by angles.',
    ],
  },
];

const flat: readonly Passage[] = [
  {
    ...draw,
    title: 'Draw order on a flat world',
    text: [
      'Bodies of a 2D project cover one another by the list, later ones over earlier ones, or by their feet, lower ones over higher ones. Sorted by world y or screen y, higher feet are farther and painted first. Pixels that then show another body than the project does are hatched and counted.',
    ],
  },
  {
    title: 'Sprites and feet',
    text: [
      'The foot is the point by which a body is sorted, in its own space. A tall sprite stands on the middle of its lower edge. Without a foot, its origin counts.',
      'A PNG becomes a sprite by file, drop or paste. It is kept in the project. Pixels per unit sets its size in the world; one texel of a tile to a pixel of the image is the start. Clear texels count for picking.',
    ],
  },
];

export const help = { space, flat };
