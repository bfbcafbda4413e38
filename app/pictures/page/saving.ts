import { fileName } from '../../edits/exporting';
import { currentProject } from '../../state/document';
import { saveBlob, saveFile } from '../../ui/files';
import { complain, say, underWay } from '../../ui/notices';
import { themeInForce, useSettings } from '../../state/settings';
import type { Size } from '../compose/contract';
import type { Layer } from '../compose/layer';
import { pageFaces, savedPane } from './picturesClient';

/* Saves pictures as files. */

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
  const svg = await made(title, () => savedPane(name, { kind: 'svg', pixel: 2 }));
  if (!svg) return;
  saveBlob(nameFor(title, 'svg'), svg.blob);
  say(`“${title}” is saved as SVG.`);
}

/** Saves a picture as PNG; `wide` is its width in pixels. */
export async function savePng(name: string, title: string, wide: number): Promise<void> {
  const png = await made(title, () => savedPane(name, { kind: 'png', wide }));
  if (!png) return;
  saveBlob(nameFor(title, 'png'), png.blob);
  say(`“${title}” is saved, ${png.width} × ${png.height} pixels.`);
}

/** Saves marks without surfaces as SVG: diagrams of tasks. */
export async function saveMarks(title: string, size: Size, layers: readonly Layer[]): Promise<void> {
  const svg = await made(title, async () => {
    const [{ writeSvg }, { embeddedFontRules, loadFile }] = await Promise.all([
      import('../render/svgPicture'),
      import('../render/fontFaces'),
    ]);
    const theme = themeInForce(useSettings.getState().theme);
    return writeSvg({ size, surfaces: null, layers, theme }, (fonts) =>
      embeddedFontRules(pageFaces(), fonts, loadFile),
    );
  });
  if (!svg) return;
  saveFile(nameFor(title, 'svg'), svg, 'image/svg+xml');
  say(`“${title}” is saved as SVG.`);
}

/** Returns the pictures on the screen, by the names of their panes, with their titles. */
export const savablePictures = (): { name: string; title: string }[] =>
  [...document.querySelectorAll<HTMLElement>('.picture-block')]
    .filter((block) => block.querySelector(':scope > svg.overlay'))
    .map((block) => ({ name: block.dataset.picture!, title: (block.ariaLabel ?? '').replace(/, a (?:picture|snapshot)$/, '') })); // prettier-ignore
