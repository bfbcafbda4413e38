import './alive';
import type { Project } from '../../formats/project';
import { compose, type PicturesInput } from '../pictures/compose';
import { paintLayer, type Ink, type InkName } from '../pictures/canvasMarks';
import type { Rect } from '../pictures/labels';
import { bodiesAfter, type FromPictures, type ToPictures } from '../pictures/protocol';
import { Renderer } from '../pictures/renderer';
import { installMovingTasks, loadParts } from '../tasks/parts';

/*
 * Draws the pictures off the page: its thread has the hand to follow and the numbers to set. It is
 * told what is another than before, draws once a frame at most, and says when all that it was told
 * is on the canvases.
 */

installMovingTasks();

const say = (message: FromPictures, transfer: Transferable[] = []): void => self.postMessage(message, { transfer });

let project: Partial<Project> = {};
let input: Partial<PicturesInput> = {};
let count = 0;
let renderer: Renderer | null = null;
let paper: { readonly canvas: OffscreenCanvas; readonly context: OffscreenCanvasRenderingContext2D } | null = null;

/** By theme, drawing, tag and classes; null while it is asked for. */
const inks = new Map<string, Ink | null>();
const keyOf = (theme: string, { inked, tag, role }: InkName) => `${theme}|${inked}|${tag}|${role}`;

let frame = 0;
function schedule(): void {
  frame ||= self.requestAnimationFrame(() => {
    frame = 0;
    if (renderer?.ready === false) schedule();
    else draw();
  });
}

/** The tasks whose marks have been loaded, or cannot be. */
const loadedTasks = new Set<string>();
const loadMarks = (route: string): Promise<void> =>
  loadParts(route)
    .catch(({ message }: Error) =>
      say({ kind: 'failed', message: `What this task draws could not be loaded (${message}). Reload the page.` }),
    )
    .finally(() => loadedTasks.add(route));

let resting: ReturnType<typeof setTimeout> | undefined;
let saidPainted = false;

function draw(): void {
  if (!input.slots || !paper) return;
  const { size, pixel, palette, theme, painting } = input as PicturesInput;
  const { scene, ground, pictures, layers } = compose(project as Project, input as PicturesInput);
  const whole = renderer?.draw(scene, ground, pictures, palette, size, pixel) ?? true;
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
      // Letters wait for their face: set in one that is still on its way, the browser goes on
      // painting what it took in its place.
      const here = ink !== null && (name.tag !== 'text' || ready.has(ink.font));
      missing ||= !here;
      return here ? ink : null;
    });
  if (wanted.length) say({ kind: 'ask', theme, names: wanted });
  const { route } = input as PicturesInput;
  const withMarks = loadedTasks.has(route);
  if (!withMarks) void loadMarks(route).then(schedule);
  const complete = whole && !missing && withMarks;
  // At once where the page waits for it to put its own marks away; otherwise when nothing follows.
  clearTimeout(resting);
  const at = count;
  const report = () => say({ kind: 'drawn', count: at, painted: painting && complete });
  if (painting && complete && !saidPainted) report();
  else if (complete) resting = setTimeout(report, 30);
  saidPainted = painting && complete;
}

/**
 * Draws a part of the centre by itself at any size, on a canvas of its own: what stands on the screen
 * is left as it is.
 */
function print({ id, rect, pixel }: ToPictures & { kind: 'print' }): void {
  const refuse = (message: string) => say({ kind: 'notPrinted', id, message });
  if (!input.slots) return refuse('Nothing is drawn yet.');
  const own = { ...(input as PicturesInput), painting: false };
  const { scene, ground, pictures, layers } = compose(project as Project, own);
  const meets = ({ x, y, width, height }: Rect) => x < rect.x + rect.width && rect.x < x + width && y < rect.y + rect.height && rect.y < y + height; // prettier-ignore
  const moved = pictures
    .filter((one) => meets(one.rect))
    .map((one) => ({ ...one, rect: { ...one.rect, x: one.rect.x - rect.x, y: one.rect.y - rect.y } }));
  let printer: Renderer | null = null;
  try {
    printer = new Renderer(new OffscreenCanvas(1, 1), () => undefined, () => undefined); // prettier-ignore
    const printed = printer.print(scene, ground, moved, own.palette, rect, pixel);
    if (!printed) return refuse(`The GPU here draws no picture ${Math.round(rect.width * pixel)} pixels wide. Ask for a smaller one.`); // prettier-ignore
    const surfaces = printed.transferToImageBitmap();
    const over = layers
      .filter(({ x, y, clip }) => meets({ ...clip, x: x + clip.x, y: y + clip.y }))
      .map((layer) => ({ ...layer, x: layer.x - rect.x, y: layer.y - rect.y }));
    say({ kind: 'printed', id, surfaces, layers: over }, [surfaces]);
  } catch (error) {
    refuse((error as Error).message);
  } finally {
    printer?.close();
  }
}

self.addEventListener('message', ({ data }: MessageEvent<ToPictures>) => {
  if (data.kind === 'begin') begin(data);
  else if (data.kind === 'print') return print(data);
  else if (data.kind === 'prefetch')
    return void data.routes.reduce((before, route) => before.then(() => loadMarks(route)), Promise.resolve());
  else if (data.kind === 'inks') {
    for (const [name, ink] of data.inks) {
      inks.set(keyOf(data.theme, name), ink);
      // Letters that are to be painted are fetched before they are needed.
      if (name.tag === 'text') void fetchFace(ink.font);
    }
  } else {
    // The same object says that nothing of it is another.
    const bodies = data.bodies && { bodies: bodiesAfter(project.bodies ?? [], data.bodies) };
    if (bodies || Object.keys(data.project).length) project = { ...project, ...data.project, ...bodies };
    input = { ...input, ...data.input };
    count = data.count;
    // What was asked in a theme that the page has left is not answered: it is asked again when that
    // one is back.
    if (data.input.theme) for (const [key, ink] of inks) if (!ink) inks.delete(key);
  }
  schedule();
});

/** The faces that are here, or cannot be had. */
const ready = new Set<string>();
async function fetchFace(font: string): Promise<void> {
  try {
    await self.fonts.load(font);
  } finally {
    ready.add(font);
    schedule();
  }
}

function begin({ pictures, marks, faces }: ToPictures & { kind: 'begin' }): void {
  paper = { canvas: marks, context: marks.getContext('2d', { willReadFrequently: true })! };
  try {
    renderer = new Renderer(pictures, schedule, (message) => say({ kind: 'failed', message }));
  } catch (error) {
    // Names and hairlines are painted all the same.
    say({ kind: 'failed', message: (error as Error).message });
  }
  for (const { family, source, descriptors } of faces) self.fonts.add(new FontFace(family, source, descriptors));
}
