import type { Vec2 } from '../math/vec3';
import { areaAndCentroid } from './region';
import type { SpawnTerms } from './spawn';

/** The manners in which a region is written out as code. */
export const spawnLanguages = ['C', 'JavaScript', 'Python'] as const;
export type SpawnLanguage = (typeof spawnLanguages)[number];

/** Terms and the box to roll over, all in the numbers that the code is to have. */
export interface SpawnNumbers {
  readonly terms: SpawnTerms;
  readonly box: { readonly min: Vec2; readonly max: Vec2 };
  /** Tries that a point is to be expected to take: said in a comment. */
  readonly expected: number;
}

/**
 * A few lines of code that roll over the bounds until a place fits these very terms: a function
 * `spawn` that is given a source of even numbers in 0…1 and gives a place, or none after so many
 * tries. What it gives `spawnRegion` allows. Angles inside are radians.
 */
export function spawnCode({ terms, box, expected }: SpawnNumbers, language: SpawnLanguage): string {
  const { visible, clearance, bounds, keepAway, ahead } = terms;
  const n = (v: number) => String(v === 0 ? 0 : v);
  const [w, h] = [box.max[0] - box.min[0], box.max[1] - box.min[1]];
  const turns = areaAndCentroid(visible).area < 0 ? '-' : '';
  const outer = 'ringOuter' in bounds ? clearance + bounds.ringOuter : null;
  const discs = keepAway.map(({ centre, distance }) => [...centre, distance]);
  const list = (of: readonly (readonly number[])[], open: string, close: string) => of.map((one) => `${open}${one.map(n).join(', ')}${close}`).join(', '); // prettier-ignore
  const half = ahead && ahead.halfAngle < Math.PI ? ahead : null;
  const sector = (abs: string, atan2: string) => {
    if (!half) return null;
    const [[px, py], [hx, hy]] = [half.apex, half.direction];
    const off = ([p, q]: Vec2, [a, b]: readonly [string, string]) =>
      `${n(p)} * ${a} ${q < 0 ? '-' : '+'} ${n(Math.abs(q))} * ${b}`;
    const [x, y] = [`(x ${px < 0 ? '+' : '-'} ${n(Math.abs(px))})`, `(y ${py < 0 ? '+' : '-'} ${n(Math.abs(py))})`];
    return `${abs}(${atan2}(${off([hx, -hy], [y, x])}, ${off([hx, hy], [x, y])})) <= ${n(half.halfAngle)}`;
  };
  const says = `about ${expected < 100 ? expected.toFixed(1) : Math.round(expected)} tries a place`;
  switch (language) {
    case 'JavaScript': {
      const more = [outer === null ? null : `near <= ${n(outer)}`, sector('Math.abs', 'Math.atan2')].filter(Boolean).map((one) => ` && ${one}`).join(''); // prettier-ignore
      return `const seen = [${list(visible, '[', ']')}], discs = [${list(discs, '[', ']')}];
function spawn(random, tries = 1000) { // ${says}
  while (tries-- > 0) {
    const x = ${n(box.min[0])} + ${n(w)} * random(), y = ${n(box.min[1])} + ${n(h)} * random();
    let [inside, near] = [true, Infinity];
    seen.forEach(([ax, ay], i) => {
      const [bx, by] = seen[(i + 1) % seen.length], [dx, dy] = [bx - ax, by - ay];
      if (${turns}(dx * (y - ay) - dy * (x - ax)) < 0) inside = false;
      const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy)));
      near = Math.min(near, Math.hypot(x - ax - t * dx, y - ay - t * dy));
    });
    if (!inside && near >= ${n(clearance)}${more} && discs.every(([cx, cy, r]) => Math.hypot(x - cx, y - cy) >= r)) return [x, y];
  }
  return null;
}
`;
    }
    case 'Python': {
      const more = [outer === null ? null : `near <= ${n(outer)}`, sector('abs', 'atan2')].filter(Boolean).map((one) => ` and ${one}`).join(''); // prettier-ignore
      return `from math import atan2, hypot, inf
seen, discs = [${list(visible, '(', ')')}], [${list(discs, '(', ')')}]
def spawn(random, tries=1000):  # ${says}
    for _ in range(tries):
        x, y = ${n(box.min[0])} + ${n(w)} * random(), ${n(box.min[1])} + ${n(h)} * random()
        inside, near = True, inf
        for (ax, ay), (bx, by) in zip(seen, seen[1:] + seen[:1]):
            dx, dy = bx - ax, by - ay
            inside = inside and ${turns}(dx * (y - ay) - dy * (x - ax)) >= 0
            t = max(0, min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy)))
            near = min(near, hypot(x - ax - t * dx, y - ay - t * dy))
        if not inside and near >= ${n(clearance)}${more} and all(hypot(x - cx, y - cy) >= r for cx, cy, r in discs):
            return x, y
    return None
`;
    }
    case 'C': {
      const more = [outer === null ? null : `near <= ${n(outer)}`, sector('fabs', 'atan2')].filter(Boolean).map((one) => ` && ${one}`).join(''); // prettier-ignore
      const discLines = discs.length
        ? {
            data: `, discs[][3] = {${list(discs, '{', '}')}}`,
            test: `    for (int i = 0; i < ${discs.length}; i++) fits = fits && hypot(x - discs[i][0], y - discs[i][1]) >= discs[i][2];\n`,
          }
        : { data: '', test: '' };
      return `#include <math.h>
static const double seen[][2] = {${list(visible, '{', '}')}}${discLines.data};
int spawn(double (*random)(void), double place[2], int tries) { /* ${says} */
  while (tries-- > 0) {
    double x = ${n(box.min[0])} + ${n(w)} * random(), y = ${n(box.min[1])} + ${n(h)} * random(), near = INFINITY;
    int inside = 1, fits = 1;
    for (int i = 0; i < ${visible.length}; i++) {
      const double *a = seen[i], *b = seen[(i + 1) % ${visible.length}], dx = b[0] - a[0], dy = b[1] - a[1];
      if (${turns}(dx * (y - a[1]) - dy * (x - a[0])) < 0) inside = 0;
      double t = fmax(0, fmin(1, ((x - a[0]) * dx + (y - a[1]) * dy) / (dx * dx + dy * dy)));
      near = fmin(near, hypot(x - a[0] - t * dx, y - a[1] - t * dy));
    }
${discLines.test}    if (fits && !inside && near >= ${n(clearance)}${more}) return place[0] = x, place[1] = y, 1;
  }
  return 0;
}
`;
    }
  }
}
