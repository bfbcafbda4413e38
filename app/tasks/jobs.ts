import type { JobModule } from '../state/jobs';
import { taskNames } from './names';

/* The tasks' heavy work, for the job worker, and whether a task has any, for the page. */

const jobs = import.meta.glob<JobModule>('./*/job.ts', { eager: true });

/** By the task's name. */
export const jobTable: Readonly<Record<string, JobModule>> = Object.fromEntries(
  taskNames.flatMap((name) => {
    const module = jobs[`./${name}/job.ts`];
    return module ? [[name, module]] : [];
  }),
);
