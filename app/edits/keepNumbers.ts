import { type Conventions } from '../../core/conventions/conventions';
import { keepNumbers } from '../../formats/reinterpret';
import { type Project } from '../../formats/project';
import { codecOf } from '../../core/conventions/codec';
import { rereadSlices, withKeptSlices } from '../state/slices';
import { currentProject, replaceProject } from '../state/document';
import { rereadPoints } from '../state/pointSets';

/** Reads every number of the project by other conventions: the numbers stay, the scene moves. */
export const keepNumbersIn = (from: Conventions, to: Conventions): void =>
  withKeptSlices(() => {
    const project = keepNumbers({ ...currentProject(), conventions: from as Project['conventions'] }, to);
    const codecs = [codecOf(from), codecOf(to)] as const;
    replaceProject('keep the numbers, change their meaning', rereadPoints(rereadSlices(project, ...codecs), ...codecs));
  });
