import { presets, type Conventions, type PresetName } from '../../core/conventions/conventions';
import { carry } from '../../core/convert/chain';
import { transformPoint } from '../../core/math/mat4';
import type { Vec3 } from '../../core/math/vec3';
import { worldToParts } from '../../core/convert/project';
import { saltmarrow } from '../../demo/saltmarrow';
import { projectRequest } from '../../formats/camera';
import { keepNumbers } from '../../formats/reinterpret';
import { parseProject, writeProject, type Project } from '../../formats/project';
import { currentProject, edit, replaceProject } from '../state/document';
import { currentSituation } from '../state/derive';
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
  const now = project.camera.projection;
  if (now.kind === kind) return;
  const ahead = chain.ok ? worldToParts(frame, chain.value.world)[2] : 0;
  const distance = ahead > 0 ? ahead : Math.max(now.near, 10);
  edit(`make the camera ${kind}`, (draft) => {
    draft.camera.projection =
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
  saveFile(fileName(project, '.astrolabe.json'), writeProject(project));
}

/** The open project as a compute request, in its own conventions. */
export function currentRequest() {
  const { project, expression, chain } = currentSituation();
  return projectRequest(project, expression, chain.ok ? chain.value.world : null);
}

export const saveRequest = (): void =>
  saveFile(fileName(currentProject(), '.request.json'), JSON.stringify(currentRequest(), null, 2) + '\n');
export const copyRequest = (): Promise<void> =>
  copy(JSON.stringify(currentRequest()), 'the project as a compute request');

/** Puts the project of a file in the open one's place, or says what is wrong with the file and changes nothing. */
export async function importFile(file: File): Promise<void> {
  const read = parseProject(await file.text());
  if (!read.ok) {
    complain(`${file.name} was not opened, and nothing has changed.`, read.problems);
    return;
  }
  const { id } = currentProject();
  replaceProject(`open ${file.name}`, { ...read.project, id });
  say(`Opened ${read.project.name}. Undo brings back what was here.`);
}

/** Asks for a file and imports it. */
export function chooseFile(): void {
  const input = Object.assign(document.createElement('input'), { type: 'file', accept: '.json,application/json' });
  input.addEventListener('change', () => {
    const file = input.files?.[0];
    if (file) void importFile(file);
  });
  input.click();
}

export function openDemo(): void {
  replaceProject('open the demo', saltmarrow(currentProject().id));
  say('Saltmarrow is open. Undo brings back what was here.');
}

export function toggleTheme(): void {
  useSettings.setState({ theme: themeInForce(useSettings.getState().theme) === 'night' ? 'paper' : 'night' });
}
