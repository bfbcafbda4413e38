import { trackLength } from './limits';
import type { ReadRequest } from './schema';

/**
 * About how much work a request is, in looks at one thing by another: a point at a camera, a ray at
 * a body, a pair of bodies. A hundred thousand take some milliseconds. From the lengths of its
 * lists alone.
 */
export function costOf(given: unknown): number {
  const { bodies = [], queries = [] } = (given ?? {}) as Partial<ReadRequest>;
  const length = (list: unknown) => (Array.isArray(list) ? list.length : 0);
  const all = length(bodies);
  let vertices = 0;
  if (Array.isArray(bodies)) for (const body of bodies) vertices += length((body?.shape as { positions?: unknown })?.positions) / 3; // prettier-ignore
  let cost = all + vertices;
  if (!Array.isArray(queries)) return cost;
  for (const query of queries as unknown as Record<string, unknown>[]) {
    if (typeof query !== 'object' || query === null) continue;
    const [points, pixels, items] = [length(query.points), length(query.pixels), length(query.items)];
    const named = Array.isArray(query.bodies) ? query.bodies.length : all;
    cost += length(query.times) * (20 + trackLength(query));
    cost += 10 + 2 * points + 2 * items + length(query.distances) + 10 * length(query.triangles);
    for (const polygon of Array.isArray(query.polygons) ? (query.polygons as unknown[]) : [])
      cost += 5 * length(polygon);
    if (query.op === 'pick') cost += pixels * (all + 20) + (query.statistics ? 10 * (all + vertices) : 0);
    else cost += 2 * pixels;
    // Pairs of faults, each with the matrices and the points that come of it.
    if (query.op === 'diagnose')
      cost += 20_000 + 200 * length((query.given as { points?: unknown } | undefined)?.points);
    // Every assignment of axes, depths and listings.
    if (query.op === 'identify') cost += 20_000;
    if (query.op === 'aim') cost += 2 * all + vertices;
    if (typeof query.op === 'string' && /isib|Bounds|drawOrder|apparentSize/.test(query.op))
      cost += (20 + length(query.thresholds)) * named + vertices;
    if (query.op === 'spawn') {
      const count = typeof query.count === 'number' ? query.count : 0;
      // How often rolling again rolls is not known before.
      cost += (query.method === 'rejection' ? 50 : 2) * count + length(query.keepAway) ** 2;
    }
  }
  return cost;
}
