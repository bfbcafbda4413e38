import './alive';
import { expose, transfer } from 'comlink';
import { codecOf } from '../../core/conventions/codec';
import { readPoints, sizeOf } from '../../formats/csv';
import { readingWords, type Reading } from '../../formats/pointColumns';
import { projectFromPoints } from '../../formats/projectFromGeometry';
import { readImport, type Imported, type ImportContext } from '../../formats/importing';
import type { Project } from '../../formats/project';
import { tooMuch } from '../../formats/size';
import type { SceneAsProject } from '../../formats/sceneProject';
import type { ImportsWorker, OwnProject, PointsProject } from '../state/imports';
import { packProject } from '../state/packing';
import { insidePoints, pointFormOf } from '../state/points';

/*
 * Reads what is brought in, off the page: a long file cannot hold it up, and can be stopped by
 * ending the worker.
 */

const packed = (read: Imported): Imported =>
  read.ok && read.kind === 'project' ? { ...read, project: packProject(read.project) } : read;

const worker: ImportsWorker = {
  read: (text: string, name: string, context: ImportContext, onProgress: (share: number) => void) =>
    packed(readImport(text, name, context, (share) => onProgress(share))),

  /**
   * A list of points as a project: in space where its columns give three coordinates, flat where
   * they give two.
   */
  pointsProject(text: string, given: OwnProject, reading?: Reading): PointsProject {
    const flat = (reading?.coordinates.length ?? sizeOf(text)) === 2;
    const { letters } = pointFormOf(codecOf(given.conventions), flat);
    const list = readPoints(text, letters, reading);
    if (!list.ok) return list;
    const said = readingWords(list.columns, list.reading, letters);
    const points = insidePoints(list.value, given.conventions);
    const { names } = list.value;
    const read = projectFromPoints(points, names, flat, given);
    return read.ok ? transfer({ ok: true, project: read.project, points, names, said }, [points.buffer]) : read;
  },

  async scene(bytes: Uint8Array, given: OwnProject): Promise<SceneAsProject> {
    // The library for glTF is fetched when there is one.
    const [{ readScene }, { projectFromScene }] = await Promise.all([
      import('../../formats/gltfRead'),
      import('../../formats/sceneProject'),
    ]);
    const read = await readScene(bytes, given.name);
    if (!read.ok) return read;
    const problems = tooMuch(read.scene.bodies as unknown as Project['bodies']);
    if (problems.length) return { ok: false, problems };
    const made = projectFromScene(read.scene, given);
    if (!made.ok) return made;
    const said = [...made.said, ...(read.left.length ? [`Left out: ${read.left.join(', ')}.`] : [])];
    return { ok: true, project: packProject(made.project), ways: made.ways, said };
  },
};

expose(worker);
