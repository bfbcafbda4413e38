import { mostConflicts } from '../order/drawOrder';
import type { Problem } from '../reasons';
import { lengthOf, type RawQuery } from '../request/operation';
import { operationNamed } from './operations';

/** How much one request may hold, and what is said of more. */
export const limits = {
  bodies: 100_000,
  /** Of all meshes together. */
  vertices: 2_000_000,
  /** Of all meshes together. */
  triangles: 4_000_000,
  queries: 1_000,
  /** Points, pixels, items, distances, times, corners of polygons and points of tracks, of all queries together. */
  asked: 1_000_000,
  /** Ids of bodies that queries name, together. */
  named: 200_000,
  /** Points that are to be spawned, of all queries together. */
  spawned: 1_000_000,
  /** Lists and objects of a request, each point being one. */
  lists: 2_000_000,
  /** Keep-away discs, of all queries together. */
  discs: 5_000,
  /** Problems that are listed; the others are counted. */
  problems: 20,
  /** Pairs of `drawOrder` that are listed; all are counted. */
  conflicts: mostConflicts,
} as const;

/** How much the server takes and gives. */
export const serverLimits = {
  /** Bytes of a request, compressed or not. */
  bytes: 32 * 1024 * 1024,
  /** Seconds for an answer, unless `--seconds` says otherwise. */
  seconds: 10,
  /** Mebibytes that one computing thread may hold. */
  memory: 768,
  /** Requests that wait for a thread. */
  waiting: 1024,
  /** Bytes of all requests that wait for a thread. */
  waitingBytes: 256 * 1024 * 1024,
  /** Seconds that one of them waits. */
  waitingSeconds: 30,
  /** Seconds in which the whole of an answer is to be taken. */
  takingSeconds: 30,
} as const;

/** The limits as a table: what is limited, by how much, and what is answered beyond it. */
export const limitsTable: readonly (readonly [what: string, most: string, beyond: string])[] = [
  ['bodies', limits.bodies.toLocaleString('en'), '422'],
  ['vertices of all meshes', limits.vertices.toLocaleString('en'), '422'],
  ['triangles of all meshes', limits.triangles.toLocaleString('en'), '422'],
  ['queries', limits.queries.toLocaleString('en'), '422'],
  [
    'points, pixels, items, distances, times, corners and other entries of all queries',
    limits.asked.toLocaleString('en'),
    '422',
  ],
  ['ids of bodies named by queries', limits.named.toLocaleString('en'), '422'],
  ['points spawned', limits.spawned.toLocaleString('en'), '422'],
  ['keep-away discs', limits.discs.toLocaleString('en'), '422'],
  ['lists and objects of a request', limits.lists.toLocaleString('en'), '422'],
  ['problems listed', limits.problems.toLocaleString('en'), 'the others are counted'],
  ['pairs listed by drawOrder', limits.conflicts.toLocaleString('en'), 'all are counted'],
  ['size of a number', '1e30', '422'],
  ['bytes of a request to the server', '32 MiB, compressed or not', '413'],
  ['seconds for an answer of the server', `${serverLimits.seconds} (--seconds)`, '503'],
  ['memory of a computing thread of the server', `${serverLimits.memory} MiB`, '503'],
  ['requests that wait for a thread', `${serverLimits.waiting.toLocaleString('en')}, 256 MiB together`, '503'],
  ['seconds that a request waits for a thread', String(serverLimits.waitingSeconds), '503'],
  ['seconds in which an answer is to be taken', String(serverLimits.takingSeconds), 'the answer breaks off'],
];

/**
 * How many entries all lists of a query have, at any depth; lists of up to four numbers are points and count as
 * nothing by themselves.
 */
function entriesOf(value: unknown, depth = 0): number {
  if (typeof value !== 'object' || value === null || depth > 8) return 0;
  if (!Array.isArray(value)) {
    let sum = 0;
    for (const key in value) sum += entriesOf((value as Record<string, unknown>)[key], depth + 1);
    return sum;
  }
  const list = value as readonly unknown[];
  if (list.length <= 4 && list.every((one) => typeof one !== 'object' || one === null)) return 0;
  let sum = list.length;
  for (const one of list) if (typeof one === 'object') sum += entriesOf(one, depth + 1);
  return sum;
}
const listOf = (value: unknown): readonly Record<string, unknown>[] =>
  Array.isArray(value) ? (value as Record<string, unknown>[]) : [];

/**
 * What a request holds too much of. Asked before anything else of it is looked at: only lists are
 * counted, so that however much comes is refused at once.
 */
export function overLimits(given: unknown): Problem[] {
  if (typeof given !== 'object' || given === null) return [];
  const { bodies, queries } = given as Record<string, unknown>;
  const problems: Problem[] = [];
  const check = (path: string, what: string, count: number, most: number, mend = 'Ask in several requests.') => {
    if (count > most)
      problems.push({
        path,
        message: `The request has ${count.toLocaleString('en')} ${what}, and one may have ${most.toLocaleString('en')}. ${mend}`,
      });
  };
  check('bodies', 'bodies', lengthOf(bodies), limits.bodies, 'Leave some out.');
  check('queries', 'queries', lengthOf(queries), limits.queries);
  if (problems.length) return problems;
  let vertices = 0;
  for (const body of listOf(bodies)) vertices += lengthOf((body?.shape as Record<string, unknown>)?.positions) / 3;
  check('bodies', 'vertices in its meshes', Math.ceil(vertices), limits.vertices, 'Leave some out.');
  let corners = 0;
  for (const body of listOf(bodies)) corners += lengthOf((body?.shape as Record<string, unknown>)?.indices);
  check('bodies', 'triangles in its meshes', Math.ceil(corners / 3), limits.triangles, 'Leave some out.');
  const sum = { asked: 0, named: 0, spawned: 0, discs: 0 };
  for (const query of listOf(queries) as readonly RawQuery[]) {
    if (typeof query !== 'object' || query === null) continue;
    const operation = operationNamed(query['op']);
    const own = ['bodies', ...(operation?.countedLists ?? [])];
    for (const [key, value] of Object.entries(query)) if (!own.includes(key)) sum.asked += entriesOf(value, 1);
    const { spawned = 0, discs = 0 } = operation?.counts(query) ?? {};
    sum.named += lengthOf(query['bodies']);
    sum.discs += discs;
    sum.spawned += spawned;
  }
  check('queries', 'points, pixels, items, distances, times, corners and other entries', sum.asked, limits.asked);
  check('queries', 'ids of bodies in its queries', sum.named, limits.named);
  check('queries', 'points to spawn', sum.spawned, limits.spawned);
  check('queries', 'keep-away discs', sum.discs, limits.discs);
  return problems;
}
