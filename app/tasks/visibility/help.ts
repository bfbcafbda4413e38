import type { Passage } from '../task';

const common: readonly Passage[] = [
  {
    title: 'Bodies against the frustum',
    text: [
      'Every body is tinted by its verdict in all pictures: inside, crosses, outside, with a shape beside it. The list names the plane that says most and how far the body is clear of it: below 0 it reaches beyond. A margin grows the picture by pixels on every side, or shrinks it.',
      'The exact test says outside only where nothing is in common. The customary test of planes says outside only where all of a body is beyond one plane, so it keeps some that lie by a corner: false alarms. Shortcuts by the middle, by a sphere or by corners miss what is large or near: they are held against what is so.',
    ],
  },
  {
    title: 'Why not',
    text: [
      'For any body one sentence: behind the eye, before near, past far, off which side and by how much, without a surface, too small, facing away, or hidden and by what; and the smallest change of the camera that shows it, made by one click.',
      'Whether it is hidden is asked at points of its surface: one that shows through a gap alone may be called hidden.',
    ],
  },
  {
    title: 'A field of test bodies',
    text: [
      'Up to a million spheres or boxes in a box of the world, in a grid or scattered by a seed, each tinted by its verdict in all pictures while the camera is dragged. A tree over them is made once; then the counts say how many boxes of the tree and how many bodies were looked at, and how long it took in a worker.',
    ],
  },
  {
    title: 'Over time',
    text: [
      'When bodies come into view and leave it: as the project has them move, while the camera turns, or while it walks along its heading. Each line of the strip is a body, each bar the time that something of it is in view; the moments are found to a microsecond, and beside each stands by how much a test once a frame notices it late. A visit of less than a thirtieth of a second may be missed.',
      'What has left the view by a margin can be deactivated until a test finds it near again, or removed for good. The list says when a body is put away and taken back, and where it would be in view while it is not there: it pops in late, or is missing.',
    ],
  },
  {
    title: 'On other screens',
    text: [
      'The verdicts on every screen of the tray by the fit in force, and the bodies that some of them see and others do not.',
    ],
  },
  {
    title: 'Size on the screen',
    text: [
      'The diameter is that of the sphere about a body as if it stood on the axis: it does not change with the turn of the camera. Each threshold has the distance at which the body is just so large; with hysteresis it goes down a level a little farther out than it comes up again.',
    ],
  },
];

const space: readonly Passage[] = [
  ...common,
  {
    title: 'By their shadow alone',
    text: [
      'A body out of the picture may throw its shadow into it. What one view draws must not decide what another draws: neither the shadow pass by the camera, nor the camera by the shadow pass.',
    ],
  },
];

export const help = { space, flat: common };
