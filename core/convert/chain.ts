import { transformPoint } from '../math/mat4';
import type { PlacedBody } from '../bodies/body';
import type { CameraFrame, PlaneName } from '../camera/frame';
import type { Vec2, Vec3 } from '../math/vec3';
import { answer, noAnswer, type Answer } from '../reasons';
import {
  clipToViewRuf,
  depthToAhead,
  divide,
  viewRufToClip,
  viewRufToWorld,
  pictureToViewRuf,
  pictureToPixel,
  pixelToPicture,
  projectPoint,
  depth01Of,
  worldToViewRuf,
  type ClipParts,
  type PicturePosition,
} from './project';

/** The spaces of the chain; a probe can be driven from any of them. */
export type Rung = 'local' | 'world' | 'view' | 'clip' | 'ndc' | 'screen';
export const rungs: readonly Rung[] = ['local', 'world', 'view', 'clip', 'ndc', 'screen'];

/**
 * A value held at one rung, in the canonical spaces: local and world coordinates; (right, up,
 * ahead) for view; (x, y, distance ahead) for clip, x and y upward and in perspective the distance
 * its w; (across, upward, depth) for NDC and (x, y, depth) in pixels from the top left for screen,
 * where depth is 0 at near and 1 at far.
 */
export interface Drive {
  readonly rung: Rung;
  readonly value: Vec3;
}

/** A point in every space at once. What the division has no answer for stands with its reason. */
export interface Chain {
  readonly local: Vec3;
  readonly world: Vec3;
  readonly viewRuf: Vec3;
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

/** The steps that a value is carried through: local ⇄ world ⇄ view ⇄ clip ⇄ NDC ⇄ screen. */
function steps(frame: CameraFrame, body: PlacedBody | null): Record<Rung, Step> {
  const same: Step = { forward: answer, back: answer };
  return {
    local: body
      ? {
          forward: (p) => answer(transformPoint(body.toWorld, p)),
          back: (p) => answer(transformPoint(body.toLocal, p)),
        }
      : same,
    world: {
      forward: (p) => answer(worldToViewRuf(frame, p)),
      back: (p) => answer(viewRufToWorld(frame, p)),
    },
    view: {
      forward: (p) => {
        const { x, y } = viewRufToClip(frame, p);
        return answer<Vec3>([x, y, p[2]]);
      },
      back: (p) => answer(clipToViewRuf(frame, p)),
    },
    clip: {
      forward: (p) => {
        // In the camera's own axes: by way of the world a camera far from its origin would lose
        // digits.
        const picture = divide(frame, viewRufToClip(frame, clipToViewRuf(frame, p)));
        return picture.ok
          ? answer<Vec3>([picture.value.across, picture.value.upward, picture.value.depth01.far])
          : picture;
      },
      back: ([across, upward, depth]) => {
        const ahead = depthToAhead(frame, depth01Of(depth));
        if (!ahead.ok) return ahead;
        const { x, y } = viewRufToClip(frame, pictureToViewRuf(frame, across, upward, ahead.value));
        return answer<Vec3>([x, y, ahead.value]);
      },
    },
    ndc: {
      forward: ([across, upward, depth]) => answer<Vec3>([...pictureToPixel(frame, across, upward), depth]),
      back: ([x, y, depth]) => answer<Vec3>([...pixelToPicture(frame, [x, y]), depth]),
    },
    screen: same,
  };
}

/** Carries a value from one rung to another through every step between, in either direction. */
export function carry(frame: CameraFrame, body: PlacedBody | null, { rung, value }: Drive, to: Rung): Answer<Vec3> {
  const pairs = steps(frame, body);
  const [start, end] = [rungs.indexOf(rung), rungs.indexOf(to)];
  let at: Answer<Vec3> = answer(value);
  for (let i = start; at.ok && i < end; i++) at = pairs[rungs[i]!].forward(at.value);
  for (let i = start - 1; at.ok && i >= end; i--) at = pairs[rungs[i]!].back(at.value);
  return at;
}

/**
 * The whole chain of a driven value, seen by a frame, local to a body (or to the world without
 * one). No answer when a screen or NDC value is held at a depth that has no point
 * (`depthAtInfinity`, `behindEye`).
 */
export function chainOf(frame: CameraFrame, body: PlacedBody | null, drive: Drive): Answer<Chain> {
  const world = carry(frame, body, drive, 'world');
  if (!world.ok) return world;
  const p = world.value;
  const { viewRuf, clip, picture, outside } = projectPoint(frame, p);
  return answer({
    local: body ? transformPoint(body.toLocal, p) : p,
    world: p,
    viewRuf,
    clip,
    picture,
    outside,
    pixel: picture.ok
      ? answer(pictureToPixel(frame, picture.value.across, picture.value.upward))
      : noAnswer(picture.reason),
  });
}

/**
 * The same point held at another rung, so that driving can go on from there; no answer where that
 * rung has none.
 */
export function redrive(frame: CameraFrame, body: PlacedBody | null, drive: Drive, rung: Rung): Answer<Drive> {
  const value = carry(frame, body, drive, rung);
  return value.ok ? answer({ rung, value: value.value }) : value;
}
