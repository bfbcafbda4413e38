import { availableParallelism } from 'node:os';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import type { Writable } from 'node:stream';
import { problemDocument, type ProblemDocument } from '../core/compute/compute';
import { serverLimits } from '../core/compute/limits';
import type { Task, Told } from './protocol';

/*
 * Requests are computed by threads of their own, so that the listening one is always free. There are
 * two lanes: what is little work is answered in one that yields to nothing; what turns out to be
 * much goes to the other, whose threads give way. One that takes too long or too much memory is
 * ended, and its request answered with a 503.
 */

/** Where the answer to a request goes. */
export interface Asker extends Writable {
  /** Called once, before anything is written. */
  begin(status: number, type: string): void;
}

export interface PoolOptions {
  /** For a whole answer. */
  readonly seconds?: number;
  /** Mebibytes of a thread. */
  readonly memory?: number;
  /** How many threads compute what is much work. */
  readonly threads?: number;
}

interface Job {
  readonly body: Uint8Array;
  readonly to: Asker;
  begun: boolean;
}

// In dist/node it lies beside this; from the sources it is that of the last build.
const script = [new URL('./worker.js', import.meta.url), new URL('../dist/node/worker.js', import.meta.url)]
  .map((url) => fileURLToPath(url))
  .find((path) => existsSync(path));

/** Bodies from this size on are much work to read alone. */
const largeBody = 256 * 1024;
/** What the quick lane takes on. */
const quickCost = 40_000;
/** Milliseconds after which it has misjudged a request, which then goes to the other lane. */
const quickTime = 400;

/** Milliseconds after which a thread that has nothing to do is let go. */
const restTime = 20_000;

const unavailable = (title: string, path: string, message: string): ProblemDocument =>
  problemDocument([{ path, message }], 503, title);

/** One thread, its job and its watch. */
class Thread {
  private worker: Worker | null = null;
  private pieces = new Int32Array(new SharedArrayBuffer(4));
  private job: Job | null = null;
  private timer: NodeJS.Timeout | undefined;
  private at: { query: number; name: string } | null = null;
  private serial = 0;
  private resting: NodeJS.Timeout | undefined;
  private closed = false;

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
    return this.job === null;
  }

  take(job: Job): void {
    clearTimeout(this.resting);
    this.job = job;
    this.at = null;
    job.to.once('close', () => this.job === job && this.drop());
    const worker = (this.worker ??= this.start());
    this.timer = setTimeout(() => this.late(), this.milliseconds);
    // A copy of its own: what is handed over may be asked for again in the other lane.
    const body = new Uint8Array(job.body);
    const task: Task = { id: ++this.serial, body, mostCost: this.lane.mostCost, watched: !this.lane.handsOver };
    worker.postMessage(task, [body.buffer]);
  }

  private start(): Worker {
    if (!script) throw new Error('The server is not built: run npm start, or node scripts/build.mjs.');
    this.pieces = new Int32Array(new SharedArrayBuffer(4));
    const worker = new Worker(script, {
      workerData: { pieces: this.pieces.buffer, nice: this.nice },
      resourceLimits: { maxOldGenerationSizeMb: this.memory },
      stdout: false,
    });
    worker.on('message', (told: Told) => this.worker === worker && this.told(told));
    worker.on('error', (error: NodeJS.ErrnoException) => {
      if (this.worker !== worker) return;
      this.worker = this.ready && !this.closed ? this.start() : null;
      const lack = error.code === 'ERR_WORKER_OUT_OF_MEMORY';
      if (!lack) console.error(error);
      this.fail(
        lack
          ? unavailable('Too much memory', this.where(), `This needs more than the ${this.memory} MiB that one request may have. Ask for less at once.`) // prettier-ignore
          : unavailable('A computing thread was lost', this.where(), 'The thread that computed this was lost. Try again.'), // prettier-ignore
      );
    });
    worker.unref();
    return worker;
  }

  private told(told: Told): void {
    const { job } = this;
    if (!job || told.id !== this.serial) return;
    switch (told.kind) {
      case 'begins':
        this.at = told;
        break;
      case 'heavy':
        this.done();
        this.lane.handOver(job);
        break;
      case 'whole':
        job.begun = true;
        job.to.begin(told.status, told.type);
        job.to.end(told.bytes);
        this.done();
        break;
      case 'head':
        job.begun = true;
        job.to.begin(told.status, told.type);
        break;
      case 'piece': {
        const taken = () => {
          Atomics.sub(this.pieces, 0, 1);
          Atomics.notify(this.pieces, 0);
        };
        if (job.to.destroyed) return this.drop();
        if (job.to.write(told.bytes)) taken();
        else {
          // The watch stands still while the other side takes its time, up to a limit of its own.
          clearTimeout(this.timer);
          this.timer = setTimeout(() => this.drop(), 30_000);
          job.to.once('drain', () => {
            taken();
            if (this.job !== job) return;
            clearTimeout(this.timer);
            this.timer = setTimeout(() => this.late(), this.milliseconds);
          });
        }
        break;
      }
      case 'end':
        job.to.end();
        this.done();
    }
  }

  private where(): string {
    return this.at ? `queries[${this.at.query}]` : '';
  }

  /** It has taken too long. */
  private late(): void {
    const { job } = this;
    if (!job) return;
    this.end();
    if (this.lane.handsOver && !job.begun) {
      this.done();
      this.lane.handOver(job);
      return;
    }
    const what = this.at ? `Query “${this.at.name}”` : 'Reading the request';
    this.fail(
      unavailable('It took too long', this.where(), `${what} took longer than the ${this.milliseconds / 1000} seconds that a request may have. Ask for less at once, or start the server with more --seconds.`), // prettier-ignore
    );
  }

  private fail(problem: ProblemDocument): void {
    const { job } = this;
    if (!job) return;
    // An answer that has begun cannot be taken back: it breaks off.
    if (job.begun) job.to.destroy();
    else {
      job.begun = true;
      job.to.begin(problem.status, 'application/problem+json');
      job.to.end(JSON.stringify(problem));
    }
    this.done();
  }

  /** Whoever asked has gone, or takes nothing. */
  private drop(): void {
    this.job?.to.destroy();
    this.end();
    this.done();
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

  private done(): void {
    clearTimeout(this.timer);
    this.job = null;
    // What it holds goes with it, when it is not needed.
    if (!this.ready) this.resting = setTimeout(() => this.end(), restTime).unref();
    this.lane.next();
  }
}

class Lane {
  private readonly threads: Thread[] = [];
  private readonly waiting: Job[] = [];

  constructor(
    size: number,
    readonly mostCost: number,
    { nice, memory, milliseconds }: { nice: number; memory: number; milliseconds: number },
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

  ask(job: Job): void {
    if (this.waiting.length >= serverLimits.waiting) {
      job.to.begin(503, 'application/problem+json');
      job.to.end(JSON.stringify(unavailable('Too many requests', '', `${serverLimits.waiting} requests are waiting already. Try again in a moment.`))); // prettier-ignore
      return;
    }
    this.waiting.push(job);
    this.next();
  }

  next(): void {
    for (const thread of this.threads) {
      let job = this.waiting[0];
      // Who has gone is not computed for.
      while (job?.to.destroyed) {
        this.waiting.shift();
        job = this.waiting[0];
      }
      if (!job) return;
      if (!thread.idle) continue;
      this.waiting.shift();
      thread.take(job);
    }
  }

  close(): void {
    for (const thread of this.threads) thread.close();
  }
}

/** The computing threads of a server. */
export class ComputePool {
  private readonly heavy: Lane;
  private readonly quick: Lane;

  constructor({ seconds = serverLimits.seconds, memory = serverLimits.memory, threads }: PoolOptions = {}) {
    const milliseconds = seconds * 1000;
    const many = threads ?? Math.max(8, availableParallelism());
    this.heavy = new Lane(many, Infinity, { nice: 15, memory, milliseconds }, null);
    this.quick = new Lane(2, quickCost, { nice: 0, memory: 256, milliseconds: quickTime }, this.heavy);
  }

  /** Answers a request, wherever it is computed. */
  answer(body: Uint8Array, to: Asker): void {
    (body.length > largeBody ? this.heavy : this.quick).ask({ body, to, begun: false });
  }

  close(): void {
    this.quick.close();
    this.heavy.close();
  }
}
