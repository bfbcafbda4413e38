import type { Query } from '../../core/compute/operations';
import { produce, type Draft } from 'immer';
import type * as z from 'zod';
import type { ConventionCodec } from '../../core/conventions/codec';
import { reinterpretValue } from '../../core/quantities/convert';
import { worldOf } from '../../core/quantities/world';
import { problemsOf } from '../../core/compute/issues';
import { keepUnknown } from '../../formats/lossless';
import type { Project } from '../../formats/project';
import type { CameraKeys } from '../../formats/sceneProject';
import { complain } from '../ui/notices';
import { currentProject, edit } from './document';
import { remembered } from './memo';
import { momentWith, type Moment } from './moment';

/** What a task keeps in the project, under `tasks` and its own name, with a version of its own. */
export interface Slice<S> {
  readonly version: number;
  readonly schema: z.ZodType<S>;
  /** What stands before the task was ever used. Follows from the project alone. */
  initial(base: Project): S;
  /** From version 1 to 2, 2 to 3 and so on. */
  readonly migrate?: readonly ((older: unknown) => unknown)[];
  /** Seconds that what it has the camera do takes, as it stands; null where it has it do nothing. */
  span?(slice: S, base: Project): number | null;
  /** What is left when bodies have been deleted. */
  forget?(slice: S, gone: ReadonlySet<string>): S;
  /** A way of a camera that came with a file, where the task keeps such. */
  takeWay?(slice: S, way: CameraKeys): S;
  /** The task's part of the project as a compute request. */
  queries?(slice: S, now: Moment<S>): Query[];
}

// What a slice holds is known to its own task alone.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type SliceTable = Readonly<Record<string, Slice<any>>>;

let table: SliceTable = {};
/** Registers the slices of the tasks loaded so far. */
export const installSlices = (slices: SliceTable): void => void (table = slices);
export const slices = (): SliceTable => table;

/** Loads the slice of a task; undefined for a name that no task has. */
type LoadSlice = (task: string) => Promise<void> | undefined;
let loadSlice: LoadSlice = () => undefined;
/** Registers how slices are loaded: once, when the page begins. */
export const installSliceLoading = (load: LoadSlice): void => void (loadSlice = load);

/**
 * Loads the slices that a project has data for. Null when all of them are loaded already, so that an edit
 * of every slice is synchronous then. Rejects when one cannot be fetched.
 */
export function loadKeptSlices(project: Project): Promise<unknown> | null {
  const loads = Object.keys(project.tasks).flatMap((task) => (table[task] ? [] : (loadSlice(task) ?? [])));
  return loads.length ? Promise.all(loads) : null;
}

/** Runs an edit that changes every slice of the open project: at once when the slices are loaded, otherwise afterwards. */
export function withKeptSlices(run: () => void): void {
  const loading = loadKeptSlices(currentProject());
  if (!loading) return run();
  loading.then(run, ({ message }: Error) =>
    complain(
      `Nothing was changed: a part of Astrolabe could not be loaded (${message}). Reload the page and try again.`,
    ),
  );
}

type Read<S> = { readonly ok: true; readonly slice: S } | { readonly ok: false; readonly why: string };

/** A kept slice, brought to the present version, or why it cannot be read. */
function readSlice<S>(slice: Slice<S>, kept: unknown): Read<S> {
  const { version } = (typeof kept === 'object' && kept !== null ? kept : {}) as { version?: unknown };
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    return { ok: false, why: 'it says no version' };
  if (version > slice.version)
    return { ok: false, why: `it is of version ${version}, and this page knows ${slice.version}` };
  let now = kept;
  try {
    for (let v = version; v < slice.version; v++) now = slice.migrate![v - 1]!(now);
  } catch (error) {
    return { ok: false, why: `it could not be brought from version ${version}: ${(error as Error).message}` };
  }
  const parsed = slice.schema.safeParse(now, { reportInput: true });
  if (!parsed.success) return { ok: false, why: problemsOf(parsed.error)[0]!.message };
  const whole = keepUnknown({ ...(parsed.data as Record<string, unknown>) }, now);
  // The version is the house's.
  delete whole.version;
  return { ok: true, slice: whole as S };
}

const readers = remembered((slice: Slice<unknown>) => remembered((kept: object) => readSlice(slice, kept)));
const read = <S>(slice: Slice<S>, kept: unknown): Read<S> =>
  typeof kept === 'object' && kept !== null
    ? (readers(slice as Slice<unknown>)(kept) as Read<S>)
    : readSlice(slice, kept);

const initials = remembered<object, (bodies: object) => Map<string, unknown>>(() => remembered(() => new Map()));

/**
 * What stands before a task was used: the same object while the project, its bodies and its kind of
 * world are.
 */
function initialOf<S>(slice: Slice<S>, project: Project): S {
  const { id, bodies, camera, guide } = project;
  const known = initials(slice)(bodies);
  const key = `${id} ${camera.kind} ${guide}`;
  if (!known.has(key)) known.set(key, slice.initial(project));
  return known.get(key) as S;
}

/** What a task keeps in a project; where nothing that can be read is kept, what stands at first. */
export function sliceOf<S>(name: string, project: Project): S {
  const slice = table[name] as Slice<S> | undefined;
  if (!slice) throw new Error(`no task is called ${name}`);
  const kept = project.tasks[name];
  if (kept !== undefined) {
    const found = read(slice, kept);
    if (found.ok) return found.slice;
  }
  return initialOf(slice, project);
}

const noAnswers = {};
/** A moment as a task sees it: with what it keeps, if it keeps anything, and what its jobs have found. */
export const taskMoment = <S>(
  name: string,
  now: Moment,
  answers: Readonly<Record<string, unknown>> = noAnswers,
): Moment<S> => momentWith(now, (table[name] && sliceOf(name, now.project)) as S, answers, name);

/** The tasks whose part of a project cannot be read, and why: it is kept as it was. */
export const unreadSlices = (project: Project): readonly { readonly task: string; readonly why: string }[] =>
  Object.entries(table).flatMap(([task, slice]) => {
    const kept = project.tasks[task];
    if (kept === undefined) return [];
    const found = read(slice, kept);
    return found.ok ? [] : [{ task, why: found.why }];
  });

/**
 * A project with a task's slice in it. One that cannot be read is moved aside in the project, not
 * written over.
 */
export function withSliceIn<S>(name: string, project: Project, slice: S): Project {
  const { version } = table[name]!;
  const kept = project.tasks[name];
  const tasks: Record<string, unknown> = { ...project.tasks };
  if (kept !== undefined && !read(table[name]!, kept).ok) {
    let aside = `${name}, unread`;
    for (let i = 2; aside in tasks; i++) aside = `${name}, unread ${i}`;
    tasks[aside] = kept;
  }
  tasks[name] = { version, ...slice };
  return { ...project, tasks };
}

/** Changes what a task keeps, as a named step of undo. */
export function editSlice<S>(
  task: string,
  name: string,
  recipe: (draft: Draft<S>) => void,
  gesture: string | null = null,
): void {
  const project = currentProject();
  const before = sliceOf<S>(task, project);
  const after = produce(before, recipe);
  if (after === before) return;
  edit(name, (draft) => void Object.assign(draft, withSliceIn(task, project, after)), gesture);
}

/** A project with ways of its cameras, kept by the tasks that keep such. */
export const withWays = (project: Project, ways: readonly CameraKeys[]): Project =>
  Object.entries(table).reduce((now, [name, { takeWay }]) => {
    if (!takeWay || !ways.length) return now;
    return withSliceIn(
      name,
      now,
      ways.reduce<unknown>((slice, way) => takeWay(slice, way), sliceOf(name, now)),
    );
  }, project);

/** What the tasks ask of a project as a compute request, of the slices that are in it. */
export const sliceQueries = (now: Moment): Query[] =>
  Object.entries(table).flatMap(([name, slice]) => {
    if (now.project.tasks[name] === undefined || !slice.queries) return [];
    const own = taskMoment(name, now);
    return slice.queries(own.slice, own);
  });

/** A project whose tasks know that bodies are gone. */
export function forgetBodies(project: Project, gone: ReadonlySet<string>): Project {
  return changeSlices(project, (slice, value) => slice.forget?.(value, gone));
}

/** A project whose tasks read their numbers by other conventions. */
export function rereadSlices(project: Project, from: ConventionCodec, to: ConventionCodec): Project {
  const world = worldOf(project.camera.kind);
  return changeSlices(project, (slice, value) =>
    reinterpretValue(slice.schema, value, { codec: from, world }, { codec: to, world }),
  );
}

function changeSlices(project: Project, change: (slice: SliceTable[string], value: unknown) => unknown): Project {
  let now = project;
  for (const [name, slice] of Object.entries(table)) {
    if (project.tasks[name] === undefined || !read(slice, project.tasks[name]).ok) continue;
    const before = sliceOf(name, project);
    const after = change(slice, before);
    if (after !== undefined && after !== before) now = withSliceIn(name, now, after);
  }
  return now;
}
