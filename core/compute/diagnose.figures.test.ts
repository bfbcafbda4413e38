import { describe, expect, it } from 'vitest';
import {
  asFloat,
  dice,
  listed,
  made,
  mistakesOf,
  pointsOf,
  requestOf,
  shotBy,
  worldsOf,
  type Dice,
  type Mistake,
  type Shot,
} from '../testing/wrongEngine';
import { compute } from './compute';
import { soaks } from '../testing/seed';

/*
 * How often faults are found: random cameras in random conventions, their numbers made by an engine
 * that shares nothing with the search. `npm run soak` asks 2,000 cameras.
 */
const cameras = soaks ? 2_000 : 60;
const matrices = ['view', 'cameraToWorld', 'projection', 'viewProjection'] as const;
const things = [...matrices, 'points'] as const;
type Thing = (typeof things)[number];
type Point = ReturnType<typeof pointsOf>[number];
type Given = Partial<Record<(typeof matrices)[number], number[]>> & { points?: Point[] };
const after: Readonly<Record<Mistake['place'], readonly Thing[]>> = {
  view: ['view', 'cameraToWorld', 'viewProjection', 'points'],
  cameraToWorld: ['cameraToWorld'],
  projection: ['projection', 'viewProjection', 'points'],
  viewProjection: ['viewProjection', 'points'],
  points: ['points'],
  matrices,
};

interface Case {
  readonly shot: Shot;
  readonly worlds: ReturnType<typeof worldsOf>;
  readonly what: readonly Thing[];
  readonly own: boolean;
  readonly figures: number;
}
/** What an engine gives that commits these mistakes, as floats are printed; null where a number is none. */
function givenBy({ shot, worlds, what, own, figures }: Case, mistakes: readonly Mistake[]): Given | null {
  const engine = made(shot, mistakes, own);
  const given: Given = {};
  for (const name of matrices) if (what.includes(name)) given[name] = listed(shot.c, engine[name]).map((v) => asFloat(v, figures)); // prettier-ignore
  if (what.includes('points')) {
    const whole = made(shot, mistakes.filter(({ place }) => place !== 'matrices'), own).viewProjection; // prettier-ignore
    const print = (list: readonly number[]) => list.map((v) => asFloat(v, figures));
    given.points = pointsOf(shot, worlds, whole, mistakes).map(({ world, screen, depth }) => ({ world, screen: print(screen), depth: asFloat(depth, figures) })); // prettier-ignore
  }
  const numbers = JSON.stringify(given);
  return numbers.includes('null') || /e\+?(1[5-9]|[2-9]\d)/.test(numbers) ? null : given;
}
/** The numbers of one thing with the size that each is trusted against (the contract's s). */
function sized(given: Given, thing: Thing): { v: number; s: number }[] {
  if (thing !== 'points') {
    const list = given[thing]!;
    const largest = (at: (k: number) => number) => Math.max(...[0, 1, 2, 3].map((k) => Math.abs(list[at(k)]!)));
    return list.map((v, i) => ({ v, s: Math.min(largest((k) => 4 * (i >> 2) + k), largest((k) => 4 * k + (i % 4))) })); // prettier-ignore
  }
  const rows = given.points!.map(({ screen, depth }) => [...screen, depth]);
  const median = (k: number) => rows.map((row) => Math.abs(row[k]!)).sort((a, b) => a - b)[rows.length >> 1]!;
  return rows.flatMap((row) => row.map((v, k) => ({ v, s: median(k) })));
}
/** Whether two are one to six digits, or to so many times that. */
const alike = (a: Given, b: Given, thing: Thing, loose = 1): boolean => {
  const other = sized(b, thing);
  return sized(a, thing).every(({ v, s }, i) => Math.abs(v - other[i]!.v) <= loose * (1e-5 * Math.abs(v) + 1e-6 * s));
};

function caseOf(d: Dice, shot: Shot, mistakes: readonly Mistake[]): Case {
  const shows = mistakes.map(({ place }) => d.of(after[place]));
  const what = things.filter((thing) => shows.includes(thing) || (mistakes.every(({ place }) => place !== 'matrices' || thing !== 'points') && d.chance(0.4))); // prettier-ignore
  return { shot, worlds: worldsOf(shot, d), what: what.length ? what : ['view'], own: d.chance(0.5), figures: d.of([7, 8, 9]) }; // prettier-ignore
}

interface Answer {
  readonly verdict: string;
  readonly explanations: readonly {
    readonly faults: readonly Said[];
    readonly equivalent: readonly (readonly Said[])[];
  }[];
}
interface Said {
  readonly where: Mistake['place'];
  readonly fault: string;
}
function diagnosed(shot: Shot, given: Given, more: object = {}): Answer {
  const asked = compute(requestOf(shot, [{ id: 'd', op: 'diagnose', given, devicePixelRatio: shot.ratio, ...more }]));
  if (!asked.ok) throw new Error(JSON.stringify(asked.problem));
  return asked.response.results[0] as unknown as Answer;
}

/** Whether what was found first, or anything equal to it, is what was done, or makes the very same numbers. */
function found(one: Case, given: Given, right: Given, mistakes: readonly Mistake[], { explanations }: Answer): boolean {
  const [first] = explanations;
  if (!first) return false;
  const where = ({ place }: Mistake): Mistake['place'] => {
    if (place === 'matrices') return one.what.filter((thing) => thing !== 'points').length > 1 ? 'matrices' : one.what[0]!;
    return one.what.includes(place) ? place : (after[place].find((thing) => one.what.includes(thing) && !alike(given, right, thing)) ?? place);
  };
  const done = mistakes.map((mistake) => `${where(mistake)} ${mistake.fault}`).sort().join();
  const sets = [first.faults, ...first.equivalent];
  if (sets.some((set) => set.map((said) => `${said.where} ${said.fault}`).sort().join() === done)) return true;
  // Fewer or others that do the same are as good: made again by the engine, they must give these numbers.
  const remade = sets.some((set) =>
    set.length <= mistakes.length && [[true, true], [true, false], [false, true], [false, false]].some((ups) => {
      const places = set.map((said): Mistake[] => (Object.keys(after) as Mistake['place'][]).filter((place) => place === said.where || (!one.what.includes(place as Thing) && after[place].includes(said.where as Thing))).map((place) => ({ fault: said.fault, place })));
      const ways = places.reduce<Mistake[][]>((made, list, i) => made.flatMap((before) => list.map((mistake) => [...before, { ...mistake, up: ups[i]! }])), [[]]);
      return ways.some((way) => [true, false].some((own) => {
        const again = givenBy({ ...one, own }, way);
        return again && one.what.every((thing) => alike(given, again, thing, 2));
      }));
    }),
  );
  return remade;
} // prettier-ignore

describe('over random cameras in random conventions', () => {
  it('every fault alone is found first or equal to the first', () => {
    const missed: string[] = [];
    let asked = 0;
    for (let seed = 1; seed <= cameras; seed++) {
      const d = dice(seed);
      const shot = shotBy(d);
      for (const mistake of soaks ? [d.of(mistakesOf(shot)), d.of(mistakesOf(shot)), d.of(mistakesOf(shot))] : [d.of(mistakesOf(shot))]) {
        const one = caseOf(d, shot, [mistake]);
        const [given, right] = [givenBy(one, [mistake]), givenBy(one, [])!];
        // What shows in nothing that is given is not asked for.
        if (!given || one.what.every((thing) => alike(given, right, thing, 4))) continue;
        asked++;
        if (!found(one, given, right, [mistake], diagnosed(shot, given))) missed.push(`${seed}: ${mistake.place} ${mistake.fault} of ${one.what.join()} (${shot.lens}, ${shot.said})`);
      }
    }
    if (soaks) console.error(`single faults first or equal to the first: ${asked - missed.length} of ${asked}`);
    expect(asked).toBeGreaterThan(cameras * 0.7);
    expect(missed.length / asked, missed.join('\n')).toBeLessThanOrEqual(0.01);
  }, 3_600_000); // prettier-ignore

  it('two faults are found', () => {
    const missed: string[] = [];
    let asked = 0;
    for (let seed = 1; seed <= cameras; seed++) {
      const d = dice(seed + 50_000);
      const shot = shotBy(d);
      const all = mistakesOf(shot);
      const mistakes = [d.of(all), d.of(all)];
      const [a, b] = mistakes as [Mistake, Mistake];
      if (a.fault === b.fault || mistakes.some(({ place }) => place === 'matrices')) continue;
      const one = caseOf(d, shot, mistakes);
      const [given, right] = [givenBy(one, mistakes), givenBy(one, [])!];
      const alone = mistakes.map((mistake) => givenBy(one, [mistake]));
      const hides = (some: Given | null) => some && given && one.what.every((thing) => alike(given, some, thing, 4));
      if (!given || hides(right) || alone.some(hides)) continue;
      asked++;
      if (!found(one, given, right, mistakes, diagnosed(shot, given))) missed.push(`${seed}: ${mistakes.map(({ place, fault }) => `${place} ${fault}`).join(' + ')} of ${one.what.join()} (${shot.lens}, ${shot.said})`); // prettier-ignore
    }
    if (soaks) console.error(`pairs found: ${asked - missed.length} of ${asked}`);
    expect(asked).toBeGreaterThan(cameras * 0.5);
    expect(missed.length / asked, missed.join('\n')).toBeLessThanOrEqual(0.01);
  }, 3_600_000);

  it('right numbers are called right, however few and however listed, and random ones are not explained', () => {
    const sets: readonly (readonly Thing[])[] = [['view'], ['projection'], ['viewProjection'], ['points'], things];
    const alarms: string[] = [];
    let explained = 0;
    const asked = soaks ? 5_000 : cameras;
    for (let seed = 1; seed <= asked; seed++) {
      const d = dice(seed + 100_000);
      const shot = shotBy(d);
      const one = caseOf(d, shot, []);
      for (const what of sets) {
        const given = givenBy({ ...one, what }, [])!;
        if (diagnosed(shot, given).verdict !== 'agrees') alarms.push(`${seed} ${what.join()}`);
        // Of a listing that the print does not tell, either way is right.
        const [listed] = Object.values(given);
        if (what.length > 1 || what[0] === 'points') continue;
        const turned = {
          [what[0]!]: [0, 1, 2, 3].flatMap((r) => [0, 1, 2, 3].map((c) => (listed as number[])[4 * c + r]!)),
        };
        if (diagnosed(shot, turned, { listingUnknown: what }).verdict !== 'agrees')
          alarms.push(`${seed} ${what.join()} turned`);
      }
      const random = Array.from({ length: 16 }, () => d.apart(0.01, 3));
      if (diagnosed(shot, { [d.of(matrices)]: random }).verdict !== 'unexplained') explained++;
    }
    expect(alarms).toEqual([]);
    expect(explained / asked).toBeLessThanOrEqual(0.01);
  }, 3_600_000);

  it('the conventions are among the candidates, each of which gives the numbers back', () => {
    const missed: string[] = [];
    let asked = 0;
    for (let seed = 1; seed <= cameras; seed++) {
      const d = dice(seed + 150_000);
      const shot = shotBy(d);
      const sets: readonly (readonly Thing[])[] = [['view'], ['cameraToWorld'], ['projection'], ['view', 'projection'], ['viewProjection'], ['view', 'viewProjection'], ['projection', 'viewProjection'], [...matrices]]; // prettier-ignore
      const one: Case = { ...caseOf(d, shot, []), what: d.of(sets) };
      const given = givenBy(one, [])!;
      const axesBear = one.what.some((thing) => thing !== 'viewProjection');
      const depthBears = one.what.some((thing) => thing === 'projection' || thing === 'viewProjection');
      // The request believes in other view axes, depths and listing than the engine has.
      const believed = { ...shot.c, ...(axesBear && { view: { right: '+x', up: '+y', forward: '-z' } }), ...(depthBears && { ndc: { ...shot.c.ndc, near: 0, far: 1 } }), matrix: { vectors: 'column', storage: 'column-major' } }; // prettier-ignore
      const answered = compute({ astrolabe: 1, conventions: believed, viewport: shot.viewport, queries: [{ id: 'i', op: 'identify', given }] }); // prettier-ignore
      if (!answered.ok) throw new Error(JSON.stringify(answered.problem));
      expect(answered.response).toMatchObject({ camera: null, reason: 'cameraNotGiven' });
      const { candidates } = answered.response.results[0] as unknown as { candidates: { conventions: typeof shot.c; camera: object }[] }; // prettier-ignore
      asked++;
      const transposes = ({ matrix }: typeof shot.c) => (matrix.vectors === 'row') !== (matrix.storage === 'column-major'); // prettier-ignore
      const among = candidates.some(({ conventions: c }) => transposes(c) === transposes(shot.c) && (!axesBear || JSON.stringify(c.view) === JSON.stringify(shot.c.view)) && (!depthBears || (c.ndc.near === shot.c.ndc.near && c.ndc.far === shot.c.ndc.far))); // prettier-ignore
      if (!among) missed.push(`${seed}: ${one.what.join()} (${shot.lens}), ${candidates.length} candidates`);
      for (const { conventions, camera } of candidates.slice(0, 3)) {
        if (!('position' in camera) || !('projection' in camera)) continue;
        const back = compute({ astrolabe: 1, conventions, viewport: shot.viewport, camera, queries: [{ id: 'm', op: 'matrices' }] }); // prettier-ignore
        if (!back.ok) throw new Error(JSON.stringify(back.problem));
        const again = back.response.results[0] as unknown as Given;
        for (const thing of one.what) expect(alike(given, again, thing, 1.01), `${seed} ${thing}`).toBe(true);
      }
    }
    expect(missed.length / asked, missed.join('\n')).toBeLessThanOrEqual(0.005);
  }, 3_600_000);
});
