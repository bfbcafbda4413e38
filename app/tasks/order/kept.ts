import * as z from 'zod';
import { choice, count, flag, group, height, list, name, point } from '../../../core/quantities/quantity';
import { lightSchema } from '../../state/light';

/** The most corners of a polygon of one's own. */
export const mostCorners = 12;

/** What Order keeps in the project. */
export const orderState = group({
  /** The polygon that is followed through the pipeline: corners of its own, or a face of a body. */
  followed: z.discriminatedUnion('kind', [
    z.object({
      kind: z.literal('polygon'),
      name: name(),
      corners: list(point({ decimals: 1, world: '3d' }), { max: mostCorners }).min(3),
    }),
    z.object({ kind: z.literal('face'), body: z.string(), triangle: count({ min: 0 }) }),
  ]),
  ghosts: flag(),
  frontFace: choice(['counterClockwise', 'clockwise']),
  cull: choice(['none', 'back', 'front']),
  /** Changes that are shown without being made. */
  supposed: group({ mirrored: flag(), negative: flag(), yDown: flag() }),
  /** The sort key of bodies; in 2D layers alone. */
  key: choice(['ahead', 'distance', 'screenHeight', 'worldUp', 'layer']),
  paint: choice(['depth', 'bodies', 'faces']),
  light: lightSchema,
  /** The height of the level plane that shadows fall on. */
  receiver: height({ label: 'Height of the receiver', short: '', source: 'receiver', world: '3d', words: 'ground plane of shadows' }), // prettier-ignore
  shadows: flag(),
  contours: flag(),
});

export type OrderState = z.infer<typeof orderState>;
export type Followed = OrderState['followed'];
export type OrderKey = OrderState['key'];
