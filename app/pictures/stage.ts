import { create } from 'zustand';
import type { Project } from '../../formats/project';
import { useDocument } from '../state/document';
import { useMoving } from '../state/pace';
import { usePointer } from '../state/pointer';
import { useSelection } from '../state/selection';
import { useSettings } from '../state/settings';
import { seenIn } from '../state/situation';
import { useTable } from '../state/table';
import type { Face, FromPictures, ToPictures } from '../workers/pictures';
import type { Sight } from './compose';
import { readInk } from './ink';

/*
 * The page's end of the pictures: the two canvases that a worker draws on, and telling it what is another than before. They outlive the component that shows them, so that
 * another task has its pictures at once.
 */

/** Why there are no pictures, if there are none. */
export const useFailure = create<{ readonly message: string | null }>(() => ({ message: null }));

/** What the page lays out; the rest of `Sight` follows from the stores. */
type Layout = Pick<Sight, 'size' | 'slots' | 'plan' | 'section' | 'corner' | 'theme' | 'palette' | 'route' | 'rested'>;

const canvas = (className: string): HTMLCanvasElement =>
  Object.assign(document.createElement('canvas'), { className, ariaHidden: 'true' });

interface Stage {
  readonly worker: Worker;
  readonly pictures: HTMLCanvasElement;
  readonly marks: HTMLCanvasElement;
}

let stage: Stage | null = null;
/** Where the canvases are shown, while they are. */
let host: HTMLElement | null = null;
let told: Partial<Sight> & { project?: Project } = {};
let next: Partial<Sight> = {};
let count = 0;
/** The last change that is on the canvases. */
let drawn = 0;
let waiting = false;

/** Fetches the worker and has it make ready; called early, it does so while the page is still made. */
export function beginPictures(): Stage | null {
  if (stage || useFailure.getState().message) return stage;
  if (!('transferControlToOffscreen' in HTMLCanvasElement.prototype)) {
    useFailure.setState({ message: 'This browser does not draw off the page (OffscreenCanvas). A newer one does.' });
    return null;
  }
  const worker = new Worker(new URL('../workers/pictures.ts', import.meta.url), { type: 'module' });
  stage = { worker, pictures: canvas('pictures'), marks: canvas('painted') };
  worker.addEventListener('message', ({ data }: MessageEvent<FromPictures>) => hear(data));
  worker.addEventListener('error', ({ message }) => fail(message || 'What draws them could not be fetched.'));
  const [pictures, marks] = [stage.pictures.transferControlToOffscreen(), stage.marks.transferControlToOffscreen()];
  post({ kind: 'begin', pictures, marks, faces: facesOf(document.styleSheets) }, [pictures, marks]);
  useDocument.subscribe(tell);
  usePointer.subscribe(({ css }) => show({ css }));
  useSelection.subscribe(({ ids }) => show({ selected: ids }));
  useTable.subscribe(({ table }) => show({ table: table?.points ?? null }));
  useSettings.subscribe(({ folds }) => show({ folds }));
  useMoving.subscribe(({ held }) => (held ? takeUp() : setDown()));
  show({
    css: usePointer.getState().css,
    selected: useSelection.getState().ids,
    table: useTable.getState().table?.points ?? null,
    folds: useSettings.getState().folds,
    painting: false,
  });
  return stage;
}

const post = (message: ToPictures, transfer: Transferable[] = []): void => stage!.worker.postMessage(message, transfer);

/** Shows the canvases in an element, whose pictures they are from now on. Gives what takes them away. */
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
  if (stage) {
    const { width, height } = layout.size;
    for (const one of [stage.pictures, stage.marks])
      Object.assign(one.style, { width: `${width}px`, height: `${height}px` });
  }
  show(layout);
}

/** Has something shown otherwise: all that changes in one go is told in one message. */
function show(part: Partial<Sight>): void {
  Object.assign(next, part);
  tell();
}

function tell(): void {
  if (waiting) return;
  waiting = true;
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
  if (!stage || !host || !project) return settle();
  const { project: before, ...last } = told;
  const seen = seenIn(project);
  const now: Partial<Sight> = {
    ...last,
    ...next,
    seen: seen.problems.length ? seen : null,
    // Another where the window has gone to another screen, which nothing tells.
    pixel: window.devicePixelRatio || 1,
  };
  if (!now.slots) return;
  next = {};
  const message = { project: changed<Project>(before ?? {}, project), sight: changed<Sight>(last, now) };
  told = { ...now, project };
  if (Object.keys(message.project).length || Object.keys(message.sight).length)
    post({ kind: 'change', count: ++count, ...message });
  settle();
}

/** Says in the page whether the pictures are what they are to be. */
function settle(): void {
  const busy = !useFailure.getState().message && (drawn < Math.max(1, count) || waiting || settingDown > 0);
  if (host && host.ariaBusy !== String(busy)) host.ariaBusy = String(busy);
}

function fail(message: string): void {
  useFailure.setState({ message });
  settle();
}

function hear(data: FromPictures): void {
  if (data.kind === 'failed') fail(data.message);
  else if (data.kind === 'ask') {
    // The theme may have been changed in the meantime: then the new one's are asked for anew.
    if (data.theme === document.documentElement.dataset.theme)
      post({ kind: 'inks', theme: data.theme, inks: data.names.map((name) => [name, readInk(name)] as const) });
  } else {
    drawn = data.count;
    // What is set in the page is put away once it is painted.
    if (data.painted && host && useMoving.getState().held) host.dataset.painted = '';
    settle();
  }
}

/** The hand moves something: the marks are painted. Where they still are from before, those set in the page go at once. */
function takeUp(): void {
  if (host && told.painting) host.dataset.painted = '';
  show({ painting: true });
}

/** Counts the times that the hand has let go since what was painted last stood alone. */
let settingDown = 0;

/** The hand has let go: what is set in the page comes back, and then, when it is on the screen, what was painted goes. */
function setDown(): void {
  if (host) delete host.dataset.painted;
  const asked = ++settingDown;
  settle();
  requestAnimationFrame(() =>
    requestAnimationFrame(() => {
      if (asked !== settingDown) return;
      settingDown = 0;
      if (!useMoving.getState().held) show({ painting: false });
      settle();
    }),
  );
}

/** The faces that the page's style sheets declare, for letters that are painted off it. */
function facesOf(sheets: StyleSheetList): Face[] {
  return [...sheets].flatMap((sheet) =>
    rulesOf(sheet).flatMap((rule): Face[] => {
      if (!(rule instanceof CSSFontFaceRule)) return [];
      const value = (name: string) => rule.style.getPropertyValue(name);
      const base = sheet.href ?? document.baseURI;
      const source = value('src').replace(
        /url\("?([^")]+)"?\)/g,
        (_, url: string) => `url("${new URL(url, base).href}")`,
      );
      const descriptors = { weight: value('font-weight') || 'normal', style: value('font-style') || 'normal' };
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
