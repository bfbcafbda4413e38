import { presets, type Conventions, type PresetName } from '../../core/conventions/conventions';
import { carry } from '../../core/convert/chain';
import { transformPoint } from '../../core/math/mat4';
import type { Vec3 } from '../../core/math/vec3';
import { worldToParts } from '../../core/convert/project';
import { saltmarrow } from '../../demo/saltmarrow';
import { saltmarrowChart } from '../../demo/chart';
import { projectRequest, cameraInSpace } from '../../formats/camera';
import { keepNumbers } from '../../formats/reinterpret';
import { writeProject, type Project } from '../../formats/project';
import { currentProject, edit, editCamera, replaceProject } from '../state/document';
import { currentSituation } from '../state/derive';
import { readImported, readPointsProject } from '../state/imports';
import { newId } from '../state/journal';
import { keepPoints, keepVersion } from '../state/keep';
import { loadPoints } from '../state/table';
import type { Problem } from '../../core/reasons';
import { themeInForce, useSettings } from '../state/settings';
import { complain, copy, saveFile, say } from '../ui/clipboard';

/* What can be done from more than one place: the menus, the keys and the command search. */

export const setConventions = (change: (now: Conventions) => Conventions, gesture?: string): void =>
  edit(
    'change the conventions',
    (draft) => {
      draft.conventions = structuredClone(change(currentProject().conventions)) as typeof draft.conventions;
    },
    gesture,
  );

/** Reads every number of the project by other conventions: the numbers stay, the scene moves. */
export const keepNumbersIn = (from: Conventions, to: Conventions): void =>
  replaceProject(
    'keep the numbers, change their meaning',
    keepNumbers({ ...currentProject(), conventions: from as Project['conventions'] }, to),
  );

export const choosePreset = (name: PresetName): void => setConventions(() => presets[name]);

/** Probes a body at the point that stands for it; null frees the probe where it is. */
export function probeBody(id: string | null): void {
  const { project, placed, frame, chain } = currentSituation();
  const name = id === null ? 'a free point' : project.bodies.find((body) => body.id === id)!.name;
  const keeps = project.probe.drive.rung === 'local' && id !== null;
  edit(`probe ${name}`, (draft) => {
    const body = id === null ? null : placed.get(id)!;
    const handle = project.bodies.find((one) => one.id === id)?.handle ?? [0, 0, 0];
    const world = body ? transformPoint(body.toWorld, handle) : chain.ok ? chain.value.world : frame.eye;
    draft.probe.body = id;
    draft.probe.drive = { rung: keeps ? 'local' : 'world', value: keeps ? [...handle] : [...world] };
  });
}

/** Moves the probe to a world point; the rung that drives goes on driving, unless it has no answer there: then the world takes over. */
export function moveProbe(world: Vec3, gesture: string): void {
  const { frame, placed, project } = currentSituation();
  const { body, drive } = project.probe;
  const own = body === null ? null : (placed.get(body) ?? null);
  const value = carry(frame, own, { rung: 'world', value: world }, drive.rung);
  edit(
    'move the probe',
    (draft) => {
      draft.probe.drive = value.ok
        ? { rung: drive.rung, value: [...value.value] }
        : { rung: 'world', value: [...world] };
    },
    gesture,
  );
}

/** Drives the probe from a screen pixel (top left, centres at .5), its distance ahead kept. */
export function driveFromPixel(pixel: readonly [number, number], gesture: string): void {
  const { frame, chain, placed, project } = currentSituation();
  if (!chain.ok || !chain.value.picture.ok) return;
  const drive = {
    rung: 'screen' as const,
    value: [...pixel, chain.value.picture.value.shares.far] as [number, number, number],
  };
  const body = project.probe.body === null ? null : (placed.get(project.probe.body) ?? null);
  const rung = project.probe.drive.rung;
  const value = carry(frame, body, drive, rung);
  if (value.ok)
    edit(
      'move the probe',
      (draft) => {
        draft.probe.drive.value = [...value.value];
      },
      gesture,
    );
}

/** Perspective to orthographic or back, the subject at the probe kept at its size. */
export function setProjectionKind(kind: 'perspective' | 'orthographic'): void {
  const { project, frame, chain } = currentSituation();
  const now = cameraInSpace(project).projection;
  if (now.kind === kind) return;
  const ahead = chain.ok ? worldToParts(frame, chain.value.world)[2] : 0;
  const distance = ahead > 0 ? ahead : Math.max(now.near, 10);
  editCamera(`make the camera ${kind}`, (camera) => {
    camera.projection =
      now.kind === 'perspective'
        ? {
            kind: 'orthographic',
            height: 2 * distance * Math.tan((now.verticalFov * Math.PI) / 360),
            near: now.near,
            far: now.far ?? Math.max(1000, 4 * distance),
            shift: [...now.shift],
            aspect: now.aspect,
          }
        : {
            kind: 'perspective',
            verticalFov: (2 * Math.atan(now.height / 2 / distance) * 180) / Math.PI,
            near: now.near > 0 ? now.near : 0.1,
            far: now.far,
            shift: [...now.shift],
            aspect: now.aspect,
          };
  });
}

const fileName = (project: Project, ending: string) =>
  `${
    project.name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'project'
  }${ending}`;

export function saveProject(): void {
  const project = currentProject();
  void keepVersion('saved as a file');
  saveFile(fileName(project, '.astrolabe.json'), writeProject(project));
}

/** The open project as a compute request, in its own conventions. */
export function currentRequest() {
  const { project, expression, chain } = currentSituation();
  return projectRequest(project, expression, chain.ok ? chain.value.world : null);
}

export const saveRequest = (): void => {
  void keepVersion('saved as a request');
  saveFile(fileName(currentProject(), '.request.json'), JSON.stringify(currentRequest(), null, 2) + '\n');
};
export const copyRequest = (): Promise<void> =>
  copy(JSON.stringify(currentRequest()), 'the project as a compute request');

const refuse = (name: string, problems: readonly Problem[]): false => {
  complain(`${name} was not opened, and nothing has changed.`, problems);
  return false;
};

/**
 * Takes text that came by file, drop or paste: a project, a compute request or a model is opened as a project of its own; points go into the table of the open project, or become
 * one if that is what is wanted. What is wrong with it is said, and then nothing has changed.
 */
export async function importText(text: string, name: string, wanted: 'project' | 'any' = 'any'): Promise<boolean> {
  const { conventions } = currentProject();
  const read = await readImported(text, name, { id: newId(), conventions });
  if (!read) return false;
  if (!read.ok) return refuse(name, read.problems);
  if (read.kind === 'project') {
    replaceProject(`open ${name}`, read.project);
    say(['Opened ' + read.project.name + '.', ...read.notes, 'Undo brings back what was here.'].join(' '));
    return true;
  }
  if (wanted === 'project') return openPoints(text, name);
  const problems = await loadPoints(text, name);
  if (problems.length) return refuse(name, problems);
  useSettings.setState(({ corners, folds }) => ({
    corners: { ...corners, convert: 'points', frame: 'points' },
    folds: { ...folds, points: true },
  }));
  say(`Took the points of ${name}. They are under Convert.`, {
    label: 'Make them a project',
    run: () => void openPoints(text, name),
  });
  return true;
}

/** Opens a list of points as a project of its own. */
async function openPoints(text: string, name: string): Promise<boolean> {
  const { conventions } = currentProject();
  const given = { id: newId(), name: name.replace(/\.(csv|tsv|txt)$/i, ''), conventions };
  const read = await readPointsProject(text, given);
  if (!read) return false;
  if (!read.ok) return refuse(name, read.problems);
  await keepPoints(given.id, { source: name, points: read.points, names: read.names });
  replaceProject(`open ${name}`, read.project);
  const count = read.points.length / 3;
  say(
    `Opened ${given.name}: ${read.project.bodies.length ? `${count} points, each a body` : `${count.toLocaleString('en')} points, in the table`}. Undo brings back what was here.`,
  );
  return true;
}

export const importFile = async (file: File, wanted?: 'project'): Promise<boolean> =>
  importText(await file.text(), file.name, wanted);

/** Asks for a file and imports it; `done` is called when it is open. */
export function chooseFile(done?: () => void, wanted?: 'project'): void {
  const input = Object.assign(document.createElement('input'), {
    type: 'file',
    accept: '.json,.obj,.csv,.tsv,.txt,application/json',
  });
  input.addEventListener('change', () => {
    const file = input.files?.[0];
    if (file) void importFile(file, wanted).then((opened) => opened && done?.());
  });
  input.click();
}

const demos = { harbour: saltmarrow, chart: saltmarrowChart };
export function openDemo(which: keyof typeof demos): void {
  const demo = demos[which](newId());
  replaceProject('open the demo', demo);
  say(`${demo.name} is open. Undo brings back what was here.`);
}

export function toggleTheme(): void {
  useSettings.setState({ theme: themeInForce(useSettings.getState().theme) === 'night' ? 'paper' : 'night' });
}

export function toggleHelp(): void {
  useSettings.setState(({ help }) => ({ help: !help }));
}
