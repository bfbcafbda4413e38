import './alive';
import type { Project } from '../../formats/project';
import type { PicturesInput } from '../pictures/compose/picturesInput';
import { compose, composePane, type StandingMarks } from '../pictures/compose/compose';
import { inkFonts } from '../pictures/compose/inks';
import { palettes } from '../pictures/compose/palette';
import { bodiesAfter, type FromPictures, type ToPictures } from '../pictures/render/protocol';
import { canvasSink } from '../pictures/render/canvasSink';
import type { Face } from '../pictures/render/fontFaces';
import { Renderer } from '../pictures/render/renderer';
import { drawLayer } from '../pictures/render/sink';
import { installMovingTasks, loadParts } from '../tasks/parts';

/*
 * Draws the pictures off the page's thread. The page sends what changed; the worker draws at most once a
 * frame, and reports when everything it was sent is on the canvases.
 */

installMovingTasks();

const say = (message: FromPictures, transfer: Transferable[] = []): void => self.postMessage(message, { transfer });

let project: Partial<Project> = {};
let input: Partial<PicturesInput> = {};
let count = 0;
let renderer: Renderer | null = null;
let paper: { readonly canvas: OffscreenCanvas; readonly context: OffscreenCanvasRenderingContext2D } | null = null;

/** The page's typefaces. */
let faces: readonly Face[] = [];

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

let sent: StandingMarks = new Map();
/** Sends the marks of panes where they changed. */
function sendMarks(marks: StandingMarks): void {
  const changed = new Map([...marks].filter(([name, layers]) => sent.get(name) !== layers));
  sent = marks;
  // While both paint, the page waits for the answer to its last change.
  if (changed.size || input.isPainting) say({ kind: 'marks', count, marks: changed });
}

function draw(): void {
  if (!input.slots || !paper) return;
  const { size, pixel, theme, isPainting, isSending } = input as PicturesInput;
  const { scene, ground, pictures, layers, standing } = compose(project as Project, input as PicturesInput);
  const whole = renderer?.draw(scene, ground, pictures, palettes[theme], size, pixel) ?? true;
  if (!whole) schedule();

  const { canvas, context } = paper;
  const [width, height] = [Math.round(size.width * pixel), Math.round(size.height * pixel)];
  if (canvas.width !== width || canvas.height !== height) [canvas.width, canvas.height] = [width, height];
  context.setTransform(pixel, 0, 0, pixel, 0, 0);
  context.clearRect(0, 0, size.width, size.height);
  const sink = canvasSink(context);
  let isPainted = true;
  for (const layer of layers) if (!drawLayer(sink, layer, theme, (font) => loadedFonts.has(font))) isPainted = false;
  if (isSending) sendMarks(standing);
  const { route } = input as PicturesInput;
  const withMarks = loadedTasks.has(route);
  if (!withMarks) void loadMarks(route).then(schedule);
  const complete = whole && isPainted && withMarks;
  // At once where the page waits for it to put its own marks away; otherwise when nothing follows.
  clearTimeout(resting);
  const at = count;
  const report = () => say({ kind: 'drawn', count: at, painted: isPainting && complete });
  if (isPainting && complete && !saidPainted) report();
  else if (complete) resting = setTimeout(report, 30);
  saidPainted = isPainting && complete;
}

/** Writes a pane as a file. The pictures on the screen stay as they are. */
async function save({ id, name, format }: ToPictures & { kind: 'save' }): Promise<void> {
  try {
    const pane = input.slots ? composePane(project as Project, input as PicturesInput, name) : null;
    if (!pane) throw new Error('There is no such picture on the screen.');
    await Promise.all(inkFonts.map(loadFont));
    const { savePane } = await import('../pictures/render/savedPane');
    say({ kind: 'saved', id, file: await savePane(pane, input.theme!, format, faces) });
  } catch (error) {
    say({ kind: 'notSaved', id, message: (error as Error).message });
  }
}

self.addEventListener('message', ({ data }: MessageEvent<ToPictures>) => {
  if (data.kind === 'begin') begin(data);
  else if (data.kind === 'save') return void save(data);
  else if (data.kind === 'prefetch')
    return void data.routes.reduce((before, route) => before.then(() => loadMarks(route)), Promise.resolve());
  else {
    // The same object says that nothing of it is another.
    const bodies = data.bodies && { bodies: bodiesAfter(project.bodies ?? [], data.bodies) };
    if (bodies || Object.keys(data.project).length) project = { ...project, ...data.project, ...bodies };
    input = { ...input, ...data.input };
    count = data.count;
  }
  schedule();
});

/** The fonts that are loaded, or cannot be. Text painted earlier would keep the system's typeface. */
const loadedFonts = new Set<string>();
async function loadFont(font: string): Promise<void> {
  if (loadedFonts.has(font)) return;
  try {
    await self.fonts.load(font);
  } catch {
    // The system's typeface serves.
  }
  loadedFonts.add(font);
  schedule();
}

function begin({ pictures, marks, faces: declared }: ToPictures & { kind: 'begin' }): void {
  paper = { canvas: marks, context: marks.getContext('2d', { willReadFrequently: true })! };
  try {
    renderer = new Renderer(pictures, schedule, (message) => say({ kind: 'failed', message }));
  } catch (error) {
    // Names and hairlines are painted all the same.
    say({ kind: 'failed', message: (error as Error).message });
  }
  faces = declared;
  for (const { family, source, descriptors } of faces) self.fonts.add(new FontFace(family, source, descriptors));
  for (const font of inkFonts) void loadFont(font);
}
