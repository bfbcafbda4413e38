import type { CameraFrame } from '../camera/frame';
import { indexOf, signOf, type SignedAxis } from '../conventions/axes';
import { cross, dot, negate, sub, type Vec3 } from '../math/vec3';
import { worldToViewRuf } from '../convert/project';
import type { Billboard, BillboardMode } from './billboard';

/*
 * An item with lettering on its front: how the axes of a mesh are brought onto a billboard, and
 * whether what is written on it can be read.
 */

/** What an engine gets wrong about an item that carries lettering. */
export const letteringFaults = ['frontAxis', 'handedness', 'winding'] as const;
export type LetteringFault = (typeof letteringFaults)[number];

/** The three columns of an item: along its lettering, up its lettering, out of its front. */
export interface ItemAxes {
  readonly along: Vec3;
  readonly up: Vec3;
  readonly front: Vec3;
}

/**
 * A billboard's axes as an engine makes them that has something wrong; null for nothing.
 * `frontAxis`: the mesh's front is taken for its back, so it is turned half round. `handedness`: the
 * cross product the wrong way round, so that along is negated and the three are of the other
 * handedness. `winding` leaves the axes as they are: the triangles run the other way.
 */
export function axesOf(
  { right, up, normal }: Pick<Billboard, 'right' | 'up' | 'normal'>,
  fault: LetteringFault | null,
): ItemAxes {
  return {
    along: fault === 'frontAxis' || fault === 'handedness' ? negate(right) : right,
    up,
    front: fault === 'frontAxis' ? negate(normal) : normal,
  };
}

/** How lettering is seen. */
export interface Reading {
  /** `edgeOn` where the item is a line, and where it is behind the eye. */
  readonly reads: 'right' | 'mirrored' | 'edgeOn';
  /** Which side of its triangles is turned to the eye, as a rasteriser has it that knows only how they run on the screen. */
  readonly shows: 'front' | 'back' | 'edgeOn';
  /** Why it is mirrored, or why a rasteriser that leaves out back faces does not draw it. */
  readonly causes: readonly (LetteringFault | 'pictureMirrored')[];
}

/**
 * How an item's lettering at a place (canonical world space) is seen: it reads right where along and
 * up turn counter-clockwise as the viewer of the screen sees them. `fault` says what its triangles do,
 * `axes` where its columns are. A picture of mirrored extents mirrors it, and turns what runs
 * counter-clockwise.
 */
export function readingOf(frame: CameraFrame, position: Vec3, axes: ItemAxes, fault: LetteringFault | null): Reading {
  const { extents: e } = frame;
  const plane = cross(axes.along, axes.up);
  const perspective = frame.kind === 'perspective';
  const toEye = perspective ? sub(frame.eye, position) : negate(frame.forward);
  const side = dot(plane, toEye);
  const size = Math.hypot(...plane) * Math.hypot(...toEye);
  const mirrors = (e.right - e.left) * (e.top - e.bottom) < 0;
  if (!(Math.abs(side) > 1e-12 * size) || (perspective && !(worldToViewRuf(frame, position)[2] > 0)))
    return { reads: 'edgeOn', shows: 'edgeOn', causes: [] };
  const reads = side > 0 !== mirrors;
  const runs = fault === 'winding' ? !reads : reads;
  const improper = dot(plane, axes.front) < 0;
  const causes: Reading['causes'][number][] = [];
  if (mirrors) causes.push('pictureMirrored');
  if (improper) causes.push('handedness');
  // Seen from behind: by its front, whatever hand its axes are of.
  if (dot(axes.front, toEye) < 0) causes.push('frontAxis');
  if (fault === 'winding') causes.push('winding');
  return { reads: reads ? 'right' : 'mirrored', shows: runs ? 'front' : 'back', causes };
}

/**
 * The rotation that brings a mesh onto an item, its columns those of the mesh's own x, y and z: the
 * mesh's front axis goes to the item's normal and its up axis to the item's up. In the numbers of
 * whatever axes the two are given in (unit, square); the rotation is proper there. Null where front
 * and up are of one letter.
 */
export function meshColumns(
  front: SignedAxis,
  up: SignedAxis,
  normal: Vec3,
  upward: Vec3,
): readonly [Vec3, Vec3, Vec3] | null {
  if (indexOf(front) === indexOf(up)) return null;
  const columns: [Vec3, Vec3, Vec3] = [[0, 0, 0], [0, 0, 0], [0, 0, 0]]; // prettier-ignore
  const put = (axis: SignedAxis, v: Vec3) => {
    const sign = signOf(axis);
    columns[indexOf(axis)] = [sign * v[0] || 0, sign * v[1] || 0, sign * v[2] || 0];
  };
  put(front, normal);
  put(up, upward);
  const third = 3 - indexOf(front) - indexOf(up);
  const [a, b] = [columns[(third + 1) % 3]!, columns[(third + 2) % 3]!];
  columns[third] = cross(a, b);
  return columns;
}

/**
 * The two lines of code of a mode, in the manner of GLSL, by names that all are in the world:
 * `position`, `eye`, `gaze`, `cameraRight`, `cameraUp`, `worldUp`, `axis` (unit). What `billboard` gives.
 */
export function twoLines(mode: BillboardMode, handedness: 'right' | 'left'): readonly [string, string] {
  // In left-handed numbers the same product of two directions is the cross product the other way round.
  const by = (a: string, b: string) => (handedness === 'right' ? `cross(${a}, ${b})` : `cross(${b}, ${a})`);
  switch (mode) {
    case 'viewPlane':
      return ['vec3 normal = -gaze;', 'vec3 right = cameraRight, up = cameraUp;'];
    case 'eyePoint':
      return [
        `vec3 normal = normalize(eye - position), right = normalize(${by('worldUp', 'normal')});`,
        `vec3 up = ${by('normal', 'right')};`,
      ];
    case 'axisEye':
      return [
        `vec3 up = axis, right = normalize(${by('up', 'eye - position')});`,
        `vec3 normal = ${by('right', 'up')};`,
      ];
    case 'axisView':
      return [`vec3 up = axis, right = normalize(${by('up', '-gaze')});`, `vec3 normal = ${by('right', 'up')};`];
  }
}
