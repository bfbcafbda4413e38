import type { Project, ProjectBody } from '../../formats/project';
import type { Ink, InkName } from './canvasMarks';
import { packShape, unpackShape } from '../state/packing';
import type { Layer, PicturesInput } from './compose';
import type { Rect } from './labels';

/* What page and painter say to each other. */

/** A face of the page's letters, as its style sheet declares it, its files by whole addresses. */
export interface Face {
  readonly family: string;
  readonly source: string;
  readonly descriptors: FontFaceDescriptors;
}

/**
 * Bodies by what is another than before: a number stands for the body that had it in the last list;
 * a body whose shape it had before has that number in the shape's place. So a body that moves takes
 * no mesh along, and what is the same stays the same object on the other side.
 */
export type BodyChange =
  number | { readonly body: Omit<ProjectBody, 'shape'>; readonly shape: ProjectBody['shape'] | number };

/** What of a list of bodies is another than in the last one told. */
export function bodiesChanged(last: readonly ProjectBody[], now: readonly ProjectBody[]): BodyChange[] {
  const places = new Map(last.map((body, i) => [body, i]));
  const shapes = new Map(last.map(({ shape }, i) => [shape, i]));
  return now.map((body) => {
    const same = places.get(body);
    if (same !== undefined) return same;
    const { shape, ...rest } = body;
    return { body: rest, shape: shapes.get(shape) ?? packShape(shape) };
  });
}

/** The list of bodies that a change leads to: the inverse of `bodiesChanged`. */
export const bodiesAfter = (last: readonly ProjectBody[], change: readonly BodyChange[]): ProjectBody[] =>
  change.map((one) =>
    typeof one === 'number'
      ? last[one]!
      : { ...one.body, shape: typeof one.shape === 'number' ? last[one.shape]!.shape : unpackShape(one.shape) },
  );

/** What is another than before; the project by its parts, since most stay. */
export interface Change {
  readonly kind: 'change';
  /** Counts the changes. */
  readonly count: number;
  readonly project: Partial<Omit<Project, 'bodies'>>;
  readonly bodies: readonly BodyChange[] | null;
  readonly input: Partial<PicturesInput>;
}

export type ToPictures =
  | {
      readonly kind: 'begin';
      readonly pictures: OffscreenCanvas;
      readonly marks: OffscreenCanvas;
      readonly faces: readonly Face[];
    }
  | Change
  /** The marks of these tasks are to be loaded while nothing else is to be done. */
  | { readonly kind: 'prefetch'; readonly routes: readonly string[] }
  /** A part of the centre is to be drawn by itself, so many device pixels to a pixel of the page. */
  | { readonly kind: 'print'; readonly id: number; readonly rect: Rect; readonly pixel: number }
  | { readonly kind: 'inks'; readonly theme: string; readonly inks: readonly (readonly [InkName, Ink])[] };

export type FromPictures =
  /** Inks that are to be told. */
  | { readonly kind: 'ask'; readonly theme: string; readonly names: readonly InkName[] }
  /** All changes up to one are on the canvases; whether the marks too. */
  | { readonly kind: 'drawn'; readonly count: number; readonly painted: boolean }
  /** What was to be drawn by itself, and the marks over it that are painted rather than set in the page. */
  | { readonly kind: 'printed'; readonly id: number; readonly surfaces: ImageBitmap; readonly layers: readonly Layer[] }
  /** The same where it cannot be: so large a picture, or none at all. */
  | { readonly kind: 'notPrinted'; readonly id: number; readonly message: string }
  | { readonly kind: 'failed'; readonly message: string | null };
