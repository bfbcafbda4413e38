import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { useNotices } from '../ui/notices';
import { useAnswers } from './answers';
import { jobRunner, runAfterRest, sameInput, type FromJobs, type JobWorker, type ToJobs } from './jobs';

/** Workers that are driven by hand: what they were told, and what they are made to say. */
function crew() {
  const workers: { told: ToJobs[]; say: (message: FromJobs) => void; end: (why: string) => void }[] = [];
  const failures: string[] = [];
  const runner = jobRunner(
    2,
    (): JobWorker => {
      const nobody = () => undefined;
      const one = {
        told: [] as ToJobs[],
        say: nobody as (message: FromJobs) => void,
        end: nobody as (why: string) => void,
      };
      workers.push(one);
      return {
        post: (message) => void one.told.push(message),
        listen: (say, end) => void Object.assign(one, { say, end }),
      };
    },
    (says, message) => void failures.push(`${says}: ${message}`),
  );
  const runs = () => workers.flatMap(({ told }) => told.filter((one) => one.kind === 'run'));
  return { workers, failures, runner, runs };
}
/** The answers to the jobs of Spawn, by the job. */
const answers = () =>
  Object.fromEntries(
    Object.entries(useAnswers.getState().answers).map(([key, one]) => [key.replace('spawn\n', ''), one]),
  );

describe('the runner of jobs', () => {
  beforeEach(() => {
    vi.useFakeTimers();
    useAnswers.setState({ answers: {} });
    useNotices.setState({ notices: [] });
  });
  afterEach(() => vi.useRealTimers());

  it('runs the newest input: what is under way gives way, what waited in between is never begun', () => {
    const { workers, runner, runs } = crew();
    for (const seed of [1, 2, 3]) runner.ask('spawn', 'points', 'Sampling', { seed });
    expect(runs().map(({ input }) => input)).toEqual([{ seed: 1 }]);
    expect(workers[0]!.told.filter(({ kind }) => kind === 'stop')).toHaveLength(2);
    workers[0]!.say({ kind: 'overtaken', run: 1 });
    expect(runs().map(({ input }) => input)).toEqual([{ seed: 1 }, { seed: 3 }]);
    workers[0]!.say({ kind: 'done', run: 2, result: 'three' });
    expect(answers()).toEqual({ points: 'three' });
  });

  it('goes on with another worker when one has ended, and says so', () => {
    const { workers, failures, runner, runs } = crew();
    runner.ask('spawn', 'points', 'Sampling', { seed: 1 });
    runner.ask('spawn', 'region', 'Measuring', { seed: 1 });
    runner.ask('spawn', 'until', 'Looking ahead', { seed: 1 });
    expect(workers).toHaveLength(2);
    workers[0]!.end('the browser ended its worker');
    expect(failures).toEqual(['Sampling: the browser ended its worker']);
    // What waited runs on a new worker. The failed run is not repeated: it may be the cause.
    expect(workers).toHaveLength(3);
    expect(runs().map(({ job }) => job)).toEqual(['points', 'region', 'until']);
    workers[2]!.say({ kind: 'done', run: 3, result: 'later' });
    expect(answers()).toEqual({ until: 'later' });
    runner.ask('spawn', 'points', 'Sampling', { seed: 2 });
    expect(runs().at(-1)).toMatchObject({ job: 'points', input: { seed: 2 } });
  });

  it('asks nothing anew for an input that is the same part by part, and shows no overtaken answer', () => {
    const { workers, runner, runs } = crew();
    const frame = {};
    runner.ask('spawn', 'points', 'Sampling', { frame, seed: 1 });
    runner.ask('spawn', 'points', 'Sampling', { frame, seed: 1 });
    expect(runs()).toHaveLength(1);
    runner.ask('spawn', 'points', 'Sampling', { frame, seed: 2 });
    // It had finished before it heard that it was overtaken.
    workers[0]!.say({ kind: 'done', run: 1, result: 'one' });
    expect(answers()).toEqual({});
    workers[0]!.say({ kind: 'done', run: 2, result: 'two' });
    expect(answers()).toEqual({ points: 'two' });
  });

  it('begins no job anew before its own older run has given way, though another’s seat is free', () => {
    const { workers, runner, runs } = crew();
    runner.ask('spawn', 'a', 'A', { n: 1 });
    runner.ask('spawn', 'b', 'B', { n: 1 });
    workers.forEach((one, i) => one.say({ kind: 'begun', run: i + 1 }));
    vi.advanceTimersByTime(400);
    expect(useNotices.getState().notices).toHaveLength(2);
    runner.ask('spawn', 'a', 'A', { n: 2 });
    // B is done while A has not heard yet.
    workers[1]!.say({ kind: 'done', run: 2, result: 'b' });
    expect(runs()).toHaveLength(2);
    workers[0]!.say({ kind: 'overtaken', run: 1 });
    expect(runs()).toHaveLength(3);
    workers.forEach((one) => one.say({ kind: 'done', run: 3, result: 'a2' }));
    expect(answers()).toEqual({ a: 'a2', b: 'b' });
    // No notice is left of the run that gave way.
    expect(useNotices.getState().notices).toEqual([]);
  });

  it('has two jobs run side by side and a third wait for a seat', () => {
    const { workers, runner, runs } = crew();
    for (const job of ['a', 'b', 'c']) runner.ask('spawn', job, job, { job });
    expect(workers).toHaveLength(2);
    expect(runs().map(({ job }) => job)).toEqual(['a', 'b']);
    workers[1]!.say({ kind: 'done', run: 2, result: 'B' });
    expect(runs().map(({ job }) => job)).toEqual(['a', 'b', 'c']);
    expect(workers[1]!.told.at(-1)).toMatchObject({ job: 'c' });
  });

  it('shows how far it is after a moment, stops when it is told to, and lets go of all at once', () => {
    const { workers, runner, failures } = crew();
    runner.ask('spawn', 'points', 'Sampling', { seed: 1 });
    workers[0]!.say({ kind: 'begun', run: 1 });
    workers[0]!.say({ kind: 'progress', run: 1, share: 0.4 });
    expect(useNotices.getState().notices).toEqual([]);
    vi.advanceTimersByTime(301);
    const [notice] = useNotices.getState().notices;
    expect(notice).toMatchObject({ text: 'Sampling', progress: 0.4 });
    notice!.action!.run();
    expect(workers[0]!.told.at(-1)).toEqual({ kind: 'stop', run: 1 });
    workers[0]!.say({ kind: 'failed', run: 1, message: 'no room' });
    expect(failures).toEqual(['Sampling: no room']);
    runner.ask('spawn', 'points', 'Sampling', { seed: 2 });
    runner.clear();
    workers[0]!.say({ kind: 'done', run: 2, result: 'late' });
    expect(answers()).toEqual({});
    expect(useNotices.getState().notices).toEqual([]);
  });

  it('has no answer where there is nothing to work on, and none that comes late', () => {
    const { workers, runner, runs } = crew();
    runner.ask('spawn', 'points', 'Sampling', { seed: 1 });
    workers[0]!.say({ kind: 'done', run: 1, result: 'one' });
    useAnswers.setState(({ answers: kept }) => ({ answers: { ...kept, other: 2 } }));
    runner.ask('spawn', 'points', 'Sampling', { seed: 2 });
    runner.ask('spawn', 'points', 'Sampling', null);
    expect(workers[0]!.told.at(-1)).toEqual({ kind: 'stop', run: 2 });
    expect(answers()).toEqual({ other: 2 });
    workers[0]!.say({ kind: 'done', run: 2, result: 'late' });
    expect(answers()).toEqual({ other: 2 });
    expect(useNotices.getState().notices).toEqual([]);
    // The seat is free again, and the same input is a new question.
    runner.ask('spawn', 'points', 'Sampling', { seed: 2 });
    expect(runs().map(({ input }) => input)).toEqual([{ seed: 1 }, { seed: 2 }, { seed: 2 }]);
  });

  it('says nothing of a job that rests: a moment is one of its work', () => {
    const { workers, runner } = crew();
    runner.ask('spawn', 'methods', 'Comparing', { seed: 1 });
    vi.advanceTimersByTime(5000);
    expect(useNotices.getState().notices).toEqual([]);
    workers[0]!.say({ kind: 'begun', run: 1 });
    vi.advanceTimersByTime(299);
    expect(useNotices.getState().notices).toEqual([]);
    vi.advanceTimersByTime(2);
    expect(useNotices.getState().notices).toMatchObject([{ text: 'Comparing' }]);
    workers[0]!.say({ kind: 'done', run: 1, result: 'all' });
    expect(useNotices.getState().notices).toEqual([]);
    // Overtaken before it began: what it says of its beginning comes too late.
    runner.ask('spawn', 'methods', 'Comparing', { seed: 2 });
    runner.ask('spawn', 'methods', 'Comparing', null);
    workers[0]!.say({ kind: 'begun', run: 2 });
    vi.advanceTimersByTime(1000);
    expect(useNotices.getState().notices).toEqual([]);
  });

  it('begins a job after its rest, and not at all where it is overtaken in it', async () => {
    const seen: string[] = [];
    const control = { progress: () => undefined, breathe: () => Promise.resolve() };
    const job = { rest: (n: number) => 100 * n, run: (n: number) => (seen.push('run'), n + 1) };
    const first = runAfterRest(job, 2, control, () => void seen.push('begun'));
    await vi.advanceTimersByTimeAsync(190);
    expect(seen).toEqual([]);
    await vi.advanceTimersByTimeAsync(30);
    expect(seen).toEqual(['begun', 'run']);
    expect(await first).toBe(3);
    const stopped = { ...control, breathe: () => Promise.reject(new Error('overtaken')) };
    const second = runAfterRest(job, 2, stopped, () => void seen.push('begun again')).catch((e: Error) => e.message);
    await vi.advanceTimersByTimeAsync(400);
    expect(await second).toBe('overtaken');
    expect(seen).toEqual(['begun', 'run']);
    // Without a rest it begins at once.
    await runAfterRest({ run: job.run }, 1, control, () => void seen.push('at once'));
    expect(seen.slice(2)).toEqual(['at once', 'run']);
  });

  it('compares inputs by their parts', () => {
    expect(sameInput({ a: 1, b: NaN }, { a: 1, b: NaN })).toBe(true);
    expect(sameInput({ a: 1 }, { a: 1, b: undefined })).toBe(false);
    expect(sameInput(null, {})).toBe(false);
  });
});
