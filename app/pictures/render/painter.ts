import type { ProjectImage } from '../../../formats/images';
import type { Project } from '../../../formats/project';
import { compose, composePane, type StandingMarks } from '../compose/compose';
import { packImages, type ImagePixels } from '../compose/imageAtlas';
import { inkFonts } from '../compose/inks';
import { palettes } from '../compose/palette';
import type { PicturesInput } from '../compose/picturesInput';
import type { Slots } from '../compose/slots';
import { canvasSink } from './canvasSink';
import type { Face } from './fontFaces';
import { bodiesAfter, type FromPictures, type ToPictures } from './protocol';
import { Renderer, type AnyCanvas } from './renderer';
import { drawLayer } from './sink';
import { softwareSurfaces } from './software/softwareSurfaces';
import type { Surfaces } from './surfaces';

/*
 * Draws the pictures and paints their marks. It runs in a worker; where a worker has no WebGL2 it runs on the
 * page's thread. The page sends what changed. The painter draws at most once a frame, and reports when
 * everything it was sent is on the canvases.
 */

/** The thread that a painter runs on. */
export interface PainterHost {
  /** Whether it is the page's thread: the last one that may have WebGL2. */
  readonly isPage: boolean;
  readonly fonts: FontFaceSet;
  send(message: FromPictures): void;
  requestFrame(draw: () => void): void;
  createCanvas(): AnyCanvas;
  /** Loads the marks of a task. */
  loadTask(route: string): Promise<void>;
}

export interface Painter {
  receive(message: ToPictures): void;
}

/** How many measures are kept for the bench, which reads them while they come. */
const mostMeasures = 2000;
let measures = 0;
/** Records a measure of the drawing thread; the oldest are dropped. */
function measure(name: string, start: number, end: number): void {
  if (measures++ >= mostMeasures) {
    performance.clearMeasures();
    measures = 1;
  }
  performance.measure(name, { start: Math.max(0, start), end });
}

/** Creates a painter without canvases: `begin` brings them. */
export function createPainter(host: PainterHost): Painter {
  const { send } = host;
  let project: Partial<Project> = {};
  let input: Partial<PicturesInput> = {};
  /** The changes received so far. */
  let count = 0;
  let surfaces: Surfaces | null = null;
  let marks: { readonly canvas: AnyCanvas; readonly context: OffscreenCanvasRenderingContext2D } | null = null;
  let faces: readonly Face[] = [];
  let isScheduled = false;
  /** The tasks whose marks are loaded, or cannot be. */
  const loadedTasks = new Set<string>();
  /** The fonts that are loaded, or cannot be. Text painted earlier would keep the system's typeface. */
  const loadedFonts = new Set<string>();
  let reporting: ReturnType<typeof setTimeout> | undefined;
  let wasPainted = false;
  let sent: StandingMarks = new Map();

  function schedule(): void {
    if (isScheduled) return;
    isScheduled = true;
    host.requestFrame(() => {
      isScheduled = false;
      if (surfaces?.ready === false) schedule();
      else draw();
    });
  }

  const loadMarks = (route: string): Promise<void> =>
    host
      .loadTask(route)
      .catch(({ message }: Error) =>
        send({ kind: 'failed', message: `What this task draws could not be loaded (${message}). Reload the page.` }),
      )
      .finally(() => loadedTasks.add(route));

  async function loadFont(font: string): Promise<void> {
    if (loadedFonts.has(font)) return;
    try {
      await host.fonts.load(font);
    } catch {
      // The system's typeface serves.
    }
    loadedFonts.add(font);
    schedule();
  }

  /** Decoded images, by the images of the project; null for those that cannot be decoded. */
  const decoded = new WeakMap<ProjectImage, ImagePixels | null>();
  let decodingCount = 0;
  /** Decodes the images of the project, and draws when they are ready. */
  async function takeImages(images: readonly ProjectImage[]): Promise<void> {
    decodingCount++;
    try {
      if (images.some((image) => !decoded.has(image))) {
        const { decodeImage } = await import('./decodeImages');
        for (const image of images) if (!decoded.has(image)) decoded.set(image, await decodeImage(image));
      }
    } catch (error) {
      const { message } = error as Error;
      send({ kind: 'failed', message: `The images could not be decoded (${message}). Reload the page.` });
    }
    decodingCount--;
    // A later change may have other images.
    if (project.images !== images) return;
    input = { ...input, images: packImages(images.flatMap((image) => decoded.get(image) ?? [])) };
    schedule();
  }

  /** Sends the marks of panes where they changed. */
  function sendMarks(standing: StandingMarks): void {
    const changed = new Map([...standing].filter(([name, layers]) => sent.get(name) !== layers));
    sent = standing;
    // While both paint, the page waits for the answer to its last change.
    if (changed.size || input.isPainting) send({ kind: 'marks', count, marks: changed });
  }

  /** The time of the oldest change not yet on the screen, in milliseconds since 1970; null for none. */
  let askedAt: number | null = null;
  /** Measures how long the page waits for a picture, once the GPU has finished it. */
  function awaitSurfaces(): void {
    if (askedAt === null) return;
    if (surfaces?.ready === false) return host.requestFrame(awaitSurfaces);
    const now = performance.now();
    measure('change to picture', askedAt - performance.timeOrigin, now);
    askedAt = null;
  }

  let sentPanes = '';
  /** Sends the names of the panes on the canvases where they or the project changed. */
  function sendPanes(slots: Slots): void {
    const names = [...(slots.main ? ['main'] : []), ...slots.panes.map(({ name }) => name)];
    const { id } = project as Project;
    const panes = JSON.stringify([id, names]);
    if (panes !== sentPanes) send({ kind: 'panes', project: id, names });
    sentPanes = panes;
  }

  function draw(): void {
    if (!input.slots || !marks) return;
    const begun = performance.now();
    const { size, pixel, theme, isPainting, isSending, route, slots } = input as PicturesInput;
    const { scene, ground, pictures, layers, standing } = compose(project as Project, input as PicturesInput);
    const composed = performance.now();
    const isDrawn = surfaces?.draw(scene, ground, pictures, palettes[theme], size, pixel) ?? true;
    const submitted = performance.now();
    if (!isDrawn) schedule();
    else host.requestFrame(awaitSurfaces);

    const { canvas, context } = marks;
    const [width, height] = [Math.round(size.width * pixel), Math.round(size.height * pixel)];
    if (canvas.width !== width || canvas.height !== height) [canvas.width, canvas.height] = [width, height];
    context.setTransform(pixel, 0, 0, pixel, 0, 0);
    context.clearRect(0, 0, size.width, size.height);
    const sink = canvasSink(context);
    let isPainted = true;
    for (const layer of layers) if (!drawLayer(sink, layer, theme, (font) => loadedFonts.has(font))) isPainted = false;
    if (isSending) sendMarks(standing);
    if (isDrawn) sendPanes(slots);
    measure('compose', begun, composed);
    measure('submit', composed, submitted);
    measure('marks', submitted, performance.now());

    const hasTask = loadedTasks.has(route);
    if (!hasTask) void loadMarks(route).then(schedule);
    const isComplete = isDrawn && isPainted && hasTask && decodingCount === 0;
    // At once where the page waits to hide its own marks; otherwise when no change follows.
    clearTimeout(reporting);
    const at = count;
    const report = () => send({ kind: 'drawn', count: at, painted: isPainting && isComplete });
    if (isPainting && isComplete && !wasPainted) report();
    else if (isComplete) reporting = setTimeout(report, 30);
    wasPainted = isPainting && isComplete;
  }

  /** Writes a pane as a file. The pictures on the screen stay as they are. */
  async function save({ id, name, format }: ToPictures & { kind: 'save' }): Promise<void> {
    try {
      const pane = input.slots ? composePane(project as Project, input as PicturesInput, name) : null;
      if (!pane) throw new Error('There is no such picture on the screen.');
      await Promise.all(inkFonts.map(loadFont));
      const { savePane } = await import('./savedPane');
      send({ kind: 'saved', id, file: await savePane(pane, input.theme!, format, faces, host.createCanvas) });
    } catch (error) {
      send({ kind: 'notSaved', id, message: (error as Error).message });
    }
  }

  function begin(message: ToPictures & { kind: 'begin' }): void {
    const { pictures, marks: canvas } = message;
    try {
      surfaces = new Renderer(pictures, schedule, (text) => send({ kind: 'failed', message: text }));
    } catch {
      // The page's thread may have WebGL2 where a worker has none.
      if (!host.isPage) return send({ kind: 'noGpu' });
      surfaces = softwareSurfaces(pictures);
      send({ kind: 'reduced' });
    }
    const context = canvas.getContext('2d', { willReadFrequently: true }) as OffscreenCanvasRenderingContext2D;
    marks = { canvas, context };
    faces = message.faces;
    if (!host.isPage)
      for (const { family, source, descriptors } of faces) host.fonts.add(new FontFace(family, source, descriptors));
    for (const font of inkFonts) void loadFont(font);
  }

  return {
    receive: (message) => {
      switch (message.kind) {
        case 'begin':
          begin(message);
          break;
        case 'save':
          return void save(message);
        case 'prefetch':
          return void message.routes.reduce((last, route) => last.then(() => loadMarks(route)), Promise.resolve());
        case 'change': {
          const bodies = message.bodies && { bodies: bodiesAfter(project.bodies ?? [], message.bodies) };
          // The same object stays where nothing changed.
          if (bodies || Object.keys(message.project).length) project = { ...project, ...message.project, ...bodies };
          if (message.project.images) void takeImages(message.project.images);
          input = { ...input, ...message.input };
          count = message.count;
          askedAt ??= message.askedAt;
        }
      }
      schedule();
    },
  };
}
