import { describe, expect, it } from 'vitest';
import { checkAnswers } from '../core/deliver/checkVectors';
import { vectorsOf } from '../core/deliver/vectors';
import { readAnswers } from './vectors';

/* Answers of engines as their languages print them. */

const camera = { position: [1, 2, 9], orientation: { lookAt: [0, 1, 0] }, projection: { kind: 'perspective', near: 0.5, far: 80, verticalFov: 50 } }; // prettier-ignore
const request = { astrolabe: 1, viewport: { width: 640, height: 360 }, camera, queries: [] };

describe('an answer that is no number', () => {
  it.each([
    'nan',
    'NaN',
    '-nan',
    '-nan(ind)',
    'nan(snan)',
    '1.#QNAN',
    '-1.#IND',
    '1.#IND00',
    'inf',
    '-inf',
    '+Infinity',
    '1.#INF',
    '-1.#INF00',
  ])(
    // prettier-ignore
    '%s is a wrong answer of its row, and the others are checked',
    (printed) => {
      const answers = readAnswers(`point 1,${printed},2,0.5\npoint 2,1,2,0.5`);
      if (typeof answers === 'string') throw new Error(answers);
      expect(answers.get('point 1')![0]).not.toSatisfy(Number.isFinite);
      expect(answers.get('point 2')).toEqual([1, 2, 0.5]);
      const made = vectorsOf(request, 3, 1);
      if (!made.ok) throw new Error('a proper camera');
      const { rows } = checkAnswers(made.vectors, answers, 1e-5);
      expect(rows.find(({ id }) => id === 'point 1')!.says).toMatch(/^pixel x is -?(NaN|Infinity) instead of -?\d/);
    },
  );

  it('in JSON is a text or null', () => {
    expect(readAnswers('{"point 1": ["nan", null, 1]}')).toEqual(new Map([['point 1', [NaN, NaN, 1]]]));
    expect(readAnswers('[[1, 2]]')).toContain('an object of lists');
    expect(readAnswers('point 1,about 3')).toContain('“about 3” is no number');
  });

  it('may stand in a row of any id', () => {
    const answers = readAnswers('{"__proto__": [1, 2], "constructor": [3, 4]}');
    if (typeof answers === 'string') throw new Error(answers);
    expect([...answers]).toEqual([['__proto__', [1, 2]], ['constructor', [3, 4]]]); // prettier-ignore
  });
});

describe('test vectors', () => {
  it('are as many as the command line promises', () => {
    const made = vectorsOf(request, 5_000, 1);
    if (!made.ok) throw new Error(JSON.stringify(made.problem));
    expect(made.vectors.rows.filter(({ kind }) => kind === 'worldToScreen')).toHaveLength(5_000);
  });
});
