import type { AnyMarks } from '../pictures/compose/contract';
import { installMarks } from '../pictures/compose/taskMarks';
import { installMovers, type Mover } from '../state/moment';
import { installSlices, taskMoment, type Slice } from '../state/slices';
import { taskNames } from './names';

/*
 * Loads what tasks add to the document and to the pictures: in the page and in the painter alike.
 */

// eslint-disable-next-line @typescript-eslint/no-explicit-any
type AnySlice = Slice<any>;

const states = import.meta.glob<{ slice: AnySlice }>('./*/state.ts');
const marks = import.meta.glob<{ marks: AnyMarks }>('./*/marks.ts');
/** Tasks that move cameras or bodies do so whichever task is open, so they load with the application. */
const moving = import.meta.glob<{ slice: AnySlice; moves: (now: never) => ReturnType<Mover> }>('./*/moves.ts', {
  eager: true,
});

const sliceByRoute = new Map<string, AnySlice>();
const marksByRoute = new Map<string, AnyMarks>();

/** In the order of the strip, so that nothing depends on which task was opened first. */
const inOrder = <T>(byRoute: ReadonlyMap<string, T>): Record<string, T> =>
  Object.fromEntries(
    taskNames.flatMap(({ route }) => {
      const one = byRoute.get(route);
      return one === undefined ? [] : [[route, one]];
    }),
  );

/** Runs each load once; a load that failed runs again when it is next asked for. */
export function loadOnce<T>(load: (route: string) => Promise<T>): (route: string) => Promise<T> {
  const loads = new Map<string, Promise<T>>();
  return (route) => {
    const known = loads.get(route);
    if (known) return known;
    const loading = load(route);
    loads.set(route, loading);
    loading.catch(() => loads.delete(route));
    return loading;
  };
}

/** Loads what a task keeps in projects. */
export const loadSlice = loadOnce(async (route) => {
  const module = await states[`./${route}/state.ts`]?.();
  if (!module) return;
  sliceByRoute.set(route, module.slice);
  installSlices(inOrder(sliceByRoute));
});

/** Loads what a task keeps in projects and adds to the pictures. */
export const loadParts = loadOnce(async (route) => {
  const [module] = await Promise.all([marks[`./${route}/marks.ts`]?.(), loadSlice(route)]);
  if (!module) return;
  marksByRoute.set(route, module.marks);
  installMarks(inOrder(marksByRoute));
});

/** Registers the tasks that move cameras and bodies: once, when page or painter starts. */
export function installMovingTasks(): void {
  const routes = taskNames.map(({ route }) => route).filter((route) => moving[`./${route}/moves.ts`]);
  for (const route of routes) sliceByRoute.set(route, moving[`./${route}/moves.ts`]!.slice);
  installSlices(inOrder(sliceByRoute));
  installMovers(
    routes.map((route) => {
      const { moves } = moving[`./${route}/moves.ts`]!;
      return (rest) => moves(taskMoment(route, rest) as never);
    }),
  );
}
