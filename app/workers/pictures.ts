import type { Project } from '../../formats/project';
import { compose, type Sight } from '../pictures/compose';
import { paintLayer, type Ink, type InkName } from '../pictures/pen';
import { Renderer } from '../pictures/renderer';

/*
 * Draws the pictures off the page: its thread has the hand to follow and the numbers to set. It is told what is another than before, draws once a frame at most, and says
 * when all that it was told is on the canvases.
 */

/** A face of the page's letters, as its style sheet declares it, its files by whole addresses. */
export interface Face {
  readonly family: string;
  readonly source: string;
  readonly descriptors: FontFaceDescriptors;
}

/** What is another than before; `project` by its parts, since most stay. */
interface Change {
  readonly kind: 'change';
  /** Counts the changes. */
  readonly count: number;
  readonly project: Partial<Project>;
  readonly sight: Partial<Sight>;
}

export type ToPictures =
  | {
      readonly kind: 'begin';
      readonly pictures: OffscreenCanvas;
      readonly marks: OffscreenCanvas;
      readonly faces: readonly Face[];
    }
  | Change
  | { readonly kind: 'inks'; readonly theme: string; readonly inks: readonly (readonly [InkName, Ink])[] };

export type FromPictures =
  /** Inks that are to be told. */
  | { readonly kind: 'ask'; readonly theme: string; readonly names: readonly InkName[] }
  /** All changes up to one are on the canvases; whether the marks too. */
  | { readonly kind: 'drawn'; readonly count: number; readonly painted: boolean }
  | { readonly kind: 'failed'; readonly message: string };

const say = (message: FromPictures): void => self.postMessage(message);

let project: Partial<Project> = {};
let sight: Partial<Sight> = {};
let count = 0;
let renderer: Renderer | null = null;
let paper: { readonly canvas: OffscreenCanvas; readonly context: OffscreenCanvasRenderingContext2D } | null = null;

/** By theme, drawing, tag and classes; null while it is asked for. */
const inks = new Map<string, Ink | null>();
const keyOf = (theme: string, { inked, tag, className }: InkName) => `${theme}|${inked}|${tag}|${className}`;

let frame = 0;
function schedule(): void {
  frame ||= self.requestAnimationFrame(() => {
    frame = 0;
    if (renderer?.ready === false) schedule();
    else draw();
  });
}

let resting: ReturnType<typeof setTimeout> | undefined;
let saidPainted = false;

function draw(): void {
  if (!sight.slots || !paper) return;
  const { size, pixel, palette, theme, painting } = sight as Sight;
  const { scene, pictures, layers } = compose(project as Project, sight as Sight);
  renderer?.setScene(scene);
  const whole = renderer?.draw(pictures, palette, size, pixel) ?? true;
  if (!whole) schedule();

  const { canvas, context } = paper;
  const [width, height] = [Math.round(size.width * pixel), Math.round(size.height * pixel)];
  if (canvas.width !== width || canvas.height !== height) [canvas.width, canvas.height] = [width, height];
  context.setTransform(pixel, 0, 0, pixel, 0, 0);
  context.clearRect(0, 0, size.width, size.height);
  const wanted: InkName[] = [];
  let missing = false;
  for (const layer of layers)
    paintLayer(context, layer, (name) => {
      const key = keyOf(theme, name);
      if (!inks.has(key)) {
        inks.set(key, null);
        wanted.push(name);
      }
      const ink = inks.get(key)!;
      missing ||= ink === null;
      return ink;
    });
  if (wanted.length) say({ kind: 'ask', theme, names: wanted });
  const complete = whole && !missing && self.fonts.status === 'loaded';
  // At once where the page waits for it to put its own marks away; otherwise when nothing follows.
  clearTimeout(resting);
  const at = count;
  const report = () => say({ kind: 'drawn', count: at, painted: painting && complete });
  if (painting && complete && !saidPainted) report();
  else if (complete) resting = setTimeout(report, 30);
  saidPainted = painting && complete;
}

self.addEventListener('message', ({ data }: MessageEvent<ToPictures>) => {
  if (data.kind === 'begin') begin(data);
  else if (data.kind === 'inks') {
    for (const [name, ink] of data.inks) {
      inks.set(keyOf(data.theme, name), ink);
      // Letters that are to be painted are fetched before they are needed.
      if (name.tag === 'text') void self.fonts.load(ink.font);
    }
  } else {
    // The same object says that nothing of it is another.
    if (Object.keys(data.project).length) project = { ...project, ...data.project };
    sight = { ...sight, ...data.sight };
    count = data.count;
    // What was asked in a theme that the page has left is not answered: it is asked again when that one is back.
    if (data.sight.theme) for (const [key, ink] of inks) if (!ink) inks.delete(key);
  }
  schedule();
});

function begin({ pictures, marks, faces }: ToPictures & { kind: 'begin' }): void {
  paper = { canvas: marks, context: marks.getContext('2d', { willReadFrequently: true })! };
  try {
    renderer = new Renderer(pictures, schedule);
  } catch (error) {
    // Names and hairlines are painted all the same.
    say({ kind: 'failed', message: (error as Error).message });
  }
  for (const { family, source, descriptors } of faces) self.fonts.add(new FontFace(family, source, descriptors));
  self.fonts.addEventListener('loadingdone', schedule);
}
