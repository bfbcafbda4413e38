import Dexie, { type EntityTable } from 'dexie';
import { readProject, type Project } from '../../formats/project';
import { saltmarrow } from '../../demo/saltmarrow';
import { create } from 'zustand';
import { openProject, useDocument } from './document';

interface Kept {
  readonly id: string;
  readonly savedAt: number;
  readonly project: unknown;
}

class Shelf extends Dexie {
  declare projects: EntityTable<Kept, 'id'>;
  constructor() {
    super('astrolabe');
    this.version(1).stores({ projects: 'id, savedAt' });
  }
}

const shelf = new Shelf();

/** Whether what is on the screen is on the shelf. `failed` carries the sentence to show. */
export const useKeeping = create<{ state: 'kept' | 'unsaved' | 'failed'; message: string | null }>(() => ({
  state: 'kept',
  message: null,
}));

const pause = 250;
/** During a gesture changes come faster than they are worth writing down one by one: then once a second, however long it lasts. */
const heldPause = 900;
let timer: ReturnType<typeof setTimeout> | undefined;

async function keep(project: Project): Promise<void> {
  try {
    await shelf.projects.put({ id: project.id, savedAt: Date.now(), project });
    if (useDocument.getState().project === project) useKeeping.setState({ state: 'kept', message: null });
  } catch (error) {
    useKeeping.setState({
      state: 'failed',
      message: `The browser did not keep the last change (${(error as Error).message}). Save the project as a file before you close this page.`,
    });
  }
}

/** Opens the project that was last worked on, or the demo; then keeps every change a moment after it is made. */
export async function openShelf(): Promise<void> {
  let project = saltmarrow();
  try {
    const last = await shelf.projects.orderBy('savedAt').last();
    if (last) {
      const read = readProject(last.project);
      if (read.ok) project = read.project;
      else {
        // What cannot be read is set aside under another name rather than written over.
        await shelf.projects.put({ ...last, id: `${last.id} (unread ${last.savedAt})`, savedAt: 0 });
        useKeeping.setState({
          state: 'failed',
          message: `The kept project could not be read: ${read.problems[0]!.message} It is set aside unchanged, and the demo is open instead.`,
        });
      }
    }
  } catch (error) {
    useKeeping.setState({
      state: 'failed',
      message: `This browser keeps no projects here (${(error as Error).message}). Save yours as a file before you close this page.`,
    });
  }
  openProject(project);
  useDocument.subscribe(({ project: now, gesture }, { project: before }) => {
    if (!now || now === before) return;
    if (useKeeping.getState().state === 'kept') useKeeping.setState({ state: 'unsaved' });
    // A gesture that goes on does not put off what is already going to be kept.
    if (timer !== undefined && gesture !== null) return;
    clearTimeout(timer);
    timer = setTimeout(
      () => {
        timer = undefined;
        void keep(useDocument.getState().project ?? now);
      },
      gesture === null ? pause : heldPause,
    );
  });
  window.addEventListener('pagehide', flush);
  document.addEventListener('visibilitychange', () => document.visibilityState === 'hidden' && flush());
}

/** Writes what is waiting at once. */
function flush(): void {
  const { project } = useDocument.getState();
  if (!project || useKeeping.getState().state === 'kept') return;
  clearTimeout(timer);
  timer = undefined;
  void keep(project);
}
