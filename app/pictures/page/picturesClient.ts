import { create } from 'zustand';
import type { Project } from '../../../formats/project';
import { useDocument } from '../../state/document';
import { useAnswers } from '../../state/answers';
import { useClock } from '../../state/clock';
import { isMoving, useMoving } from '../../state/pace';
import { usePointer } from '../../state/pointer';
import { useSelection } from '../../state/selection';
import { useSettings } from '../../state/settings';
import { seenIn } from '../../state/moment';
import { useTable } from '../../state/table';
import type { StandingMarks } from '../compose/compose';
import type { PicturesInput } from '../compose/picturesInput';
import type { Face } from '../render/fontFaces';
import type { SavedFile, SavedFormat } from '../render/savedPane';
import { bodiesChanged, type FromPictures, type ToPictures } from '../render/protocol';
import { warn } from '../../ui/notices';
import { isAlive, onWorkerEnd, workerEndText, type Alive } from '../../ui/worker';

/*
 * The page's end of the pictures: the two canvases that a worker draws on, and telling it what is
 * another than before. They outlive the component that shows them, so that another task has its
 * pictures at once.
 */

/** Why there are no pictures, if there are none. */
export const useFailure = create<{ readonly message: string | null }>(() => ({ message: null }));

/** The marks that the page sets, by the names of panes. */
export const useStandingMarks = create<{ readonly panes: StandingMarks }>(() => ({ panes: new Map() }));

/** The panes that are drawn, by name. The others show that they are coming. */
export const useDrawnPanes = create<{ readonly names: ReadonlySet<string> }>(() => ({ names: new Set() }));

/** What the page lays out; the rest of `Sight` follows from the stores. */
type Layout = Pick<
  PicturesInput,
  'size' | 'slots' | 'plan' | 'section' | 'outside' | 'theme' | 'route' | 'rested' | 'shown'
>;

const canvas = (className: string): HTMLCanvasElement =>
  Object.assign(document.createElement('canvas'), { className, ariaHidden: 'true' });

interface Canvases {
  readonly pictures: HTMLCanvasElement;
  readonly marks: HTMLCanvasElement;
  post(message: ToPictures, transfer?: Transferable[]): void;
}

let canvases: Canvases | null = null;
/** Where the canvases are shown, while they are. */
let host: HTMLElement | null = null;
let told: Partial<PicturesInput> & { project?: Project } = {};
let next: Partial<PicturesInput> = {};
let count = 0;
/** The last change that is on the canvases. */
let drawn = 0;
let waiting = false;
/** When the first change not yet sent was made, in milliseconds since 1970. */
let askedAt: number | null = null;

/**
 * Fetches the worker and has it make ready; called early, it does so while the page is still made.
 */
export function beginPictures(): Canvases | null {
  if (canvases || useFailure.getState().message) return canvases;
  if ('transferControlToOffscreen' in HTMLCanvasElement.prototype) paintInWorker();
  else {
    canvases = { pictures: canvas('pictures'), marks: canvas('painted'), post: () => undefined };
    void paintOnPage();
  }
  useDocument.subscribe(tell);
  usePointer.subscribe(({ css }) => show({ css }));
  useSelection.subscribe(({ ids }) => show({ selected: ids }));
  useTable.subscribe(({ table }) => show({ table: table?.points ?? null }));
  useSettings.subscribe(({ folds }) => show({ folds }));
  useMoving.subscribe((state, before) => {
    if (isMoving(state) !== isMoving(before)) (isMoving(state) ? takeUp : setDown)();
  });
  useClock.subscribe(({ time }) => show({ time }));
  useAnswers.subscribe(({ answers }) => show({ answers }));
  show({
    css: usePointer.getState().css,
    selected: useSelection.getState().ids,
    table: useTable.getState().table?.points ?? null,
    folds: useSettings.getState().folds,
    time: useClock.getState().time,
    answers: useAnswers.getState().answers,
    isPainting: isMoving(),
    isSending: !isMoving(),
  });
  return canvases;
}

const post = (message: ToPictures, transfer: Transferable[] = []): void => canvases!.post(message, transfer);

/** Runs the painter in a worker, and on the page's thread where workers have no WebGL2. */
function paintInWorker(): void {
  const worker = new Worker(new URL('../../workers/pictures.ts', import.meta.url), { type: 'module' });
  const [pictures, marks] = [canvas('pictures'), canvas('painted')];
  canvases = { pictures, marks, post: (message, transfer = []) => worker.postMessage(message, transfer) };
  worker.addEventListener('message', ({ data }: MessageEvent<FromPictures | Alive>) => {
    if (isAlive(data)) return;
    if (data.kind === 'noGpu') {
      worker.terminate();
      void paintOnPage();
    } else hear(data);
  });
  onWorkerEnd(worker, (why) => fail(workerEndText('Drawing the pictures', why)));
  const transferred = [pictures.transferControlToOffscreen(), marks.transferControlToOffscreen()] as const;
  post({ kind: 'begin', pictures: transferred[0], marks: transferred[1], faces: pageFaces() }, [...transferred]);
}

/** Loads the marks of a task into this thread. */
type LoadTask = (route: string) => Promise<void>;
let loadTask: LoadTask = () => Promise.resolve();
/** Registers how the marks of tasks are loaded: once, when the page starts. */
export const installMarksLoading = (load: LoadTask): void => void (loadTask = load);

/** Runs the painter on the page's thread, with new canvases: for browsers whose workers have no WebGL2. */
async function paintOnPage(): Promise<void> {
  const last = canvases!;
  const [pictures, marks] = [canvas('pictures'), canvas('painted')];
  try {
    const { createPainter } = await import('../render/painter');
    const painter = createPainter({
      ...{ isPage: true, fonts: document.fonts, send: hear, loadTask },
      requestFrame: (draw) => requestAnimationFrame(draw),
      createCanvas: () => document.createElement('canvas'),
    });
    canvases = { pictures, marks, post: painter.receive };
  } catch (error) {
    return fail(`The pictures could not be loaded (${(error as Error).message}). Reload the page.`);
  }
  for (const [now, before] of [
    [pictures, last.pictures],
    [marks, last.marks],
  ] as const) {
    // prettier-ignore
    now.style.cssText = before.style.cssText;
    before.replaceWith(now);
  }
  post({ kind: 'begin', pictures, marks, faces: pageFaces() });
  // The new painter knows nothing yet.
  const { project: _, ...input } = told;
  [told, next] = [{}, { ...input, ...next }];
  tell();
}

/** Has the painter load the marks of tasks before they are opened. */
export const prefetchMarks = (routes: readonly string[]): void => {
  if (canvases) post({ kind: 'prefetch', routes });
};

/**
 * Shows the canvases in an element, whose pictures they are from now on. Gives what takes them
 * away.
 */
export function showIn(element: HTMLElement): () => void {
  host = element;
  const made = beginPictures();
  if (made) element.prepend(made.pictures, made.marks);
  tell();
  return () => {
    if (host === element) host = null;
  };
}

/** Says how the pictures are laid out. */
export function layOutPictures(layout: Layout): void {
  if (canvases) {
    const { width, height } = layout.size;
    for (const one of [canvases.pictures, canvases.marks])
      Object.assign(one.style, { width: `${width}px`, height: `${height}px` });
  }
  show(layout);
}

/** Has something shown otherwise: all that changes in one go is told in one message. */
function show(part: Partial<PicturesInput>): void {
  Object.assign(next, part);
  tell();
}

function tell(): void {
  if (waiting) return;
  waiting = true;
  askedAt ??= performance.timeOrigin + performance.now();
  queueMicrotask(() => {
    waiting = false;
    flush();
  });
}

/** What of an object is another than in the last one told. */
function changed<T extends object>(last: Partial<T>, now: Partial<T>): Partial<T> {
  const keys = new Set([...Object.keys(last), ...Object.keys(now)] as (keyof T)[]);
  return Object.fromEntries(
    [...keys].filter((key) => last[key] !== now[key]).map((key) => [key, now[key]]),
  ) as Partial<T>;
}

function flush(): void {
  const { project } = useDocument.getState();
  if (!canvases || !host || !project) return settle();
  const { project: before, ...last } = told;
  const seen = seenIn(project);
  const now: Partial<PicturesInput> = {
    ...last,
    ...next,
    seen: seen.problems.length ? seen : null,
    // Another where the window has gone to another screen, which nothing tells.
    pixel: window.devicePixelRatio || 1,
  };
  if (!now.slots) return;
  next = {};
  const { bodies: bodiesBefore = [], ...partsBefore } = before ?? {};
  const { bodies, ...parts } = project;
  const message = {
    project: changed<Omit<Project, 'bodies'>>(partsBefore, parts),
    bodies: before?.bodies === bodies ? null : bodiesChanged(bodiesBefore, bodies),
    input: changed<PicturesInput>(last, now),
  };
  told = { ...now, project };
  if (before && before.id !== project.id) useDrawnPanes.setState({ names: new Set() });
  if (Object.keys(message.project).length || message.bodies || Object.keys(message.input).length)
    post({
      kind: 'change',
      count: ++count,
      askedAt: askedAt ?? performance.timeOrigin + performance.now(),
      ...message,
    });
  askedAt = null;
  settle();
}

/** Panes asked for as files, until they come. */
const saves = new Map<number, { done(file: SavedFile): void; failed(error: Error): void }>();
let saveCount = 0;

/** Returns a pane of the current pictures as a file. Rejects where it is not on the screen or is no picture. */
export function savedPane(name: string, format: SavedFormat): Promise<SavedFile> {
  flush();
  if (!canvases) return Promise.reject(new Error('There are no pictures.'));
  return new Promise((done, failed) => {
    saves.set(++saveCount, { done, failed });
    post({ kind: 'save', id: saveCount, name, format });
  });
}

/** Says in the page whether the pictures are what they are to be. */
function settle(): void {
  const busy =
    !useFailure.getState().message && (drawn < Math.max(1, count) || waiting || handover !== null || isHandingOver);
  if (host && host.ariaBusy !== String(busy)) host.ariaBusy = String(busy);
}

function fail(message: string | null): void {
  useFailure.setState({ message });
  settle();
}

function hear(data: FromPictures): void {
  if (data.kind === 'failed') fail(data.message);
  else if (data.kind === 'noGpu') return;
  else if (data.kind === 'reduced')
    warn('This browser has no WebGL2. Surfaces are drawn in software, at half the resolution.');
  else if (data.kind === 'marks') receiveMarks(data);
  else if (data.kind === 'panes') {
    if (data.project === useDocument.getState().project?.id) useDrawnPanes.setState({ names: new Set(data.names) });
  } else if (data.kind === 'saved' || data.kind === 'notSaved') {
    const save = saves.get(data.id);
    saves.delete(data.id);
    if (data.kind === 'saved') save?.done(data.file);
    else save?.failed(new Error(data.message));
  } else {
    drawn = data.count;
    // What is set in the page is put away once it is painted.
    if (data.painted && host && isMoving()) host.dataset.painted = '';
    settle();
  }
}

/**
 * A drag begins: the painter paints the marks. Where it still does from the last drag, the page hides its own
 * at once.
 */
function takeUp(): void {
  handover = null;
  if (host && told.isPainting) host.dataset.painted = '';
  show({ isPainting: true, isSending: false });
}

/** The change after which the page has the marks of the end of a drag; null while none is awaited. */
let handover: number | null = null;

/** A drag ended: the page sets its marks again, and the painter stops painting when they are on the screen. */
function setDown(): void {
  show({ isSending: true });
  flush();
  handover = count;
  settle();
}

/** Shows the marks that the painter sent. */
function receiveMarks({ count: upTo, marks }: FromPictures & { kind: 'marks' }): void {
  if (marks.size) useStandingMarks.setState(({ panes }) => ({ panes: new Map([...panes, ...marks]) }));
  if (handover === null || upTo < handover) return;
  handover = null;
  if (host) delete host.dataset.painted;
  isHandingOver = true;
  requestAnimationFrame(() =>
    requestAnimationFrame(() => {
      isHandingOver = false;
      if (!isMoving()) show({ isPainting: false });
      settle();
    }),
  );
}
let isHandingOver = false;

/** Returns the typefaces that the page's style sheets declare, with complete addresses. */
export function pageFaces(): Face[] {
  return [...document.styleSheets].flatMap((sheet) =>
    rulesOf(sheet).flatMap((rule): Face[] => {
      if (!(rule instanceof CSSFontFaceRule)) return [];
      const value = (name: string) => rule.style.getPropertyValue(name);
      const base = sheet.href ?? document.baseURI;
      const source = value('src').replace(
        /url\("?([^")]+)"?\)/g,
        (_, url: string) => `url("${new URL(url, base).href}")`,
      );
      const range = value('unicode-range');
      const descriptors = { weight: value('font-weight') || 'normal', style: value('font-style') || 'normal', ...(range && { unicodeRange: range }) }; // prettier-ignore
      return [{ family: value('font-family').replace(/^["']|["']$/g, ''), source, descriptors }];
    }),
  );
}

function rulesOf(sheet: CSSStyleSheet): CSSRule[] {
  try {
    return [...sheet.cssRules];
  } catch {
    // One from elsewhere, put into the page by the browser's extensions, is not to be read.
    return [];
  }
}
