import type { Vec3 } from '../../core/math/vec3';
import { allCameras, type Project, type ProjectCamera } from '../../formats/project';
import { setTime, pause, useClock } from '../state/clock';
import { currentProject, edit, replaceProject } from '../state/document';
import { useDrawings } from '../state/drawings';
import { say } from '../ui/notices';

/* The cameras of a project, and the frames that are set aside. */

export const tidy = (v: number): number => Number(v.toPrecision(6)) || 0;

/** A name and an id that no camera has yet. */
export function named(project: Project, wanted: string): { id: string; name: string } {
  const all = allCameras(project);
  const [names, ids] = [new Set(all.map(({ name }) => name)), new Set(all.map(({ id }) => id))];
  const slug = wanted.toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^-|-$/g, '') || 'camera'; // prettier-ignore
  let [name, id] = [wanted, slug];
  for (let i = 2; names.has(name) || ids.has(id); i++) [name, id] = [`${wanted} ${i}`, `${slug}-${i}`];
  return { id, name };
}

/** A project in which another of its cameras is looked through; all keep their places. */
function through(project: Project, id: string): Project {
  const all = allCameras(project);
  const place = all.findIndex((one) => one.id === id);
  if (place < 0 || project.camera.id === id) return project;
  return { ...project, camera: all[place]!, cameras: all.filter((one) => one.id !== id), cameraPlace: place };
}

/** Looks through another camera of the project. */
export function lookThrough(id: string): void {
  const project = currentProject();
  const camera = project.cameras.find((one) => one.id === id);
  if (camera) replaceProject(`look through ${camera.name}`, through(project, id));
}

/** Looks through the next camera, or the one before; round at the ends. */
export function lookThroughNext(by: 1 | -1): void {
  const project = currentProject();
  const all = allCameras(project);
  if (all.length < 2) return say('There is one camera. Add another in the menu over the picture.');
  const now = all.findIndex(({ id }) => id === project.camera.id);
  lookThrough(all[(now + by + all.length) % all.length]!.id);
}

/** Adds a camera behind the one looked through, and looks through it. */
export function addCamera(label: string, camera: ProjectCamera): void {
  const project = currentProject();
  const all = allCameras(project);
  const place = all.findIndex(({ id }) => id === project.camera.id) + 1;
  if (all.length >= 64) return say('A project has at most 64 cameras. Delete one first.');
  replaceProject(label, {
    ...project,
    camera,
    cameras: all,
    cameraPlace: place,
  });
}

/** A copy of the camera looked through, to be gone on from. */
export function duplicateCamera(): void {
  const project = currentProject();
  const names = named(project, `${project.camera.name}, copy`);
  addCamera('duplicate the camera', { ...structuredClone(project.camera), ...names });
}

export const renameCamera = (name: string): void => {
  if (name.trim()) edit('rename the camera', ({ camera }) => void (camera.name = name.trim()), 'rename the camera');
};

/** Deletes the camera looked through; the one behind it, or before, is looked through then. */
export function deleteCamera(): void {
  const project = currentProject();
  const { camera, cameras, cameraPlace } = project;
  if (!cameras.length) return say('The last camera of a project stays.');
  const next = cameras[Math.min(cameraPlace, cameras.length - 1)]!;
  const rest = through(project, next.id);
  replaceProject(`delete the camera ${camera.name}`, {
    ...rest,
    cameras: rest.cameras.filter(({ id }) => id !== camera.id),
    cameraPlace: Math.min(cameraPlace, cameras.length - 1),
  });
  say(`Deleted the camera ${camera.name}. Undo brings it back.`);
}

/** Moves a camera that is not looked through; one that looks at a point goes on looking at it. */
export const moveOtherCamera = (id: string, to: Vec3, gesture: string): void =>
  edit(
    'move another camera',
    ({ cameras }) => {
      const camera = cameras.find((one) => one.id === id);
      if (camera?.kind === '3d') camera.position = [...to];
      else if (camera) camera.focus = [to[0], to[1]];
    },
    gesture,
  );

/** Sets the present frame aside: the camera, the viewport and the time as they are. */
export function keepSnapshot(): void {
  const project = currentProject();
  const { time } = useClock.getState();
  const name = `${project.camera.name} ${project.snapshots.length + 1}`;
  const taken = new Set(project.snapshots.map(({ id }) => id));
  let id = `snapshot-${project.snapshots.length + 1}`;
  for (let i = 2; taken.has(id); i++) id = `snapshot-${project.snapshots.length + i}`;
  if (project.snapshots.length >= 64) return say('A project keeps at most 64 snapshots. Delete one first.');
  edit('keep a snapshot', ({ snapshots }) => {
    snapshots.push(structuredClone({ id, name, camera: project.camera, viewport: project.viewport, time }));
  });
  say(`Kept the snapshot ${name}.`, {
    label: 'Show beside',
    run: () => showSnapshot(id, 'beside'),
  });
}

export const deleteSnapshot = (id: string): void => {
  if (useDrawings.getState().snapshot?.id === id) hideSnapshot();
  edit('delete a snapshot', (draft) => {
    draft.snapshots = draft.snapshots.filter((one) => one.id !== id);
  });
};

/** Shows a snapshot beside the present frame; looking at it is no change of the project. */
export const showSnapshot = (id: string, how: 'beside' | 'reticle'): void =>
  useDrawings.setState({ snapshot: { id, how } });
export const hideSnapshot = (): void => useDrawings.setState({ snapshot: null });

/** Takes the camera and the viewport back to a snapshot's, and the clock to its time. */
export function returnToSnapshot(id: string): void {
  const project = currentProject();
  const snapshot = project.snapshots.find((one) => one.id === id);
  if (!snapshot) return;
  const known = allCameras(project).some((one) => one.id === snapshot.camera.id);
  const base = known ? through(project, snapshot.camera.id) : project;
  replaceProject(`return to ${snapshot.name}`, {
    ...base,
    camera: known ? snapshot.camera : { ...snapshot.camera, id: base.camera.id },
    viewport: snapshot.viewport,
  });
  pause();
  setTime(snapshot.time);
}
