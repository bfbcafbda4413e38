import { expose, transfer } from 'comlink';
import type { Conventions } from '../../core/conventions/conventions';
import type { Problem } from '../../core/reasons';
import { readPoints } from '../../formats/csv';
import { projectFromPoints } from '../../formats/gathered';
import { readImport, type ImportContext } from '../../formats/importing';
import type { Project } from '../../formats/project';
import { insidePoints } from '../state/points';

/* Reads what is brought in, off the page: a long file cannot hold it up, and can be stopped by ending the worker. */

export type PointsProject =
  | {
      readonly ok: true;
      readonly project: Project;
      readonly points: Float64Array;
      readonly names: readonly string[] | null;
    }
  | { readonly ok: false; readonly problems: readonly Problem[] };

const worker = {
  read: (text: string, name: string, context: ImportContext, onProgress: (share: number) => void) =>
    readImport(text, name, context, (share) => onProgress(share)),

  /** A list of points as a project: in space where each has three coordinates, flat where each has two. */
  pointsProject(text: string, given: { id: string; name: string; conventions: Conventions }): PointsProject {
    const inSpace = readPoints(text, 3);
    const flat = !inSpace.ok && readPoints(text, 2);
    const list = flat && flat.ok ? flat : inSpace;
    if (!list.ok) return list;
    const points = insidePoints(list.value, given.conventions);
    const { names } = list.value;
    const read = projectFromPoints(points, names, list.value.size === 2, given);
    return read.ok ? transfer({ ok: true, project: read.project, points, names }, [points.buffer]) : read;
  },
};

export type ImportsWorker = typeof worker;
expose(worker);
