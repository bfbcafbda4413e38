import { pick, pickFlat, type Hit } from '../../core/pick/pick';
import { pictureToFramebuffer } from '../../core/convert/pointer';
import { pointerPath } from '../../formats/camera';
import { pictureToWorld } from '../../core/convert/unproject';
import { viewRufToWorld, pictureToViewRuf, pixelToPicture, rayThrough } from '../../core/convert/project';
import { distance, type Vec2, type Vec3 } from '../../core/math/vec3';
import { answer, type Answer } from '../../core/reasons';
import { memo } from './memo';
import type { Moment } from './moment';
import { tileAt } from './tiles';

export interface PointerReading {
  readonly css: Vec2;
  readonly framebuffer: Vec2;
  /** Across and upward, −1…1. */
  readonly picture: Vec2;
  readonly direction: Vec3;
  /** Where the ray meets the ground, if the project has one. */
  readonly ground: (Answer<Vec3> & { readonly name: string }) | null;
  /** What the map of a flat world says there: null ashore. */
  readonly tile: { readonly name: string; readonly value: number | null } | null;
  readonly hit: Hit | null;
  readonly groundRange: number | null;
}

/** The pointer in every space at once: worked out once for a place, however many show it. */
export const readPointer = memo(
  ({ frame, project, codec, placed, stack, flat }: Moment<unknown>, css: Vec2): PointerReading => {
    const picture = pixelToPicture(frame, css);
    const framebuffer = pictureToFramebuffer(pointerPath(project, codec.conventions), picture);
    const ray = rayThrough(frame, ...picture);
    const reading = { css, framebuffer, picture, direction: ray.direction };
    if (flat) {
      const world: Vec3 = viewRufToWorld(frame, pictureToViewRuf(frame, ...picture, 0));
      const hit = pickFlat(world, stack, true).at(-1);
      const { tiles } = project;
      const value = tiles ? tileAt(tiles, [world[0], world[1]]) : undefined;
      return {
        ...reading,
        ground: { ...answer(world), name: 'World' },
        tile: value === undefined ? null : { name: tiles!.name, value },
        hit: hit ?? null,
        groundRange: null,
      };
    }
    const { ground } = project;
    const met =
      ground && pictureToWorld(frame, ...picture, { kind: 'plane', point: [0, ground.height, 0], normal: [0, 1, 0] });
    const [hit] = pick(frame, ...picture, [...placed.values()]);
    return {
      ...reading,
      tile: null,
      ground: met && { ...met, name: ground.name },
      hit: hit ?? null,
      groundRange: met?.ok ? distance(met.value, ray.origin) : null,
    };
  },
);
