import { largest } from '../core/quantities/numbers';
import type * as z from 'zod';
import { pathText } from '../core/compute/issues';
import { projectSchema, readProject, type Project } from './project';

/** A project whose wrong numbers have been replaced, and where. */
export interface Repaired {
  readonly project: Project;
  /** Where a number stood that was none or out of range, and what stands there now. */
  readonly replaced: readonly { readonly path: string; readonly by: number }[];
}

type Issue = z.core.$ZodIssue;
interface Wrong {
  readonly path: readonly PropertyKey[];
  readonly issue: Issue;
}

/** What is wrong, down to the fields: of alternatives that of which the least is wrong. */
function fieldsOf(issues: readonly Issue[], above: readonly PropertyKey[] = []): Wrong[] {
  return issues.flatMap((issue): Wrong[] => {
    const path = [...above, ...issue.path];
    if (issue.code !== 'invalid_union' || !issue.errors.length) return [{ path, issue }];
    const branches = issue.errors.map((branch) => fieldsOf(branch as Issue[], path));
    return branches.sort((a, b) => a.length - b.length)[0]!;
  });
}

/** The number that takes a wrong one's place: the nearest that may stand there, 0 for what is none. */
function insteadOf(given: unknown, issue: Issue): number | null {
  if (issue.code === 'too_big' && typeof issue.maximum === 'number') return issue.maximum;
  if (issue.code === 'too_small' && typeof issue.minimum === 'number')
    return issue.inclusive ? issue.minimum : Math.max(issue.minimum + 1e-6, issue.minimum * (1 + 1e-6));
  if (issue.code !== 'invalid_type' || !/^(number|int)$/.test(issue.expected)) return null;
  if (given === Infinity) return largest;
  if (given === -Infinity) return -largest;
  return typeof given === 'number' && Number.isFinite(given) ? Math.round(given) : 0;
}

/**
 * A project that cannot be read only because of numbers that are none, or lie out of range, with
 * these replaced; null where anything else is wrong with it. The value that is given is left as it
 * is.
 */
export function repairProject(given: unknown): Repaired | null {
  const value: unknown = structuredClone(given);
  const replaced = new Map<string, number>();
  // One that is put right may uncover another, as where alternatives are.
  for (let round = 0; round < 50; round++) {
    const parsed = projectSchema.safeParse(value, { reportInput: true });
    if (parsed.success) {
      const read = readProject(value);
      return read.ok ? { project: read.project, replaced: [...replaced].map(([path, by]) => ({ path, by })) } : null;
    }
    for (const { path, issue } of fieldsOf(parsed.error.issues)) {
      const parent = path.slice(0, -1).reduce<unknown>((at, key) => (at as Record<PropertyKey, unknown> | undefined)?.[key], value); // prettier-ignore
      const key = path.at(-1);
      if (typeof parent !== 'object' || parent === null || key === undefined || !(key in parent)) return null;
      const by = insteadOf((parent as Record<PropertyKey, unknown>)[key], issue);
      if (by === null) return null;
      (parent as Record<PropertyKey, unknown>)[key] = by;
      replaced.set(pathText(path), by);
    }
  }
  return null;
}
