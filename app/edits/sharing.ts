import { allCameras, parseProject, writeProject, type Project } from '../../formats/project';
import { decodeLink, encodeLink, mostLinkLength } from '../../formats/projectLink';
import { setTime, useClock } from '../state/clock';
import { currentProject } from '../state/document';
import { projectForFile } from '../state/pointSets';
import { counted } from '../ui/figures';
import { complain, copy, warn } from '../ui/notices';
import { saveProject } from './exporting';
import { openBrought } from './importing';

/* Links that hold a project. Loaded on demand. */

/** Copies the address of the open task with the project, and the time, in its fragment. */
export async function copyLink(): Promise<void> {
  const project = encodeLink(writeProject(await projectForFile(currentProject())));
  if (project.length > mostLinkLength) {
    const kilobytes = (length: number) => `${Math.ceil(length / 1000)} kB`;
    return warn(
      `This project takes a link of ${kilobytes(project.length)}, and links carry up to ${kilobytes(mostLinkLength)}. Send it as a file.`,
      [],
      { label: 'Save as a file', run: () => void saveProject() },
    );
  }
  const { origin, pathname } = window.location;
  const time = useClock.getState().time;
  const fragment = new URLSearchParams({ project, ...(time > 0 && { time: String(time) }) });
  await copy(`${origin}${pathname}#${fragment.toString()}`, 'a link that holds the project');
}

/** Describes a project in a sentence. */
function describe(project: Project): string {
  const kind = project.camera.kind === '2d' ? '2D' : '3D';
  const parts = [
    counted(project.bodies.length, 'body', 'bodies'),
    counted(allCameras(project).length, 'camera', 'cameras'),
  ];
  return `“${project.name}”, a ${kind} project with ${parts.join(' and ')}`;
}

/** Says what the fragment of an address holds, and opens it as a project on demand. */
export function offerLink(fragment: string): void {
  const given = new URLSearchParams(fragment.replace(/^#/, ''));
  const text = decodeLink(given.get('project') ?? '');
  if (text === null)
    return complain('This link holds no project that can be read: it may have been cut off. Ask for the link again.');
  const read = parseProject(text);
  if (!read.ok) return complain('The project of this link cannot be opened.', read.problems);
  const time = Number(given.get('time'));
  warn(`This link holds ${describe(read.project)}. It is not stored until you open it.`, [], {
    label: 'Open it',
    run: () =>
      void openBrought(read.project, 'the link', [], null).then(() => {
        if (time > 0) setTime(time);
      }),
  });
}
