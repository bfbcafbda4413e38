import { create } from 'zustand';
import { saltmarrow } from '../../demo/saltmarrow';
import type { PointData } from '../../formats/pointSets';
import { readProject, type Project } from '../../formats/project';
import { leftBehind, live, newId, note, strike, type Unkept } from './crashLog';
import { openProject, replaceProject, restoreSteps, useDocument } from './document';
import { isKnownToFail, leaving, opening } from './shown';
import type { Kept, Shelf, Version } from './projectRecords';
import { useSettings } from './settings';
import { findShelf, forgetfulShelf, isFirstVisit } from './projectStore';

/**
 * Whether what is on the screen is on the shelf. `failed` and `conflict` carry the sentence to
 * show; `lack` is what was found wanting when the page was opened, to be shown until it has been
 * read.
 */
export const useKeeping = create<{
  state: 'kept' | 'unsaved' | 'failed' | 'conflict';
  message: string | null;
  lack: string | null;
}>(() => ({ state: 'kept', message: null, lack: null }));

const pause = 250;
/**
 * During a gesture changes come faster than they are worth writing down one by one: then a few
 * times a second, however long it lasts; a killed tab is to lose no more than the last second, on a
 * slow machine too. What is noted has time.
 */
const heldPause = { noted: 800, otherwise: 350 };
/** How soon to try again when the shelf would not take it. */
const again = 5000;
let timer: ReturnType<typeof setTimeout> | undefined;
/** When that timer is due, by `performance.now()`. */
let due = 0;

/**
 * Writes the open project down in so many milliseconds, or earlier where that is waited for
 * already: a change never puts off the writing of the one before.
 */
function keepIn(milliseconds: number): void {
  const then = performance.now() + milliseconds;
  if (timer !== undefined && due <= then) return;
  clearTimeout(timer);
  due = then;
  timer = setTimeout(() => {
    timer = undefined;
    const { project } = useDocument.getState();
    if (project) void keep(project);
  }, milliseconds);
}

let shelf: Shelf = forgetfulShelf();
/** Why what is kept goes with the page, where it does. */
let forgets: string | null = null;
const setKept = () => {
  strike();
  // A state that is come back to is noted again.
  noted = { ...noted, project: null };
  useKeeping.setState(forgets ? { state: 'failed', message: forgets } : { state: 'kept', message: null });
};
/** The revision that this tab has seen last, of each project that it has shown. */
const seen = new Map<string, number>();
/** What the other tab has written, while it is open which of the two is to be taken. */
let theirs: Kept | null = null;

/** To the other tabs, once this one has begun to keep. */
let other: BroadcastChannel | null = null;
/** Told when what lies on the shelf has changed, here or in another tab. */
const listeners = new Set<() => void>();
export function onShelf(listener: () => void): () => void {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}
const tell = () => listeners.forEach((listener) => listener());

const whyOf = (error: unknown): string =>
  error instanceof Error
    ? error.name === 'QuotaExceededError' || error.message.includes('QuotaExceeded')
      ? 'its store is full'
      : error.message.split('\n')[0]!
    : String(error);

/** One writing after another: each goes on from the revision that the one before has made. */
let writing: Promise<void> = Promise.resolve();
const keep = (project: Project): Promise<void> => {
  noteDown(project);
  return (writing = writing.then(() => writeDown(project)));
};

/** How soon after one change the next is noted: a note takes a part of a frame. */
const noteEvery = 200;
/**
 * What was last to be noted and has not been struck since, when, and whether there was room for it.
 */
let noted: { readonly project: Project | null; readonly at: number; readonly done: boolean } = {
  project: null,
  at: -Infinity,
  done: false,
};
/** Notes a state at once, which the shelf is yet to have. */
function noteDown(project: Project): void {
  if (noted.project === project) return;
  noted = { project, at: performance.now(), done: note(project, seen.get(project.id) ?? null) };
}

async function writeDown(project: Project): Promise<void> {
  if (theirs && theirs.id === project.id) return;
  try {
    const written = await shelf.write(project, seen.get(project.id) ?? null);
    if (!written.ok) {
      theirs = written.theirs;
      // Whatever is decided, and even if the page is closed on it: what stands here is a version to
      // go back to.
      await shelf.keepVersion({
        of: project.id,
        at: Date.now(),
        name: 'Mine, when another tab had changed it',
        project,
      });
      useKeeping.setState({
        state: 'conflict',
        message:
          'Another tab has changed this project since you opened it here. Yours is kept as a version; say which is to go on.',
      });
      tell();
      return;
    }
    seen.set(project.id, written.revision);
    other?.postMessage({ id: project.id, revision: written.revision });
    if (useDocument.getState().project === project) {
      if (await keepUnkept()) setKept();
      else keepIn(again);
      keepHistorySoon();
    }
    tell();
  } catch (error) {
    useKeeping.setState({
      state: 'failed',
      message: `The browser did not keep the last change: ${whyOf(error)}. Save the project as a file before you close this page.`,
    });
    // The store may have room again later.
    keepIn(again);
  }
}

/** The most steps that are kept past the visit. */
const mostSteps = 100;
/** How long after the last writing: steps are many states, and can wait. */
const historyPause = 1500;
/** Above so many vertices the steps wait until the page is left: to copy them would be felt. */
const heavy = 50_000;
let historyTimer: ReturnType<typeof setTimeout> | undefined;
/** The project whose steps are stored, with the revision that they are stored for. */
let historyOf: { readonly project: Project; readonly revision: number } | null = null;
/** The id of a project whose stored steps are being read: until they are here, none are written over them. */
let bringing: string | null = null;

function keepHistorySoon(): void {
  clearTimeout(historyTimer);
  historyTimer = setTimeout(() => {
    const { project, gesture } = useDocument.getState();
    const vertices = project?.bodies.reduce(
      (sum, { shape }) => sum + (shape.kind === 'mesh' ? shape.positions.length / 3 : 8),
      0,
    );
    if (gesture !== null) keepHistorySoon();
    else if (vertices! < heavy) keepHistory();
  }, historyPause);
}

/** Keeps the steps that lead to the open project, which is on the shelf. */
function keepHistory(): void {
  clearTimeout(historyTimer);
  const { project, past, future } = useDocument.getState();
  if (!project || bringing === project.id) return;
  const revision = seen.get(project.id);
  if (revision === undefined || (historyOf?.project === project && historyOf.revision === revision)) return;
  historyOf = { project, revision };
  const steps = { past: past.slice(-mostSteps), future: future.slice(-mostSteps) };
  const ids = new Set([...steps.past.map(({ before }) => before.id), ...steps.future.map(({ after }) => after.id)]);
  const others = [...ids].flatMap((id) => (id !== project.id && seen.has(id) ? [[id, seen.get(id)!] as const] : []));
  // A store without room has said so for the project itself.
  shelf.keepHistory({ of: project.id, revision, project, ...steps, others }).catch(() => undefined);
}

/** Brings back the steps of the last visit to the open project. */
async function bringHistory(project: Project): Promise<void> {
  const { id } = project;
  bringing = id;
  const revision = seen.get(id);
  const history = await shelf.history(id).catch(() => undefined);
  if (bringing === id) bringing = null;
  if (!history || useDocument.getState().project?.id !== id) return;
  for (const [other, theirRevision] of history.others) if (!seen.has(other)) seen.set(other, theirRevision);
  // What was written later, by a tab that was killed or another one, is one step more.
  const since = history.revision === revision ? [] : [{ name: 'what was done since', before: history.project }];
  restoreSteps([...history.past, ...since], since.length ? [] : history.future);
}

/**
 * Goes on with what the other tab has written; what stood here can be had by undo, and as a
 * version.
 */
export function takeTheirs(): void {
  const kept = theirs;
  if (!kept) return;
  const read = readProject(kept.project);
  theirs = null;
  if (!read.ok) return keepMine();
  seen.set(kept.id, kept.revision);
  replaceProject('take the other tab’s changes', read.project);
  setKept();
}

/** Goes on with what stands here as a project of its own; the other tab's stays as it is. */
export function keepMine(): void {
  theirs = null;
  const { project } = useDocument.getState();
  if (!project) return;
  replaceProject('go on as a copy', { ...project, id: newId(), name: `${project.name}, copy` });
}

/**
 * Puts on the shelf what a killed tab had noted but not kept; where another tab has gone on since,
 * as a version.
 */
async function takeNotes(notes: readonly Unkept[]): Promise<void> {
  for (const { by, revision, at, project: given } of notes) {
    const read = readProject(given);
    try {
      if (read.ok) {
        const { project } = read;
        const row = await shelf.read(project.id);
        // What a tab notes is never older than what it writes.
        if (!row || row.revision === revision || row.by === by) await shelf.write(project, row?.revision ?? null);
        else await shelf.keepVersion({ of: project.id, at, name: 'Not yet kept when its tab was gone', project });
      }
      strike(by);
    } catch {
      // A shelf without room: the note stays for another time, and what the shelf has can be opened
      // all the same.
    }
  }
}

/** Opens a project; that it is shown is for the page to say (`wasShown`). */
function show(project: Project): void {
  opening(project.id);
  openProject(project);
}

/**
 * Opens the project that was last worked on, or the demo; then keeps every change a moment after it
 * is made.
 */
export async function openShelf(): Promise<void> {
  // Asked for at once: each takes its time to answer.
  const notes = leftBehind();
  // Asked before the database is opened, which creates it.
  const isFirst = isFirstVisit();
  const finding = isFirst.then(findShelf);
  live();
  // Made while the database is opened.
  let project = saltmarrow();
  const unkept = await notes;
  // Nothing can be stored yet, so the demo is what will be shown: it need not wait for the database.
  const first = !unkept.length && (await isFirst);
  if (first) {
    useSettings.setState({ isWelcome: true });
    show(project);
  }
  const found = await finding;
  shelf = found.shelf;
  if (found.forgets) forgets = found.missing;
  else useKeeping.setState({ lack: found.missing });
  /** Whether something kept was passed over, which may be of the demo's own id. */
  let passedOver = false;
  try {
    await takeNotes(unkept);
    for (const last of await shelf.list()) {
      if (last.savedAt === 0) continue;
      if (isKnownToFail(last.id)) {
        passedOver = true;
        useKeeping.setState({
          lack: `“${last.name}” could not be shown when it was last opened. It is kept unchanged under All projects, and another is open instead.`,
        });
        continue;
      }
      const read = readProject(last.project);
      if (read.ok) {
        project = read.project;
        seen.set(project.id, last.revision);
        break;
      }
      // What cannot be read is set aside under another name rather than written over.
      await shelf.put({ ...last, id: `${last.id} (unread ${last.savedAt})`, name: `${last.name}, unread`, savedAt: 0 });
      await shelf.remove(last.id);
      useKeeping.setState({
        lack: `A kept project could not be read: ${read.problems[0]!.message} It is set aside unchanged, and another is open instead.`,
      });
    }
  } catch (error) {
    passedOver = true;
    useKeeping.setState({
      lack: `The projects kept in this browser could not be looked through: ${whyOf(error)}. They are left as they are.`,
    });
  }
  // A new demo is never written over one that somebody has worked on.
  if (passedOver && !seen.has(project.id)) project = saltmarrow(newId());
  if (!first || passedOver || seen.has(project.id)) show(project);
  void bringHistory(project);
  other = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('astrolabe');
  useDocument.subscribe(({ project: now, gesture }, { project: before }) => {
    if (!now || now === before) return;
    // A project that gives way to another is written before it is out of sight.
    if (before && before.id !== now.id && useKeeping.getState().state === 'unsaved') void keep(before);
    if (useKeeping.getState().state === 'kept') useKeeping.setState({ state: 'unsaved' });
    if (performance.now() - noted.at > noteEvery) noteDown(now);
    keepIn(gesture === null ? pause : heldPause[noted.done ? 'noted' : 'otherwise']);
  });
  // Not while the page begins.
  setTimeout(() => void shelf.sweepPoints().catch(() => undefined), 20_000);
  // On the first visit: what is open stands in the list of projects before anything is changed.
  if (!seen.has(project.id)) void keep(useDocument.getState().project!);
  else setKept();
  other?.addEventListener('message', ({ data }: MessageEvent<{ id: string; revision: number }>) => void heard(data));
  window.addEventListener('pagehide', flush);
  window.addEventListener('pagehide', leaving);
  document.addEventListener('visibilitychange', () => document.visibilityState === 'hidden' && flush());
  window.addEventListener('beforeunload', (event) => {
    // Asked only where something would be lost: a moment's writing is under way by itself.
    const { state } = useKeeping.getState();
    if (state === 'failed' || state === 'conflict') event.preventDefault();
  });
}

/** Another tab has written: with nothing of its own under way, this one goes along. */
async function heard({ id, revision }: { id: string; revision: number }): Promise<void> {
  tell();
  const { project } = useDocument.getState();
  if (project?.id !== id || useKeeping.getState().state !== 'kept' || revision <= (seen.get(id) ?? 0)) return;
  const kept = await shelf.read(id);
  const read = kept && readProject(kept.project);
  // In the meantime something may have been done here.
  if (!read?.ok || useDocument.getState().project !== project) return;
  seen.set(id, kept!.revision);
  replaceProject('changes made in another tab', read.project);
  clearTimeout(timer);
  timer = undefined;
  setKept();
}

/** Writes what is waiting at once. */
export function flush(): void {
  const { project } = useDocument.getState();
  if (!project) return;
  if (useKeeping.getState().state === 'kept') return keepHistory();
  clearTimeout(timer);
  timer = undefined;
  void keep(project).then(keepHistory);
}

/* The shelf as the page of projects sees it. */

export const keptProjects = (): Promise<Kept[]> => shelf.list();
export const versionsOf = (id: string): Promise<Version[]> => shelf.versions(id);

/** Keeps the open project, as it is now, to be gone back to. */
export async function keepVersion(name: string): Promise<void> {
  const { project } = useDocument.getState();
  if (!project) return;
  try {
    await shelf.keepVersion({ of: project.id, at: Date.now(), name, project });
    tell();
  } catch {
    // A version that finds no room is no reason to hold up what it was kept for.
  }
}

/**
 * Opens another kept project; the open one is on the shelf already, or goes there now. Null, or why
 * it cannot be opened.
 */
export async function openKept(id: string): Promise<string | null> {
  flush();
  const kept = await shelf.read(id);
  if (!kept) return 'It is no longer there: another tab may have deleted it.';
  const read = readProject(kept.project);
  if (!read.ok) return read.problems[0]!.message;
  seen.set(id, kept.revision);
  show(read.project);
  void bringHistory(read.project);
  await shelf.put({ ...kept, savedAt: await shelf.laterTime() });
  setKept();
  tell();
  return null;
}

/** Puts a new project on the shelf and opens it. */
export async function openNew(project: Project): Promise<void> {
  flush();
  show(project);
  useKeeping.setState({ state: 'unsaved', message: null });
  await keep(project);
}

export async function renameKept(id: string, name: string): Promise<void> {
  const { project } = useDocument.getState();
  const kept = await shelf.read(id);
  if (project?.id === id || !kept) return;
  await shelf.put({ ...kept, name, revision: kept.revision + 1, project: { ...(kept.project as object), name } });
  other?.postMessage({ id, revision: kept.revision + 1 });
  tell();
}

export async function duplicateKept(id: string): Promise<void> {
  flush();
  const kept = await shelf.read(id);
  if (!kept) return;
  const copy = newId();
  const name = `${kept.name}, copy`;
  await shelf.put({ ...kept, id: copy, name, revision: 1, savedAt: kept.savedAt - 1, project: { ...(kept.project as object), id: copy, name } }); // prettier-ignore
  tell();
}

/** Takes a project off the shelf, and gives what puts it back. The open one cannot be taken. */
export async function deleteKept(id: string): Promise<(() => Promise<void>) | null> {
  const kept = await shelf.read(id);
  if (!kept || useDocument.getState().project?.id === id) return null;
  await shelf.remove(id);
  tell();
  return async () => {
    await shelf.put(kept);
    tell();
  };
}

export const keptPoints = (key: string): Promise<PointData | undefined> => shelf.points(key);

/** Points that the shelf had no room for; tried again with every writing. */
const unkept = new Map<string, PointData>();

/** Keeps points that a set of a project names; says so where there is no room for them. */
export async function keepPoints(key: string, points: PointData): Promise<void> {
  unkept.set(key, points);
  if (!(await keepUnkept())) keepIn(again);
}

/** Whether all points are kept that are to be; where they are not it is said. */
async function keepUnkept(): Promise<boolean> {
  for (const [key, points] of unkept) {
    try {
      await shelf.keepPoints(key, points);
      unkept.delete(key);
    } catch (error) {
      useKeeping.setState({
        state: 'failed',
        message: `The points are here, but the browser did not keep them: ${whyOf(error)}. Save the project as a file, which has them.`,
      });
      return false;
    }
  }
  return true;
}
