import type { Draft } from 'immer';
import { create } from 'zustand';
import type { CameraFrame } from '../../../core/camera/frame';
import { languageOf, vectorsOfParts } from '../../../core/deliver/code';
import type { Vectors } from '../../../core/deliver/vectors';
import { base64Of } from '../../../formats/base64';
import { pageFaces, savedPane } from '../../pictures/page/picturesClient';
import { savablePictures } from '../../pictures/page/saving';
import { escaped } from '../../../formats/escaped';
import { allCameras } from '../../../formats/project';
import type { ReportPicture } from '../../../formats/report';
import type { CameraWay } from '../../../formats/sceneProject';
import { currentRequest, fileName } from '../../edits/exporting';
import { newId } from '../../state/crashLog';
import { readSceneProject } from '../../state/imports';
import { momentOf } from '../../state/moment';
import { spanOf } from '../../state/span';
import { editSlice, withWays } from '../../state/slices';
import { currentTaskMoment } from '../../state/tempo';
import { counted } from '../../ui/figures';
import { saveBytes, saveFile } from '../../ui/files';
import { complain, copy, say, underWay } from '../../ui/notices';
import { commandsOf } from './commands';
import { vectorRequest, codeNow, partsFor, wishOf } from './setUp';
import type { DeliverState } from './kept';

export const change = (
  name: string,
  recipe: (draft: Draft<DeliverState>) => void,
  gesture: string | null = null,
): void => editSlice<DeliverState>('deliver', name, recipe, gesture);

const present = () => currentTaskMoment<DeliverState>('deliver');

/** Copies the code as it is now. */
export function copyCode(): void {
  const made = codeNow(present());
  if (typeof made === 'string') return complain(`There is no code to copy: ${made}`);
  void copy(made.file.text, 'the code');
}

/** Computes the test vectors of the current camera; null where there are none. */
async function vectorsNow(now: ReturnType<typeof present>): Promise<Vectors | null> {
  const bare = vectorRequest(now);
  if (typeof bare === 'string') return null;
  const { vectorsOf } = await import('../../../core/deliver/vectors');
  const made = vectorsOf(bare, now.slice.count, now.slice.seed);
  return made.ok ? vectorsOfParts(made.vectors, partsFor(now, now.slice.parts)) : null;
}

const vectorFiles = ['vectors.json', 'vectors.csv'] as const;
type VectorFile = (typeof vectorFiles)[number];
const vectorText = async (name: VectorFile, vectors: Vectors): Promise<string> =>
  name === 'vectors.json'
    ? `${JSON.stringify(vectors, null, 1)}\n`
    : (await import('../../../formats/vectors')).vectorsTable(vectors);

/** Saves the test vectors of the current camera, which may have changed since the list was computed. */
export async function saveVectors(name: VectorFile): Promise<void> {
  const vectors = await vectorsNow(present());
  if (!vectors) return complain('There are no test vectors while the camera cannot be.');
  saveFile(name, await vectorText(name, vectors), name.endsWith('.csv') ? 'text/csv' : undefined);
}

/** Saves the code, the example, the harness with its test vectors, the project as a compute request and the commands, as one archive. */
export async function saveAll(): Promise<void> {
  const now = present();
  const made = codeNow(now);
  if (typeof made === 'string') return complain(`There is nothing to save: ${made}`);
  const language = languageOf(now.slice.language)!;
  const example = made.example();
  const [vectors, { strToU8, zipSync }] = await Promise.all([vectorsNow(now), import('fflate')]);
  const tables = vectors ? await Promise.all(vectorFiles.map((name) => vectorText(name, vectors))) : [];
  const files: Record<string, string> = {
    [made.file.name]: made.file.text,
    ...(example && { [language.mainFile]: example }),
    [language.harnessFile]: made.harness(),
    ...Object.fromEntries(tables.map((text, i) => [vectorFiles[i]!, text])),
    'camera.json': `${JSON.stringify(await currentRequest(), null, 2)}\n`,
    'commands.sh': `${commandsOf(now.slice, now.flat).join('\n')}\n`,
  };
  saveBytes('camera.zip', zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)]))), 'application/zip'); // prettier-ignore
}

/** Saves the code of the chosen parts as a file. */
export function saveCode(): void {
  const made = codeNow(present());
  if (typeof made === 'string') complain(`There is no code while the camera cannot be: ${made}`);
  else saveFile(made.file.name, made.file.text, 'text/plain');
}

/** The request as it is now, with its bodies, and the pictures on the screen: one page. */
export async function saveReport(): Promise<void> {
  const now = present();
  const made = codeNow(now);
  if (typeof made === 'string') return complain(`There is no report of a camera that cannot be: ${made}`);
  const notice = underWay('Writing the report', () => (stopped = true));
  let stopped = false as boolean;
  try {
    const [{ reportOf }, { coloured }, { embeddedFontRules, loadFile, reportFonts }] = await Promise.all([
      import('../../../formats/report'),
      import('../../../formats/coloured'),
      import('../../pictures/render/fontFaces'),
    ]);
    const pictures: ReportPicture[] = [];
    const all = savablePictures();
    for (const [i, { name, title }] of all.entries()) {
      if (stopped) return;
      // As images: the faces that they bring are theirs alone, and not the page's.
      const { blob } = await savedPane(name, { kind: 'svg', pixel: 2 });
      const bytes = new Uint8Array(await blob.arrayBuffer());
      pictures.push({
        title,
        says: '',
        markup: `<img alt="${escaped(title)}" src="data:image/svg+xml;base64,${base64Of(bytes)}">`,
      });
      notice.at((i + 1) / (all.length + 1));
    }
    const fonts = await embeddedFontRules(pageFaces(), reportFonts, loadFile);
    const report = reportOf(await currentRequest(), { title: now.project.name, pictures, fonts, code: wishOf(now), coloured }); // prettier-ignore
    if (stopped) return;
    if (!report.ok) return complain('There is no report of this project.', report.problem.errors);
    saveFile(fileName(now.project, '-report.html'), report.html, 'text/html');
    say('The report is saved: one page, ready to be printed.');
  } catch (error) {
    complain(`The report could not be written: ${(error as Error).message}`);
  } finally {
    notice.done();
  }
}

/** The bodies, cameras and motions of the project as glTF. */
export async function saveScene(binary: boolean): Promise<void> {
  const now = present();
  const [{ writeGlb, writeGltf }, { sceneOfProject, timesOver }] = await Promise.all([
    import('../../../formats/gltfWrite'),
    import('../../../formats/sceneProject'),
  ]);
  const { project } = now;
  const ways = allCameras(project).flatMap((camera): CameraWay[] => {
    const own = { ...project, camera };
    const times = timesOver(spanOf(own));
    const frames = times.map((time) => momentOf(own, time).frame);
    const same = ({ eye, forward, up }: CameraFrame) => [...eye, ...forward, ...up].join();
    return frames.every((frame) => same(frame) === same(frames[0]!)) ? [] : [{ id: camera.id, times, frames }];
  });
  const { scene, said } = sceneOfProject(project, now.codec, ways);
  const aspect = project.viewport.width / project.viewport.height;
  const written = binary ? await writeGlb(scene, aspect) : await writeGltf(scene, aspect);
  if ('bytes' in written) saveBytes(fileName(project, '.glb'), written.bytes, 'model/gltf-binary');
  else saveFile(fileName(project, '.gltf'), written.text, 'model/gltf+json');
  useSaid.setState({ said: [...said, ...written.said] });
  say(
    `Saved ${counted(scene.bodies.length, 'body', 'bodies')} and ${counted(scene.cameras.length, 'camera', 'cameras')} as glTF.`,
  );
}
/** What the last glTF could not hold. */
export const useSaid = create<{ readonly said: readonly string[] }>(() => ({ said: [] }));

/** Opens a glTF as a project of its own. */
export async function takeScene(bytes: Uint8Array, name: string): Promise<void> {
  const bare = name.replace(/\.(?:glb|gltf)$/i, '') || name;
  const { conventions } = present().project;
  const read = await readSceneProject(bytes, { id: newId(), name: bare, conventions });
  if (!read) return;
  if (!read.ok) return complain(`${name} was not opened, and nothing has changed.`, read.problems);
  const { openBrought } = await import('../../edits/importing');
  await openBrought(withWays(read.project, read.ways), name, read.said, null, true);
}
