import type { JobModule } from '../state/jobs';

/** Loaders of the tasks' heavy work, for the job worker and for the page that asks for it. */
const modules = import.meta.glob<JobModule>('./*/job.ts');

/** Loads a task's heavy work; undefined for a task without any. */
export const loadJobs = (route: string): Promise<JobModule> | undefined => modules[`./${route}/job.ts`]?.();
