import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { complain, say, underWay, useNotices } from './notices';

const shown = () => useNotices.getState().notices.map(({ text, progress }) => [text, progress]);
beforeEach(() => {
  vi.useFakeTimers();
  useNotices.setState({ notices: [] });
});
afterEach(() => vi.useRealTimers());

it('two things under way have a notice each: neither overwrites the other, nor ends it', () => {
  const [a, b] = [underWay('Reading', () => undefined), underWay('Sampling', () => undefined)];
  vi.advanceTimersByTime(301);
  a.at(0.2);
  b.at(0.7);
  expect(shown()).toEqual([['Reading', 0.2], ['Sampling', 0.7]]); // prettier-ignore
  a.done();
  a.at(0.9);
  expect(shown()).toEqual([['Sampling', 0.7]]);
  say('Copied.');
  b.at(0.8);
  expect(shown()).toEqual([['Sampling', 0.8], ['Copied.', undefined]]); // prettier-ignore
  vi.advanceTimersByTime(3000);
  expect(shown()).toEqual([['Sampling', 0.8]]);
  b.done();
  expect(shown()).toEqual([]);
});

it('what is done within a moment shows nothing; what went wrong stays until the next is said', () => {
  underWay('Quick', () => undefined).done();
  vi.advanceTimersByTime(1000);
  expect(shown()).toEqual([]);
  complain('It failed.');
  vi.advanceTimersByTime(60_000);
  expect(shown()).toEqual([['It failed.', undefined]]);
  say('It went well.');
  expect(shown()).toEqual([['It went well.', undefined]]);
});
