import { compute } from '../compute/compute';
import { checkedRow, checkedRows, type Answers, type CheckedRow, type Tolerances } from './checkedRows';
import { faultWays } from './detections';
import type { FaultWay } from './faultWay';
import { vectorCamera } from './vectorCamera';
import type { Vectors } from './vectors';
import { vectorKinds, type VectorKind } from './vectorKinds';
import type { VectorRow } from './vectorRow';

/** A fault that explains wrong rows. */
export interface Explanation {
  /** Cause and fix. */
  readonly text: string;
  /** The kinds of rows that it explains. */
  readonly kinds: readonly VectorKind[];
  /** The number of wrong rows that it explains. */
  readonly rows: number;
}

/** The results of one kind of rows. */
export interface KindResult {
  readonly kind: VectorKind;
  readonly rows: number;
  readonly wrong: number;
  /** The largest deviation, as a share of the number's size; null where there are no numbers to compare. */
  readonly worst: { readonly id: string; readonly deviation: number } | null;
}

/** The results of a check. */
export interface Checked {
  readonly rows: readonly CheckedRow[];
  readonly wrong: number;
  readonly kinds: readonly KindResult[];
  readonly explanations: readonly Explanation[];
}

interface Diagnosed {
  readonly explanations: readonly { readonly faults: readonly { where: string; fault: string }[]; readonly mend: string }[]; // prettier-ignore
}

const kindResults = (checked: readonly CheckedRow[]): KindResult[] =>
  vectorKinds.flatMap((kind) => {
    const own = checked.filter((row) => row.kind === kind);
    if (!own.length) return [];
    const worst = own.reduce<KindResult['worst']>(
      (most, { id, deviation }) => (deviation !== null && deviation > (most?.deviation ?? -1) ? { id, deviation } : most),
      null,
    );
    return [{ kind, rows: own.length, wrong: own.filter(({ ok }) => !ok).length, worst }];
  }); // prettier-ignore

/** Whether a way of being wrong gives all answers of a kind, the wrong ones included. */
function givesAll(way: FaultWay, rows: readonly VectorRow[], answers: Answers, tolerance: number | Tolerances): boolean {
  let explained = false;
  const isGiven = rows.every((row) => {
    const own = answers.get(row.id);
    if (own === undefined) return true;
    // Points behind the eye: a picture of any kind is a ghost.
    if (way.name === 'ghosts' && row.expected === null) return own !== null;
    const accepted = own && way.accepts ? way.accepts(own) : own;
    const expected = way.accepts || way.name === 'ghosts' ? row.expected : way.answer(row.kind, row.input);
    // Beyond the reach of the fault an engine answers anything.
    if (expected === undefined) return true;
    explained = true;
    return checkedRow({ ...row, expected }, accepted, tolerance).ok;
  });
  return isGiven && explained;
} // prettier-ignore

/** The kinds of matrices that `diagnose` reads. */
const matrixKinds = (isFlat: boolean): readonly VectorKind[] =>
  isFlat ? ['worldToPixel', 'pixelToWorld'] : ['view', 'projection', 'viewProjection', 'cameraToWorld'];

/** Has `diagnose` explain the matrices and points of the answers. */
function diagnosed(
  { request, rows }: Vectors,
  isFlat: boolean,
  answers: Answers,
  tolerance: number,
): Diagnosed['explanations'] {
  const given: Record<string, unknown> = {};
  const points: object[] = [];
  for (const { id, kind, input, expected } of rows) {
    const own = answers.get(id);
    if (!own?.every(Number.isFinite)) continue;
    if (matrixKinds(isFlat).includes(kind)) given[kind] = own;
    if (kind === 'worldToScreen' && expected && own.length >= 2) points.push({ world: input, screen: own.slice(0, 2), ...(own.length > 2 && { depth: own[2] }) }); // prettier-ignore
  }
  if (points.length) given['points'] = points.slice(0, 64);
  if (!Object.keys(given).length) return [];
  const digits = Math.max(2, Math.min(12, Math.round(-Math.log10(tolerance))));
  const asked = compute({ ...(request as object), queries: [{ id: 'd', op: 'diagnose', given, digits }] });
  return asked.ok ? ((asked.response.results[0] as unknown as Partial<Diagnosed>).explanations ?? []) : [];
}

/**
 * Compares an engine's answers with test vectors and explains wrong ones: faults of the camera that `diagnose` finds
 * in matrices and points, then, for each kind of rows that these leave wrong, faults that give all its answers.
 *
 * @param tolerance - a share of each number's size, or several tolerances
 */
export function checkAnswers(vectors: Vectors, answers: Answers, tolerance: number | Tolerances): Checked {
  const rows = checkedRows(vectors.rows, answers, tolerance);
  const wrong = rows.filter(({ ok }) => !ok).length;
  return {
    rows,
    wrong,
    kinds: kindResults(rows),
    explanations: wrong ? explanationsOf(vectors, answers, rows, tolerance) : [],
  };
}

function explanationsOf(
  vectors: Vectors,
  answers: Answers,
  checked: readonly CheckedRow[],
  tolerance: number | Tolerances,
): Explanation[] {
  const made = vectorCamera(vectors.request);
  if (!made.ok) return [];
  const wrongOf = (kind: VectorKind) => checked.filter((row) => row.kind === kind && !row.ok && answers.has(row.id));
  const wrongKinds = vectorKinds.filter((kind) => wrongOf(kind).length > 0);
  const rowsOf = (kind: VectorKind) => vectors.rows.filter((row) => row.kind === kind);
  const relative = typeof tolerance === 'number' ? tolerance : tolerance.relative;
  const ways = faultWays(made.camera);
  const explains = (way: FaultWay, kind: VectorKind) =>
    (!way.kinds || way.kinds.includes(kind)) && givesAll(way, rowsOf(kind), answers, tolerance);
  const counted = (kinds: readonly VectorKind[]) => kinds.reduce((sum, kind) => sum + wrongOf(kind).length, 0);

  const found: Explanation[] = [];
  const covered = new Set<VectorKind>();
  // Beside right matrices, wrong points have a fault of their own function first.
  const matrices = matrixKinds(made.camera.isFlat);
  const isDiagnosable = (kind: VectorKind) => kind === 'worldToScreen' || matrices.includes(kind);
  const ofPoints = wrongKinds.some((kind) => matrices.includes(kind)) ? undefined : ways.find((way) => !way.isOfCamera && wrongOf('worldToScreen').length > 0 && explains(way, 'worldToScreen')); // prettier-ignore
  if (ofPoints) {
    covered.add('worldToScreen');
    found.push({ text: ofPoints.fix, kinds: ['worldToScreen'], rows: counted(['worldToScreen']) });
  }
  const isDiagnosed = wrongKinds.some((kind) => isDiagnosable(kind) && !covered.has(kind));
  for (const { faults, mend } of isDiagnosed ? diagnosed(vectors, made.camera.isFlat, answers, relative) : []) {
    const names = new Set(faults.map(({ fault }) => fault));
    // A set of several faults explains what `diagnose` was given; a single one all functions that it changes.
    const single = ways.filter(({ name, isOfCamera }) => isOfCamera && names.size === 1 && names.has(name));
    const kinds = wrongKinds.filter((kind) => isDiagnosable(kind) || single.some((way) => explains(way, kind)));
    for (const kind of kinds) covered.add(kind);
    found.push({ text: mend, kinds, rows: counted(kinds) });
  }

  for (;;) {
    const open = wrongKinds.filter((kind) => !covered.has(kind));
    const candidates = ways.map((way) => ({ way, kinds: open.filter((kind) => explains(way, kind)) }));
    // The fault that explains most kinds; of equals a fault of the function, then the first.
    const best = candidates.reduce((most, one) => {
      const better = one.kinds.length - most.kinds.length || Number(most.way.isOfCamera) - Number(one.way.isOfCamera);
      return better > 0 && one.kinds.length ? one : most;
    }, candidates[0]!);
    if (!best?.kinds.length) return found;
    for (const kind of best.kinds) covered.add(kind);
    found.push({ text: best.way.fix, kinds: best.kinds, rows: counted(best.kinds) });
  }
}
