import { create } from 'zustand';
import { pick, type Hit } from '../../core/pick/pick';
import { framebufferToCss, cssToFramebuffer, type PointerPath } from '../../core/convert/pointer';
import { pictureToWorld } from '../../core/convert/unproject';
import { pixelToPicture, rayThrough } from '../../core/convert/project';
import { distance, type Vec2, type Vec3 } from '../../core/math/vec3';
import type { Answer } from '../../core/reasons';
import { memo, type Situation } from './derive';

/** Where the pointer last was in the main picture, in CSS pixels of the viewport; and whether it is there now. Never in the document. */
export const usePointer = create<{ css: Vec2; here: boolean }>(() => ({ css: [812, 344], here: false }));

export interface PointerReading {
  readonly css: Vec2;
  readonly framebuffer: Vec2;
  /** Across and upward, −1…1. */
  readonly picture: Vec2;
  readonly direction: Vec3;
  /** Where the ray meets the ground, if the project has one. */
  readonly ground: (Answer<Vec3> & { readonly name: string }) | null;
  readonly hit: Hit | null;
  readonly groundRange: number | null;
}

/** The pointer in every space at once: worked out once for a place, however many show it. */
export const readPointer = memo(({ frame, project, placed }: Situation, css: Vec2): PointerReading => {
  const path: PointerPath = { canvas: [0, 0], cssScale: 1, devicePixelRatio: project.viewport.devicePixelRatio };
  const framebuffer = cssToFramebuffer(path, css);
  const picture = pixelToPicture(frame, framebufferToCss(path, framebuffer));
  const ray = rayThrough(frame, ...picture);
  const { ground } = project;
  const met =
    ground && pictureToWorld(frame, ...picture, { kind: 'plane', point: [0, ground.height, 0], normal: [0, 1, 0] });
  const [hit] = pick(frame, ...picture, [...placed.values()]);
  return {
    css,
    framebuffer,
    picture,
    direction: ray.direction,
    ground: met && { ...met, name: ground.name },
    hit: hit ?? null,
    groundRange: met?.ok ? distance(met.value, ray.origin) : null,
  };
});
