import { create } from 'zustand';
import { taskNames } from './names';
import { loadOnce, loadParts } from './parts';
import type { AnyTask, Task } from './task';

/* The tasks as the page has them. Each is loaded when it is first opened, or when the page is idle. */

// eslint-disable-next-line @typescript-eslint/no-explicit-any
const pages = import.meta.glob<{ default: Task<any> }>('./*/index.ts');

/** The tasks loaded so far, in the order of the strip. */
export const useTasks = create<{ readonly loaded: readonly AnyTask[] }>(() => ({ loaded: [] }));

const byRoute = new Map<string, AnyTask>();

/** Loads a task with its slice, marks and worksheet. Rejects when a file cannot be fetched. */
export const loadTask = loadOnce(async (route) => {
  const [{ default: task }] = await Promise.all([pages[`./${route}/index.ts`]!(), loadParts(route)]);
  byRoute.set(route, { ...task, ...taskNames.find((one) => one.route === route)! });
  const loaded = taskNames.flatMap((one) => byRoute.get(one.route) ?? []);
  useTasks.setState({ loaded });
  return byRoute.get(route)!;
});

/** Loads every task, and returns them in the order of the strip. */
export const loadAllTasks = (): Promise<readonly AnyTask[]> =>
  Promise.all(taskNames.map(({ route }) => loadTask(route)));

/** The task at an address of the page; undefined for pages of no task. */
export const taskAt = (pathname: string) => taskNames.find(({ route }) => pathname.endsWith(`/${route}`));
