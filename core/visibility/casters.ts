import type { PlacedBody } from '../bodies/body';
import type { CameraFrame } from '../camera/frame';
import type { Vec3 } from '../math/vec3';
import { clipPolygon } from '../order/clip';
import { worldTriangles } from '../order/paint';
import { shadowTriangles, type Light } from '../order/shadow';
import { shadowVisibility, visibility } from './visibility';

/** Which of a body and its shadow is in the picture. */
export interface CasterSeen {
  readonly body: string;
  readonly seen: 'body and shadow' | 'shadow alone' | 'body alone' | 'neither';
}

/**
 * Of the bodies that cast shadows: whether they and their shadows on a plane are in the frustum. Of
 * a light from one direction by `shadowVisibility`, of a lamp by the shadows of the triangles that
 * bodies are drawn with. A light that runs along the plane casts none.
 */
export function castersSeen(
  frame: CameraFrame,
  placed: readonly PlacedBody[],
  light: Light,
  plane: { readonly point: Vec3; readonly normal: Vec3 },
): CasterSeen[] {
  const casting = placed.filter(({ body }) => body.castsShadow);
  const of = (body: string, own: boolean, shadow: boolean): CasterSeen => ({
    ...{ body, seen: own ? (shadow ? 'body and shadow' : 'body alone') : shadow ? 'shadow alone' : 'neither' },
  });
  if (light.kind === 'directional') {
    const found = shadowVisibility(frame, casting, light.travels, plane);
    if (found.ok) return found.value.map((one) => of(one.body, one.bodyOnScreen, one.shadowOnScreen));
  }
  const verdicts = visibility(frame, casting, { method: 'exact' });
  return casting.map((one, i) => {
    const corners = shadowTriangles(light, plane, worldTriangles([one]).corners);
    let shadow = false;
    for (let at = 0; at < corners.length && !shadow; at += 9)
      shadow = clipPolygon(frame, [0, 3, 6].map((k): Vec3 => [corners[at + k]!, corners[at + k + 1]!, corners[at + k + 2]!])).length > 0; // prettier-ignore
    return of(one.body.id, verdicts[i]!.verdict !== 'outside', shadow);
  });
}
