import { intendedOf } from '../diagnose/operations';
import { readSetUp } from '../compute/readRequest';
import type { Intended } from '../diagnose/engine';
import { createEngine2d, instancesOf2d, type FaultName2d, type Intended2d } from '../diagnose/engine2d';
import type { FaultName, MatrixName } from '../diagnose/faults';
import { invert4 } from '../diagnose/invert';
import type { Instance } from '../diagnose/given';
import { Engine, instancesFor } from '../diagnose/search';
import type { Depth01 } from '../convert/project';
import { identity, transform, type Mat4 } from '../math/mat4';
import { normalize, sub, type Vec2, type Vec3 } from '../math/vec3';
import { answer2d } from './vectors2d';
import { checkedRows, type Answers, type Vectors } from './vectors';
import { type VectorRow } from './vectorRows';

/** What the rows of test vectors find. */
export interface Catches {
  /** The faults that a row fails for, by the row's id. */
  readonly rows: ReadonlyMap<string, readonly (FaultName | FaultName2d)[]>;
  /** The faults that fail no row: they change no number of this camera. */
  readonly unseen: readonly (FaultName | FaultName2d)[];
  /** How many faults this camera can have. */
  readonly faults: number;
}

/** NDC of a pixel by an engine that commits faults on the way back from it. */
function ndcOf([x, y]: Vec2, depth01: Depth01, { frame, e }: Intended, one: Instance | null): Vec3 {
  const own = one?.place === 'points' ? one.fault : null;
  const v = frame.viewport;
  const half = own === 'halfPixel' ? (one?.up ? 0.5 : -0.5) : 0;
  const offset: Vec2 = own === 'viewportOffset' ? [v.x, v.y] : [0, 0];
  const [across, upward] = e.fromScreen(v, [x + half + offset[0], y + half + offset[1]]);
  return e.toNdc({ across: own === 'xFlipped' ? -across : across, upward: own === 'yFlipped' ? -upward : upward, depth01 }); // prettier-ignore
}

/** The place of NDC in the world, by an inverse of a view projection. */
const unprojected = (inverse: Mat4, [x, y, z]: Vec3): Vec3 => {
  const [a, b, c, w] = transform(inverse, [x, y, z, 1]);
  return [a / w, b / w, c / w];
};

/** What an engine with one fault answers to a row; goes back by the inverse of its own view projection. */
function answerTo(row: VectorRow, engine: Engine, one: Instance, rowsOf: ReadonlyMap<string, VectorRow>) {
  const { intended } = engine;
  const { e } = intended;
  const { kind, input, expected } = row;
  if (expected === null) return null;
  if (kind === 'worldToScreen') {
    const [printed] = engine.points([{ world: input as unknown as Vec3, screen: [0, 0], depth: null }], [one]); // prettier-ignore
    return printed ? [...printed.screen, printed.depth] : null;
  }
  if (kind !== 'screenToWorld' && kind !== 'ray') {
    const [made] = engine.matrix(kind as MatrixName, [one]);
    return made ? e.toList(made) : null;
  }
  const [viewProjection] = engine.matrix(
    'viewProjection',
    [one].filter(({ place }) => place !== 'points'),
  );
  const inverse = viewProjection && invert4(viewProjection);
  if (!inverse) return null;
  const point = rowsOf.get(row.id.replace(/^\w+/, 'point'));
  const depth01 = e.fromDepth(point?.expected?.[2] ?? 0);
  const at = (depth: Depth01) => unprojected(inverse, ndcOf([input[0]!, input[1]!], depth, intended, one));
  if (kind === 'screenToWorld') return [...at(depth01)];
  const direction = normalize(sub(at({ near: 0.25, far: 0.75 }), at({ near: 0.75, far: 0.25 })));
  if (!direction || intended.frame.kind === 'perspective') return direction && [...expected.slice(0, 3), ...direction];
  // Parallel rays begin beside the right one by as much as what they pass through is off.
  const middle = { near: 0.5, far: 0.5 };
  const [whole] = engine.matrix('viewProjection', []);
  const right = unprojected(invert4(whole!)!, ndcOf([input[0]!, input[1]!], middle, intended, null));
  const off = sub(at(middle), right);
  return [...expected.slice(0, 3).map((v, i) => v + off[i]!), ...direction];
}

/** Finds which rows of a 2D camera fail for which faults. */
function catches2d({ rows: all }: Vectors, intended: Intended2d): Catches {
  const rows = new Map<string, FaultName2d[]>(all.map(({ id }) => [id, []]));
  const faults = new Set<FaultName2d>();
  // The device pixel ratio is not a number of the camera.
  for (const one of instancesOf2d(intended, null).filter(({ fault }) => fault !== 'devicePixelRatio')) {
    faults.add(one.fault);
    const engine = createEngine2d(intended, [one]);
    const answers: Answers = new Map(all.map((row) => [row.id, answer2d(engine, row, intended.codec)]));
    for (const { id, ok } of checkedRows(all, answers, 1e-6))
      if (!ok && !rows.get(id)!.includes(one.fault)) rows.get(id)!.push(one.fault);
  }
  const seen = new Set([...rows.values()].flat());
  return { rows, unseen: [...faults].filter((fault) => !seen.has(fault)), faults: faults.size };
}

/**
 * Which faults of `diagnose` each row of test vectors fails for: an engine that commits one fault
 * answers all of them, to 1e-6 of a number's size. Faults that this camera cannot have, and those that
 * need what no camera says (the device pixel ratio, other cameras), are left out.
 */
export function catchesOf(vectors: Vectors): Catches {
  const read = readSetUp(vectors.request);
  if (!read.ok) throw new Error('test vectors are of a proper camera');
  const { camera, frame, codec: e } = read.resolved;
  if ('kind' in camera) return catches2d(vectors, { camera, viewport: frame.viewport, codec: e });
  const intended = intendedOf(camera, frame, e, null);
  const engine = new Engine(intended, []);
  const rowsOf = new Map(vectors.rows.map((row) => [row.id, row]));
  const points = vectors.rows.filter(({ kind }) => kind === 'worldToScreen');
  const matrices = Object.fromEntries(vectors.rows.flatMap(({ kind, input }) => (input.length ? [] : [[kind, identity]]))); // prettier-ignore
  const given = { matrices, points: points.map(() => ({ world: [0, 0, 0] as Vec3, screen: [0, 0] as Vec2, depth: null })), digits: 6 }; // prettier-ignore
  const rows = new Map<string, FaultName[]>(vectors.rows.map(({ id }) => [id, []]));
  const all = new Set<FaultName>();
  for (const one of instancesFor(intended, given, [])) {
    if (one.fault === 'otherCamera') continue;
    const fault = one.fault as FaultName;
    all.add(fault);
    const answers: Answers = new Map(vectors.rows.map((row) => [row.id, answerTo(row, engine, one, rowsOf)]));
    for (const { id, ok } of checkedRows(vectors.rows, answers, 1e-6))
      if (!ok && !rows.get(id)!.includes(fault)) rows.get(id)!.push(fault);
  }
  const seen = new Set([...rows.values()].flat());
  return { rows, unseen: [...all].filter((fault) => !seen.has(fault)), faults: all.size };
}
