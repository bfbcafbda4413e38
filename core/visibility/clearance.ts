import type { PlacedBody } from '../bodies/body';
import { worldShape } from '../bodies/geometry';
import { planesOf, type CameraFrame, type PlaneName } from '../camera/frame';
import type { Verdict } from './visibility';
import { grown } from './visibility';

/** How far a body is from being another verdict by the plane that says most. */
export interface Clearance {
  readonly plane: PlaneName;
  /**
   * World units along the plane's normal: above 0 how far the whole body is inside of it; below 0
   * how far it reaches beyond it, or, of one that is wholly beyond, the gap to it.
   */
  readonly by: number;
}

/**
 * The clearance of a placed body from the planes of a camera's frustum, the viewport grown by
 * `margin` pixels: of one inside the plane it is nearest to, of one that crosses the plane that it
 * reaches farthest beyond, of one outside the plane that it lies farthest beyond (null where no
 * single plane turns it away). On a flat world near and far do not count.
 */
export function clearanceOf(
  frame: CameraFrame,
  placed: PlacedBody,
  verdict: Verdict,
  { margin = 0, flat = false }: { readonly margin?: number; readonly flat?: boolean } = {},
): Clearance | null {
  const shape = worldShape(placed, flat);
  let best: Clearance | null = null;
  for (const { name, plane } of planesOf(grown(frame, margin))) {
    if (flat && (name === 'near' || name === 'far')) continue;
    const [nx, ny, nz, d] = plane;
    let [least, most] = [Infinity, -Infinity];
    if (shape.kind === 'sphere') {
      const at = nx * shape.centre[0] + ny * shape.centre[1] + nz * shape.centre[2] + d;
      [least, most] = [at - shape.radius, at + shape.radius];
    } else
      for (const [x, y, z] of shape.points) {
        const at = nx * x + ny * y + nz * z + d;
        if (at < least) least = at;
        if (at > most) most = at;
      }
    const by = verdict === 'outside' ? most : least;
    if (verdict === 'outside' && by > 0) continue;
    if (!best || by < best.by) best = { plane: name, by };
  }
  return best;
}
