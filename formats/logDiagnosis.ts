import { compute } from '../core/compute/compute';
import { readSetUp } from '../core/compute/readRequest';
import type { Problem } from '../core/reasons';
import type { Diagnosed, Diagnosed2d, Identified, Said } from './diagnosisAnswers';
import { fault2dText, faultSetText, givenText2d, verdict2dText, verdictText } from './diagnosisText';
import { readPasted2d } from './pasted2d';
import { tooDeepText } from './pasted';
import { isMatrixRole, readLog, withOtherListing, type LogReading } from './logReading';

/** The numbers of a log against a request's camera, as `astrolabe diagnose --json` prints them. */
export interface LogDiagnosis {
  readonly reading: {
    readonly matrices: readonly {
      readonly role: string;
      /** Whether the matrix is printed by the rows or the columns that it has for column vectors. */
      readonly listing: 'rows' | 'columns';
      /** In the request's listing. */
      readonly values: readonly number[];
      /** Offsets into the text, in UTF-16 units. */
      readonly at: readonly [number, number];
    }[];
    readonly points: readonly {
      readonly name: string;
      readonly world: readonly number[];
      readonly screen: readonly number[];
      readonly depth?: number;
      readonly at: readonly [number, number];
    }[];
    /** What of the log was not read. */
    readonly warnings: readonly string[];
  };
  readonly answer: Diagnosed | Diagnosed2d;
  /** Null where only points were read. */
  readonly identify: Identified | null;
}
type Given = NonNullable<LogReading['given']>;
export type LogResult =
  { readonly ok: true; readonly value: LogDiagnosis } | { readonly ok: false; readonly problems: readonly Problem[] };

function readingAnswer(reading: LogReading, byColumns: boolean, given: Given, isOther: boolean) {
  const matrices = reading.used.flatMap(({ item, role, turned, why }) => {
    if (!isMatrixRole(role) || why) return [];
    const other = isOther && reading.listingUnknown.includes(role);
    const listing = byColumns === (turned !== other) ? ('rows' as const) : ('columns' as const);
    return [{ role, listing, values: given[role]!, at: [item.from, item.to] as const }];
  });
  const points = reading.places.map(({ name, point, at }) => ({ name, ...point, at }));
  const { tooDeepLine } = reading;
  return { matrices, points, warnings: tooDeepLine === null ? [] : [tooDeepText(tooDeepLine)] };
}

type Ask = (queries: readonly object[]) => ReturnType<typeof compute>;

/** Reads a log and compares its numbers with a 2D camera. */
function diagnoseLog2d(ask: Ask, text: string, byColumns: boolean): LogResult {
  const { items, given, digits } = readPasted2d(text, [], { byColumns });
  if (!given)
    return { ok: false, problems: [{ path: '', message: 'The log holds no 2D matrix, and no point with its pixel.' }] };
  const answered = ask([{ id: 'diagnose', op: 'diagnose', given, digits }]);
  if (!answered.ok) return { ok: false, problems: answered.problem.errors };
  const used = items.filter(({ role, why }) => role !== 'unused' && !why);
  const matrices = used.flatMap(
    ({ kind, role, numbers, from, to }) =>
    kind === 'matrix' ? [{ role, listing: byColumns ? ('columns' as const) : ('rows' as const), values: numbers, at: [from, to] as const }] : [], // prettier-ignore
  );
  const points = used.flatMap(
    ({ kind, label, numbers, from, to }) =>
    kind === 'point' ? [{ name: label, world: numbers.slice(0, 2), screen: numbers.slice(2), at: [from, to] as const }] : [], // prettier-ignore
  );
  const answer = answered.response.results[0] as unknown as Diagnosed2d;
  return { ok: true, value: { reading: { matrices, points, warnings: [] }, answer, identify: null } };
}

/** Reads a log and holds its numbers against the camera of a compute request, whose queries are not asked. */
export function diagnoseLog(request: unknown, text: string): LogResult {
  if (typeof request !== 'object' || request === null || Array.isArray(request))
    return { ok: false, problems: [{ path: '', message: 'The request is no object.' }] };
  const ask = (queries: readonly object[]) => compute({ ...request, queries });
  const setUp = readSetUp(request);
  if (!setUp.ok) return { ok: false, problems: setUp.problem.errors };
  const { codec } = setUp.resolved;
  if ('kind' in setUp.resolved.camera) return diagnoseLog2d(ask, text, codec.listsColumns);
  const byColumns = codec.listsColumns;
  const { vectors } = codec.conventions.matrix;
  const reading = readLog(text, { byColumns, vectors });
  const { given, digits, listingUnknown } = reading;
  if (!given)
    return {
      ok: false,
      problems: [{ path: '', message: 'The log holds no matrix, and no point with its place on the screen.' }],
    };
  const hasMatrix = Object.keys(given).some((name) => name !== 'points');
  const answered = ask([
    { id: 'diagnose', op: 'diagnose', given, digits, listingUnknown },
    ...(hasMatrix ? [{ id: 'identify', op: 'identify', given, digits }] : []),
  ]);
  if (!answered.ok) return { ok: false, problems: answered.problem.errors };
  const of = (op: string): unknown => answered.response.results.find((one) => one.op === op) ?? null;
  const answer = of('diagnose') as Diagnosed & { readonly error?: { readonly message: string } };
  if (answer.error) return { ok: false, problems: [{ path: 'camera', message: answer.error.message }] };
  const isOther = answer.listing === 'other';
  const taken = isOther ? withOtherListing(given, listingUnknown) : given;
  return {
    ok: true,
    value: {
      reading: readingAnswer(reading, byColumns, taken, isOther),
      answer,
      identify: of('identify') as Identified | null,
    },
  };
}

const decimal = (v: number, decimals: number): string =>
  Math.abs(v) >= 1e7 ? v.toExponential(2) : v.toFixed(decimals).replace(/^-0(\.0+)?$/, '0');

/** Whether an answer is about a 2D camera, or has no camera's numbers to read off. */
const isAnswer2d = (answer: Diagnosed | Diagnosed2d): answer is Diagnosed2d => !('depthResidual' in answer);

/** The reading and the verdict as lines of text. */
export function logDiagnosisText({ reading, answer }: LogDiagnosis): string {
  const { matrices, points, warnings } = reading;
  const read = [
    ...matrices.map(({ role, listing, at }) => `Read ${role}, printed by ${listing}, at ${at[0]}–${at[1]}.`),
    ...(points.length ? [`Read ${points.length} ${points.length === 1 ? 'point' : 'points'}.`] : []),
    ...warnings,
  ];
  const is2d = isAnswer2d(answer);
  const setText = (set: readonly { readonly where: string; readonly fault: string }[]): string =>
    is2d
      ? set.map((one) => `${givenText2d(one.where)}: ${fault2dText(one)}`).join(', ')
      : faultSetText(set as readonly Said[]);
  const explained = (
    { faults, equivalent, mend, listing }: (Diagnosed | Diagnosed2d)['explanations'][number],
    i: number,
  ) => [
    `${i ? 'Or' : 'Explained by'}${listing ? ' (the matrices listed the other way)' : ''}: ${setText(faults)}.`,
    ...faults.flatMap(({ what = [] }) =>
      what.map(
        ({ name, intended, given, digits }) =>
          `  ${name}: ${valueText(intended)} intended, ${valueText(given, digits)} given`,
      ),
    ),
    `  ${mend}`,
    ...equivalent.map((set) => `  The same numbers come from ${setText(set)}.`),
  ];
  const verdict = isAnswer2d(answer) ? verdict2dText(answer, decimal) : verdictText(answer, decimal);
  return [...read, verdict, ...answer.explanations.flatMap(explained), ''].join('\n');
}
function valueText(v: unknown, digits = 7): string {
  if (v === null) return 'infinite';
  if (typeof v === 'boolean') return v ? 'yes' : 'no';
  if (typeof v === 'number') return digits > 0 ? String(Number(v.toPrecision(Math.min(digits, 7)))) : 'not determined';
  if (Array.isArray(v)) return `(${v.map((one) => valueText(one, digits)).join(', ')})`;
  return Object.entries(v as object)
    .map(([name, one]) => `${name} ${valueText(one, digits)}`)
    .join(', ');
}
