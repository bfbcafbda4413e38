import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { decode } from 'fast-png';
import { composeSingle } from '../app/pictures/compose/singlePane';
import type { SinglePicture } from '../app/pictures/compose/singleNames';
import { palettes } from '../app/pictures/compose/palette';
import { drawSoftware } from '../app/pictures/render/software/softwareRenderer';
import { writeSvg } from '../app/pictures/render/svgPicture';
import { saltmarrowChart } from '../demo/chart';
import { saltmarrow } from '../demo/saltmarrow';
import { drawn, openBench } from './bench';
import { expect, test } from './test';

/*
 * Every output shows one picture: the page with a GPU, without one, and Node.
 */

/** Saves a pane as SVG through its menu. */
async function savedSvg(page: Page, pane: string): Promise<string> {
  await page.bringToFront();
  await drawn(page);
  const saving = page.waitForEvent('download');
  await page.locator(`[data-picture="${pane}"]`).getByRole('button', { name: 'Save' }).click();
  await page.getByRole('menuitem', { name: /SVG/ }).click();
  return readFileSync(await (await saving).path(), 'utf8');
}

interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly data: ArrayLike<number>;
}
const surfacesOf = (svg: string): Pixels => {
  const [, png] = /href="data:image\/png;base64,([^"]+)"/.exec(svg)!;
  return decode(Buffer.from(png!, 'base64'));
};
/** The share of pixels that differ by more than three steps of 255 in any channel. */
function difference(a: Pixels, b: Pixels): number {
  expect([a.width, a.height]).toEqual([b.width, b.height]);
  let count = 0;
  for (let i = 0; i < a.data.length; i += 4)
    if ([0, 1, 2].some((k) => Math.abs(a.data[i + k]! - b.data[i + k]!) > 3)) count++;
  return count / (a.width * a.height);
}
/** The elements of an SVG apart from surfaces and fonts, and the numbers in them. */
function marksOf(svg: string): { text: string; numbers: number[] } {
  const marks = svg.replace(/<style>.*?<\/style>\n/s, '').replace(/<image[^>]*>\n/, '');
  const pattern = /-?\d+(?:\.\d+)?/g;
  return { text: marks.replaceAll(pattern, '#'), numbers: [...marks.matchAll(pattern)].map(([n]) => Number(n)) };
}

async function command(page: Page, name: string): Promise<void> {
  await page.keyboard.press('/');
  await page.getByPlaceholder('Commands, fields, help, bodies').fill(name);
  await page.keyboard.press('Enter');
  await drawn(page);
}
const openChart = (page: Page) => command(page, 'Open the demo, Saltmarrow chart');
/** Shows the section in place of the screens. */
async function chooseSection(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Pane: Screens' }).click();
  await page.getByRole('menuitemradio', { name: 'Section' }).click();
}

const demos = { harbour: saltmarrow, chart: saltmarrowChart };
const panes: readonly (readonly [keyof typeof demos, string, SinglePicture])[] = [
  ['harbour', 'main', 'camera'],
  ['harbour', 'plan', 'plan'],
  ['harbour', 'section', 'section'],
  ['chart', 'main', 'camera'],
  ['chart', 'plan', 'plan'],
];

for (const demo of ['harbour', 'chart'] as const)
  test(`pictures made in Node are the page’s, on the ${demo}`, async ({ page }) => {
    await openBench(page, '/frame');
    if (demo === 'chart') await openChart(page);
    for (const [, pane, name] of panes.filter(([of]) => of === demo)) {
      if (pane === 'section') await chooseSection(page);
      const svg = await savedSvg(page, pane);
      const [, width, height] = /viewBox="0 0 ([\d.]+) ([\d.]+)"/.exec(svg)!;
      const own = composeSingle(demos[demo](), name, { width: Number(width), height: Number(height) }, 'paper')!;
      const { scene, ground, pictures, size, layers } = own;
      const drawnHere = drawSoftware(scene, ground, pictures, palettes.paper, size, 2);
      expect(difference(surfacesOf(svg), drawnHere), `${demo} ${pane}`).toBeLessThan(0.005);
      const [theirs, ours] = [
        marksOf(svg),
        marksOf(await writeSvg({ size, surfaces: null, layers, theme: 'paper' }, async () => '')),
      ];
      expect(ours.text).toBe(theirs.text);
      // The page writes its size to a hundredth of a pixel.
      const off = ours.numbers.map((n, i) => Math.abs(n - theirs.numbers[i]!));
      expect(Math.max(...off), `${demo} ${pane}`).toBeLessThan(0.05);
    }
  });

/** Has the worker’s script, and if wanted the page too, without WebGL2. */
async function withoutWebGl(page: Page, everywhere: boolean): Promise<void> {
  const patch = (type: string) =>
    `{const get=${type}.prototype.getContext;${type}.prototype.getContext=function(kind,...rest){return kind==='webgl2'?null:get.call(this,kind,...rest)}}`;
  await page.route(/worker-pictures/, async (route) => {
    const response = await route.fetch();
    await route.fulfill({ response, body: `${patch('OffscreenCanvas')}\n${await response.text()}` });
  });
  if (everywhere) await page.addInitScript(patch('HTMLCanvasElement') + patch('OffscreenCanvas'));
}

/** What each task draws besides bodies: tints, instances, areas, lines, fields, specks, orders of painting. */
const views: readonly (readonly [string, string, readonly string[]])[] = [
  ['visibility', 'main', []],
  ['visibility', 'plan', ['Show or hide the test bodies']],
  ['order', 'main', ['Show or hide shadows', 'Show or hide ghosts and streaks']],
  ['spawn', 'plan', []],
  ['billboard', 'billboard/close', []],
  ['diagnose', 'diagnose/engine', []],
];

for (const [kind, everywhere] of [
  ['WebGL2 in its workers', false],
  ['WebGL2 anywhere', true],
  ['canvases off the page', false],
] as const)
  test(`a browser without ${kind} shows the same pictures`, async ({ page, browser }, { project }) => {
    // In a context of its own: tabs of one context follow each other.
    const { viewport, baseURL } = project.use;
    const context = await browser.newContext({ viewport: viewport!, baseURL: baseURL!, serviceWorkers: 'block', reducedMotion: 'reduce' }); // prettier-ignore
    const other = await context.newPage();
    if (kind === 'canvases off the page')
      await other.addInitScript(() => {
        delete (HTMLCanvasElement.prototype as Partial<HTMLCanvasElement>).transferControlToOffscreen;
      });
    else await withoutWebGl(other, everywhere);
    for (const one of [page, other]) await openBench(one, '/visibility');
    const said = other.locator('.notice', { hasText: 'no WebGL2' });
    if (everywhere) await said.getByRole('button', { name: 'Dismiss' }).click();
    for (const [route, pane, commands] of everywhere ? views : views.slice(0, 1)) {
      for (const one of [page, other]) await show(one, route, commands);
      // Verdicts of test bodies come from a job.
      await expect(async () => {
        const [a, b] = [await savedSvg(page, pane), await savedSvg(other, pane)];
        expect(difference(surfacesOf(a), surfacesOf(b)), `${route} ${pane}`).toBeLessThan(0.005);
        expect(marksOf(a).text, `${route} ${pane}`).toBe(marksOf(b).text);
      }).toPass({ timeout: 20_000 });
    }
    if (!everywhere) await expect(said).toBeHidden();
    // What is shown follows a drag.
    const shot = () => other.locator('.centre').screenshot();
    const before = await shot();
    const box = (await other.getByTestId('picture').boundingBox())!;
    await other.mouse.move(box.x + 200, box.y + 100);
    await other.mouse.down();
    await other.mouse.move(box.x + 320, box.y + 130, { steps: 3 });
    await other.mouse.up();
    await drawn(other);
    expect((await shot()).equals(before)).toBe(false);
    await context.close();
  });

async function show(page: Page, route: string, commands: readonly string[]): Promise<void> {
  await page.getByRole('link', { name: new RegExp(route, 'i') }).click();
  for (const name of commands) await command(page, name);
}

test('panes that are no pictures save as what they are', async ({ page }) => {
  await openBench(page, '/order');
  const saved = async (pane: string) => {
    const saving = page.waitForEvent('download');
    await page
      .locator(`[data-picture="${pane}"]`)
      .getByRole('button', { name: /^Save: / })
      .click();
    const file = await saving;
    return { name: file.suggestedFilename(), text: readFileSync(await file.path(), 'latin1') };
  };
  const three = await saved('order/three');
  expect(three.name).toMatch(/three-ways\.svg$/);
  expect(three.text).toMatch(/^<svg[^>]*viewBox="0 0 960 320"[\s\S]*>Uncut, wrong<\/text>/);
  await page.getByRole('link', { name: /Deliver/ }).click();
  expect((await saved('deliver/code')).text).toContain('world');
  await page.getByRole('link', { name: /Pick/ }).click();
  await expect(page.getByText(/\d+ × \d+ rays/)).toBeVisible({ timeout: 20_000 });
  expect((await saved('pick/sweep')).text.slice(1, 4)).toBe('PNG');
});
