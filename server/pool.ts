import { availableParallelism } from 'node:os';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import type { Writable } from 'node:stream';
import { problemDocument, type ProblemDocument } from '../core/compute/readRequest';
import { serverLimits } from '../core/compute/limits';
import { shared, type Task, type Told } from './protocol';

/*
 * Requests are computed by threads of their own, so that the listening one is always free. There are
 * two lanes: what is little work is answered in one that yields to nothing; what turns out to be
 * much goes to the other, whose threads give way. One that takes too long or too much memory is
 * ended, and its request answered with a 503.
 */

/** Where the answer to a request goes. */
export interface Asker extends Writable {
  /** Called once, before anything is written; `retryAfter` is in seconds. */
  begin(status: number, type: string, retryAfter?: number): void;
}

export interface PoolOptions {
  /** For a whole answer. */
  readonly seconds?: number;
  /** Mebibytes of a thread. */
  readonly memory?: number;
  /** How many threads compute what is much work. */
  readonly threads?: number;
  /** For a request to get a thread. */
  readonly waitingSeconds?: number;
  /** For the whole of an answer to be taken. */
  readonly takingSeconds?: number;
  /** Milliseconds after which a quick thread hands a request over. */
  readonly quickMilliseconds?: number;
  /** How far the threads of large requests give way to other work on the machine: 0 to 19. */
  readonly niceness?: number;
}

interface Job {
  readonly body: Uint8Array;
  readonly endpoint: Task['endpoint'];
  readonly to: Asker;
  begun: boolean;
  /** Marks pieces as taken that the client has not taken yet. */
  untaken?: (() => void)[];
  /** When the answer is to be taken as a whole, on the clock of `performance`; from its first piece. */
  takenBy?: number;
  /** Ends its waiting for a thread. */
  waits?: NodeJS.Timeout | undefined;
}

// In dist/node it lies beside this; from the sources it is that of the last build.
const script = [new URL('./worker.js', import.meta.url), new URL('../dist/node/worker.js', import.meta.url)]
  .map((url) => fileURLToPath(url))
  .find((path) => existsSync(path));

/** Bodies from this size on are much work to read alone. */
const largeBody = 256 * 1024;
/** What the quick lane takes on. */
const quickCost = 40_000;
/** How many requests, and how many bytes of them, one of its threads takes at once. */
const batch = { count: 16, bytes: 32 * 1024 };
/** Milliseconds after which a quick thread has misjudged a request, which then goes to the other threads. */
const quickTime = 400;

/** Milliseconds for what a quick thread cannot hand over: its start on a busy machine, an answer that has begun. */
const patientTime = 10_000;

/** Milliseconds after which a thread that has nothing to do is let go. */
const restTime = 20_000;

/** Seconds after which a rejected request may be sent again. */
const retrySeconds = 1;

const unavailable = (title: string, path: string, message: string): ProblemDocument =>
  problemDocument([{ path, message }], 503, title);

const threadLost = (path: string): ProblemDocument =>
  unavailable('A computing thread was lost', path, 'The thread that computed this was lost. Try again.');

/** One thread, the jobs that it was given, in their order, and its watch. */
class Thread {
  private worker: Worker | null = null;
  private under = new Int32Array(new SharedArrayBuffer(4 * shared.count));
  private readonly jobs = new Map<number, Job>();
  private timer: NodeJS.Timeout | undefined;
  private at: { query: number; name: string } | null = null;
  private serial = 0;
  private resting: NodeJS.Timeout | undefined;
  private closed = false;
  /** Whether the thread runs: starting takes long on a busy machine. */
  private isOnline = false;

  constructor(
    private readonly lane: Lane,
    private readonly nice: number,
    private readonly memory: number,
    private readonly milliseconds: number,
    /** Whether it stands ready when there is nothing to do. */
    private readonly ready: boolean,
  ) {
    if (ready) this.worker = this.start();
  }

  get idle(): boolean {
    return this.jobs.size === 0;
  }

  take(jobs: readonly Job[]): void {
    clearTimeout(this.resting);
    this.at = null;
    const worker = (this.worker ??= this.start());
    const { mostCost, handsOver } = this.lane;
    const tasks = jobs.map((job): Task => {
      const id = ++this.serial;
      this.jobs.set(id, job);
      // What is quickly answered is not worth ending a thread for.
      if (!handsOver) job.to.once('close', () => this.jobs.get(id) === job && this.drop(job));
      // A copy, whose memory moves to the thread: the other lane may ask for the job again.
      return { id, body: new Uint8Array(job.body), endpoint: job.endpoint, mostCost, watched: !handsOver };
    });
    this.watch();
    worker.postMessage(
      tasks,
      tasks.map(({ body }) => body.buffer as ArrayBuffer),
    );
  }

  /**
   * Begins to wait for the next message of the thread. A thread that is still starting, and an answer that has begun
   * and so cannot be handed over, have the time of a large request.
   */
  private watch(): void {
    clearTimeout(this.timer);
    const isUrgent = this.isOnline && !this.current()?.[1].begun;
    const milliseconds = isUrgent ? this.milliseconds : Math.max(this.milliseconds, patientTime);
    this.timer = setTimeout(() => this.late(), milliseconds);
  }

  private start(): Worker {
    if (!script) throw new Error('The server is not built: run npm start, or node scripts/build.mjs.');
    this.under = new Int32Array(new SharedArrayBuffer(4 * shared.count));
    this.isOnline = false;
    const worker = new Worker(script, {
      workerData: { pieces: this.under.buffer, nice: this.nice, ready: this.ready },
      // What is young is soon dead here: more room for it would only be held.
      resourceLimits: { maxOldGenerationSizeMb: this.memory, maxYoungGenerationSizeMb: 8 },
      stdout: false,
    });
    worker.once('online', () => {
      if (this.worker !== worker) return;
      this.isOnline = true;
      if (!this.idle) this.watch();
    });
    worker.on('message', (list: readonly Told[]) => {
      // What it says after it was ended is of jobs that others have.
      if (this.worker === worker) for (const told of list) this.told(told);
      if (this.worker === worker && this.lane.handsOver && !this.idle) this.watch();
    });
    worker.on('error', (error: NodeJS.ErrnoException) => {
      const lack = error.code === 'ERR_WORKER_OUT_OF_MEMORY';
      if (!lack) console.error(error);
      this.lost(
        worker,
        lack
          ? unavailable('Too much memory', this.where(), `This needs more than the ${this.memory} MiB that one request may have. Ask for less at once.`) // prettier-ignore
          : threadLost(this.where()),
      );
    });
    // A thread that is ended from outside reports no error.
    worker.on('exit', () => this.lost(worker, threadLost(this.where())));
    worker.unref();
    return worker;
  }

  /** Rejects the job that a lost thread was working on, and starts another thread for the others. */
  private lost(worker: Worker, problem: ProblemDocument): void {
    if (this.worker !== worker) return;
    // Read before the next thread starts, whose shared memory replaces that of the lost one.
    const found = this.current();
    this.worker = this.ready && !this.closed ? this.start() : null;
    this.fail(found, problem);
  }

  /** The job that the thread works on, or the first that it has not answered. */
  private current(): readonly [id: number, job: Job] | undefined {
    const id = Atomics.load(this.under, shared.at);
    const job = this.jobs.get(id);
    return job ? [id, job] : [...this.jobs][0];
  }

  private told(told: Told): void {
    const { id } = told;
    const job = this.jobs.get(id);
    if (!job) return;
    switch (told.kind) {
      case 'begins':
        this.at = told;
        break;
      case 'heavy':
        this.done(id);
        this.lane.handOver(job);
        break;
      case 'whole':
        job.begun = true;
        job.to.begin(told.status, told.type);
        job.to.end(told.text);
        this.done(id);
        break;
      case 'head':
        job.begun = true;
        job.to.begin(told.status, told.type);
        break;
      case 'piece': {
        const { under } = this;
        if (job.to.destroyed) return this.drop(job);
        let isTaken = false;
        const taken = () => {
          if (isTaken) return;
          isTaken = true;
          Atomics.sub(under, shared.pieces, 1);
          Atomics.notify(under, shared.pieces);
        };
        if (job.to.write(told.bytes)) taken();
        else {
          // A response that has ended no longer drains: its pieces count as taken at its end.
          (job.untaken ??= []).push(taken);
          // The watch stops while the other side takes its time, which has a limit of its own.
          clearTimeout(this.timer);
          job.takenBy ??= performance.now() + this.lane.times.taking * 1000;
          this.timer = setTimeout(() => this.drop(job), Math.max(0, job.takenBy - performance.now()));
          job.to.once('drain', () => {
            taken();
            if (this.jobs.get(id) === job) this.watch();
          });
        }
        break;
      }
      case 'end':
        job.to.end();
        for (const taken of job.untaken ?? []) taken();
        this.done(id);
    }
  }

  private where(): string {
    return this.at ? `queries[${this.at.query}]` : '';
  }

  /** It has taken too long. */
  private late(): void {
    const found = this.current();
    if (!found) return;
    const [id, job] = found;
    this.end();
    if (this.lane.handsOver && !job.begun) {
      this.jobs.delete(id);
      this.askAgain();
      this.lane.handOver(job);
      return;
    }
    const what = this.at ? `Query “${this.at.name}”` : 'Reading the request';
    this.fail(
      found,
      unavailable('It took too long', this.where(), `${what} took longer than the ${this.milliseconds / 1000} seconds that a request may have. Ask for less at once, or start the server with more --seconds.`), // prettier-ignore
    );
  }

  /** Rejects a job with a problem; the others are asked again. */
  private fail(found: readonly [id: number, job: Job] | undefined, problem: ProblemDocument): void {
    if (!found) return;
    const [id, job] = found;
    // An answer that has begun cannot be taken back: it breaks off.
    if (job.begun) job.to.destroy();
    else {
      job.begun = true;
      job.to.begin(problem.status, 'application/problem+json', retrySeconds);
      job.to.end(JSON.stringify(problem));
    }
    this.jobs.delete(id);
    this.askAgain();
  }

  /** Has what was given to a thread that is no more asked again, in its order, before the rest. */
  private askAgain(): void {
    const again = [...this.jobs.values()];
    this.jobs.clear();
    this.rest();
    this.lane.askFirst(again);
  }

  /** Drops a job whose client has gone or takes nothing; the others are asked again. */
  private drop(job: Job): void {
    job.to.destroy();
    this.end();
    for (const [id, one] of this.jobs) if (one === job) this.jobs.delete(id);
    this.askAgain();
  }

  /** Ends the thread; the next job has a new one. */
  end(): void {
    const { worker } = this;
    this.worker = this.ready && !this.closed ? this.start() : null;
    void worker?.terminate();
  }

  close(): void {
    this.closed = true;
    clearTimeout(this.timer);
    clearTimeout(this.resting);
    this.end();
  }

  private done(id: number): void {
    this.jobs.delete(id);
    if (!this.idle) return;
    this.rest();
    this.lane.next();
  }

  /** Has nothing to do. */
  private rest(): void {
    clearTimeout(this.timer);
    // What it holds goes with it, when it is not needed.
    if (!this.ready) this.resting = setTimeout(() => this.end(), restTime).unref();
  }
}

class Lane {
  private readonly threads: Thread[] = [];
  private readonly waiting: Job[] = [];
  private soon: NodeJS.Immediate | null = null;

  constructor(
    size: number,
    readonly mostCost: number,
    { nice, memory, milliseconds }: { nice: number; memory: number; milliseconds: number },
    /** Seconds to wait for a thread, and to take an answer. */
    readonly times: { readonly waiting: number; readonly taking: number },
    /** Where what is too much for this lane goes; null for the last. */
    private readonly other: Lane | null,
  ) {
    this.threads = Array.from({ length: size }, () => new Thread(this, nice, memory, milliseconds, other !== null));
  }

  get handsOver(): boolean {
    return this.other !== null;
  }

  handOver(job: Job): void {
    this.other!.ask(job);
  }

  /** Has a request wait for a thread: one with a small body before all with large ones. */
  ask(job: Job): void {
    const bytes = this.waiting.reduce((sum, { body }) => sum + body.length, job.body.length);
    const isFull = this.waiting.length >= serverLimits.waiting || (this.waiting.length > 0 && bytes > serverLimits.waitingBytes); // prettier-ignore
    if (isFull) {
      job.to.begin(503, 'application/problem+json', retrySeconds);
      job.to.end(JSON.stringify(unavailable('Too many requests', '', `${this.waiting.length} requests of ${Math.ceil(bytes / 1024 / 1024)} MiB are waiting already. Try again in a moment.`))); // prettier-ignore
      return;
    }
    const firstLarge = this.waiting.findIndex(({ body }) => body.length > largeBody);
    if (job.body.length > largeBody || firstLarge < 0) this.waiting.push(job);
    else this.waiting.splice(firstLarge, 0, job);
    job.waits ??= setTimeout(() => this.giveUp(job), this.times.waiting * 1000);
    // What comes in together is given out together.
    this.soon ??= setImmediate(() => {
      this.soon = null;
      this.next();
    });
  }

  /** Rejects a request that no thread has become free for. */
  private giveUp(job: Job): void {
    const at = this.waiting.indexOf(job);
    if (at < 0) return;
    this.waiting.splice(at, 1);
    const { waiting } = this.times;
    job.to.begin(503, 'application/problem+json', Math.ceil(waiting));
    job.to.end(JSON.stringify(unavailable('No thread became free', '', `All computing threads were busy for ${waiting} seconds. Try again later.`))); // prettier-ignore
  }

  /** Asks what was asked before once more, before all that waits. */
  askFirst(jobs: readonly Job[]): void {
    this.waiting.unshift(...jobs);
    this.next();
  }

  next(): void {
    const idle = this.threads.filter((thread) => thread.idle);
    idle.forEach((thread, i) => {
      // As much as each of those that are free would have.
      const jobs = this.some(this.handsOver ? Math.ceil(this.waiting.length / (idle.length - i)) : 1);
      if (jobs.length) thread.take(jobs);
    });
  }

  /** Takes from those that wait what one thread is given at once, so many at most. */
  private some(most: number): Job[] {
    const taken: Job[] = [];
    let bytes = 0;
    while (this.waiting.length && taken.length < Math.min(most, batch.count) && bytes < batch.bytes) {
      const job = this.waiting.shift()!;
      clearTimeout(job.waits);
      job.waits = undefined;
      // Who has gone is not computed for.
      if (job.to.destroyed) continue;
      taken.push(job);
      bytes += job.body.length;
    }
    return taken;
  }

  close(): void {
    for (const thread of this.threads) thread.close();
  }
}

/** The computing threads of a server. */
export class ComputePool {
  private readonly heavy: Lane;
  private readonly quick: Lane;

  constructor({
    seconds = serverLimits.seconds,
    memory = serverLimits.memory,
    threads,
    waitingSeconds: waiting = serverLimits.waitingSeconds,
    takingSeconds: taking = serverLimits.takingSeconds,
    quickMilliseconds = quickTime,
    niceness = 15,
  }: PoolOptions = {}) {
    const times = { waiting, taking };
    const milliseconds = seconds * 1000;
    const many = threads ?? Math.max(8, availableParallelism());
    this.heavy = new Lane(many, Infinity, { nice: niceness, memory, milliseconds }, times, null);
    this.quick = new Lane(2, quickCost, { nice: 0, memory: 256, milliseconds: quickMilliseconds }, times, this.heavy);
  }

  /** Answers a request, wherever it is computed. */
  answer(body: Uint8Array, to: Asker, endpoint: Task['endpoint'] = 'compute'): void {
    const isHeavy = endpoint !== 'compute' || body.length > largeBody;
    (isHeavy ? this.heavy : this.quick).ask({ body, endpoint, to, begun: false });
  }

  close(): void {
    this.quick.close();
    this.heavy.close();
  }
}
