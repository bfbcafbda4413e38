import { decode } from 'fast-png';
import { describe, expect, it } from 'vitest';
import { codecOf } from '../core/conventions/codec';
import { saltmarrowChart } from '../demo/chart';
import { saltmarrow } from '../demo/saltmarrow';
import { projectRequest } from '../formats/camera';
import type { Project } from '../formats/project';
import { singlePictures } from '../app/pictures/compose/singleNames';
import { themes } from '../app/ui/themes';
import { projectOf, projectPicture, reportPictures, writePicturePng, writePictureSvg } from './pictures';

/* Pictures without a browser. That they are the page's is tested in the browser (`e2e/pictures.spec.ts`). */

const pictureOf = (project: Project, name: (typeof singlePictures)[number], theme: 'paper' | 'night' = 'paper') => {
  const made = projectPicture(project, name, theme);
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made;
};
/** Surfaces that are quick to draw. */
const coarse = 0.2;
const demos = { harbour: saltmarrow(), chart: saltmarrowChart() };
const kinds = [
  ...singlePictures.map((name) => ['harbour', name] as const),
  ...(['camera', 'plan'] as const).map((name) => ['chart', name] as const),
];

describe('a picture without a browser', () => {
  it.each(kinds)('is SVG that refers to nothing outside it (%s, %s)', async (demo, name) => {
    const svg = await writePictureSvg(pictureOf(demos[demo], name), 800, coarse);
    expect(svg).toContain('width="800"');
    expect(svg.replace('xmlns="http://www.w3.org/2000/svg"', '')).not.toMatch(
      /https?:|url\((?!data:|#)|href="(?!data:)/,
    );
    expect(svg.replaceAll(/base64,[^")]*/g, '')).not.toMatch(/NaN|undefined|Infinity/);
    // Every font of its text is embedded.
    const [fonts, families] = [/font-family="([^",]+)/g, /@font-face\{font-family:"([^"]+)"/g].map(
      (pattern) => new Set([...svg.matchAll(pattern)].map(([, family]) => family)),
    );
    expect([...fonts!].filter((family) => !families!.has(family))).toEqual([]);
    expect(fonts!.size).toBeGreaterThan(0);
  });

  it('shows the names and the probe of the demo, and no pointer', async () => {
    const svg = await writePictureSvg(pictureOf(demos.harbour, 'camera'), 960, coarse);
    for (const text of ['Lighthouse', 'horizon', 'NDC', '312.95, 115.09']) expect(svg).toContain(`>${text}</text>`);
    expect(svg).not.toContain('stroke-dasharray="1 2"');
  });

  it.each(['paper', 'night'] as const)('is PNG of the asked width, framed in the colours of %s', async (theme) => {
    const png = decode(await writePicturePng(pictureOf(demos.harbour, 'camera', theme), 400));
    // The camera's picture at 16 : 9 between rulers of 44 and 26 pixels, laid out 960 wide.
    expect([png.width, png.height]).toEqual([400, Math.round((400 * (((960 - 88) * 9) / 16 + 52)) / 960)]);
    const at = (x: number, y: number) => [...png.data.slice(4 * (y * png.width + x), 4 * (y * png.width + x) + 3)];
    const rgb = (hex: string) => [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16));
    // Inside the double rule of the frame, and the sky just below the upper ruler.
    expect(at(12, 8)).toEqual(rgb(themes[theme].plate));
    expect(at(200, 16)).toEqual(rgb(themes[theme].sky));
  });

  it('of a request is that of the project it opens as, wherever its viewport is in the window', async () => {
    const project = demos.harbour;
    const request = projectRequest(project, codecOf(project.conventions), null);
    const moved = { ...request, viewport: { ...request.viewport, x: 40, y: 7 } };
    const [one, other] = await Promise.all(
      [request, moved].map(async (value) => {
        const read = projectOf(value, 'A camera');
        if (!read.ok) throw new Error(read.problems[0]!.message);
        return writePictureSvg(pictureOf(read.project, 'plan'), 500, coarse);
      }),
    );
    expect(other).toBe(one);
  });

  it('is refused with the reason: a section of a 2D world, a camera that cannot be', () => {
    expect(projectPicture(demos.chart, 'section', 'paper')).toMatchObject({ ok: false, problems: [{ path: '--picture' }] }); // prettier-ignore
    const { camera } = demos.harbour;
    if (camera.kind !== '3d') throw new Error('a 3D demo');
    const wrong = { ...demos.harbour, camera: { ...camera, projection: { ...camera.projection, near: 200 } } };
    const refused = projectPicture(wrong, 'camera', 'paper');
    expect(refused).toMatchObject({ ok: false, problems: [{ message: expect.stringContaining('200') }] });
  });

  it('stands in reports: three of a 3D request, one of a 2D request', async () => {
    const request = (project: Project) => projectRequest(project, codecOf(project.conventions), null);
    const titles = async (project: Project) =>
      (await reportPictures(request(project), coarse)).pictures.map(({ title }) => title);
    expect(await titles(demos.harbour)).toEqual(['Through the camera', 'Plan', 'Section']);
    expect(await titles(demos.chart)).toEqual(['Through the camera']);
    const wrong = { ...(request(demos.harbour) as object), viewport: { width: 0, height: 720 } };
    expect(await reportPictures(wrong, coarse)).toEqual({ pictures: [], reason: expect.stringContaining('width') });
  });
});
