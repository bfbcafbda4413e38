import * as z from 'zod';
import { rayFaults } from '../../../core/pick/faults';
import {
  angle,
  choice,
  count,
  flag,
  group,
  length,
  optional,
  pitch,
  point,
  ratio,
  roll,
  velocity,
  yaw,
  yawRate,
} from '../../../core/quantities/quantity';

/** What Pick keeps in the project. */
export const pickState = group({
  /** Where the ray goes through: under the pointer, the middle of the view, or the pixel that was clicked or typed. */
  at: choice(['pointer', 'centre', 'pixel']),
  backFaces: flag(),
  all: flag(),
  /** The tint of the sweep's picture. */
  by: choice(['body', 'distance', 'normal', 'boxes']),
  muzzle: point({ label: 'Muzzle', decimals: 1, world: '3d', source: 'muzzle', words: 'weapon barrel origin' }),
  /** Whether it fires along the view direction instead of at the target. */
  alongGaze: flag(),
  /** The shake of the picture's camera; its offset is to the right and upward. */
  shake: group({
    yaw: yaw({ label: 'Shake yaw', short: 'yaw', step: 0.1, world: '3d', source: 'shake' }),
    pitch: pitch({ label: 'Shake pitch', short: 'pitch', step: 0.1, world: '3d' }),
    roll: roll({ label: 'Shake roll', short: 'roll', step: 0.1 }),
    offset: z.tuple([
      length({ label: 'Shake to the right', short: 'right', step: 0.01 }),
      length({ label: 'Shake upward', short: 'up', step: 0.01 }),
    ]),
  }),
  recoil: angle({ label: 'Recoil', short: 'recoil', step: 0.1, world: '3d', words: 'kick' }),
  turnRate: yawRate({ label: 'Turn rate', short: 'yaw', world: '3d', words: 'angular velocity' }),
  velocity: velocity({ label: 'Scroll along', world: '2d' }),
  frameRate: ratio({ label: 'Frames a second', short: 'fps', above: 0, words: 'frame rate' }),
  /** Which of the project's screens has the other aspect. */
  screen: count({ min: 0 }),
  /** The fault whose ray is drawn beside the right one. */
  fault: optional(choice(rayFaults)),
});

export type PickState = z.infer<typeof pickState>;
export type SweepBy = PickState['by'];
