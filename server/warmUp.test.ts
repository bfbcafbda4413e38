import { describe, expect, it } from 'vitest';
import { sampleProblem } from './warmUp';

describe('what a thread that stands ready answers first', () => {
  it('is a request without a problem', () => {
    expect(sampleProblem()).toBeNull();
  });
});
