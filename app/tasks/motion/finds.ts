import type { Find } from '../task';

/** What the worksheet of Motion has, by its names and by other words of the trade. */
export const finds: readonly Find[] = [
  { name: 'The track of the camera', at: '[data-section="motion-track"]', words: 'follow orbit path spline keyframes dolly zoom shake screen shake walk scroll auto-scroll animation clamp bounds' }, // prettier-ignore
  { name: 'Half-life', at: '[aria-label="Half-life"]', words: 'smoothing damping lerp easing follow' },
  { name: 'Over time', at: '[data-section="motion-charts"]', words: 'chart curve speed field of view graph' },
  { name: 'At other frame rates', at: '[data-section="motion-rates"]', words: 'delta time dt fps frame-rate independent lerp' }, // prettier-ignore
  { name: 'The order of a frame', at: '[data-section="motion-order"]', words: 'update order late update stale one frame lag' }, // prettier-ignore
  { name: 'Whole pixels', at: '[data-section="motion-pixels"]', words: 'pixel snapping seams jitter parallax layers', world: 'flat' }, // prettier-ignore
  { name: 'A basis turned by small steps', at: '[data-section="motion-drift"]', words: 'drift orthonormal accumulate rotation matrix float repair', world: 'space' }, // prettier-ignore
  { name: 'Steering', at: '[data-section="motion-steer"]', words: 'first person fly mouse look sensitivity record', world: 'space' }, // prettier-ignore
  { name: 'Bodies that move', at: '[data-section="motion-bodies"]', words: 'animate path orbit drift' },
  { name: 'Motions in and out', at: '[data-section="motion-home"]', words: 'export import CSV animation track' },
];
