import { encode, decode } from 'fast-png';
import type { SinglePicture } from '../app/pictures/compose/singleNames';
import { composeSingle, singlePaneSize } from '../app/pictures/compose/singlePane';
import type { SavedPane } from '../app/pictures/compose/compose';
import { palettes } from '../app/pictures/compose/palette';
import { embeddedFontRules, reportFonts } from '../app/pictures/render/fontFaces';
import { drawSoftware, type Bitmap } from '../app/pictures/render/software/softwareRenderer';
import { writeSvg } from '../app/pictures/render/svgPicture';
import type { Theme } from '../app/ui/themes';
import { base64Of } from '../formats/base64';
import { projectFrame } from '../formats/camera';
import { projectFromRequest } from '../formats/fromRequest';
import { isRequest, readProject, type Project, type ReadProject } from '../formats/project';
import type { ReportPicture } from '../formats/report';
import { codecOf } from '../core/conventions/codec';
import type { Problem } from '../core/reasons';
import { faces, readAsset, readFace } from './assets';

/* Pictures of a project made without a browser: the page's own composition, drawn in software. */

/** The width that pictures are laid out at, in pixels of the page. */
const layoutWidth = 960;
/** Device pixels of the surfaces of an SVG to a pixel of the page. */
const surfacePixel = 2;

const pngOf = ({ width, height, data }: Bitmap): Uint8Array => encode({ width, height, data, channels: 4, depth: 8 });

const surfacesOf = ({ scene, ground, pictures, size }: SavedPane, theme: Theme, pixel: number): Bitmap =>
  drawSoftware(scene, ground, pictures, palettes[theme], size, pixel);

/** A picture of a project, to be written at any width. */
export interface ProjectPicture {
  readonly pane: SavedPane;
  readonly theme: Theme;
}

/** Reads a project, or a compute request as one. */
export function projectOf(value: unknown, name: string): ReadProject {
  if (!isRequest(value)) return readProject(value);
  const { viewport } = value as { viewport?: object };
  // Where the viewport is in its window does not change the picture; a project's is at 0, 0.
  return projectFromRequest({ ...(value as object), ...(viewport && { viewport: { ...viewport, x: 0, y: 0 } }) }, 'picture', name); // prettier-ignore
}

/** Composes a picture of a project, or says why there is none. */
export function projectPicture(
  project: Project,
  name: SinglePicture,
  theme: Theme,
): ({ readonly ok: true } & ProjectPicture) | { readonly ok: false; readonly problems: Problem[] } {
  const made = projectFrame(project, codecOf(project.conventions));
  if (!made.ok) return { ok: false, problems: [{ path: 'camera', message: made.problems[0]!.message }] };
  const pane = composeSingle(project, name, singlePaneSize(project, name, layoutWidth), theme);
  if (pane) return { ok: true, pane, theme };
  const message = `A 2D world has no picture “${name}”. Ask for camera or plan.`;
  return { ok: false, problems: [{ path: '--picture', message }] };
}

const reportTitles = { camera: 'Through the camera', plan: 'Plan', section: 'Section' } as const;

/** The pictures of a report, and why there are none. */
export interface ReportPictures {
  readonly pictures: readonly ReportPicture[];
  /** Null where there are pictures. */
  readonly reason: string | null;
}

/** Draws the pictures of a report on a compute request. A request that cannot be a project has none. */
export async function reportPictures(value: unknown, pixel = surfacePixel): Promise<ReportPictures> {
  const read = projectOf(value, 'Report');
  if (!read.ok) return { pictures: [], reason: read.problems[0]!.message };
  const names = read.project.camera.kind === '2d' ? (['camera'] as const) : (['camera', 'plan', 'section'] as const);
  const pictures: ReportPicture[] = [];
  for (const name of names) {
    const made = projectPicture(read.project, name, 'paper');
    if (!made.ok) return { pictures: [], reason: made.problems[0]!.message };
    const svg = new TextEncoder().encode(await writePictureSvg(made, layoutWidth, pixel));
    const title = reportTitles[name];
    pictures.push({ title, says: '', markup: `<img alt="${title}" src="data:image/svg+xml;base64,${base64Of(svg)}">` });
  }
  return { pictures, reason: null };
}

/**
 * Writes a picture as SVG that refers to nothing outside it.
 *
 * @param wide - pixels that the document says it is wide
 * @param pixel - device pixels of its surfaces to a pixel of the page
 */
export function writePictureSvg({ pane, theme }: ProjectPicture, wide: number, pixel = surfacePixel): Promise<string> {
  const surfaces = `data:image/png;base64,${base64Of(pngOf(surfacesOf(pane, theme, pixel)))}`;
  const { size, layers } = pane;
  return writeSvg({ size, surfaces, layers, theme }, (fonts) => embeddedFontRules(faces, fonts, readFace), wide);
}

let isReady = false;
/** Rasterises SVG `wide` pixels wide, transparent where it draws nothing. */
async function rasterise(svg: string, wide: number): Promise<Uint8Array> {
  const { initWasm, Resvg } = await import('@resvg/resvg-wasm');
  if (!isReady) await initWasm(await readAsset('resvg.wasm'));
  isReady = true;
  const fontBuffers = await Promise.all(faces.map(({ source }) => readFace(/"(.*)"/.exec(source)![1]!)));
  const font = { fontBuffers, loadSystemFonts: false };
  return new Resvg(svg, { fitTo: { mode: 'width', value: wide }, font }).render().asPng();
}

/** Writes a picture as PNG, `wide` pixels wide. */
export async function writePicturePng({ pane, theme }: ProjectPicture, wide: number): Promise<Uint8Array> {
  const { size, layers } = pane;
  const below = surfacesOf(pane, theme, wide / size.width);
  const marks = decode(await rasterise(await writeSvg({ size, surfaces: null, layers, theme }, async () => ''), wide));
  const { data } = below;
  for (let y = 0; y < Math.min(below.height, marks.height); y++)
    for (let x = 0; x < Math.min(below.width, marks.width); x++) {
      const [to, from] = [4 * (y * below.width + x), 4 * (y * marks.width + x)];
      const opacity = marks.data[from + 3]! / 255;
      if (opacity > 0)
        for (let k = 0; k < 3; k++) data[to + k] = marks.data[from + k]! * opacity + data[to + k]! * (1 - opacity);
    }
  return pngOf(below);
}

/** Returns `@font-face` rules for a report's own text. */
export const reportFontRules = (): Promise<string> => embeddedFontRules(faces, reportFonts, readFace);
