import type { Remote } from 'comlink';
import { create } from 'zustand';
import { outsideBit } from '../../core/kernels/points';
import type { CameraFrame } from '../../core/camera/frame';
import type { Conventions } from '../../core/conventions/conventions';
import type { Problem } from '../../core/reasons';
import type { PointData, PointSet } from '../../formats/pointSets';
import { readingWords, type Column, type Reading } from '../../formats/pointColumns';
import { currentMoment } from './tempo';
import { momentOf } from './moment';
import { complain } from '../ui/notices';
import { workerEnd, workerEndText } from '../ui/worker';
import { edit, useDocument } from './document';
import { newId } from './crashLog';
import { fetchPoints, holdPoints } from './pointSets';
import { forgetPane } from './settings';

/** The columns of the text that was read last, and what they are taken for. */
export interface TableColumns {
  readonly columns: readonly Column[];
  readonly reading: Reading;
}

export type ReadTable =
  | ({ readonly ok: true; readonly value: PointData } & TableColumns)
  | ({ readonly ok: false; readonly problems: readonly Problem[] } & Partial<TableColumns>);

/** What the worker of the table does. */
export interface PointsWorker {
  /**
   * Reads text by conventions, its columns as they are said or else guessed. Text and points stay
   * there, a copy of the points comes back.
   */
  read(text: string, conventions: Conventions, flat: boolean, reading?: Reading): ReadTable;
  /** Reads the text of before again, its columns taken otherwise. */
  readAs(reading: Reading): ReadTable;
  /** Takes points that were kept. */
  hold(points: Float64Array): void;
  /** All points in every space; how long it took comes along. */
  convert(frame: CameraFrame, conventions: Conventions): Converted;
}

/** Which rows are looked at. */
export type Filter = 'all' | 'on' | 'off' | 'behind';

export interface Converted {
  readonly spaces: Float64Array;
  readonly outside: Uint8Array;
  /** What the worker's own clock says. */
  readonly milliseconds: number;
}

interface TableState {
  /** The set that is shown, with its points. */
  readonly table: (PointData & { readonly set: PointSet }) | null;
  /**
   * Of the text that was read last, as long as the page is open and its set is there: it may be
   * read otherwise.
   */
  readonly text:
    | (TableColumns & { readonly source: string; readonly problems: readonly Problem[]; readonly set: string | null })
    | null;
  /** The set that is wanted, by its id; the last one where there is none of it. */
  readonly wanted: string | null;
  readonly converted: Converted | null;
  readonly filter: Filter;
  /** The rows that the filter lets through. */
  readonly rows: Uint32Array;
  readonly counts: Readonly<Record<Filter, number>>;
}

const empty = { all: 0, on: 0, off: 0, behind: 0 };
/** The table of points: one of the project's sets, in every space. */
export const useTable = create<TableState>(() => ({
  table: null,
  text: null,
  wanted: null,
  converted: null,
  filter: 'all',
  rows: new Uint32Array(0),
  counts: empty,
}));

const is: Readonly<Record<Filter, (outside: number) => boolean>> = {
  all: () => true,
  on: (outside) => outside === 0,
  off: (outside) => outside !== 0 && !(outside & outsideBit.noPicture),
  behind: (outside) => (outside & outsideBit.noPicture) !== 0,
};

/** The rows that a filter lets through, and how many each would. */
export function filtered(outside: Uint8Array, filter: Filter): Pick<TableState, 'rows' | 'counts'> {
  const counts = { ...empty, all: outside.length };
  const rows = new Uint32Array(outside.length);
  let n = 0;
  for (const [i, o] of outside.entries()) {
    counts[is.on(o) ? 'on' : is.behind(o) ? 'behind' : 'off']++;
    if (is[filter](o)) rows[n++] = i;
  }
  return { rows: rows.subarray(0, n), counts };
}

let worker: { readonly remote: Remote<PointsWorker>; readonly end: Promise<never> } | null = null;

/** Asks the worker; one that has failed is said, and the next time is another. */
async function asked<T>(ask: (remote: Remote<PointsWorker>) => Promise<T>): Promise<T | null> {
  const { wrap } = await import('comlink');
  if (!worker) {
    const made = new Worker(new URL('../workers/points.ts', import.meta.url), { type: 'module' });
    worker = { remote: wrap<PointsWorker>(made), end: workerEnd(made) };
  }
  try {
    return await Promise.race([ask(worker.remote), worker.end]);
  } catch (error) {
    worker = null;
    complain(workerEndText('Reading the points', error));
    return null;
  }
}

/** What is to be converted next: a later wish takes the place of one that waits. */
let wanted: { frame: CameraFrame; conventions: Conventions } | null = null;
let busy = false;
let last: { frame: CameraFrame; conventions: Conventions } | null = null;

async function convert(): Promise<void> {
  if (busy) return;
  busy = true;
  try {
    while (wanted) {
      const { frame, conventions } = wanted;
      wanted = null;
      const converted = await asked((to) => to.convert(frame, conventions));
      if (!converted) return;
      useTable.setState(({ filter }) => ({ converted, ...filtered(converted.outside, filter) }));
    }
  } finally {
    busy = false;
  }
}

function refresh(): void {
  const { project } = useDocument.getState();
  if (!project || !useTable.getState().table) return;
  const { frame } = momentOf(project);
  const { conventions } = project;
  if (last?.frame === frame && last.conventions === conventions) return;
  last = wanted = { frame, conventions };
  void convert();
}

/**
 * Takes points from text, in the conventions in force, as another set of the project; what is wrong
 * with it, if anything, and then nothing has changed.
 */
export async function loadPoints(text: string, source: string): Promise<readonly Problem[]> {
  const { project, flat } = currentMoment();
  if (project.pointSets.length >= mostSets)
    return [{ path: '', message: `A project has at most ${mostSets} sets of points. Delete one first.` }];
  const read = await asked((to) => to.read(text, project.conventions, flat) as Promise<ReadTable>);
  return read ? take(read, source, null) : [{ path: '', message: 'They could not be read.' }];
}
const mostSets = 64;

/** Reads the text of before again, its columns taken otherwise: the same set has other points. */
export async function readColumnsAs(reading: Reading): Promise<void> {
  const { text } = useTable.getState();
  if (!text) return;
  useTable.setState({ text: { ...text, reading } });
  const read = await asked((to) => to.readAs(reading) as Promise<ReadTable>);
  if (read) take(read, text.source, text.set);
}

function take(found: ReadTable, source: string, of: string | null): readonly Problem[] {
  const { columns, reading } = found;
  const problems = found.ok ? [] : found.problems;
  const id = of ?? newId();
  useTable.setState({
    text: columns && reading ? { columns, reading, source, problems, set: found.ok ? id : of } : null,
    ...(found.ok && { wanted: id }),
  });
  if (!found.ok) return problems;
  const key = holdPoints(found.value);
  const count = found.value.points.length / 3;
  edit(of ? 'take the columns otherwise' : `take the points of ${source}`, ({ pointSets }) => {
    const set = pointSets.find((one) => one.id === id);
    if (set) Object.assign(set, { key, count });
    else pointSets.push({ id, name: source, key, count });
  });
  return [];
}

/** What the columns of the text that was read last are taken for, in words. */
export function takenFor(): string {
  const { text } = useTable.getState();
  return text ? readingWords(text.columns, text.reading, currentMoment().points.letters) : '';
}

/** Shows one of the project's sets. */
export const showSet = (id: string): void => {
  useTable.setState({ wanted: id });
  void look();
};

export const renameSet = (id: string, name: string): void =>
  edit('rename the points', ({ pointSets }) => {
    const set = pointSets.find((one) => one.id === id);
    if (set && name.trim()) set.name = name.trim();
  });

export const deleteSet = ({ id, name }: PointSet): void =>
  edit(`delete the points of ${name}`, (draft) => {
    draft.pointSets = draft.pointSets.filter((one) => one.id !== id);
  });

let looking: string | null = null;
/** Points that this browser turned out not to have. */
let absent: string | null = null;
/** Has the set stand in the table that is to be shown, by the project as it is. */
async function look(): Promise<void> {
  const { project } = useDocument.getState();
  const { wanted: id, table, text } = useTable.getState();
  const sets = project?.pointSets ?? [];
  const set = sets.find((one) => one.id === id) ?? sets.at(-1) ?? null;
  // What was read goes with its set.
  if (text?.set && !sets.some((one) => one.id === text.set)) useTable.setState({ text: null });
  if (set === (table?.set ?? null) || (set && (set.key === looking || set.key === absent))) return;
  if (set && set.key === table?.set.key) return useTable.setState({ table: { ...table, set } });
  looking = set?.key ?? null;
  const data = set && (await fetchPoints(set.key));
  if (looking !== (set?.key ?? null)) return;
  looking = null;
  absent = set && !data ? set.key : null;
  // A copy: the worker may be given what it has given.
  if (data && (await asked((to) => to.hold(data.points))) === null) return;
  last = null;
  useTable.setState({ table: data && set && { ...data, set }, converted: null, rows: new Uint32Array(0), counts: empty }); // prettier-ignore
  refresh();
  // In the meantime another may be wanted.
  void look();
}

/** Shows the points of the open project, whatever is opened, taken, undone or gone back to. */
export function followProjects(): void {
  useDocument.subscribe(refresh);
  useDocument.subscribe(() => void look());
  // The pane of points was opened for another project.
  useDocument.subscribe(({ project }, { project: before }) => {
    if (before && project && project.id !== before.id && !project.pointSets.length) forgetPane('points');
  });
  void look();
}

export const setFilter = (filter: Filter): void =>
  useTable.setState(({ converted }) => ({ filter, ...(converted && filtered(converted.outside, filter)) }));
