import type { Passage } from '../task';

const passages: readonly Passage[] = [
  {
    title: 'Where a body may appear',
    text: [
      'Within bounds or a ring, out of what is seen by a padding in world units or pixels, a body’s radius beyond that, out of discs, and only ahead of a motion if wanted. What is left is hatched in the pictures; its area is exact. The list says what each term took, and which one left nothing.',
      'Bounds, padding, discs and the heading of the sector are taken hold of in the plan, on the chart in the camera’s picture too.',
    ],
  },
  {
    title: 'Points',
    text: [
      'Drawn straight from the region, uniform by area, one try a point; rolled again over the bounding box until a point fits; or in a circle round the player, which knows nothing of the view: so many pop into view, so many lie where nothing may appear. One seed gives the same points anywhere. Evenness is told by chi-square over bins of equal area.',
    ],
  },
  {
    title: 'On other screens',
    text: [
      'The same points on every screen of the tray: safe on this, seen on that, and the padding that would hide them on all.',
    ],
  },
  {
    title: 'Until it is seen',
    text: [
      'When each point, going towards the middle of what is seen or evenly, first touches the view, which moves with the camera. The command line answers it as `firstSeen`.',
    ],
  },
  {
    title: 'The first frame',
    text: [
      'Bodies that appear before the camera has moved are out of sight of the camera as it was. The order of events puts it right.',
    ],
  },
  {
    title: 'Take it home',
    text: [
      'Region and points as CSV, JSON and SVG, and the region as a few lines of code, in the conventions in force.',
    ],
  },
];

export const help = { space: passages, flat: passages };
