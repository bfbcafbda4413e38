import type { Project, ProjectBody } from '../../../formats/project';
import { packShape, unpackShape } from '../../state/packing';
import type { PicturesInput } from '../compose/picturesInput';
import type { StandingMarks } from '../compose/compose';
import type { Face } from './fontFaces';
import type { AnyCanvas } from './renderer';
import type { SavedFile, SavedFormat } from './savedPane';

/* What page and painter say to each other. */

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
  /** When the first of them was made, in milliseconds since 1970. */
  readonly askedAt: number;
  readonly project: Partial<Omit<Project, 'bodies'>>;
  readonly bodies: readonly BodyChange[] | null;
  readonly input: Partial<PicturesInput>;
}

export type ToPictures =
  | {
      readonly kind: 'begin';
      readonly pictures: AnyCanvas;
      readonly marks: AnyCanvas;
      readonly faces: readonly Face[];
    }
  | Change
  /** The marks of these tasks are to be loaded while nothing else is to be done. */
  | { readonly kind: 'prefetch'; readonly routes: readonly string[] }
  /** Asks for a pane as a file. */
  | { readonly kind: 'save'; readonly id: number; readonly name: string; readonly format: SavedFormat };

export type FromPictures =
  /** Marks that changed, by the names of panes. All changes up to `count` are in them. */
  | { readonly kind: 'marks'; readonly count: number; readonly marks: StandingMarks }
  /** All changes up to one are on the canvases; whether the marks too. */
  | { readonly kind: 'drawn'; readonly count: number; readonly painted: boolean }
  /** The panes on the canvases, where they or their project are new. */
  | { readonly kind: 'panes'; readonly project: string; readonly names: readonly string[] }
  | { readonly kind: 'saved'; readonly id: number; readonly file: SavedFile }
  | { readonly kind: 'notSaved'; readonly id: number; readonly message: string }
  | { readonly kind: 'failed'; readonly message: string | null }
  /** This thread has no WebGL2; nothing is drawn. */
  | { readonly kind: 'noGpu' }
  /** The browser has no WebGL2: surfaces are drawn in software at reduced size. */
  | { readonly kind: 'reduced' };
