import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runs } from '../testing/seed';
import { limits } from './limits';
import { textProblem } from './requestText';

describe('the text of a request', () => {
  it('that a program has written has nothing wrong', () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.constantFrom(0, 1, 3), (value, indent) => {
        expect(textProblem(JSON.stringify(value, null, indent))).toBeNull();
      }),
      { numRuns: runs(600) },
    );
    expect(textProblem('{"a": "{\\"a\\": 1, \\"a\\": 2}", "b\\\\": 1, "c": [{"a": 1}, {"a": 2}]}')).toBeNull();
  });

  it('is wrong where an object has a key twice, at any depth', () => {
    const keys = fc.array(fc.string({ maxLength: 5 }), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(keys, fc.nat(), fc.nat({ max: 5 }), (names, which, depth) => {
        const twice = [...names, names[which % names.length]!];
        const object = `{${twice.map((name, i) => `${JSON.stringify(name)}: ${i}`).join(', ')}}`;
        const text = '[{"x":'.repeat(depth) + object + '}]'.repeat(depth);
        expect(textProblem(text)?.message).toContain('twice');
      }),
      { numRuns: runs(300) },
    );
  });

  it('is wrong with more lists and objects than one may have, and not with as many', () => {
    expect(textProblem(`[${'[],'.repeat(limits.lists - 2)}[]]`)).toBeNull();
    expect(textProblem(`[${'[],'.repeat(limits.lists)}[]]`)?.message).toContain('lists and objects');
    // Brackets in texts are none.
    expect(textProblem(`["${'['.repeat(limits.lists + 1)}"]`)).toBeNull();
  });
});
