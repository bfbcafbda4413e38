import { transformPoint } from '../math/mat4';
import type { PlacedBody } from '../bodies/body';
import type { CameraFrame, PlaneName } from '../camera/frame';
import type { Vec2, Vec3 } from '../math/vec3';
import { answer, noAnswer, type Answer } from '../reasons';
import {
  depthToAhead,
  partsToWorld,
  pictureToParts,
  pictureToPixel,
  pixelToPicture,
  projectPoint,
  sharesOfDepth,
  worldToParts,
  type ClipParts,
  type PicturePosition,
} from './project';

/** The spaces of the chain that a probe can be driven from. Clip follows view alone: its w is no free choice. */
export type DrivableRung = 'local' | 'world' | 'view' | 'ndc' | 'screen';
export type Rung = DrivableRung | 'clip';
export const rungs: readonly Rung[] = ['local', 'world', 'view', 'clip', 'ndc', 'screen'];

/**
 * A value held at one rung, in the spaces of the inside: local and world coordinates; (right, up, ahead) for view;
 * (across, upward, depth) for NDC and (x, y, depth) in pixels from the top left for screen, where depth is 0 at near and 1 at far.
 */
export interface Drive {
  readonly rung: DrivableRung;
  readonly value: Vec3;
}

/** A point in every space at once. What the division has no answer for stands with its reason. */
export interface Chain {
  readonly local: Vec3;
  readonly world: Vec3;
  readonly parts: Vec3;
  readonly clip: ClipParts;
  readonly picture: Answer<PicturePosition>;
  readonly pixel: Answer<Vec2>;
  readonly outside: readonly PlaneName[];
}

/** A mapping with its inverse beside it; the chain is a composition of such pairs. */
interface Step {
  readonly forward: (p: Vec3) => Answer<Vec3>;
  readonly back: (p: Vec3) => Answer<Vec3>;
}

/** The three steps that a value is carried back through: local ⇄ world ⇄ view ⇄ NDC ⇄ screen. */
function steps(frame: CameraFrame, body: PlacedBody | null): Record<DrivableRung, Step> {
  const same: Step = { forward: answer, back: answer };
  return {
    local: body
      ? {
          forward: (p) => answer(transformPoint(body.toWorld, p)),
          back: (p) => answer(transformPoint(body.toLocal, p)),
        }
      : same,
    world: {
      forward: (p) => answer(worldToParts(frame, p)),
      back: (p) => answer(partsToWorld(frame, p)),
    },
    view: {
      forward: (p) => {
        const { picture } = projectPoint(frame, partsToWorld(frame, p));
        return picture.ok
          ? answer<Vec3>([picture.value.across, picture.value.upward, picture.value.shares.far])
          : picture;
      },
      back: ([across, upward, depth]) => {
        const ahead = depthToAhead(frame, sharesOfDepth(depth));
        return ahead.ok ? answer(pictureToParts(frame, across, upward, ahead.value)) : ahead;
      },
    },
    ndc: {
      forward: ([across, upward, depth]) => answer<Vec3>([...pictureToPixel(frame, across, upward), depth]),
      back: ([x, y, depth]) => answer<Vec3>([...pixelToPicture(frame, [x, y]), depth]),
    },
    screen: same,
  };
}

const order: readonly DrivableRung[] = ['local', 'world', 'view', 'ndc', 'screen'];

/** Carries a value from one rung to another through every step between, in either direction. */
export function carry(
  frame: CameraFrame,
  body: PlacedBody | null,
  { rung, value }: Drive,
  to: DrivableRung,
): Answer<Vec3> {
  const pairs = steps(frame, body);
  const [start, end] = [order.indexOf(rung), order.indexOf(to)];
  let at: Answer<Vec3> = answer(value);
  for (let i = start; at.ok && i < end; i++) at = pairs[order[i]!].forward(at.value);
  for (let i = start - 1; at.ok && i >= end; i--) at = pairs[order[i]!].back(at.value);
  return at;
}

/**
 * The whole chain of a driven value, seen by a frame, local to a body (or to the world without one).
 * No answer when a screen or NDC value is held at a depth that has no point (`depthAtInfinity`, `behindEye`).
 */
export function chainOf(frame: CameraFrame, body: PlacedBody | null, drive: Drive): Answer<Chain> {
  const world = carry(frame, body, drive, 'world');
  if (!world.ok) return world;
  const p = world.value;
  const { parts, clip, picture, outside } = projectPoint(frame, p);
  return answer({
    local: body ? transformPoint(body.toLocal, p) : p,
    world: p,
    parts,
    clip,
    picture,
    outside,
    pixel: picture.ok
      ? answer(pictureToPixel(frame, picture.value.across, picture.value.upward))
      : noAnswer(picture.reason),
  });
}

/** The same point held at another rung, so that driving can go on from there; no answer where that rung has none. */
export function redrive(frame: CameraFrame, body: PlacedBody | null, drive: Drive, rung: DrivableRung): Answer<Drive> {
  const value = carry(frame, body, drive, rung);
  return value.ok ? answer({ rung, value: value.value }) : value;
}
