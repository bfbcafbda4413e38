import { fileName } from '../edits/exporting';
import { currentProject } from '../state/document';
import { saveBlob, saveFile } from '../ui/files';
import { complain, say, underWay } from '../ui/notices';

/* What hands a picture to the user as a file. What makes it is fetched when it is wanted. */

const nameFor = (title: string, ending: string) => fileName(currentProject(), `-${title.toLowerCase().replace(/[^a-z0-9]+/g, '-')}.${ending}`); // prettier-ignore

/** Has something made, with a notice that stops it; null where it was stopped or could not be made. */
async function made<T>(title: string, make: () => Promise<T>): Promise<T | null> {
  let stopped = false;
  const notice = underWay(`The picture “${title}” is drawn`, () => {
    stopped = true;
    notice.done();
  });
  try {
    const result = await make();
    return stopped ? null : result;
  } catch (error) {
    if (!stopped) complain(`The picture could not be saved: ${(error as Error).message}`);
    return null;
  } finally {
    notice.done();
  }
}

/** Saves a picture as SVG. */
export async function saveSvg(name: string, title: string): Promise<void> {
  const { pictureSvg } = await import('./savedPicture');
  const svg = await made(title, () => pictureSvg(name));
  if (!svg) return;
  saveFile(nameFor(title, 'svg'), svg.text, 'image/svg+xml');
  say(`“${title}” is saved as SVG.`);
}

/** Saves a picture as PNG, so many pixels wide. */
export async function savePng(name: string, title: string, wide: number): Promise<void> {
  const { picturePng } = await import('./savedPicture');
  const png = await made(title, () => picturePng(name, wide));
  if (!png) return;
  saveBlob(nameFor(title, 'png'), png.blob);
  say(`“${title}” is saved, ${png.width} × ${png.height} pixels.`);
}
