import { lengthOf, type RawQuery } from '../request/operation';
import { operationNamed } from './operations';

/** Looks that any query costs. */
const looksPerQuery = 10;

/**
 * Estimates the work of a request, in looks at one thing by another: a point at a camera, a ray at a body, a pair of
 * bodies. A hundred thousand take some milliseconds. Only the lengths of its lists are read, so that any JSON will do.
 */
export function costOf(given: unknown): number {
  const { bodies, queries } = (given ?? {}) as RawQuery;
  const size = { bodies: lengthOf(bodies), vertices: 0 };
  if (Array.isArray(bodies))
    for (const body of bodies as ({ readonly shape?: { readonly positions?: unknown } } | null)[])
      size.vertices += lengthOf(body?.shape?.positions) / 3;
  let cost = size.bodies + size.vertices;
  if (!Array.isArray(queries)) return cost;
  for (const query of queries as RawQuery[]) {
    if (typeof query !== 'object' || query === null) continue;
    cost += looksPerQuery;
    for (const [key, value] of Object.entries(query)) if (key !== 'bodies') cost += 2 * lengthOf(value);
    cost += operationNamed(query['op'])?.cost(query, size) ?? 0;
  }
  return cost;
}
