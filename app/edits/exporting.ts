import type { Query } from '../../core/compute/operations';
import { projectRequest } from '../../formats/camera';
import { writeProject, type Project } from '../../formats/project';
import { loadKeptSlices, sliceQueries } from '../state/slices';
import { currentProject } from '../state/document';
import { currentMoment } from '../state/tempo';
import { keepVersion } from '../state/autosave';
import { fetchPoints, heldPoints, projectForFile } from '../state/pointSets';
import { saveFile } from '../ui/files';
import { copy } from '../ui/notices';

/* The open project as a file and as a compute request. */

/** What a file of a project is called. */
export const fileName = (project: Project, ending: string) =>
  `${
    project.name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'project'
  }${ending}`;

export async function saveProject(): Promise<void> {
  const project = currentProject();
  void keepVersion('saved as a file');
  saveFile(fileName(project, '.astrolabe.json'), writeProject(await projectForFile(project)));
}

/** The open project as a compute request, in its own conventions. */
export async function currentRequest() {
  await loadKeptSlices(currentProject());
  const now = currentMoment();
  const { project, codec, chain, points: form } = now;
  await Promise.all(project.pointSets.map(({ key }) => fetchPoints(key)));
  const request = projectRequest(project, codec, chain.ok ? chain.value.world : null);
  const sets = project.pointSets.flatMap(({ name, key }, i): Query[] => {
    const own = heldPoints(key)?.points ?? [];
    const points = Array.from({ length: own.length / 3 }, (_, i) => [
      ...form.show([own[3 * i]!, own[3 * i + 1]!, own[3 * i + 2]!]),
    ]) as [number, number, number][];
    // Two sets may have one name, and no two queries one id.
    const again = project.pointSets.slice(0, i).filter((one) => one.name === name).length;
    return points.length
      ? [{ id: `points of ${name}${again ? `, ${again + 1}` : ''}`, op: 'worldToScreen', points }]
      : [];
  });
  const taken = new Set<string>();
  // What a task calls its queries is its own; no two of a request have one id.
  const queries = [...request.queries, ...sets, ...sliceQueries(now)].map((query) => {
    let { id } = query;
    for (let i = 2; taken.has(id); i++) id = `${query.id}, ${i}`;
    taken.add(id);
    return { ...query, id };
  });
  return { ...request, queries };
}

export const saveRequest = async (): Promise<void> => {
  void keepVersion('saved as a request');
  saveFile(fileName(currentProject(), '.request.json'), JSON.stringify(await currentRequest(), null, 2) + '\n');
};
export const copyRequest = async (): Promise<void> =>
  copy(JSON.stringify(await currentRequest()), 'the project as a compute request');
