import { installTaking } from '../edits/actions';
import { installMarks, moversOf } from '../pictures/taskMarks';
import { useDocument } from '../state/document';
import { jobRunner, type JobModule, type JobRunner, type JobWorker, type FromJobs } from '../state/jobs';
import { installMovers } from '../state/moment';
import { useNow } from '../state/pace';
import { installSlices, taskMoment, unreadSlices } from '../state/slices';
import { currentMoment } from '../state/tempo';
import { marksTable, sliceTable, tasks } from '../tasks/page';
import { complain, warn } from '../ui/notices';
import { openTask } from './opening';
import { installWorkings } from '../working/registry';

/* Has the house know the tasks, and the tasks' work done. */

/** Registers what the tasks give, by their tables: once, before anything is shown. */
export function installTasks(): void {
  installSlices(sliceTable);
  installMarks(marksTable);
  installMovers(moversOf(marksTable));
  installWorkings(Object.fromEntries(tasks.flatMap(({ route, workings }) => (workings ? [[route, workings]] : []))));
  installTaking((given) => {
    // The open task is asked first.
    const open = tasks.find(({ route }) => window.location.pathname.endsWith(`/${route}`));
    for (const task of open ? [open, ...tasks.filter((one) => one !== open)] : tasks)
      for (const acceptor of task.accepts ?? [])
        if (acceptor.accepts(given)) {
          void acceptor.take(given);
          if (task !== open) openTask(task.route);
          return true;
        }
    return false;
  });
}

/** Says which tasks' parts of a project could not be read, once for each project. */
export function reportUnread(): void {
  let said: string | null = null;
  const look = () => {
    const { project } = useDocument.getState();
    if (!project || project.id === said) return;
    said = project.id;
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

const modules = import.meta.glob<JobModule>('../tasks/*/job.ts');

const jobWorker = (): JobWorker => {
  const worker = new Worker(new URL('../workers/jobs.ts', import.meta.url), { type: 'module' });
  return {
    post: (message) => worker.postMessage(message),
    listen: (hear) => {
      worker.addEventListener('message', ({ data }: MessageEvent<FromJobs>) => hear(data));
      worker.addEventListener('error', ({ message }) =>
        complain(`What does the long work could not be started${message ? `: ${message}` : ''}. Reload the page.`),
      );
    },
  };
};

let runner: JobRunner | null = null;

/** Has the jobs of the open task answered for as long as it is open; gives what ends that. */
export function runJobs(route: string): () => void {
  const load = modules[`../tasks/${route}/job.ts`];
  if (!load) return () => undefined;
  const jobs = (runner ??= jobRunner(2, jobWorker, (says, message) => complain(`${says} failed: ${message}.`)));
  let ended = false;
  let end = () => undefined as void;
  void load().then(({ jobs: specs }) => {
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
