import { readProject, type Project } from './project';

/**
 * A place in which two values differ, and what stands there in each; undefined where one has
 * nothing.
 */
export interface Difference {
  readonly path: string;
  readonly before: unknown;
  readonly after: unknown;
}

/**
 * Every place in which two JSON values differ, in the order of the first, by paths such as
 * `bodies[2].position[0]`. At most `most` of them.
 */
export function differences(before: unknown, after: unknown, most = Infinity): Difference[] {
  const found: Difference[] = [];
  const walk = (a: unknown, b: unknown, path: string): void => {
    if (found.length >= most || Object.is(a, b)) return;
    if (Array.isArray(a) && Array.isArray(b)) {
      for (let i = 0; i < Math.max(a.length, b.length); i++) walk(a[i], b[i], `${path}[${i}]`);
    } else if (isRecord(a) && isRecord(b)) {
      for (const key of new Set([...Object.keys(a), ...Object.keys(b)]))
        walk(a[key], b[key], path ? `${path}.${key}` : key);
    } else found.push({ path, before: a, after: b });
  };
  walk(before, after, '');
  return found;
}

/**
 * What differs between a kept version and the project as it is now. The version is read first, as
 * it would be opened: what a newer page takes for granted is no difference. One that cannot be read
 * is compared as it lies.
 */
export function versionDifferences(version: unknown, now: Project, most = Infinity): Difference[] {
  const read = readProject(version);
  return differences(read.ok ? read.project : version, now, most);
}

const isRecord = (v: unknown): v is Record<string, unknown> => typeof v === 'object' && v !== null && !Array.isArray(v);
