import './alive';
import { runAfterRest, type FromJobs, type JobControl, type ToJobs } from '../state/jobs';
import { loadJobs } from '../tasks/jobs';

/*
 * Does the tasks' heavy work, one run at a time; says how far it is and gives way when it is told
 * to.
 */

class Overtaken extends Error {}

let stopped = 0;
let running = 0;
const say = (message: FromJobs, transfer: Transferable[] = []): void => self.postMessage(message, { transfer });

/** Another turn of the event loop, in which a message can come in; far cheaper than a timer. */
const turn = new MessageChannel();
let resume: (() => void) | null = null;
turn.port1.onmessage = () => resume?.();
const nextTurn = (): Promise<void> =>
  new Promise((resolve) => {
    resume = resolve;
    turn.port2.postMessage(null);
  });

/** The buffers of a result's own arrays, to be handed over rather than copied. */
const buffersOf = (result: unknown): Transferable[] =>
  typeof result === 'object' && result !== null
    ? [
        ...new Set(
          Object.values(result).flatMap((one) =>
            ArrayBuffer.isView(one) && one.buffer instanceof ArrayBuffer ? [one.buffer] : [],
          ),
        ),
      ]
    : [];

async function work({ run, task, job, input }: ToJobs & { kind: 'run' }): Promise<void> {
  running = run;
  let said = 0;
  try {
    const control: JobControl = {
      progress: (share) => {
        const now = performance.now();
        if (now - said < 60) return;
        said = now;
        say({ kind: 'progress', run, share });
      },
      breathe: async () => {
        await nextTurn();
        if (stopped >= run) throw new Overtaken();
      },
    };
    const { jobs } = await loadJobs(task)!;
    const spec = jobs[job]!;
    const result: unknown = await runAfterRest(spec, input, control, () => say({ kind: 'begun', run }));
    say({ kind: 'done', run, result }, buffersOf(result));
  } catch (error) {
    if (error instanceof Overtaken) say({ kind: 'overtaken', run });
    else say({ kind: 'failed', run, message: error instanceof Error ? error.message : String(error) });
  }
}

self.addEventListener('message', ({ data }: MessageEvent<ToJobs>) => {
  if (data.kind === 'run') void work(data);
  else if (data.run === running) stopped = data.run;
});
