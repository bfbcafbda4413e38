import type { Passage } from '../task';

const bench: Passage = {
  title: 'The fault bench',
  text: [
    'The classic fault of picking: a ray that is made from something else than the camera that drew the picture. Set what is in the picture’s camera (shake, recoil, a turn, the rate of frames), and each row says what a ray without it is off by: the angle, the miss at the target, the pixels. The row that is chosen is drawn as a second reticle, joined to the first, with what the code would have to use instead.',
  ],
};

const space: readonly Passage[] = [
  {
    title: 'Ray',
    text: [
      'Through a pixel that is clicked or typed, through the middle of the view, or wherever the pointer is: drawn in every picture to what it meets, with the normals. The list has the first hit or all, front faces or both; the triangle is counted in its mesh.',
      'What was tested for it is what a tree over all surfaces looks at: boxes, and the surfaces in those that the ray passes.',
    ],
  },
  {
    title: 'Aim',
    text: [
      'Aiming goes in two stages: what the camera’s ray meets is the target, and what the ray from the muzzle to the target meets first is hit. A muzzle beside the eye may have something in its line that the eye sees past. Fired along the gaze instead, it lands beside the target by as much as the muzzle is off the eye. The muzzle is taken hold of in any picture.',
    ],
  },
  bench,
  {
    title: 'The sweep',
    text: [
      'Every pixel picked, coarse first and then whole, by body, by distance or by normal; beside it what the painted picture shows. Where they differ at a silhouette it is by rounding or by the facets of a ball; off a silhouette two surfaces lie in one place.',
    ],
  },
];

const flat: readonly Passage[] = [
  {
    title: 'Under a point',
    text: ['The bodies that hold a point of the plane, on top first: later ones of the list lie over earlier ones.'],
  },
  bench,
];

export const help = { space, flat };
