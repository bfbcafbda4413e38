import type { CameraFrame } from '../camera/frame';
import type { ConventionCodec } from '../conventions/codec';
import { projectMany } from './many';
import { pointKernel, outsideBit } from './points';

/** What `projectSpaces` gives of a point, after one another. */
export const spacesStride = 14;
/**
 * Where each space begins among them: view 0–2, clip 3–6, NDC 7–9, screen 10 and 11, depth 12,
 * ahead 13.
 */
export const spacesAt = { view: 0, clip: 3, ndc: 7, screen: 10, depth: 12, ahead: 13 } as const;

/**
 * How the conventions write each space, as numbers: every passage out of canonical space is affine
 * in its coordinates, so that it is known from where it takes zero and the units. What the
 * conventions are is thus asked of `core/conventions` once, not of every point.
 */
function passagesOf(frame: CameraFrame, e: ConventionCodec) {
  const view = [e.toView([1, 0, 0]), e.toView([0, 1, 0]), e.toView([0, 0, 1])].flat();
  const near = e.toNdc({ across: 0, upward: 1, depth01: { near: 1, far: 0 } });
  const far = e.toNdc({ across: 0, upward: 0, depth01: { near: 0, far: 1 } });
  const [x0, y0] = e.toScreen(frame.viewport, 0, 0);
  const [x1, y1] = e.toScreen(frame.viewport, 1, 1);
  const depth = [e.toDepth({ near: 1, far: 0 }), e.toDepth({ near: 0, far: 1 })] as const;
  return { view, up: near[1], near: near[2], far: far[2], x: [x0, x1 - x0], y: [y0, y1 - y0], depth } as const;
}

/**
 * Many world points in every space, in the conventions of `e`: what `projectPoint` gives one by
 * one, to rounding.
 *
 * @param points  x, y, z after one another, in canonical world space
 * @param spaces receives `spacesStride` numbers a point, laid out as `spacesAt` says; NaN for NDC,
 * screen and depth where the division has no answer
 * @param outside receives a byte a point, bits of `outsideBit`; 0 is on screen
 */
export function projectSpaces(
  frame: CameraFrame,
  e: ConventionCodec,
  points: Float64Array,
  spaces: Float64Array,
  outside: Uint8Array,
): void {
  const count = points.length / 3;
  const kernel = pointKernel(frame);
  const screen = new Float64Array(count * 3);
  projectMany(kernel, points, screen, outside);
  const { eye, right, up, forward } = frame;
  const perspective = frame.kind === 'perspective';
  const k = kernel.numbers;
  const passage = passagesOf(frame, e);
  const v = Float64Array.from(passage.view);
  const [x0, xs] = passage.x;
  const [y0, ys] = passage.y;
  const [depthNear, depthFar] = passage.depth;
  for (let i = 0; i < count; i++) {
    const x = points[3 * i]! - eye[0];
    const y = points[3 * i + 1]! - eye[1];
    const z = points[3 * i + 2]! - eye[2];
    const r = x * right[0] + y * right[1] + z * right[2];
    const u = x * up[0] + y * up[1] + z * up[2];
    const f = x * forward[0] + y * forward[1] + z * forward[2];
    const at = i * spacesStride;
    for (let j = 0; j < 3; j++) spaces[at + j] = r * v[j]! + u * v[3 + j]! + f * v[6 + j]!;
    const w = perspective ? f : 1;
    const across = r * k[14]! + w * k[15]!;
    const upward = u * k[16]! + w * k[17]!;
    // The share at far times w: [22]·f + [23] in perspective, [22] + [23]·f in orthographic.
    const farPart = perspective ? k[22]! * f + k[23]! : k[22]! + k[23]! * f;
    spaces[at + 3] = across;
    spaces[at + 4] = passage.up * upward;
    spaces[at + 5] = passage.near * (w - farPart) + passage.far * farPart;
    spaces[at + 6] = w;
    spaces[at + 13] = f;
    if (outside[i]! & outsideBit.noPicture) {
      for (let j = 7; j < 13; j++) spaces[at + j] = NaN;
      continue;
    }
    const far = screen[3 * i + 2]!;
    spaces[at + 7] = across / w;
    spaces[at + 8] = (passage.up * upward) / w;
    spaces[at + 9] = passage.near * (1 - far) + passage.far * far;
    spaces[at + 10] = x0 + xs * (across / w);
    spaces[at + 11] = y0 + ys * (upward / w);
    spaces[at + 12] = depthNear * (1 - far) + depthFar * far;
  }
}
