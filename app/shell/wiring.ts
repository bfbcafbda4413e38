import type { Project } from '../../formats/project';
import { installTaking } from '../edits/taking';
import { installMarksLoading, prefetchMarks } from '../pictures/page/picturesClient';
import { useDocument } from '../state/document';
import { jobRunner, type JobRunner, type JobWorker, type FromJobs } from '../state/jobs';
import { useNow } from '../state/pace';
import { installSliceLoading, loadKeptSlices, taskMoment, unreadSlices } from '../state/slices';
import { currentMoment } from '../state/tempo';
import { isAlive, onWorkerEnd, type Alive } from '../ui/worker';
import { loadJobs } from '../tasks/jobs';
import { taskNames } from '../tasks/names';
import { loadAllTasks, loadTask, taskAt, useTasks } from '../tasks/page';
import { installMovingTasks, loadParts, loadSlice } from '../tasks/parts';
import { loadDeferred } from '../ui/deferred';
import { complain, warn } from '../ui/notices';
import { installSourceLoading, installWorkings } from '../working/registry';
import { openTask } from './opening';

/* Connects the tasks to the application, and runs their jobs. */

/** Registers what tasks contribute, as they are loaded: once, before anything is shown. */
export function installTasks(): void {
  installMovingTasks();
  installMarksLoading(loadParts);
  installSliceLoading((task) => (taskNames.some(({ route }) => route === task) ? loadSlice(task) : undefined));
  installSourceLoading(loadAllTasks);
  useTasks.subscribe(({ loaded }) =>
    installWorkings(Object.fromEntries(loaded.flatMap(({ route, workings }) => (workings ? [[route, workings]] : [])))),
  );
  installTaking(async (given) => {
    const tasks = await loadAllTasks();
    // The open task is asked first.
    const open = tasks.find(({ route }) => route === taskAt(window.location.pathname)?.route);
    for (const task of open ? [open, ...tasks.filter((one) => one !== open)] : tasks)
      for (const acceptor of task.accepts ?? [])
        if (acceptor.accepts(given)) {
          void acceptor.take(given);
          if (task !== open && acceptor.opensTask) openTask(task.route);
          return true;
        }
    return false;
  });
}

/** Loads the task of a page; says so where its files cannot be fetched. */
export function loadOpenTask(route: string): void {
  loadTask(route).catch(({ message }: Error) =>
    complain(`This task could not be loaded (${message}). Check the connection and reload the page.`),
  );
}

/** Loads menus, and the other tasks one by one while the page is idle, so that they open at once. */
export function prefetchTasks(): void {
  const left = taskNames.map(({ route }) => route);
  void loadDeferred();
  const next = (): void => {
    const route = left.shift();
    if (route === undefined) return prefetchMarks(taskNames.map((one) => one.route));
    // A task that cannot be fetched now is fetched when it is opened, and reports its failure then.
    void loadTask(route)
      .catch(() => undefined)
      .then(whenIdle);
  };
  const whenIdle = (): void => {
    if ('requestIdleCallback' in window) window.requestIdleCallback(next, { timeout: 5_000 });
    else setTimeout(next, 200);
  };
  whenIdle();
}

/** Says which tasks' parts of a project could not be read, once for each project. */
export function reportUnread(): void {
  let said: string | null = null;
  const look = () => {
    const { project } = useDocument.getState();
    if (!project || project.id === said) return;
    said = project.id;
    void report(project).catch(() => undefined);
  };
  const report = async (project: Project) => {
    await loadKeptSlices(project);
    const unread = unreadSlices(project);
    if (unread.length)
      warn(
        'Part of this project could not be read here. It is kept in it as it was, and goes out with it again.',
        unread.map(({ task, why }) => ({ path: task, message: `${task}: ${why}.` })),
      );
  };
  useDocument.subscribe(look);
  look();
}

const jobWorker = (): JobWorker => {
  const worker = new Worker(new URL('../workers/jobs.ts', import.meta.url), { type: 'module' });
  return {
    post: (message) => worker.postMessage(message),
    listen: (hear, ended) => {
      worker.addEventListener('message', ({ data }: MessageEvent<FromJobs | Alive>) => {
        if (!isAlive(data)) hear(data);
      });
      onWorkerEnd(worker, (why) => {
        worker.terminate();
        ended(why);
      });
    },
  };
};

let runner: JobRunner | null = null;

/** Has the jobs of the open task answered for as long as it is open; gives what ends that. */
export function runJobs(route: string): () => void {
  const loading = loadJobs(route);
  if (!loading) return () => undefined;
  const jobs = (runner ??= jobRunner(2, jobWorker, (says, message) => complain(`${says} failed: ${message}.`)));
  let ended = false;
  let end = () => undefined as void;
  void loading.then(({ jobs: specs }) => {
    if (ended) return;
    let of: string | null = null;
    const ask = () => {
      const { project } = useDocument.getState();
      if (!project) return;
      // What was found in one project is no answer in another.
      if (of !== null && of !== project.id) jobs.clear();
      of = project.id;
      const now = currentMoment();
      const own = taskMoment(route, now);
      for (const [name, spec] of Object.entries(specs)) jobs.ask(route, name, spec.says, spec.input(own));
    };
    end = useNow.subscribe(ask);
    ask();
  });
  return () => {
    ended = true;
    end();
    jobs.clear();
  };
}
