import * as z from 'zod';
import { heldPixel, type Hold } from '../../../core/convert/held';
import { pixelToPicture } from '../../../core/convert/project';
import { backDepth } from '../../../formats/camera';
import type { Slice } from '../../state/slices';

/** Something that stands on the screen, whatever the camera does: a label, a button. */
export interface HeldPoint {
  id: string;
  name: string;
  hold: [Hold[0], Hold[1]];
  /** Inward from the edges that it is held to; to the right and down from the middle. */
  inset: [number, number];
}

export interface ConvertState {
  held: HeldPoint[];
}

/** The most points that are held. */
export const mostHeld = 100;

const way = z.union([z.literal(-1), z.literal(0), z.literal(1)]);

/** What Convert keeps: the points that are held to the screen. */
export const slice: Slice<ConvertState> = {
  version: 1,
  schema: z.object({
    held: z
      .array(
        z.object({
          id: z.string().min(1),
          name: z.string().min(1),
          hold: z.tuple([way, way]),
          inset: z.tuple([z.number(), z.number()]),
        }),
      )
      .max(mostHeld),
  }),
  initial: () => ({ held: [] }),
  queries: ({ held }, { project, frame, codec, flat }) => {
    if (!held.length) return [];
    const pixels = held.map(({ hold, inset }): [number, number] => {
      const [x, y] = codec.toScreen(frame.viewport, ...pixelToPicture(frame, heldPixel(frame.viewport, hold, inset)));
      return [x, y];
    });
    return [{ id: 'held to the screen', op: 'screenToWorld', pixels, at: backDepth(project, codec, flat) }];
  },
};
