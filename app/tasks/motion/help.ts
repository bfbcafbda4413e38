import type { Passage } from '../task';

const track: Passage = {
  title: 'The track',
  text: [
    'Each camera has a track of its own, or stands. Where it is follows from the time alone, in closed form or solved: played, stepped, scrubbed or opened anew, a moment is the same. At time 0 a camera is where Frame has it.',
    'The time rule under the pictures is there in every task once something moves: Space plays, Shift with the side arrows steps a frame. Keys are lozenges on it and are dragged along it; in the plan, the section and from outside they are dragged where they are to be.',
  ],
};
const rates: Passage = {
  title: 'Frame rates',
  text: [
    'The same motion at 30, 60, 144 frames a second and an uneven rate, as code that is bound to the frame steps it: a factor that is right at 60, no time step, or rates summed up. The way it goes then is drawn over the right one, with the greatest difference in units and pixels.',
  ],
};
const order: Passage = {
  title: 'The order of a frame',
  text: [
    'What runs before the camera has moved works with the camera of the frame before; a camera that follows before the bodies have moved is behind them besides. Drag the stages; each says by how many pixels what it works with is off the picture. Billboard, Pick and Spawn go by this order.',
  ],
};
const bodies: Passage = {
  title: 'Bodies, and files',
  text: [
    'Bodies drift, go round, go there and back, swing, or go through places. Camera and bodies go out and come in as tables of time, place, angles and field of view; the track goes out as it stands in a compute request, where `motion` and `when` answer the same numbers.',
  ],
};

export const help = {
  space: [
    track,
    {
      title: 'Charts',
      text: [
        'Field of view and distance, speed, the subject’s place and size on the screen over time. Drag on a chart to move the moment.',
      ],
    },
    rates,
    order,
    {
      title: 'Drift and steering',
      text: [
        'A basis turned on by a small rotation each step loses its right angles in single precision: how far, with repair and without.',
        'Steer the camera with the arrows and the pointer: what you do becomes its track, stretches of even steering. The pointer turns by what it has moved, not by that times the length of the frame.',
      ],
    },
    bodies,
  ] satisfies Passage[],
  flat: [
    track,
    {
      title: 'Following',
      text: [
        'The camera closes in on what it follows by half of what is left in each half-life, outside a dead zone about the place it holds. The place on the screen is the anchor of the camera; both are dragged in the picture. Bounds keep the picture inside them.',
      ],
    },
    rates,
    order,
    {
      title: 'Whole pixels and layers',
      text: [
        'Tiles drawn each on whole pixels leave seams where a tile is no whole number of pixels; the scroll on whole pixels moves unevenly instead. Layers go with the camera by a factor.',
      ],
    },
    bodies,
  ] satisfies Passage[],
};
