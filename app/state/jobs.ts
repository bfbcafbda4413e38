import { underWay } from '../ui/notices';
import { useAnswers } from './answers';
import { answerKey, type Moment } from './moment';

/*
 * Heavy work of the tasks, in a small pool of workers. Of what is asked for in turn only the newest
 * counts: what is overtaken is told so and gives way when it next breathes. What takes longer than
 * a moment shows how far it is and can be stopped.
 */

export interface JobControl {
  /** How far it is, 0 to 1. */
  progress(share: number): void;
  /**
   * Lets others have a turn; throws when the run has been overtaken or stopped. To be called often.
   */
  breathe(): Promise<void>;
}

/** Pure work on an input that can be told to a worker. */
export type Job<In, Out> = (input: In, control: JobControl) => Out | Promise<Out>;

export interface JobSpec<S, In, Out> {
  /** What is being done, as a notice says it: “Sampling the region”. */
  readonly says: string;
  /**
   * What it works on at a moment; null where there is nothing to do. Run again when a part of it is
   * another.
   */
  input(now: Moment<S>): In | null;
  /**
   * Milliseconds before it begins, time for others while a camera is moved: what is overtaken by then
   * has cost nothing, and a rest is no work that a notice speaks of.
   */
  readonly rest?: number | ((input: In) => number);
  run: Job<In, Out>;
}

/** Runs a job after its rest; `begun` is told when its work begins. */
export async function runAfterRest<In, Out>(
  { rest, run }: Pick<JobSpec<never, In, Out>, 'rest' | 'run'>,
  input: In,
  control: JobControl,
  begun: () => void,
): Promise<Out> {
  const until = performance.now() + (typeof rest === 'function' ? rest(input) : (rest ?? 0));
  while (performance.now() < until) {
    await new Promise((done) => setTimeout(done, 20));
    await control.breathe();
  }
  begun();
  return run(input, control);
}

// What a job works on is known to its own task alone.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type AnyJob = JobSpec<any, any, any>;
/** A task's `job.ts`: its jobs by the names under which their answers are asked for. */
export interface JobModule {
  readonly jobs: Readonly<Record<string, AnyJob>>;
}

export type ToJobs =
  | { readonly kind: 'run'; readonly run: number; readonly task: string; readonly job: string; readonly input: unknown }
  | { readonly kind: 'stop'; readonly run: number };
export type FromJobs =
  | { readonly kind: 'begun'; readonly run: number }
  | { readonly kind: 'progress'; readonly run: number; readonly share: number }
  | { readonly kind: 'done'; readonly run: number; readonly result: unknown }
  | { readonly kind: 'overtaken'; readonly run: number }
  | { readonly kind: 'failed'; readonly run: number; readonly message: string };

/** What a runner needs of a worker: the real one, or another in a test. */
export interface JobWorker {
  post(message: ToJobs): void;
  /** Calls back with every message, and with the reason when the worker ends. */
  listen(hear: (message: FromJobs) => void, ended: (why: string) => void): void;
}

interface Running {
  readonly run: number;
  /** What says that it is under way, once its work has begun. */
  notice: ReturnType<typeof underWay> | null;
  readonly seat: Seat;
}
interface Seat {
  readonly worker: JobWorker;
  busy: number | null;
}

/** Whether two inputs are the same, part by part. */
export function sameInput(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  const [x, y] = [Object.entries(a), b as Record<string, unknown>];
  return x.length === Object.keys(y).length && x.every(([key, value]) => Object.is(value, y[key]));
}

export interface JobRunner {
  /**
   * Asks for a job's answer to an input; the same input asked again is no new run. Where there is
   * nothing to work on (null) there is no answer.
   */
  ask(task: string, job: string, says: string, input: unknown): void;
  /** Lets go of what was asked: another task, another project. */
  clear(): void;
}

/** A runner over a pool of workers, each made when it is first needed. */
export function jobRunner(
  size: number,
  make: () => JobWorker,
  failed: (says: string, message: string) => void,
): JobRunner {
  const seats: Seat[] = [];
  let count = 0;
  /**
   * By task and job: the input that was last asked about, the run that is under way, and what waits
   * for it.
   */
  const asked = new Map<string, { input: unknown; says: string; running: Running | null; waits: boolean }>();

  const freeSeat = (): Seat | null => {
    const free = seats.find(({ busy }) => busy === null);
    if (free) return free;
    if (seats.length >= size) return null;
    const seat: Seat = { worker: make(), busy: null };
    seats.push(seat);
    seat.worker.listen(
      (message) => hear(seat, message),
      (why) => endSeat(seat, why),
    );
    return seat;
  };

  function start(key: string): void {
    const one = asked.get(key);
    if (!one) return;
    const seat = freeSeat();
    one.waits = seat === null;
    if (!seat) return;
    const run = ++count;
    const [task, job] = key.split('\n') as [string, string];
    seat.busy = run;
    one.running = { run, notice: null, seat };
    seat.worker.post({ kind: 'run', run, task, job, input: one.input });
  }

  /** Replaces a worker that has ended; the run that it had failed. */
  function endSeat(seat: Seat, why: string): void {
    if (seats.includes(seat)) seats.splice(seats.indexOf(seat), 1);
    if (seat.busy !== null) hear(seat, { kind: 'failed', run: seat.busy, message: why });
  }

  function hear(seat: Seat, message: FromJobs): void {
    const { run } = message;
    const found = [...asked].find(([, one]) => one.running?.run === run);
    if (message.kind === 'begun') {
      if (found) found[1].running!.notice = underWay(found[1].says, () => seat.worker.post({ kind: 'stop', run }));
      return;
    }
    if (message.kind === 'progress') return found?.[1].running?.notice?.at(message.share);
    seat.busy = null;
    if (found) {
      const [key, one] = found;
      one.running!.notice?.done();
      one.running = null;
      if (message.kind === 'done' && !one.waits)
        useAnswers.setState(({ answers }) => ({ answers: { ...answers, [key]: message.result } }));
      if (message.kind === 'failed') failed(one.says, message.message);
    }
    // What gives way to a newer input of its own has to have done so first: another's seat is no matter.
    for (const [key, one] of asked) if (one.waits && !one.running) start(key);
  }

  /** Has a run end without an answer. */
  const letGo = (running: Running | null): void => {
    if (!running) return;
    running.seat.worker.post({ kind: 'stop', run: running.run });
    running.notice?.done();
  };

  return {
    ask(task, job, says, input) {
      const key = answerKey(task, job);
      const one = asked.get(key);
      if (input === null) {
        letGo(one?.running ?? null);
        asked.delete(key);
        const { answers } = useAnswers.getState();
        if (key in answers)
          useAnswers.setState({
            answers: Object.fromEntries(Object.entries(answers).filter(([name]) => name !== key)),
          });
        return;
      }
      if (one && sameInput(one.input, input)) return;
      asked.set(key, { input, says, running: one?.running ?? null, waits: true });
      // What is under way is of an older input: it gives way, and the newest begins when it has.
      if (one?.running) one.running.seat.worker.post({ kind: 'stop', run: one.running.run });
      else start(key);
    },
    clear() {
      for (const { running } of asked.values()) letGo(running);
      asked.clear();
      useAnswers.setState({ answers: {} });
    },
  };
}
