import type { CameraFrame } from '../camera/frame';
import type { ConventionCodec } from '../conventions/codec';
import { divide, projectPoint, viewRufToClip, worldToViewRuf } from '../convert/project';
import { mat4, multiply, type Mat4 } from '../math/mat4';
import { add, length, scale, sub, type Vec2, type Vec3 } from '../math/vec3';
import { answer, noAnswer, type Answer } from '../reasons';

/*
 * Customary float32 pipelines from a world point to the screen, against the chain in doubles. Products and sums are
 * rounded one by one, as a shader without fused operations does it.
 */

/** Float32 pipelines: `position` rounds the point alone, `world` multiplies by viewProjection, `relative` is camera-relative. */
export const pipelines = ['position', 'world', 'relative'] as const;
export type Pipeline = (typeof pipelines)[number];

const f = Math.fround;

/** Multiplies three of the rows of a matrix (x, y and w) by a point in float32. */
function clipInSingle(matrix: Mat4, [x, y, z]: Vec3): Vec3 {
  const row = (i: number) => {
    const [a, b, c, d] = [f(matrix[i]!), f(matrix[i + 1]!), f(matrix[i + 2]!), f(matrix[i + 3]!)];
    return f(f(f(f(a * x) + f(b * y)) + f(c * z)) + d);
  };
  return [row(0), row(4), row(12)];
}

const rounded = (p: Vec3): Vec3 => [f(p[0]), f(p[1]), f(p[2])];

/** The matrices of a camera that the pipelines multiply by, in the conventions of a codec. */
interface Pipes {
  readonly codec: ConventionCodec;
  readonly frame: CameraFrame;
  readonly projection: Mat4;
  readonly view: Mat4;
  readonly eye: Vec3;
}

/** Returns a view matrix without its translation. */
const rotationOf = (view: Mat4): Mat4 => mat4(view.map((v, i) => (i % 4 === 3 && i < 12 ? 0 : v)));

/** Returns the view matrix with the eye at another point, in doubles. */
function viewFrom(view: Mat4, eye: Vec3): Mat4 {
  const row = (i: number) => {
    const [x, y, z] = [view[i]!, view[i + 1]!, view[i + 2]!];
    return [x, y, z, -(x * eye[0] + y * eye[1] + z * eye[2])];
  };
  return mat4([...row(0), ...row(4), ...row(8), 0, 0, 0, 1]);
}

/** Returns the matrices of a camera for the pipelines. */
export const pipesOf = (frame: CameraFrame, codec: ConventionCodec): Pipes => ({
  codec,
  frame,
  eye: codec.toWorld(frame.eye),
  projection: codec.matrix(frame, 'projection'),
  view: codec.matrix(frame, 'view'),
});

/** Where a picture shows a point: −1…1 across and along NDC y. */
type Place = Answer<Vec2>;
const placeOf = ([x, y, w]: Vec3): Place =>
  // The reason of the interface for w of 0 and below.
  w > 0 && Number.isFinite(x / w + y / w) ? answer<Vec2>([x / w, y / w]) : noAnswer('behindEye');

/** Returns where the chain in doubles shows a canonical point, in the NDC of the conventions. */
export function truePlace({ frame, codec }: Pipes, point: Vec3): Place {
  const { picture } = projectPoint(frame, point);
  if (!picture.ok) return picture;
  const [x, y] = codec.toNdc(picture.value);
  return answer<Vec2>([x, y]);
}

/**
 * Returns where a pipeline shows a point.
 *
 * @param point - canonical world space; rounding is of the numbers in the world's own axes
 */
export function pipelinePlace(pipes: Pipes, pipeline: Pipeline, point: Vec3): Place {
  const { codec, frame, projection, view, eye } = pipes;
  const own = codec.toWorld(point);
  switch (pipeline) {
    case 'position': {
      const clip = viewRufToClip(frame, worldToViewRuf(frame, codec.fromWorld(rounded(own))));
      const picture = divide(frame, clip);
      if (!picture.ok) return noAnswer('behindEye');
      const [x, y] = codec.toNdc(picture.value);
      return answer<Vec2>([x, y]);
    }
    case 'world':
      return placeOf(clipInSingle(multiply(projection, view), rounded(own)));
    case 'relative':
      return placeOf(clipInSingle(multiply(projection, rotationOf(view)), rounded(sub(own, eye))));
  }
}

/** Returns the distance in pixels between two places of a picture. */
export const pixelsApart = ({ viewport }: Pick<CameraFrame, 'viewport'>, a: Vec2, b: Vec2): number =>
  Math.hypot(((a[0] - b[0]) / 2) * viewport.width, ((a[1] - b[1]) / 2) * viewport.height);

/**
 * Returns by how many pixels a pipeline misses the true place of a point.
 *
 * @returns pixels, 0 or more; the point's own reason, or `behindEye` where the pipeline's w is not above 0
 */
export function pipelineError(pipes: Pipes, pipeline: Pipeline, point: Vec3): Answer<number> {
  const right = truePlace(pipes, point);
  if (!right.ok) return right;
  const found = pipelinePlace(pipes, pipeline, point);
  return found.ok ? answer(pixelsApart(pipes.frame, right.value, found.value)) : found;
}

/** How the distances of `safeDistance` grow from one to the next. */
const growth = 1.01;
/** The greatest of them, in world units. */
const farthest = 1e12;
/** How many distances `safeDistance` tries at most. */
export const distancesTried = Math.floor(Math.log(farthest) / Math.log(growth)) + 1;

/**
 * Returns the distance from the world's origin at which the pipeline `world` first misses by more than half a pixel,
 * or shows nothing: the point moves along its own direction from the origin, and the camera with it.
 *
 * @param point - canonical world space
 * @returns the least of 1.01^k world units, k = 0, 1, …; `neverExceeds` when it holds up to 1e12, `noDirection` for a
 *   point at the origin, or the point's own reason
 */
export function safeDistance(pipes: Pipes, point: Vec3): Answer<number> {
  const right = truePlace(pipes, point);
  if (!right.ok) return right;
  const { codec, frame, projection, view, eye } = pipes;
  const own = codec.toWorld(point);
  const away = length(own);
  if (away === 0) return noAnswer('noDirection');
  for (let k = 0; k < distancesTried; k++) {
    const distance = growth ** k;
    const moved = scale(own, distance / away);
    const seenFrom = add(eye, sub(moved, own));
    const place = placeOf(clipInSingle(multiply(projection, viewFrom(view, seenFrom)), rounded(moved)));
    if (!place.ok || pixelsApart(frame, right.value, place.value) > 0.5) return answer(distance);
  }
  return noAnswer('neverExceeds');
}
