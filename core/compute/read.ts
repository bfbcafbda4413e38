import { placeBodies } from '../bodies/body';
import { trackProblems, trackSchema, type WrittenTrack } from '../motion/trackSchema';
import { misfitPoints } from '../quantities/convert';
import { plane, space, type World } from '../quantities/world';
import type { Checked, Problem } from '../reasons';
import { readConventions } from '../request/conventions';
import { pointProblem } from '../request/pointProblem';
import { readBody } from '../request/readBody';
import { readCamera, readCamera2d } from '../request/readCamera';
import type { RequestContext, Setup } from '../request/setup';
import { frameOf } from '../camera/frame';
import { pathText } from './issues';
import { operationNamed, type Query } from './operations';
import type { ReadRequest } from './schema';

/** A request in canonical space; its queries are as they are written. */
export interface ResolvedRequest extends Setup {
  readonly queries: readonly Query[];
}

/** Returns the track of a query and the path at which it is. */
function trackOf(query: Query): { readonly track: WrittenTrack; readonly at: string } | null {
  if (query.op === 'motion') return { track: query.track, at: 'track' };
  return query.when ? { track: query.when.track, at: 'when.track' } : null;
}

/** Returns the problems of a track in a world, at a path. */
export const trackFaults = (track: WrittenTrack, world: World, at = 'track'): readonly Problem[] => [
  ...misfitPoints(trackSchema, track, world).map((path) => pointProblem(`${at}.${pathText(path)}`, world)),
  ...trackProblems(track, at, world),
];

/** Returns the problems of a query that only the whole request shows, their paths below the query. */
export function queryProblems(query: Query, context: RequestContext): readonly Problem[] {
  const { world } = context;
  const operation = operationNamed(query.op)!;
  const along = trackOf(query);
  const problems = along ? trackFaults(along.track, world, along.at) : [];
  // A query along a wrong track is not looked at further.
  if (problems.length) return problems;
  const misfits = misfitPoints(operation.query, query, world).map((path) => pointProblem(pathText(path), world));
  return [...misfits, ...operation.problems(query, context)];
}

/** Converts a request to what the operations need, or returns everything that is wrong with it. */
export function resolveRequest(request: ReadRequest): Checked<ResolvedRequest> {
  const conventions = readConventions(request.conventions);
  if (!conventions.ok) return conventions;
  const codec = conventions.value;
  const { camera: given, viewport } = request;
  const world = 'kind' in given ? plane : space;
  const context = { codec, world, viewport };
  const camera = 'kind' in given ? readCamera2d(given, viewport, codec) : readCamera(given, codec);
  const bodies = request.bodies.map((body, i) => readBody(body, i, context));
  let problems = bodies.flatMap((body) => (body.ok ? [] : body.problems));
  const read = bodies.flatMap((body) => (body.ok ? [body.value] : []));
  const placed = problems.length ? null : placeBodies(read);
  problems = [
    ...problems,
    ...(placed && !placed.ok ? placed.problems : []),
    ...request.queries.flatMap((query, i) =>
      queryProblems(query, context).map((one) => ({ ...one, path: `queries[${i}].${one.path}` })),
    ),
  ];
  if (!camera.ok) return { ok: false, problems: [...camera.problems, ...problems] };
  const frame = frameOf(camera.value, viewport);
  if (!frame.ok) return { ok: false, problems: [...frame.problems, ...problems] };
  if (!placed?.ok || problems.length) return { ok: false, problems };
  return {
    ok: true,
    warnings: frame.warnings,
    value: {
      codec,
      world,
      context,
      frame: frame.value,
      camera: given,
      bodies: read,
      placed: placed.placed,
      queries: request.queries,
    },
  };
}
