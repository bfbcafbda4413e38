import { distance, type Vec3 } from '../math/vec3';
import type { PlacedBody } from '../bodies/body';
import type { CameraFrame } from '../camera/frame';
import { worldToParts } from '../convert/project';

export type SortKey = 'ahead' | 'distance' | 'worldUp';

/** How far a body's origin counts as being by a key: the distance ahead, the distance from the eye, or its height in the world. */
function keyOf(frame: CameraFrame, key: SortKey, origin: Vec3): number {
  if (key === 'ahead') return worldToParts(frame, origin)[2];
  return key === 'distance' ? distance(origin, frame.eye) : origin[1];
}

export interface DrawOrder {
  /** Ids, far to near; equal keys in the order given. */
  readonly order: readonly string[];
  /** Pairs, the farther by this key first, that the distance ahead orders the other way. */
  readonly conflicts: readonly (readonly [string, string])[];
}

/** The order in which a key would draw bodies, and the pairs that it gets otherwise than the distance ahead does. */
export function drawOrder(frame: CameraFrame, placed: readonly PlacedBody[], key: SortKey): DrawOrder {
  const items = placed.map(({ body, toWorld }) => {
    const origin: Vec3 = [toWorld[3]!, toWorld[7]!, toWorld[11]!];
    return { id: body.id, value: keyOf(frame, key, origin), ahead: keyOf(frame, 'ahead', origin) };
  });
  items.sort((a, b) => b.value - a.value);
  const conflicts: [string, string][] = [];
  items.forEach((far, i) =>
    items.slice(i + 1).forEach((near) => {
      if ((far.value - near.value) * (far.ahead - near.ahead) < 0) conflicts.push([far.id, near.id]);
    }),
  );
  return { order: items.map(({ id }) => id), conflicts };
}
