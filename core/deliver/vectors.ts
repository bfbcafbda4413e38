import { compute } from '../compute/compute';
import type { VectorKind, VectorRow } from './vectorRows';
import { rows2d } from './vectors2d';
import { readSetUp, type ProblemDocument } from '../compute/readRequest';
import { viewRufToWorld } from '../convert/project';
import { pictureToWorld } from '../convert/unproject';
import type { CameraFrame } from '../camera/frame';
import { randomFrom } from '../math/random';
import type { Vec3 } from '../math/vec3';

/** Test vectors: a request of one camera, and what an engine's functions are to give for it. */
export interface Vectors {
  readonly astrolabeVectors: 1;
  /** The camera and its conventions, without queries. */
  readonly request: unknown;
  readonly rows: readonly VectorRow[];
}

/** Places spread over the picture and in depth; every seventh is off the picture, every eleventh behind the eye. */
function placesOf(frame: CameraFrame, count: number, seed: number): Vec3[] {
  const roll = randomFrom(seed);
  const { near, far, extents: x, kind } = frame;
  const end = Math.min(far ?? Infinity, near > 0 ? near * 400 : (far ?? 1));
  return Array.from({ length: count }, (_, i) => {
    const share = 0.05 + 0.85 * roll();
    let f = kind === 'perspective' ? near * (end / near) ** share : near + (end - near) * share;
    const k = kind === 'perspective' ? f / near : 1;
    const wide = i % 7 === 6 ? 1.6 : 0.45;
    const [a, b] = [0.5 + wide * (2 * roll() - 1), 0.5 + wide * (2 * roll() - 1)];
    if (i % 11 === 10) f = -f;
    return viewRufToWorld(frame, [(x.left + (x.right - x.left) * a) * k, (x.bottom + (x.top - x.bottom) * b) * k, f]);
  });
}

/**
 * Test vectors for the camera of a request, any JSON value: its matrices, and `count` points with
 * their pixels, the way back and the rays, by a seed. The four matrices and points off the axes fail
 * for every fault that `diagnose` knows and that shows in numbers. What is wrong with the request is
 * said as `compute` says it.
 */
export function vectorsOf(given: unknown, count: number, seed: number): { ok: true; vectors: Vectors } | { ok: false; problem: ProblemDocument } {
  const read = readSetUp(given);
  if (!read.ok) return read;
  const { request } = read;
  const { frame, codec: e } = read.resolved;
  const { camera } = read.resolved;
  const bare = { ...request, bodies: [], queries: [] };
  if ('kind' in camera) return { ok: true, vectors: { astrolabeVectors: 1, request: bare, rows: rows2d(camera, frame.viewport, e, count, seed) } };
  const points = placesOf(frame, count, seed).map((p) => e.toWorld(p));
  const answered = compute({ ...request, bodies: [], queries: [{ id: 'm', op: 'matrices' }, { id: 'p', op: 'worldToScreen', points }] });
  if (!answered.ok) return answered;
  const [m, p] = answered.response.results as unknown as [Record<string, number[]>, { points: { screen: [number, number] | null; depth: number; ahead: number }[] }];
  const seen = p.points.flatMap((one, i) => (one.screen ? [{ ...one, screen: one.screen, i }] : []));
  const pixels = seen.map(({ screen }) => screen);
  const back = compute({ ...request, bodies: [], queries: [{ id: 'r', op: 'rays', pixels }] });
  if (!back.ok) return back;
  const [{ pixels: rays }] = back.response.results as unknown as [{ pixels: { origin: number[]; direction: number[] }[] }];
  // A query of `screenToWorld` has one distance ahead, and every pixel has another: a request is limited to fewer queries.
  const places = seen.map(({ screen, ahead }) => {
    const point = pictureToWorld(frame, ...e.fromScreen(frame.viewport, screen), { kind: 'ahead', ahead });
    return point.ok ? e.toWorld(point.value) : null;
  });
  const rows: VectorRow[] = [
    ...(['view', 'projection', 'viewProjection', 'cameraToWorld'] as const).map((kind): VectorRow => ({ id: kind, kind, input: [], expected: m[kind]! })),
    ...p.points.map(({ screen, depth, ahead }, i): VectorRow => ({ id: `point ${i + 1}`, kind: 'worldToScreen', input: points[i]!, expected: screen ? [...screen, depth, ahead] : null })),
    // Behind the eye plane an orthographic pixel has no point by the contract, and one by the plain formula: no row asks.
    ...seen.flatMap(({ screen, ahead, i }, k): VectorRow[] => places[k] ? [{ id: `back ${i + 1}`, kind: 'screenToWorld', input: [...screen, ahead], expected: places[k] }] : []),
    ...seen.map(({ screen, i }, k): VectorRow => ({ id: `ray ${i + 1}`, kind: 'ray', input: screen, expected: [...rays[k]!.origin, ...rays[k]!.direction] })),
  ];
  return { ok: true, vectors: { astrolabeVectors: 1, request: bare, rows } };
} // prettier-ignore

/** What became of a row. */
export interface CheckedRow {
  readonly id: string;
  readonly kind: VectorKind;
  readonly ok: boolean;
  /** What is off, in a sentence; empty where nothing is. */
  readonly says: string;
}
export interface Checked {
  readonly rows: readonly CheckedRow[];
  readonly wrong: number;
  /** The faults that explain what is wrong, if known ones do: a sentence each with its mend. */
  readonly suggests: readonly string[];
}
/** An engine's own answers, by the id of the row; null for no picture. */
export type Answers = ReadonlyMap<string, readonly number[] | null>;

const names: Readonly<Record<VectorKind, readonly string[]>> = {
  ...{ view: [], projection: [], viewProjection: [], cameraToWorld: [] },
  worldToScreen: ['x', 'y', 'depth', 'ahead'],
  screenToWorld: ['x', 'y', 'z'],
  ray: ['origin x', 'origin y', 'origin z', 'direction x', 'direction y', 'direction z'],
  ...{ worldToPixel: [], pixelToWorld: [], layer: ['x', 'y'], integerZoom: ['zoom'] },
  visible: ['least x', 'least y', 'greatest x', 'greatest y'],
};

/** How far two numbers may be apart: of their size, and of the largest beside them. */
const within = (a: number, b: number, size: number, tolerance: number): boolean => Math.abs(a - b) <= tolerance * Math.max(Math.abs(b), size, 1e-3); // prettier-ignore

function checkedRow({ id, kind, expected }: VectorRow, given: readonly number[] | null | undefined, tolerance: number): CheckedRow {
  const fails = (says: string): CheckedRow => ({ id, kind, ok: false, says });
  if (given === undefined) return fails('There is no answer to this row.');
  if (expected === null) return given === null ? { id, kind, ok: true, says: '' } : fails('There is no picture of this point, behind the eye, and one was given.');
  if (given === null) return fails('None was given, and there is one.');
  const wanted = kind === 'worldToScreen' ? expected.slice(0, Math.max(2, given.length)) : expected;
  if (given.length !== wanted.length) return fails(`${given.length} numbers were given for ${wanted.length}.`);
  const size = Math.max(...wanted.slice(0, kind === 'worldToScreen' ? 2 : 16).map(Math.abs));
  const odd = given.findIndex((v) => !Number.isFinite(v));
  if (odd >= 0) return fails(`${names[kind][odd] ?? `number ${odd + 1}`} is ${given[odd]}, and should be ${wanted[odd]}.`);
  const worst = wanted.findIndex((v, i) => !within(given[i]!, v, kind === 'worldToScreen' && i > 1 ? Math.abs(v) : size, tolerance));
  if (worst < 0) return { id, kind, ok: true, says: '' };
  const name = names[kind][worst] ?? `number ${worst + 1}`;
  return fails(`${name} is ${given[worst]}, and should be ${wanted[worst]}.`);
} // prettier-ignore

/** An engine's answers beside what is expected, row by row, to a share of each number's size. */
export const checkedRows = (rows: readonly VectorRow[], answers: Answers, tolerance: number): readonly CheckedRow[] =>
  rows.map((row) => checkedRow(row, answers.get(row.id), tolerance));

interface Diagnosed {
  readonly verdict: string;
  readonly explanations: readonly { readonly faults: readonly { where: string; fault: string }[]; readonly mend: string }[]; // prettier-ignore
}

/**
 * Compares an engine's answers with test vectors, row by row, to a share of each number's size, and
 * asks `diagnose` what fault would explain the matrices and points that were given.
 */
export function checkAnswers({ request, rows }: Vectors, answers: Answers, tolerance: number): Checked {
  const checked = checkedRows(rows, answers, tolerance);
  const wrong = checked.filter(({ ok }) => !ok).length;
  const suggests: string[] = [];
  if (wrong) {
    const given: Record<string, unknown> = {};
    const points: object[] = [];
    for (const { id, kind, input, expected } of rows) {
      const own = answers.get(id);
      if (!own?.every(Number.isFinite)) continue;
      if (own.length === 16 || kind === 'worldToPixel' || kind === 'pixelToWorld') given[kind] = own;
      if (kind === 'worldToScreen' && expected && own.length >= 2) points.push({ world: input, screen: own.slice(0, 2), ...(own.length > 2 && { depth: own[2] }) }); // prettier-ignore
    }
    if (points.length) given['points'] = points.slice(0, 64);
    const digits = Math.max(2, Math.min(12, Math.round(-Math.log10(tolerance))));
    const asked = compute({ ...(request as object), queries: [{ id: 'd', op: 'diagnose', given, digits }] });
    if (asked.ok) {
      const { explanations } = asked.response.results[0] as unknown as Diagnosed;
      for (const { mend } of explanations) suggests.push(mend);
    }
  }
  return { rows: checked, wrong, suggests };
}
