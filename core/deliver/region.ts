import { areaAndCentroid } from '../spawn/region';
import type { SpawnTerms } from '../spawn/spawn';
import type { Vec2 } from '../math/vec3';
import { plain } from './texts';

/** Terms and the box to roll over, all in the numbers that the code is to have. */
export interface SpawnNumbers {
  readonly terms: SpawnTerms;
  readonly box: { readonly min: Vec2; readonly max: Vec2 };
  /** Tries that a place is to be expected to take: said in a comment. */
  readonly expected: number;
}

const list = (of: readonly number[]): string => `[${of.map(plain).join(', ')}]`;

/**
 * A region in the small language (`program.ts`): whether a body may appear at a place by these very
 * terms, and the place of the bounds that two even numbers in 0…1 stand for, to be rolled until it
 * does. Lengths in the numbers' own units, angles inside radians.
 */
export function regionSource({ terms, box, expected }: SpawnNumbers): string {
  const { visible, clearance, bounds, keepAway, ahead } = terms;
  const n = visible.length;
  // In the numbers of mirrored axes what is seen runs the other way round.
  const beyond = areaAndCentroid(visible).area < 0 ? '>' : '<';
  const half = ahead && ahead.halfAngle < Math.PI ? ahead : null;
  const long = half ? Math.hypot(half.direction[0], half.direction[1]) : 1;
  const lines = [
    `// What is seen: its corners, one after another.`,
    `const seen_x = ${list(visible.map(([x]) => x))};`,
    `const seen_y = ${list(visible.map(([, y]) => y))};`,
    ...(keepAway.length
      ? [
          '// To keep clear of: middles and distances.',
          `const disc_x = ${list(keepAway.map(({ centre }) => centre[0]))};`,
          `const disc_y = ${list(keepAway.map(({ centre }) => centre[1]))};`,
          `const disc_distance = ${list(keepAway.map(({ distance }) => distance))};`,
        ]
      : []),
    '// Whether a body may appear at a place: its disc must keep clear of what is seen.',
    'fn may_appear(x: num, y: num): bool {',
    ...(keepAway.length
      ? [
          `  for i in 0..${keepAway.length} {`,
          '    let off_x = x - disc_x[i];',
          '    let off_y = y - disc_y[i];',
          '    if sqrt(off_x * off_x + off_y * off_y) < disc_distance[i] {',
          '      return false;',
          '    }',
          '  }',
        ]
      : []),
    ...(half
      ? [
          '  // Within the sector ahead: its half angle by its cosine.',
          `  let way_x = x - ${plain(half.apex[0])};`,
          `  let way_y = y - ${plain(half.apex[1])};`,
          `  if ${plain(half.direction[0] / long)} * way_x + ${plain(half.direction[1] / long)} * way_y < ${plain(Math.cos(half.halfAngle))} * sqrt(way_x * way_x + way_y * way_y) {`,
          '    return false;',
          '  }',
        ]
      : []),
    '  var inside = true;',
    '  var nearest = 1e30;',
    `  var last_x = seen_x[${n - 1}];`,
    `  var last_y = seen_y[${n - 1}];`,
    `  for i in 0..${n} {`,
    '    let edge_x = seen_x[i] - last_x;',
    '    let edge_y = seen_y[i] - last_y;',
    '    let from_x = x - last_x;',
    '    let from_y = y - last_y;',
    `    if edge_x * from_y - edge_y * from_x ${beyond} 0 {`,
    '      inside = false;',
    '    }',
    '    let along = max(0, min(1, (from_x * edge_x + from_y * edge_y) / (edge_x * edge_x + edge_y * edge_y)));',
    '    let off_x = from_x - edge_x * along;',
    '    let off_y = from_y - edge_y * along;',
    '    nearest = min(nearest, sqrt(off_x * off_x + off_y * off_y));',
    '    last_x = seen_x[i];',
    '    last_y = seen_y[i];',
    '  }',
    `  return !inside && nearest >= ${plain(clearance)}${'ringOuter' in bounds ? ` && nearest <= ${plain(clearance + bounds.ringOuter)}` : ''};`,
    '}',
    `// A place of the bounds by two even numbers from 0 to 1: roll them until one may appear, about ${expected < 100 ? expected.toFixed(1) : Math.round(expected)} times.`,
    'fn rolled_x(u: num): num {',
    `  return ${plain(box.min[0])} + ${plain(box.max[0] - box.min[0])} * u;`,
    '}',
    'fn rolled_y(v: num): num {',
    `  return ${plain(box.min[1])} + ${plain(box.max[1] - box.min[1])} * v;`,
    '}',
  ];
  return lines.join('\n');
}
