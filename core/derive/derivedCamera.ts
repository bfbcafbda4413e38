import { frameOfParts, type CameraFrame, type Viewport } from '../camera/frame';
import type { Basis } from '../camera/orientation';
import type { ResolvedProjection } from '../camera/projection';
import type { Mat4 } from '../math/mat4';
import type { Vec2, Vec3 } from '../math/vec3';
import { reject, type ErrorCode, type Read } from '../reasons';

/** Matrices that a snapshot does not hold: a mirrored view, a projection with a slanted near plane. */
export interface OwnMatrices {
  /** From canonical world space to (right, up, ahead). */
  readonly view: Mat4;
  /** From (right, up, ahead) to clip space, NDC y up, depth as the conventions have it. */
  readonly projection: Mat4;
}

/** A camera that a renderer makes of another. */
export interface DerivedCamera {
  readonly name: string;
  /** The proper camera. Its matrices hold unless `own` has others. */
  readonly frame: CameraFrame;
  readonly own?: OwnMatrices;
  /** Jitter: pixels by which the picture moved, in the axes of the screen. */
  readonly offset?: Vec2;
  /** Cascades: distances ahead between which the part lies, in world units. */
  readonly split?: Vec2;
  /** Mirror: whether front faces run the other way round. */
  readonly mirrored?: true;
}

/** Rejects with a code and a sentence. */
export const rejectDerived = (code: ErrorCode, message: string) => reject({ path: '', code, message });

/**
 * Returns a derived camera from its parts.
 *
 * @param extra - offset, split, mirrored, own matrices
 * @returns `outOfRange` when the numbers are too far apart for doubles
 */
export function derivedCamera(
  name: string,
  parts: { readonly basis: Basis; readonly lens: ResolvedProjection; readonly eye: Vec3; readonly viewport: Viewport },
  extra: Omit<DerivedCamera, 'name' | 'frame'> = {},
): Read<DerivedCamera> {
  const frame = frameOfParts(parts.basis, parts.lens, parts.eye, parts.viewport);
  if (!frame)
    return rejectDerived(
      'outOfRange',
      `The numbers of the camera “${name}” are too far apart for doubles. Bring its size, distances and position closer to one another.`,
    );
  return { ok: true, value: { name, frame, ...extra } };
}

/** Returns all values, or the problems of the first failure. */
export function allOf<T>(reads: readonly Read<T>[]): Read<readonly T[]> {
  const values: T[] = [];
  for (const read of reads) {
    if (!read.ok) return read;
    values.push(read.value);
  }
  return { ok: true, value: values };
}

/** Returns the lens of a snapshot, with other edges if given (on the near plane in perspective). */
export function lensOf({ kind, near, far, extents }: ResolvedProjection): ResolvedProjection {
  return kind === 'perspective' ? { kind, near, far, extents } : { kind, near, far, extents };
}
