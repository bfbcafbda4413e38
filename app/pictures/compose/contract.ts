import type { CameraFrame } from '../../../core/camera/frame';
import type { Vec2, Vec3 } from '../../../core/math/vec3';
import type { Moment, Poses } from '../../state/moment';
import type { InkRole } from './inks';
import type { Spot } from './labels';
import type { Mark } from './marks';

/*
 * What a task adds to the pictures, as data: the same on the page, which sets it as SVG, and in the
 * painter, which draws it. Nothing here touches either.
 */

/** Width and height in pixels of the page. */
export interface Size {
  readonly width: number;
  readonly height: number;
}

/** The widest picture that is saved, in pixels. */
export const widestPicture = 8192;

/** The pictures of the house, by name; a task's own have names of their own. */
export type HousePicture = 'camera' | 'plan' | 'section' | 'world' | 'outside';

/**
 * One picture, whatever it is of. Places are in its own pixels on the page, from its top left
 * corner.
 */
export interface PictureView {
  readonly name: HousePicture | (string & {});
  readonly frame: CameraFrame;
  readonly size: Size;
  /** How many pixels of the page one pixel of the frame's viewport is. */
  readonly scale: number;
  /**
   * Where a point of canonical world space lies; null where it has no place ahead of near. It may
   * lie off the picture.
   */
  point(p: Vec3): Vec2 | null;
  /**
   * A line through points, as a path of SVG: cut at near and at the picture, empty where nothing is
   * left.
   */
  line(points: readonly Vec3[], closed?: boolean): string;
  /** A planar convex polygon, as a closed path: cut in the same way. */
  area(polygon: readonly Vec3[]): string;
}

/**
 * A word that joins the one placement of a picture: those of lower priority choose first, and none
 * touch.
 */
export interface Word {
  readonly text: string;
  /** The point that it is about. */
  readonly at: Vec2;
  readonly ink: InkRole;
  /**
   * The probe has 0, selected bodies 10, the limits of a camera 20, other bodies 40 and more by
   * distance.
   */
  readonly priority: number;
  /** Where it may stand, the tidiest first; round about the point if not said. */
  readonly spots?: readonly Spot[];
  readonly mono?: boolean;
  /** Whether a line leads from the point to it. */
  readonly leader?: boolean;
}

/** What a tint says, by the number that stands for it in a `Uint8Array` of tints. */
export const tints = [
  'none',
  'inside',
  'crosses',
  'outside',
  'dimmed',
  'chosen',
  'fault',
  'region',
  'shade',
  'sheet',
  'ink',
] as const;
export type Tint = (typeof tints)[number];
/** The byte of a tint. */
export const tintByte = (tint: Tint): number => tints.indexOf(tint);

interface LayerBase {
  /** Which layer it is, among all of the picture. */
  readonly key: string;
  /**
   * Another number says that what it holds is another; equal numbers of one key are one content.
   */
  readonly revision: number;
}

/**
 * Many like things: a transform each (twelve numbers, rows of a 3×4 matrix, about `origin`) and a
 * tint each.
 */
export interface InstanceLayer extends LayerBase {
  readonly kind: 'instances';
  /** Of side, diameter or width 1 about its own origin; a quad faces +z, a cross is three lines. */
  readonly shape: 'box' | 'sphere' | 'quad' | 'cross';
  readonly transforms: Float32Array;
  readonly origin: Vec3;
  readonly tints: Uint8Array;
  /** Told apart from `revision`, so that a changing tint uploads bytes alone. */
  readonly tintRevision?: number;
}
/**
 * Triangles: x, y, z after one another about `origin`, three vertices to a triangle, in one tint.
 */
export interface TriangleLayer extends LayerBase {
  readonly kind: 'triangles';
  readonly positions: Float32Array;
  readonly origin: Vec3;
  readonly tint: Tint;
  readonly opacity?: number;
  readonly hatch?: boolean;
  /** Whether what lies over one another is painted once, as one area. */
  readonly union?: boolean;
  /** Whether it hides what is behind it, as a body does. */
  readonly solid?: boolean;
  /** Whether it lies on another layer's triangles, and is seen on them from both sides. */
  readonly onto?: boolean;
}
/** Lines: x, y, z of both ends after one another about `origin`. */
export interface LineLayer extends LayerBase {
  readonly kind: 'lines';
  readonly segments: Float32Array;
  readonly origin: Vec3;
  readonly tint: Tint;
  /** Pixels of the page. */
  readonly width?: number;
  readonly dash?: boolean;
}
/**
 * A value for every cell of a grid laid over the picture, row by row from the top; drawn in the
 * tint of the step that it falls in.
 */
export interface FieldLayer extends LayerBase {
  readonly kind: 'field';
  readonly values: Float32Array;
  readonly size: Size;
  /** Rising limits between the tints: one fewer than there are tints. */
  readonly steps: readonly number[];
  readonly scale: readonly Tint[];
  readonly opacity?: number;
  readonly hatch?: boolean;
}
/**
 * Many small things, up to millions: each a disc or a square that faces whoever looks, no smaller
 * than a pixel. Its content is one for all pictures.
 */
export interface SpeckLayer extends LayerBase {
  readonly kind: 'specks';
  readonly round: boolean;
  /** x, y, z about `origin` and a radius after one another: asked for when they are to be uploaded. */
  readonly places: () => Float32Array;
  readonly origin: Vec3;
  /** A tint each; null for none. */
  readonly tints: Uint8Array | null;
  /** Told apart from `revision`, so that a changing tint uploads bytes alone. */
  readonly tintRevision: number;
}
export type GpuLayer = InstanceLayer | TriangleLayer | LineLayer | FieldLayer | SpeckLayer;

/** What stands in a picture: marks under the names, words among them, and what the GPU draws. */
export interface Drawn {
  readonly marks?: readonly Mark[];
  readonly words?: readonly Word[];
  readonly layers?: readonly GpuLayer[];
}

/**
 * How the pictures are looked at, beside the project: what is selected, and what of the sheet is
 * open.
 */
export interface Look {
  readonly selected: readonly string[];
  readonly folds: Readonly<Record<string, boolean>>;
}

/** How the bodies of the camera's picture are painted, where otherwise than all faces by a depth buffer. */
export interface BodyPainting {
  /** Another number says that it is another. */
  readonly revision: number;
  /** For each body of the project which of its faces are left out (`leftOutFaces` of the core). */
  readonly leftOut: Uint8Array | null;
  /** The triangles of all bodies (`worldTriangles` of the core), in the order in which each covers the last. */
  readonly order: Int32Array | null;
}

/** A picture of a task's own, to be shown in a pane. */
export interface TaskPicture<S, D> {
  readonly name: string;
  readonly title: string;
  /** Null where there is nothing to show. */
  frame(now: Moment<S>, derived: D, size: Size): CameraFrame | null;
  /** Where the bodies stand in it, if not where they stand now. */
  poses?(now: Moment<S>, derived: D): Poses;
  /** Whether it has equal angles to a pixel rather than equal lengths on a plane. */
  readonly equalAngles?: boolean;
  /** The only kind of world that it has a meaning in, if not both. */
  readonly world?: 'space' | 'flat';
}

/** All that a task adds to the pictures. Pure; run on the page and in the painter. */
export interface Marks<S = undefined, D = undefined> {
  /** Worked out once a moment, however many pictures ask. */
  derive(now: Moment<S>): D;
  standing?(view: PictureView, now: Moment<S>, derived: D, look: Look): Drawn;
  /** What goes with the pointer in any picture, at `at` in CSS pixels of the viewport. */
  underPointer?(view: PictureView, at: Vec2, now: Moment<S>, derived: D, look: Look): readonly Mark[];
  /** A tint a body, in the order of the project; null leaves all as they are. */
  tints?(now: Moment<S>, derived: D): Uint8Array | null;
  /** How the bodies of the camera's picture are painted; null for as always. */
  painting?(now: Moment<S>, derived: D): BodyPainting | null;
  readonly pictures?: readonly TaskPicture<S, D>[];
}

// What a slice and what follows from it are is known to the task alone.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type AnyMarks = Marks<any, any>;
export type MarksTable = Readonly<Record<string, AnyMarks>>;
