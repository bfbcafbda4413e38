import { degrees } from '../../core/math/angle';
import { presets, type Conventions, type PresetName } from '../../core/conventions/conventions';
import { carry } from '../../core/convert/chain';
import { transformPoint } from '../../core/math/mat4';
import type { Vec3 } from '../../core/math/vec3';
import { worldToViewRuf } from '../../core/convert/project';
import { cameraInSpace } from '../../formats/camera';
import { currentProject, edit, editCamera } from '../state/document';
import { currentMoment } from '../state/tempo';
import { themeInForce, useSettings } from '../state/settings';
import { askFile } from '../ui/files';
import { loadPart } from '../ui/parts';
import type { DemoName, EmptyKind } from './starting';

/* What can be done from more than one place: the menus, the keys and the command search. */

export const setConventions = (change: (now: Conventions) => Conventions, gesture?: string): void =>
  edit(
    'change the conventions',
    (draft) => {
      draft.conventions = structuredClone(change(currentProject().conventions)) as typeof draft.conventions;
    },
    gesture,
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

/** Asks for a file and imports it; `done` is called when it is open. */
export function chooseFile(done?: () => void, wanted?: 'project'): void {
  askFile('.json,.obj,.glb,.gltf,.csv,.tsv,.txt,.png,application/json', (file) => {
    void importFile(file, wanted).then((opened) => opened && done?.());
  });
}

const importing = () => loadPart(() => import('./importing'));
/** Imports the first of some files, and says that the others were left out. */
export const importFirst = async (files: readonly File[]): Promise<void> => (await importing())?.importFirst(files);
/** Imports a file. Resolves to whether it was imported. */
export const importFile = async (file: File, wanted?: 'project'): Promise<boolean> =>
  (await (await importing())?.importFile(file, wanted)) ?? false;
/** Imports pasted text. Resolves to whether it was imported. */
export const takeText = async (text: string, name: string): Promise<boolean> =>
  (await (await importing())?.takeText(text, name)) ?? false;

const sharing = () => loadPart(() => import('./sharing'));
/** Copies a link that holds the project. */
export const copyLink = async (): Promise<void> => (await sharing())?.copyLink();
/** Offers the project of a link. */
export const offerLink = async (fragment: string): Promise<void> => (await sharing())?.offerLink(fragment);

const starting = () => loadPart(() => import('./starting'));
/** Opens a demo: the stored one, if there is one. */
export const openDemo = async (which: DemoName): Promise<void> => (await starting())?.openDemo(which);
/** Opens a new project. */
export const openEmpty = async (kind: EmptyKind): Promise<void> => (await starting())?.openEmpty(kind);

export function toggleTheme(): void {
  useSettings.setState({ theme: themeInForce(useSettings.getState().theme) === 'night' ? 'paper' : 'night' });
}

export function toggleHelp(): void {
  useSettings.setState(({ help }) => ({ help: !help }));
}
