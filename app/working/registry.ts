import type { WorkingTable } from './builder';
import type { WorkingBuilder } from './builder';

/** Where a number of a working is set. */
export interface Source {
  /** The task on whose sheet; null is the page's frame. */
  readonly task: string | null;
  /** What a link says that it leads to. */
  readonly says: string;
}

/** What a task gives: titles at once, the formulas when one is first opened. */
export interface TaskWorkings {
  readonly titles: Readonly<Record<string, string>>;
  readonly load: () => Promise<{ readonly workings: WorkingTable }>;
  /** By the name that the working's numbers carry and its field's `data-source` has. */
  readonly sources: Readonly<Record<string, string>>;
}

const house: TaskWorkings = {
  titles: { view: 'The view matrix’s last column', projection: 'The projection matrix’s entries' },
  load: () => import('./lines').then(({ houseWorkings }) => ({ workings: houseWorkings })),
  sources: {},
};

const houseSources: Readonly<Record<string, Source>> = {
  viewport: { task: null, says: 'the viewport' },
  conventions: { task: null, says: 'the conventions' },
  probe: { task: null, says: 'the probe' },
};

let registered: ReadonlyMap<string, TaskWorkings> = new Map([['', house]]);
let places: Readonly<Record<string, Source>> = houseSources;

/** Registers the workings of the tasks loaded so far. */
export function installWorkings(tasks: Readonly<Record<string, TaskWorkings>>): void {
  registered = new Map([['', house], ...Object.entries(tasks)]);
  places = {
    ...houseSources,
    ...Object.fromEntries(
      Object.entries(tasks).flatMap(([task, { sources }]) =>
        Object.entries(sources).map(([from, says]) => [from, { task, says }]),
      ),
    ),
  };
}

/** What a working is called. */
export const workingTitle = (name: string): string => owner(name).titles[name]!;

let loadSources: () => Promise<unknown> = () => Promise.resolve();
/** Registers what loads the sources of every task, since a working may link to a field of another task. */
export const installSourceLoading = (load: () => Promise<unknown>): void => void (loadSources = load);

/** The builder of a working, loaded when it is first asked for. */
export const workingBuilder = async (name: string): Promise<WorkingBuilder> => {
  const [{ workings }] = await Promise.all([owner(name).load(), loadSources()]);
  return workings[name]!;
};

/** Where a number that carries a name is set; undefined for one that nothing sets. */
export const sourceOf = (from: string): Source | undefined => places[from];
export const allSources = (): Readonly<Record<string, Source>> => places;
export const allWorkings = (): ReadonlyMap<string, TaskWorkings> => registered;

function owner(name: string): TaskWorkings {
  for (const one of registered.values()) if (name in one.titles) return one;
  throw new Error(`no working is called ${name}`);
}
