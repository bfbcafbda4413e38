import type { Shape } from '../core/bodies/body';
import { anglesOfBasis, basisOfQuat, type Angles, type Basis } from '../core/camera/orientation';
import type { Quat } from '../core/math/quat';
import { distance, type Vec2, type Vec3 } from '../core/math/vec3';

/* Scenes as they are written to and read from glTF: canonical axes, metres, radians, seconds. */

export interface SceneBody {
  readonly id: string;
  readonly name: string;
  readonly shape: Shape;
  readonly position: Vec3;
  readonly rotation: Quat;
  readonly scale: Vec3;
  readonly parent: string | null;
}
export type SceneLens =
  /** Radians; far null is infinity; aspect null is the viewport's. */
  | { readonly kind: 'perspective'; readonly verticalFov: number; readonly near: number; readonly far: number | null; readonly aspect: number | null; readonly shift: Vec2 }
  | { readonly kind: 'orthographic'; readonly height: number; readonly near: number; readonly far: number; readonly aspect: number | null; readonly shift: Vec2 }; // prettier-ignore
export interface SceneCamera extends Basis {
  readonly id: string;
  readonly name: string;
  readonly position: Vec3;
  readonly lens: SceneLens;
}
/** Where a body (in its parent's space) or a camera stands at times, seconds, rising. */
export interface SceneCourse {
  readonly of: 'body' | 'camera';
  readonly id: string;
  readonly times: readonly number[];
  readonly positions: readonly Vec3[];
  readonly rotations: readonly Quat[];
}
/** A scene in canonical axes. */
export interface SceneFile {
  readonly name: string;
  readonly bodies: readonly SceneBody[];
  readonly cameras: readonly SceneCamera[];
  readonly courses: readonly SceneCourse[];
  /** The camera that is looked through, by its id; the first if it is not said. */
  readonly through?: string;
}

/** A camera's angles along a course, radians: yaw goes on where it passes half a turn. */
export function anglesAlong(rotations: readonly Quat[]): readonly Angles[] {
  let before = 0;
  return rotations.map((q, i) => {
    const { yaw, pitch, roll } = anglesOfBasis(basisOfQuat(q));
    const on = i ? yaw + 2 * Math.PI * Math.round((before - yaw) / (2 * Math.PI)) : yaw;
    before = on;
    return { yaw: on, pitch, roll };
  });
}

/** How long the way of a course is, metres: of one that stays where it is, 0. */
export const courseLength = ({ positions }: SceneCourse): number =>
  positions.reduce((sum, p, i) => (i ? sum + distance(p, positions[i - 1]!) : 0), 0);
