import { Writable } from 'node:stream';
import type { Worker } from 'node:worker_threads';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { buildNode } from '../scripts/lib/build.mjs';
import { ComputePool, type Asker, type PoolOptions } from './pool';

/* One request that costs a computing thread costs no other request its answer. */

/** What a pool answers to a request. */
function ask(pool: ComputePool, given: unknown): Promise<{ status: number; text: string }> {
  return new Promise((done) => {
    let [status, text] = [0, ''];
    const to = new Writable({
      write: (piece: Buffer | string, _encoding, taken) => {
        text += piece.toString();
        taken();
      },
    }) as unknown as Asker;
    to.begin = (given) => void (status = given);
    to.on('finish', () => done({ status, text }));
    pool.answer(new TextEncoder().encode(JSON.stringify(given)), to);
  });
}
const camera = { position: [0, 0, 5], orientation: { yaw: 0, pitch: 0 }, projection: { kind: 'perspective', near: 0.1, far: null, verticalFov: 60 } }; // prettier-ignore
const small = (id: string) => ({ astrolabe: 1, viewport: { width: 20, height: 10 }, camera, queries: [{ id, op: 'worldToScreen', points: [[0, 0, 0]] }] }); // prettier-ignore
interface Inside {
  readonly quick: { readonly threads: readonly { readonly worker: Worker | null; readonly idle: boolean }[] };
}
/** How many threads were started in place of lost ones. */
const threadsOf = (pool: ComputePool) => (pool as unknown as Inside).quick.threads;

/** Times that no machine exceeds, and no giving way: answers do not depend on the machine's speed and load. */
const patient: PoolOptions = {
  seconds: 60,
  waitingSeconds: 60,
  takingSeconds: 60,
  quickMilliseconds: 60_000,
  niceness: 0,
};

let pools: ComputePool[] = [];
const poolOf = (options?: PoolOptions): ComputePool => {
  const pool = new ComputePool({ ...patient, ...options });
  pools.push(pool);
  return pool;
};
beforeAll(() => buildNode());
afterAll(() => {
  for (const pool of pools) pool.close();
  pools = [];
});

describe('one culprit among thirty requests, twenty times', () => {
  it('with an operation that is no text is refused, and the others are answered by the same threads', async () => {
    const pool = poolOf();
    await ask(pool, small('warm'));
    const threads = threadsOf(pool).map(({ worker }) => worker);
    for (let round = 0; round < 20; round++) {
      const asked = Array.from({ length: 31 }, (_, i) =>
        ask(pool, i === 13 ? { queries: [{ op: { toString: 0 } }] } : small(`${round} ${i}`)),
      );
      const answers = await Promise.all(asked);
      expect(answers.map(({ status }) => status)).toEqual(answers.map((_, i) => (i === 13 ? 422 : 200)));
      for (const [i, { text }] of answers.entries()) if (i !== 13) expect(text).toContain(`"${round} ${i}"`);
    }
    expect(threadsOf(pool).map(({ worker }) => worker)).toEqual(threads);
  });

  it('that is being computed when its thread is ended from outside is the only one refused', async () => {
    const pool = poolOf();
    await ask(pool, small('warm'));
    for (let round = 0; round < 20; round++) {
      const asked = Array.from({ length: 31 }, (_, i) => ask(pool, small(`${round} ${i}`)));
      await new Promise(setImmediate);
      await new Promise(setImmediate);
      void threadsOf(pool)[round % 2]!.worker?.terminate();
      const answers = await Promise.all(asked);
      const refused = answers.filter(({ status }) => status !== 200);
      expect(refused.length).toBeLessThanOrEqual(1);
      for (const { status, text } of refused) {
        expect(status).toBe(503);
        expect(text).toContain('The thread that computed this was lost');
      }
    }
  });

  it('that needs more memory than a thread has is the only one refused', async () => {
    const pool = poolOf({ memory: 96, threads: 1 });
    const items = Array.from({ length: 250_000 }, () => ({ position: [0, 0, -4], mode: 'eyePoint' }));
    const large = { ...small('large'), queries: [{ id: 'boards', op: 'billboard', items }] };
    for (let round = 0; round < 1; round++) {
      const asked = Array.from({ length: 31 }, (_, i) => ask(pool, i === 13 ? large : small(`${round} ${i}`)));
      const statuses = (await Promise.all(asked)).map(({ status }) => status);
      expect(statuses).toEqual(statuses.map((_, i) => (i === 13 ? 503 : 200)));
    }
  }, 60_000);
});

describe('a request that the quick threads hand over', () => {
  it('is computed before all that wait with large bodies', async () => {
    const pool = poolOf({ threads: 1 });
    await ask(pool, small('warm'));
    const order: string[] = [];
    const asked = (name: string, given: unknown) =>
      ask(pool, given).then(({ status }) => order.push(`${name} ${status}`));
    const points = (count: number) => Array.from({ length: count }, (_, i) => [i % 7, i % 5, -5 - (i % 9)]);
    const large = (id: string) => ({ ...small(id), queries: [{ id, op: 'worldToScreen', points: points(150_000) }] });
    // Few bytes, and more than the quick threads take on.
    const costly = {
      ...small('costly'),
      queries: [
        {
          id: 'times',
          op: 'motion',
          track: { kind: 'scroll', velocity: [1, 0, 0] },
          times: Array.from({ length: 4_000 }, (_, i) => i),
        },
      ],
    };
    const done = ['first', 'second', 'third'].map((id) => asked(id, large(id)));
    done.push(asked('costly', costly));
    await Promise.all(done);
    expect([...order].sort()).toEqual(['costly 200', 'first 200', 'second 200', 'third 200']);
    expect(order.indexOf('costly 200')).toBeLessThan(order.indexOf('third 200'));
  }, 60_000);
});

describe('readers that take nothing of large answers', () => {
  const points = Array.from({ length: 60_000 }, (_, i) => [i % 7, i % 5, -(i % 9)]);
  const large = { ...small('large'), queries: [{ id: 'p', op: 'worldToScreen', points }] };
  /** Asks for a large answer and takes nothing of it; resolves when the answer breaks off. */
  function askIdly(pool: ComputePool): Promise<void> {
    const to = new Writable({ highWaterMark: 1, write: () => undefined }) as unknown as Asker;
    to.begin = () => undefined;
    const closed = new Promise<void>((done) => void to.once('close', done));
    pool.answer(new TextEncoder().encode(JSON.stringify(large)), to);
    return closed;
  }

  it('hold the threads for a limited time; who waits meanwhile is told when to try again', async () => {
    const pool = poolOf({ threads: 2, waitingSeconds: 0.5, takingSeconds: 3 });
    const idle = [askIdly(pool), askIdly(pool)];
    await new Promise((done) => setTimeout(done, 800));
    let retry: number | undefined;
    const refused = await new Promise<number>((done) => {
      const to = new Writable({ write: (_piece, _encoding, taken) => taken() }) as unknown as Asker;
      to.begin = (status, _type, retryAfter) => {
        retry = retryAfter;
        done(status);
      };
      pool.answer(new TextEncoder().encode(JSON.stringify(large)), to);
    });
    expect([refused, retry]).toEqual([503, 1]);
    await Promise.all(idle);
    expect((await ask(pool, large)).status).toBe(200);
  }, 30_000);
});
