import { pixelsPerUnit, projectPoint } from '../convert/project';
import { outsideBit } from '../kernels/points';
import { projectSpaces, spacesAt, spacesStride } from '../kernels/spaces';
import type { Vec3 } from '../math/vec3';
import type { Setup } from './setup';

/** One point in every space, in the request's conventions: an entry of `worldToScreen`. */
export function answerPoint(resolved: Pick<Setup, 'codec' | 'frame'>, world: Vec3) {
  const { codec: e, frame } = resolved;
  const { viewRuf, clip, picture, outside } = projectPoint(frame, world);
  const ahead = viewRuf[2];
  const always = { view: e.toView(viewRuf), clip: e.toClip(clip) };
  const verdict = {
    ahead,
    inFront: frame.kind !== 'perspective' || ahead > 0,
    onScreen: outside.length === 0,
    outside,
  };
  if (!picture.ok)
    return { ...always, ndc: null, screen: null, depth: null, ...verdict, pixelsPerUnit: null, reason: picture.reason };
  const { across, upward, depth01 } = picture.value;
  return {
    ...always,
    ndc: e.toNdc(picture.value),
    screen: e.toScreen(frame.viewport, across, upward),
    depth: e.toDepth(depth01),
    ...verdict,
    pixelsPerUnit: pixelsPerUnit(frame, ahead),
  };
}

const planeNames = ['left', 'right', 'bottom', 'top', 'near', 'far'] as const;
const three = (of: Float64Array, at: number): [number, number, number] => [of[at]!, of[at + 1]!, of[at + 2]!];

/**
 * Many points in every space: what `answerPoint` gives one by one, to rounding, by the batch
 * kernels.
 */
export function answerPoints({ codec, frame }: Pick<Setup, 'codec' | 'frame'>, worlds: readonly Vec3[]) {
  const count = worlds.length;
  const flat = new Float64Array(3 * count);
  worlds.forEach((world, i) => flat.set(world, 3 * i));
  const [spaces, outside] = [new Float64Array(count * spacesStride), new Uint8Array(count)];
  projectSpaces(frame, codec, flat, spaces, outside);
  const perspective = frame.kind === 'perspective';
  return worlds.map((world, i) => {
    const at = i * spacesStride;
    const ahead = spaces[at + spacesAt.ahead]!;
    const bits = outside[i]!;
    // Without a picture the reason is the plain form's to give, and so is a number that is not
    // finite.
    if (bits & outsideBit.noPicture || !Number.isFinite(spaces[at + spacesAt.screen]!))
      return answerPoint({ codec, frame }, world);
    const violated = bits ? planeNames.filter((name) => bits & outsideBit[name]) : [];
    return {
      view: three(spaces, at + spacesAt.view),
      clip: [...three(spaces, at + spacesAt.clip), spaces[at + spacesAt.clip + 3]!] as const,
      ndc: three(spaces, at + spacesAt.ndc),
      screen: [spaces[at + spacesAt.screen]!, spaces[at + spacesAt.screen + 1]!] as const,
      depth: spaces[at + spacesAt.depth]!,
      ahead,
      inFront: !perspective || ahead > 0,
      onScreen: violated.length === 0,
      outside: violated,
      pixelsPerUnit: pixelsPerUnit(frame, ahead),
    };
  });
}
