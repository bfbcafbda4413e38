import type { ConventionCodec } from '../../core/conventions/codec';
import { keyOfPoints, withPoints, withoutPoints, type PointData } from '../../formats/pointSets';
import type { Project } from '../../formats/project';
import { keepPoints, keptPoints } from './autosave';
import { pointFormOf } from './points';

/*
 * The points of a project's sets, by their keys: here as long as the page is open, and kept in the
 * browser. What is undone and what is gone back to names them by the same keys.
 */

const held = new Map<string, PointData>();

/** Takes points in, here and in the browser, and gives their key. */
export function holdPoints(data: PointData): string {
  const key = keyOfPoints(data);
  if (held.has(key)) return key;
  held.set(key, data);
  void keepPoints(key, data);
  return key;
}

/** Points by their key: null where this browser does not have them. */
export async function fetchPoints(key: string): Promise<PointData | null> {
  const known = held.get(key) ?? (await keptPoints(key).catch(() => undefined));
  if (!known) return null;
  held.set(key, known);
  return known;
}

/** Points that are here already. */
export const heldPoints = (key: string): PointData | undefined => held.get(key);

/** A project that came as a file: its points are taken in, and it names them. */
export function takeInPoints(given: Project): Project {
  const { project, data } = withoutPoints(given);
  for (const one of data.values()) holdPoints(one);
  return project;
}

/** A project as it goes out as a file, with all its points. */
export async function projectForFile(project: Project): Promise<Project> {
  await Promise.all(project.pointSets.map(({ key }) => fetchPoints(key)));
  return withPoints(project, heldPoints);
}

/** A project whose points are read by other conventions, their numbers being what they are. */
export function rereadPoints(project: Project, from: ConventionCodec, to: ConventionCodec): Project {
  const flat = project.camera.kind === '2d';
  const [before, after] = [pointFormOf(from, flat), pointFormOf(to, flat)];
  const pointSets = project.pointSets.map((set) => {
    const data = held.get(set.key);
    if (!data) return set;
    const points = new Float64Array(data.points.length);
    for (let i = 0; i < points.length; i += 3)
      points.set(after.read(before.show([data.points[i]!, data.points[i + 1]!, data.points[i + 2]!])), i);
    return { ...set, key: holdPoints({ points, names: data.names }) };
  });
  return { ...project, pointSets };
}
