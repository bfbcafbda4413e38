import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { useNotices } from '../ui/notices';
import { useAnswers } from './answers';
import { jobRunner, sameInput, type FromJobs, type JobWorker, type ToJobs } from './jobs';

/** Workers that are driven by hand: what they were told, and what they are made to say. */
function crew() {
  const workers: { told: ToJobs[]; say: (message: FromJobs) => void }[] = [];
  const failures: string[] = [];
  const runner = jobRunner(
    2,
    (): JobWorker => {
      const one = { told: [] as ToJobs[], say: (() => undefined) as (message: FromJobs) => void };
      workers.push(one);
      return { post: (message) => void one.told.push(message), listen: (hear) => void (one.say = hear) };
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

  it('compares inputs by their parts', () => {
    expect(sameInput({ a: 1, b: NaN }, { a: 1, b: NaN })).toBe(true);
    expect(sameInput({ a: 1 }, { a: 1, b: undefined })).toBe(false);
    expect(sameInput(null, {})).toBe(false);
  });
});
