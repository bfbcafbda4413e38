import { expect, it } from 'vitest';
import fc from 'fast-check';
import { jsonProblem, readJsonText } from './jsonProblem';

it.each([
  ['{"a": 1,}', 'line 1, column 9: a key in double quotes is expected, at }'],
  ["{'a': 1}", "line 1, column 2: this is not a value, at 'a': 1}"],
  ['{"a" 1}', 'line 1, column 6: a colon is expected after the key, at 1}'],
  ['[1, 2', 'line 1, column 6: a closing bracket ] is expected, at the end'],
  ['{"a": 1} 2', 'line 1, column 10: the document should end here, at 2'],
  ['', 'line 1, column 1: a value is expected, at the end'],
  ['{\n// why\n"a": 1}', 'line 2, column 1: JSON has no comments, at // why'],
])('%j: %s', (text, sentence) => expect(jsonProblem(text)).toBe(sentence));

it('reads what JSON.parse reads, and says a place and a reason for everything else', () => {
  fc.assert(
    fc.property(fc.json(), fc.nat(), fc.constantFrom('', '"', ',', '}', ']', ':', 'x', '\n'), (text, at, letter) => {
      const torn = text.slice(0, at % (text.length + 1)) + letter;
      const read = readJsonText(torn);
      if ('value' in read) expect(read.value).toEqual(JSON.parse(torn));
      else expect(() => JSON.parse(torn) as unknown).toThrow();
      if ('problem' in read) expect(read.problem).toMatch(/^line \d+, column \d+: [^:]+, at /);
    }),
  );
});
