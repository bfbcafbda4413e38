import { add, addScaled, distance, dot, length, scale, sub, type Vec3 } from '../math/vec3';

/** A sphere in the space and unit of its points. */
export interface Sphere {
  readonly centre: Vec3;
  readonly radius: number;
}

/** Solves a linear system of up to three unknowns by elimination; null when it is singular. */
function solve(rows: number[][]): number[] | null {
  const n = rows.length;
  for (let i = 0; i < n; i++) {
    const best = rows.slice(i).reduce((a, row) => (Math.abs(row[i]!) > Math.abs(a[i]!) ? row : a), rows[i]!);
    const place = rows.indexOf(best);
    [rows[i], rows[place]] = [rows[place]!, rows[i]!];
    const pivot = rows[i]![i]!;
    if (Math.abs(pivot) < 1e-12) return null;
    for (let j = 0; j < n; j++) {
      if (j === i) continue;
      const factor = rows[j]![i]! / pivot;
      for (let k = i; k <= n; k++) rows[j]![k]! -= factor * rows[i]![k]!;
    }
  }
  return rows.map((row, i) => row[n]! / row[i]!);
}

/** Returns the least sphere through up to four points; null when they are on a line or in a plane too many. */
function sphereThrough([first, ...others]: readonly Vec3[]): Sphere | null {
  const edges = others.map((p) => sub(p, first!));
  const shares = solve(edges.map((a) => [...edges.map((b) => 2 * dot(a, b)), dot(a, a)]));
  if (!shares) return null;
  const centre = edges.reduce((sum, edge, i) => addScaled(sum, edge, shares[i]!), first!);
  return { centre, radius: distance(centre, first!) };
}

/**
 * Returns the least sphere that holds some points. At most four of them determine it, so every set of up to four is
 * tried: for few points.
 *
 * @returns null for no points
 * @see Welzl, Smallest enclosing disks (balls and ellipsoids), 1991, lemma 1
 */
export function leastSphere(points: readonly Vec3[]): Sphere | null {
  if (!points.length) return null;
  const middle = scale(
    points.reduce((sum, p) => add(sum, p)),
    1 / points.length,
  );
  const size = Math.max(...points.map((p) => distance(p, middle)));
  if (!(size > 0)) return { centre: middle, radius: 0 };
  // Small numbers about 0: the tolerances below are relative to the size.
  const near = points.map((p) => scale(sub(p, middle), 1 / size));
  let best: Sphere | null = null;
  const visit = (chosen: readonly Vec3[], from: number): void => {
    if (chosen.length > 1) {
      const sphere = sphereThrough(chosen);
      if (sphere && (!best || sphere.radius < best.radius)) {
        const radius = Math.max(...near.map((p) => length(sub(p, sphere.centre))));
        if (radius <= sphere.radius * (1 + 1e-9)) best = { centre: sphere.centre, radius };
      }
    }
    if (chosen.length < 4) for (let i = from; i < near.length; i++) visit([...chosen, near[i]!], i + 1);
  };
  visit([], 0);
  const found = best as Sphere | null;
  return found && { centre: addScaled(middle, found.centre, size), radius: found.radius * size };
}
