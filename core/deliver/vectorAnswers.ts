import { billboardAxes, type BillboardAxes } from '../billboard/billboard';
import { planesOf, type CameraFrame, type PlaneName } from '../camera/frame';
import { fieldOfView } from '../camera/projection';
import type { ConventionCodec } from '../conventions/codec';
import { projectPoint, rayThrough, sizeAt, worldToViewRuf } from '../convert/project';
import { pictureToWorld } from '../convert/unproject';
import { distance, type Vec2, type Vec3 } from '../math/vec3';
import { follow } from '../motion/follow';
import { distanceToEdges, type GroundEdge } from '../ground/distance';
import type { VectorKind } from './vectorKinds';

/** A 3D camera as the right answers to test vectors depend on it. */
export interface VectorContext {
  readonly frame: CameraFrame;
  readonly codec: ConventionCodec;
  /** The edges of the ground that the camera sees (`visibleGround`); empty for none. */
  readonly ground: readonly GroundEdge[];
}

/** The plane of each kind that asks for one. */
export const planeKinds: Readonly<Partial<Record<VectorKind, PlaneName>>> = {
  planeLeft: 'left',
  planeRight: 'right',
  planeBottom: 'bottom',
  planeTop: 'top',
  planeNear: 'near',
  planeFar: 'far',
};

/** Whether a unit vector could be made: one of numbers beyond doubles, or of a faulty frame, could not. */
const hasValue = (v: Vec3 | null | undefined): v is Vec3 => v !== null && v !== undefined;

const isTrue = (value: boolean): readonly number[] => [value ? 1 : 0];

/** Returns the world normal and the offset of a frustum plane, pointing inward; null for a far plane at infinity. */
export function planeAnswer({ frame, codec }: VectorContext, name: PlaneName): readonly number[] | null {
  const found = planesOf(frame).find((one) => one.name === name);
  if (!found) return null;
  const [x, y, z, offset] = found.plane;
  return [...codec.toWorld([x, y, z]), offset];
}

/** Returns for each frustum plane how far inside it a box reaches; all half sizes 0 for a point. */
export function planeReaches({ frame, codec }: VectorContext, centre: Vec3, halfSize: Vec3): readonly number[] {
  const p = codec.fromWorld(centre);
  return planesOf(frame).map(({ plane: [x, y, z, offset] }) => {
    const [a, b, c] = codec.toWorld([x, y, z]).map(Math.abs) as [number, number, number];
    return x * p[0] + y * p[1] + z * p[2] + offset + a * halfSize[0] + b * halfSize[1] + c * halfSize[2];
  });
}

const boardNumbers = ({ codec }: VectorContext, { right, up, normal }: BillboardAxes): readonly number[] | null =>
  [right, up, normal].every(hasValue) ? [right, up, normal].flatMap((axis) => codec.toWorld(axis)) : null;

/**
 * Returns the right answer to a row of a 3D camera, by the core's own functions.
 *
 * @returns the outputs of the kind in the request's conventions, booleans as 0 and 1; null where there is no answer
 *   (a point in the eye plane or behind it)
 */
export function answer3d(context: VectorContext, kind: VectorKind, input: readonly number[]): readonly number[] | null {
  const { frame, codec, ground } = context;
  const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = input;
  const world = (): Vec3 => codec.fromWorld([a, b, c]);
  const plane = planeKinds[kind];
  if (plane) return planeAnswer(context, plane);
  switch (kind) {
    case 'view':
    case 'projection':
    case 'viewProjection':
    case 'cameraToWorld':
      return codec.toList(codec.matrix(frame, kind));
    case 'worldToScreen': {
      const { picture, viewRuf } = projectPoint(frame, world());
      if (!picture.ok) return null;
      const { across, upward, depth01 } = picture.value;
      return [...codec.toScreen(frame.viewport, across, upward), codec.toDepth(depth01), viewRuf[2]];
    }
    case 'screenToWorld': {
      const point = pictureToWorld(frame, ...codec.fromScreen(frame.viewport, [a, b]), { kind: 'ahead', ahead: c });
      return point.ok ? codec.toWorld(point.value) : null;
    }
    case 'ray': {
      const { origin, direction } = rayThrough(frame, ...codec.fromScreen(frame.viewport, [a, b]));
      // Numbers beyond doubles leave a direction without length.
      if (!hasValue(direction)) return null;
      return [...codec.toWorld(origin), ...codec.toWorld(direction)];
    }
    case 'sphereOutside':
      return isTrue(planeReaches(context, [a, b, c], [0, 0, 0]).some((reach) => reach < -d));
    case 'boxOutside':
      return isTrue(planeReaches(context, [a, b, c], [d, e, f]).some((reach) => reach < 0));
    case 'boardInViewPlane':
      return boardNumbers(context, billboardAxes(frame, [0, 0, 0], 'viewPlane'));
    case 'boardTowardsEye':
      return boardNumbers(context, billboardAxes(frame, world(), 'eyePoint'));
    case 'boardUpright':
      return boardNumbers(context, billboardAxes(frame, world(), 'axisEye'));
    case 'boardAboutAxis': {
      // From the eye against a direction, the board's position is where `axisEye` turns it towards that direction.
      const towards = codec.fromWorld([d, e, f]);
      const position = frame.eye.map((v, i) => v - towards[i]!) as unknown as Vec3;
      return boardNumbers(context, billboardAxes({ ...frame, kind: 'perspective' } as CameraFrame, position, 'axisEye', world())); // prettier-ignore
    }
    case 'mayAppear': {
      const away = distanceToEdges(ground, [a, b]);
      return isTrue(away > 0 && away >= c + d);
    }
    case 'fovForHeight':
      return [codec.toAngle(fieldOfView(a, b))];
    case 'heightAt':
      return [sizeAt(frame, a)[1]];
    case 'follow':
      return followAnswer(input);
    case 'keyAhead':
      return [worldToViewRuf(frame, world())[2]];
    case 'keyDistance':
      return [distance(world(), frame.eye)];
    case 'keyScreenHeight': {
      const [, up, ahead] = worldToViewRuf(frame, world());
      return [frame.kind === 'perspective' ? up / ahead : up];
    }
    default:
      return null;
  }
}

/** Returns one coordinate after a time step in which it follows a fixed target. */
export const followAnswer = ([held, target, zone, halfLife, step]: readonly number[]): readonly number[] =>
  follow([held!, 0] as Vec2, [target!, 0], [target!, 0], { deadZone: [zone!, 0], halfLife: halfLife! }, step!).slice(0, 1); // prettier-ignore
