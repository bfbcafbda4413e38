import { degrees } from '../../core/math/angle';
import { presets, type Conventions, type PresetName } from '../../core/conventions/conventions';
import { carry } from '../../core/convert/chain';
import { transformPoint } from '../../core/math/mat4';
import type { Vec3 } from '../../core/math/vec3';
import { worldToViewRuf } from '../../core/convert/project';
import { saltmarrow } from '../../demo/saltmarrow';
import { saltmarrowChart } from '../../demo/chart';
import { projectRequest, cameraInSpace } from '../../formats/camera';
import { keepNumbers } from '../../formats/reinterpret';
import type { Reading } from '../../formats/csv';
import { tooMuch } from '../../formats/size';
import { writeProject, type Project } from '../../formats/project';
import { codecOf } from '../../core/conventions/codec';
import type { Query } from '../../core/compute/schema';
import { rereadSlices, sliceQueries } from '../state/slices';
import { currentProject, edit, editCamera, replaceProject, undo } from '../state/document';
import { currentMoment } from '../state/tempo';
import { readImported, readPointsProject } from '../state/imports';
import { newId } from '../state/crashLog';
import { deleteKept, keepVersion, keptProjects } from '../state/autosave';
import { fetchPoints, heldPoints, holdPoints, projectForFile, rereadPoints, takeInPoints } from '../state/pointSets';
import { loadPoints, takenFor, useTable } from '../state/table';
import type { Problem } from '../../core/reasons';
import { everyTask, themeInForce, useSettings } from '../state/settings';
import { counted } from '../ui/figures';
import { askFile, saveFile } from '../ui/files';
import { isJson } from '../../formats/importing';
import { bringIn } from './bodies';
import { tellBrought } from './brought';
import { complain, copy, say } from '../ui/notices';

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
    rereadPoints(
      rereadSlices(
        keepNumbers({ ...currentProject(), conventions: from as Project['conventions'] }, to),
        codecOf(from),
        codecOf(to),
      ),
      codecOf(from),
      codecOf(to),
    ),
  );

export const choosePreset = (name: PresetName): void => setConventions(() => presets[name]);

/** Probes a body at the point that stands for it; null frees the probe where it is. */
export function probeBody(id: string | null): void {
  const { project, placed, frame, chain } = currentMoment();
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

/**
 * Moves the probe to a world point; the rung that drives goes on driving, unless it has no answer
 * there: then the world takes over.
 */
export function moveProbe(world: Vec3, gesture: string): void {
  const { frame, placed, project } = currentMoment();
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
  const { frame, chain, placed, project } = currentMoment();
  if (!chain.ok || !chain.value.picture.ok) return;
  const drive = {
    rung: 'screen' as const,
    value: [...pixel, chain.value.picture.value.depth01.far] as [number, number, number],
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
  const { project, frame, chain } = currentMoment();
  const now = cameraInSpace(project).projection;
  if (now.kind === kind) return;
  const ahead = chain.ok ? worldToViewRuf(frame, chain.value.world)[2] : 0;
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
            verticalFov: degrees(2 * Math.atan(now.height / 2 / distance)),
            near: now.near > 0 ? now.near : 0.1,
            far: now.far,
            shift: [...now.shift],
            aspect: now.aspect,
          };
  });
}

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

const refuse = (name: string, problems: readonly Problem[]): false => {
  complain(`${name} was not opened, and nothing has changed.`, problems);
  return false;
};

/**
 * Takes text that came by file, drop or paste: a project, a compute request or a model is opened as
 * a project of its own; points go into the table of the open project, or become one if that is what
 * is wanted. What is wrong with it is said, and then nothing has changed.
 */
export async function importText(text: string, name: string, wanted: 'project' | 'any' = 'any'): Promise<boolean> {
  const { conventions } = currentProject();
  const read = await readImported(text, name, { id: newId(), conventions });
  if (!read) return false;
  if (!read.ok) return refuse(name, read.problems);
  if (read.kind === 'project') {
    const isModel = !isJson(text, name);
    await openBrought(read.project, name, read.notes, isModel ? { text, conventions } : null);
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
 * Opens what was brought in as a project of its own, and offers to put its bodies into the one that was
 * open instead. A model's numbers can be taken otherwise afterwards.
 */
export async function openBrought(
  brought: Project,
  name: string,
  notes: readonly string[],
  model: { readonly text: string; readonly conventions: Conventions } | null,
): Promise<void> {
  const before = currentProject();
  const { project, known } = await apartFromKept(takeInPoints(brought));
  replaceProject(`open ${name}`, project);
  tellBrought(model && { ...model, name, of: project.id, ids: project.bodies.map(({ id }) => id) });
  const into =
    before.camera.kind === project.camera.kind &&
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
            const ids = bringIn(project.bodies, project.name);
            if (model) tellBrought({ ...model, name, of: before.id, ids });
          },
        }
      : undefined,
  );
}

/**
 * A project that is brought in against those that are kept: the very same is the kept one, and
 * another of the same name is numbered, so that no two of a name lie side by side unasked.
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

/** What came by file, drop or paste, as bytes, and as text where they are text. */
export interface Given {
  readonly name: string;
  readonly bytes: Uint8Array;
  readonly text: string | null;
}

/** Something that a task takes instead of the house: asked first. Whether it took it. */
export type Taking = (given: Given) => boolean;
let taking: Taking = () => false;
/** Has the tasks asked about what comes in from now on: once, when the page begins. */
export const installTaking = (take: Taking): void => void (taking = take);

/** Text that was pasted: a task's, or the house's. */
export async function takeText(text: string, name: string): Promise<boolean> {
  if (taking({ name, bytes: new TextEncoder().encode(text), text })) return true;
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

/** The text of a file, or null where there is none to be had, which is said. */
export async function textOfFile(file: File): Promise<string | null> {
  const bytes = await bytesOf(file);
  const text = bytes instanceof Uint8Array ? textOf(bytes) : null;
  if (text === null) refuse(file.name, [bytes instanceof Uint8Array ? notText : bytes]);
  return text;
}

/**
 * A file, read as bytes: a task's, or text for the house. What is neither is said, and nothing
 * changes.
 */
export async function importFile(file: File, wanted?: 'project'): Promise<boolean> {
  const bytes = await bytesOf(file);
  if (!(bytes instanceof Uint8Array)) return refuse(file.name, [bytes]);
  const text = textOf(bytes);
  if (!wanted && taking({ name: file.name, bytes, text })) return true;
  return text === null ? refuse(file.name, [notText]) : importText(text, file.name, wanted);
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

/** Has a pane of the house stand beside the plan, in the tasks that have one there. */
export function showPane(pane: string): void {
  useSettings.setState(({ panes }) => {
    // A pane of a task's own in that task; one of the house in all, and in those that have no row yet.
    const [task, own] = pane.split('/');
    const routes = own ? [task!] : new Set([...Object.keys(panes), everyTask]);
    const beside = (route: string) => [panes[route]?.[0] ?? 'plan', pane];
    return { panes: { ...panes, ...Object.fromEntries([...routes].map((route) => [route, beside(route)])) } };
  });
}

/** Asks for a file and imports it; `done` is called when it is open. */
export function chooseFile(done?: () => void, wanted?: 'project'): void {
  askFile('.json,.obj,.glb,.gltf,.csv,.tsv,.txt,application/json', (file) => {
    void importFile(file, wanted).then((opened) => opened && done?.());
  });
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
