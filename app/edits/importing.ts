import type { Conventions } from '../../core/conventions/conventions';
import type { Problem } from '../../core/reasons';
import { isPng } from '../../formats/images';
import { isJson } from '../../formats/isJson';
import type { Reading } from '../../formats/pointColumns';
import type { Project } from '../../formats/project';
import { tooMuch } from '../../formats/size';
import { deleteKept, keptProjects } from '../state/autosave';
import { newId } from '../state/crashLog';
import { currentProject, replaceProject, undo } from '../state/document';
import { readImported, readPointsProject } from '../state/imports';
import { holdPoints, takeInPoints } from '../state/pointSets';
import { useSettings } from '../state/settings';
import { loadPoints, takenFor, useTable } from '../state/table';
import { counted } from '../ui/figures';
import { complain, say } from '../ui/notices';
import { showPane } from './panes';
import { bringIn } from './bodies';
import { tellBrought } from './brought';
import { offerToTasks } from './taking';

/* Imports: files and text become projects, or points of the open project. Loaded on demand. */

const refuse = (name: string, problems: readonly Problem[]): false => {
  complain(`${name} was not opened, and nothing has changed.`, problems);
  return false;
};

/**
 * Imports text from a file, a drop or the clipboard. A project, a compute request or a model opens as a new
 * project; points go into the point table of the open project, or into a new one if `wanted` says so. Reports
 * problems, and changes nothing then. Resolves to whether the text was imported.
 */
export async function importText(text: string, name: string, wanted: 'project' | 'any' = 'any'): Promise<boolean> {
  const { conventions } = currentProject();
  const read = await readImported(text, name, { id: newId(), conventions });
  if (!read) return false;
  if (!read.ok) return refuse(name, read.problems);
  if (read.kind === 'project') {
    const isModel = !isJson(text, name);
    await openBrought(read.project, name, read.notes, isModel ? { text, conventions } : null, isModel);
    return true;
  }
  if (wanted === 'project') return openPoints(text, name);
  const problems = await loadPoints(text, name);
  if (problems.length) return refuse(name, problems);
  showPane('points');
  useSettings.setState(({ folds }) => ({ folds: { ...folds, points: true } }));
  say(`Took the points of ${name}: ${takenFor()}. They are under Convert, where their columns can be set.`, {
    label: 'Make them a project',
    run: () => void openPoints(text, name, useTable.getState().text?.reading),
  });
  return true;
}

/**
 * Opens an imported project, and offers to add its bodies to the project that was open instead. The axes,
 * origin and size of a model can be changed afterwards.
 *
 * @param fillsEmpty - whether it fills an empty project that is open, rather than becoming another one
 */
export async function openBrought(
  brought: Project,
  name: string,
  notes: readonly string[],
  model: { readonly text: string; readonly conventions: Conventions } | null,
  fillsEmpty = false,
): Promise<void> {
  const before = currentProject();
  const isEmpty = !before.bodies.length && !before.tiles && !before.pointSets.length;
  const fills = fillsEmpty && isEmpty && before.camera.kind === brought.camera.kind;
  const { project: own, known } = await apartFromKept(takeInPoints(brought));
  const project = fills && !known ? { ...own, id: before.id, ground: own.ground ?? before.ground } : own;
  replaceProject(`open ${name}`, project);
  tellBrought(model && { ...model, name, of: project.id, ids: project.bodies.map(({ id }) => id) });
  const into =
    before.camera.kind === project.camera.kind &&
    !fills &&
    project.bodies.length > 0 &&
    !tooMuch([...before.bodies, ...project.bodies]).length;
  say(
    [
      known ? `${project.name} was kept here already, and is open.` : `Opened ${project.name}.`,
      ...notes,
      ...(model ? ['Its axes, origin and size are set under Convert, Nodes.'] : []),
      'Undo brings back what was here.',
    ].join(' '),
    into && !known
      ? {
          label: `Put its bodies into ${before.name} instead`,
          run: () => {
            if (currentProject().id !== project.id) return;
            undo();
            void deleteKept(project.id);
            const ids = bringIn(project.bodies, project.name, project.images);
            if (model) tellBrought({ ...model, name, of: before.id, ids });
          },
        }
      : undefined,
  );
}

/**
 * Compares an imported project with the stored ones: an equal one keeps the stored id, and another one of the
 * same name is numbered.
 */
async function apartFromKept(project: Project): Promise<{ project: Project; known: boolean }> {
  const kept = await keptProjects().catch(() => []);
  const content = ({ id: _, ...rest }: Record<string, unknown>) => (void _, JSON.stringify(rest));
  const own = content(project as unknown as Record<string, unknown>);
  const same = kept.find((one) => content(one.project as Record<string, unknown>) === own);
  if (same) return { project: { ...project, id: same.id }, known: true };
  const names = new Set(kept.map(({ name }) => name));
  let { name } = project;
  for (let i = 2; names.has(name); i++) name = `${project.name}, ${i}`;
  return { project: name === project.name ? project : { ...project, name }, known: false };
}

/** Opens a list of points as a project of its own. */
async function openPoints(text: string, name: string, reading?: Reading): Promise<boolean> {
  const { conventions } = currentProject();
  const given = { id: newId(), name: name.replace(/\.(csv|tsv|txt)$/i, ''), conventions };
  const read = await readPointsProject(text, given, reading);
  if (!read) return false;
  if (!read.ok) return refuse(name, read.problems);
  const set = { id: newId(), name, key: holdPoints(read), count: read.points.length / 3 };
  replaceProject(`open ${name}`, { ...read.project, pointSets: [set] });
  const count = read.points.length / 3;
  say(
    `Opened ${given.name}: ${counted(count, 'point', 'points')}, ${read.project.bodies.length ? 'each a body' : 'in the table'}; ${read.said}. Undo brings back what was here.`,
  );
  return true;
}

/** Imports pasted text: offers it to the tasks first. */
export async function takeText(text: string, name: string): Promise<boolean> {
  if (await offerToTasks({ name, bytes: new TextEncoder().encode(text), text })) return true;
  return importText(text, name);
}

/** The bytes of a file, or why they cannot be had. */
async function bytesOf(file: File): Promise<Uint8Array | Problem> {
  if (file.size > mostBytes) return tooLarge(file.size);
  try {
    return new Uint8Array(await file.arrayBuffer());
  } catch {
    return {
      path: '',
      message: 'The browser could not read it: it may have been moved, or be closed to you. Try it again.',
    };
  }
}

const notText: Problem = {
  path: '',
  message: 'It is not text, and nothing here takes files of its kind. Projects, requests, OBJ and CSV are text.',
};

const noGlb: Problem = {
  path: '',
  message:
    'It is no binary glTF: it does not begin with “glTF”. It may be cut off, or of another kind. Export it again.',
};

/** Imports the first of some files, and says that the others were left. */
export async function importFirst(files: readonly File[]): Promise<void> {
  const [first, ...others] = files;
  if (!first) return;
  await importFile(first);
  if (others.length)
    say(`${counted(others.length, 'other file was', 'other files were')} left out. Drop one file at a time.`);
}

/** Reads a file as text. Reports a file that is no text, and resolves to null then. */
export async function textOfFile(file: File): Promise<string | null> {
  const bytes = await bytesOf(file);
  const text = bytes instanceof Uint8Array ? textOf(bytes) : null;
  if (text === null) refuse(file.name, [bytes instanceof Uint8Array ? notText : bytes]);
  return text;
}

/** Imports a file: offers its bytes to the tasks first, then takes it as text. Reports a file that is neither. */
export async function importFile(file: File, wanted?: 'project'): Promise<boolean> {
  const bytes = await bytesOf(file);
  if (!(bytes instanceof Uint8Array)) return refuse(file.name, [bytes]);
  const text = textOf(bytes);
  if ((!wanted || isPng(bytes)) && (await offerToTasks({ name: file.name, bytes, text }))) return true;
  if (text !== null) return importText(text, file.name, wanted);
  return refuse(file.name, [/\.glb$/i.test(file.name) ? noGlb : notText]);
}

/** More than this is never read. */
const mostBytes = 256e6;
const tooLarge = (size: number): Problem => ({
  path: '',
  message: `It has ${Math.round(size / 1e6)} million bytes, and ${mostBytes / 1e6} million can be read here. Take a part of it.`,
});

/**
 * Bytes as text where they are UTF-8 without control characters, as text files are; null where they
 * are not.
 */
export function textOf(bytes: Uint8Array): string | null {
  if (bytes.subarray(0, 4096).includes(0)) return null;
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
}
