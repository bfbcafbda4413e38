import type { MatrixName } from '../diagnose/faults';
import { describe, expect, it } from 'vitest';
import {
  dice,
  listed,
  made,
  mistakesOf,
  pointsOf,
  requestOf,
  shotBy,
  type Mistake,
  type Shot,
} from '../testing/wrongEngine';
import { toRuf } from '../conventions/axes';
import type { Vec3 } from '../math/vec3';
import { checkAnswers, vectorsOf, type Answers, type Vectors } from './vectors';
import { runs } from '../testing/seed';

/** What an engine that commits a mistake answers to test vectors, as doubles. */
function answersOf(shot: Shot, vectors: Vectors, mistakes: readonly Mistake[]): Answers {
  const engine = made(shot, mistakes, true);
  const whole = made(shot, mistakes.filter(({ place }) => place !== 'matrices'), true).viewProjection;
  const answers = new Map<string, readonly number[] | null>();
  for (const { id, kind, input, expected } of vectors.rows) {
    if (kind === 'worldToScreen') {
      const ruf = toRuf(shot.c.world as never, input as unknown as Vec3);
      const [point] = pointsOf(shot, [ruf], whole, mistakes);
      answers.set(id, expected === null ? null : [...point!.screen, point!.depth]);
    } else if (kind === 'screenToWorld' || kind === 'ray') answers.set(id, expected);
    else answers.set(id, listed(shot.c, engine[kind as MatrixName]));
  }
  return answers;
} // prettier-ignore

describe('test vectors', () => {
  it('are the same by a seed, and right answers pass', () => {
    for (let seed = 1; seed <= runs(40); seed++) {
      const shot = shotBy(dice(seed));
      const of = (own: number) => vectorsOf(requestOf(shot, []), 12, own);
      const [one, again, other] = [of(5), of(5), of(6)];
      if (!one.ok || !again.ok || !other.ok) throw new Error('a proper camera');
      expect(again).toEqual(one);
      expect(other.vectors.rows[4]!.input).not.toEqual(one.vectors.rows[4]!.input);
      const { vectors } = one;
      const checked = checkAnswers(vectors, answersOf(shot, vectors, []), 1e-6);
      expect(checked.rows.filter(({ ok }) => !ok), `${seed}`).toEqual([]);
      expect(checked.suggests).toEqual([]);
    }
  });

  it('every fault that shows in numbers fails a row, and is suggested', () => {
    let [asked, named] = [0, 0];
    const seen = new Set<string>();
    for (let seed = 1; seed <= runs(24); seed++) {
      const d = dice(seed + 900);
      const shot = shotBy(d);
      const given = vectorsOf(requestOf(shot, []), 11, seed);
      if (!given.ok) throw new Error('a proper camera');
      for (const mistake of mistakesOf(shot)) {
        const answers = answersOf(shot, given.vectors, [mistake]);
        if ([...answers.values()].some((list) => list?.some((v) => !Number.isFinite(v) || Math.abs(v) > 1e25))) continue;
        const { wrong, suggests } = checkAnswers(given.vectors, answers, 1e-6);
        // What changes nothing of this camera is no fault of its numbers; what does must fail a row.
        const right = answersOf(shot, given.vectors, []);
        const off = [...answers].some(([id, list]) => list?.some((v, i) => Math.abs(v - right.get(id)![i]!) > 1e-3 * Math.max(1, ...list.map(Math.abs))));
        if (off) expect(wrong, `${seed} ${mistake.place} ${mistake.fault}`).toBeGreaterThan(0);
        if (!wrong) continue;
        seen.add(mistake.fault);
        // How many device pixels a pixel of the page has no camera says.
        if (mistake.fault === 'devicePixelRatio') continue;
        asked++;
        if (suggests.length) named++;
      }
    }
    expect(seen.size).toBeGreaterThan(32);
    expect(named / asked).toBeGreaterThan(0.97);
  }, 120_000);

  it('say what is off, what is missing, and what should have no picture', () => {
    const shot = shotBy(dice(3));
    const given = vectorsOf(requestOf(shot, []), 11, 1);
    if (!given.ok) throw new Error('a proper camera');
    const { vectors } = given;
    const right = answersOf(shot, vectors, []);
    const behind = vectors.rows.find(({ expected }) => expected === null);
    const changed = new Map(right);
    changed.set('point 1', right.get('point 1')!.map((v, i) => (i === 1 ? v + 3 : v)));
    changed.delete('ray 1');
    if (behind) changed.set(behind.id, [1, 2, 0]);
    const { rows, wrong } = checkAnswers(vectors, changed, 1e-6);
    expect(wrong).toBe(behind ? 3 : 2);
    expect(rows.find(({ id }) => id === 'point 1')!.says).toMatch(/^y is .*, and should be/);
    expect(rows.find(({ id }) => id === 'ray 1')!.says).toContain('no answer');
    if (behind) expect(rows.find(({ id }) => id === behind.id)!.says).toContain('behind the eye');
    expect(vectorsOf({ astrolabe: 1 }, 3, 1)).toMatchObject({ ok: false });
  });
}); // prettier-ignore
