import { wrap, type Remote } from 'comlink';
import { create } from 'zustand';
import { outsideBit } from '../../core/kernels/points';
import type { CameraFrame } from '../../core/camera/frame';
import type { Conventions } from '../../core/conventions/conventions';
import type { Problem } from '../../core/reasons';
import type { PointsWorker, TableOfPoints } from '../workers/points';
import { currentSituation } from './derive';
import { situationOf } from './situation';
import { useDocument } from './document';
import { keepPoints, keptPoints } from './keep';

/** Which rows are looked at. */
export type Filter = 'all' | 'on' | 'off' | 'behind';

export interface Converted {
  readonly spaces: Float64Array;
  readonly outside: Uint8Array;
  /** What the worker's own clock says. */
  readonly milliseconds: number;
}

interface TableState {
  readonly table: (TableOfPoints & { readonly source: string }) | null;
  readonly converted: Converted | null;
  readonly filter: Filter;
  /** The rows that the filter lets through. */
  readonly rows: Uint32Array;
  readonly counts: Readonly<Record<Filter, number>>;
}

const empty = { all: 0, on: 0, off: 0, behind: 0 };
/** The table of points: beside the document, which it would make heavy; kept with it by `keep`. */
export const useTable = create<TableState>(() => ({
  table: null,
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

let remote: Remote<PointsWorker> | null = null;
const worker = (): Remote<PointsWorker> =>
  (remote ??= wrap<PointsWorker>(new Worker(new URL('../workers/points.ts', import.meta.url), { type: 'module' })));

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
      const converted = await worker().convert(frame, conventions);
      useTable.setState(({ filter }) => ({ converted, ...filtered(converted.outside, filter) }));
    }
  } finally {
    busy = false;
  }
}

function refresh(): void {
  const { project } = useDocument.getState();
  if (!project || !useTable.getState().table) return;
  const { frame } = situationOf(project);
  const { conventions } = project;
  if (last?.frame === frame && last.conventions === conventions) return;
  last = wanted = { frame, conventions };
  void convert();
}
useDocument.subscribe(refresh);

/** Takes points from text, in the conventions in force; what is wrong with it, if anything, and then nothing has changed. */
export async function loadPoints(text: string, source: string): Promise<readonly Problem[]> {
  const { project, flat } = currentSituation();
  const found = await worker().read(text, project.conventions, flat);
  if (!found.ok) return found.problems;
  const table = { ...found.value, source };
  showTable(table);
  void keepPoints(project.id, table);
  return [];
}

function showTable(table: TableState['table']): void {
  last = null;
  useTable.setState({ table, converted: null, rows: new Uint32Array(0), counts: empty });
  refresh();
}

/** Takes the table away, from the shelf too, and gives what brings it back. */
export function dropTable(): () => void {
  const { table } = useTable.getState();
  const { id } = currentSituation().project;
  const take = (given: TableState['table']) => {
    void keepPoints(id, given);
    void hold(given);
  };
  take(null);
  return () => take(table);
}

async function hold(table: TableState['table']): Promise<void> {
  if (table) await worker().hold(table.points);
  showTable(table);
}

/** Shows the table that was kept with the open project, whenever another one is opened. */
export function followProjects(): void {
  let shown: string | null = null;
  const look = async () => {
    const id = useDocument.getState().project?.id ?? null;
    if (id === null || id === shown) return;
    shown = id;
    const table = (await keptPoints(id)) ?? null;
    if (shown === id && (table || useTable.getState().table)) await hold(table);
  };
  useDocument.subscribe(() => void look());
  void look();
}

export const setFilter = (filter: Filter): void =>
  useTable.setState(({ converted }) => ({ filter, ...(converted && filtered(converted.outside, filter)) }));
