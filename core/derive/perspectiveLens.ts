import type { CameraFrame } from '../camera/frame';
import type { Extents, ResolvedProjection } from '../camera/projection';
import type { Read } from '../reasons';
import { rejectDerived } from './derivedCamera';

/**
 * Returns a perspective lens with the near and far of a camera.
 *
 * @param extents - edges on the near plane, world units
 * @returns `nearNotPositive` where an orthographic camera's near is not above 0
 */
export function perspectiveLens({ near, far }: CameraFrame, extents: Extents): Read<ResolvedProjection> {
  if (!(near > 0))
    return rejectDerived(
      'nearNotPositive',
      `near is ${near}. A perspective camera keeps the near distance, which must be above 0. Set near above 0.`,
    );
  return { ok: true, value: { kind: 'perspective', near, far, extents } };
}
