import { pictureShape, type CameraFrame } from '../camera/frame';
import type { PlacedBody } from '../bodies/body';
import { cross, dot, normalize, sub, type Vec3 } from '../math/vec3';
import { paint, worldTriangles } from '../order/paint';
import { viewRufToClip, worldToViewRuf } from '../convert/project';

/*
 * A picture of bodies without a GPU: flat tones by the light, outlines where another body begins. For
 * reports that are made where there is no screen.
 */

/**
 * A picture as bytes: red, green, blue and opacity of each pixel, row by row from the top; and which of
 * the bodies, by their places in the list, show anywhere.
 */
export interface Bitmap {
  readonly shown: ReadonlySet<number>;
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array;
}

const light = normalize([-0.62, 0.7, 0.5])!;
const tones: readonly (readonly [number, number, number])[] = [[0xd9, 0xee, 0xec], [0xbb, 0xda, 0xd8], [0x8d, 0xbd, 0xbc], [0x5e, 0x93, 0x95]]; // prettier-ignore
const ink = [0x18, 0x24, 0x2f] as const;

/**
 * What a camera sees of placed bodies, in the picture's own shape, `longer` pixels along its longer side
 * and at least one along the other: every pixel is the mean of two by two, each of the body that is
 * nearest there (`paint`).
 */
export function drawnPicture(frame: CameraFrame, placed: readonly PlacedBody[], flat: boolean, longer: number): Bitmap {
  const { aspect } = pictureShape(frame);
  const [width, height] = [Math.min(1, aspect), Math.min(1, 1 / aspect)].map((side) => Math.max(1, Math.round(longer * side))) as [number, number]; // prettier-ignore
  const [w, h] = [2 * width, 2 * height];
  const triangles = worldTriangles(placed, flat);
  const { triangle } = paint(frame, triangles, { width: w, height: h, order: null });
  const toneOf = Uint8Array.from({ length: triangles.count }, (_, i) => tone(triangles.corners, i, frame));
  const colour = (i: number): readonly [number, number, number] | null => {
    const t = triangle[i]!;
    const own = t < 0 ? -1 : triangles.body[t]!;
    for (const other of [i % w ? i - 1 : i, i >= w ? i - w : i]) {
      const beside = triangle[other]!;
      // Where another body begins, and where a face turns another way.
      if ((beside < 0 ? -1 : triangles.body[beside]!) !== own) return ink;
      if (beside >= 0 && toneOf[beside] !== toneOf[t]) return tones[3]!;
    }
    return t < 0 ? null : tones[toneOf[t]!]!;
  };
  const data = new Uint8Array(4 * width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = 4 * (y * width + x);
      const all = [0, 1, w, w + 1].flatMap((step) => colour(2 * y * w + 2 * x + step) ?? []);
      // Nothing shows nothing: what lies behind the picture is seen there.
      const count = all.length / 3;
      for (let i = 0; i < all.length; i++) data[at + (i % 3)]! += all[i]! / count;
      data[at + 3] = (255 * count) / 4;
    }
  const shown = new Set<number>();
  for (const t of triangle) if (t >= 0) shown.add(triangles.body[t]!);
  return { width, height, data, shown };
}

/** How a triangle is lit: 0 the lightest to 3; of its two sides the one that is seen. */
function tone(corners: Float64Array, i: number, { eye, forward, kind }: CameraFrame): number {
  const [a, b, c] = [0, 3, 6].map((k) => [corners[9 * i + k]!, corners[9 * i + k + 1]!, corners[9 * i + k + 2]!]) as unknown as [Vec3, Vec3, Vec3]; // prettier-ignore
  const n = normalize(cross(sub(b, a), sub(c, a)));
  if (!n) return 3;
  const way = kind === 'perspective' ? sub(a, eye) : forward;
  const lit = dot(n, light) * (dot(n, way) > 0 ? -1 : 1);
  return lit > 0.72 ? 0 : lit > 0.42 ? 1 : lit > 0.12 ? 2 : 3;
}

/**
 * Where a point of canonical world space lies in a drawn picture, in its pixels from the top left corner; null for one
 * that is not ahead of near.
 */
export function placeIn(
  frame: CameraFrame,
  { width, height }: Pick<Bitmap, 'width' | 'height'>,
  point: Vec3,
): [number, number] | null {
  const seen = worldToViewRuf(frame, point);
  if (!(seen[2] >= frame.near)) return null;
  const { x, y, w } = viewRufToClip(frame, seen);
  return [((x / w + 1) / 2) * width, ((1 - y / w) / 2) * height];
}
