import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { decode } from 'fast-png';
import { unzipSync, strFromU8 } from 'fflate';
import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { drawn, giveFile, goTo, near, openBench, rung, type } from './bench';
import { cells, open, read } from './sheet';

/* Deliver, walked: the code of a camera as it is set and moved, taken home, and the same on the command line. */

const code = (page: Page) => page.getByTestId('code').textContent() as Promise<string>;
const requestOf = async (page: Page): Promise<string> => {
  await page.locator('.project-button').click();
  await page.getByRole('menuitem', { name: 'Copy as a compute request' }).click();
  await expect.poll(() => page.evaluate(() => navigator.clipboard.readText())).toContain('"astrolabe"');
  return page.evaluate(() => navigator.clipboard.readText());
};

test('code in the conventions in force follows the camera, and is what the command line writes', async ({
  page,
}, info) => {
  await openBench(page, '/frame');
  await page.keyboard.press('0');
  await expect(page.getByTestId('code')).toContainText('inline ScreenPoint world_to_screen');
  await expect(page.getByTestId('code-size')).toContainText('camera.hpp');
  // The camera's own numbers stand in it and follow.
  await expect(page.getByTestId('code')).toContainText('Vec3{-6.0, 14.0, 64.0}');
  await goTo(page, 'Frame');
  await type(page, 'Eye x', '-7.5');
  await goTo(page, 'Deliver');
  await expect(page.getByTestId('code')).toContainText('Vec3{-7.5, 14.0, 64.0}');
  // It follows the hand too, before that lets go.
  const before = await code(page);
  const plate = (await page.locator('[data-picture=main]').boundingBox())!;
  await page.mouse.move(plate.x + 120, plate.y + 200);
  await page.mouse.down();
  await page.mouse.move(plate.x + 160, plate.y + 215, { steps: 8 });
  await expect.poll(() => code(page)).not.toBe(before);
  await page.mouse.up();
  await page.keyboard.press('Control+z');
  await expect.poll(() => code(page)).toBe(before);
  // Parts, numbers, names and language.
  await page.getByRole('checkbox', { name: 'frustum planes' }).check();
  await page.getByRole('checkbox', { name: 'ray of a pixel' }).uncheck();
  await page.getByRole('group', { name: 'Number type' }).getByRole('button', { name: 'float' }).click();
  await page.getByLabel('Language').selectOption('TypeScript');
  await expect(page.getByTestId('code')).toContainText('export function worldToScreen');
  await expect(page.getByTestId('code')).toContainText('export interface Frustum');
  expect(await code(page)).not.toContain('pixelRay');
  await page.getByLabel('Language').selectOption('Rust');
  await page.getByLabel('Names').selectOption('camel');
  await expect(page.getByTestId('code')).toContainText('pub fn worldToScreen(');
  await page.getByLabel('Names').selectOption('own');
  // The example says what is to come out: the pixel of the Chain.
  await open(page, 'Example');
  const [x, y] = await rung(page, 'screen');
  const example = (await page.getByTestId('example').textContent())!;
  const expected = /\/\/ Expected: ([^\n]*), in front/.exec(example)![1]!.split(', ').map(Number);
  near(expected.slice(0, 2), [x!, y!], 1e-3);
  // The command line writes the very same file from the project as a request.
  await open(page, 'CI');
  const commands = await read(page, 'commands');
  const given = info.outputPath('camera.json');
  writeFileSync(given, await requestOf(page));
  const [line] = commands.replace(/ \\\n\s*/g, ' ').split('\n') as [string];
  const out = info.outputPath('generated');
  const args = line.replace('npx astrolabe ', '').replace('camera.json', given).replace('--out generated', `--out ${out}`).split(' '); // prettier-ignore
  execFileSync('node', ['bin/astrolabe.js', ...args]);
  expect(readFileSync(`${out}/camera.rs`, 'utf8')).toBe(await code(page));
  // One step of undo a choice.
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('code')).toContainText('pub fn worldToScreen(');
});

test('it is copied, saved and zipped; a 2D camera has 2D code; one that cannot be is said', async ({ page }) => {
  await openBench(page, '/deliver');
  await page.getByRole('button', { name: 'Copy', exact: true }).first().click();
  await expect.poll(() => page.evaluate(() => navigator.clipboard.readText())).toBe(await code(page));
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'All as a zip' }).click();
  const files = unzipSync(readFileSync(await (await download).path()));
  expect(Object.keys(files).sort()).toEqual(['camera.hpp', 'camera.json', 'commands.sh', 'harness.cpp', 'main.cpp', 'vectors.csv', 'vectors.json']); // prettier-ignore
  expect(strFromU8(files['camera.hpp']!)).toBe(await code(page));
  expect(JSON.parse(strFromU8(files['camera.json']!))).toMatchObject({ astrolabe: 1 });
  // No ground in sight to keep out of: said.
  await page.getByRole('checkbox', { name: 'out of sight' }).check();
  await expect(page.getByTestId('code')).toContainText('may_appear');
  await goTo(page, 'Frame');
  await type(page, 'Near', '900');
  await goTo(page, 'Deliver');
  await expect(page.locator('.sheet')).toContainText('There is no code while the camera cannot be');
  await page.keyboard.press('Control+z');
  await drawn(page);
  await page.locator('.project-button').click();
  await page.getByRole('menuitem', { name: /chart/i }).click();
  await expect(page.getByTestId('code')).toContainText('pixels per world unit');
  await expect(page.getByRole('checkbox', { name: 'dolly zoom' })).toHaveCount(0);
  await page.getByRole('checkbox', { name: 'parallax layers' }).check();
  await expect(page.getByTestId('code')).toContainText('layer_to_screen');
  await expect(page.getByTestId('code')).not.toContainText('Vec3');
  // A 2D camera has test vectors of its own.
  await open(page, 'Vectors');
  await expect(page.getByTestId('vectors')).toContainText(/^\d+ rows detect \d+ faults\.$/);
  await cells(page, 'test vectors').getByText('worldToPixel', { exact: true }).click();
  await expect(page.getByTestId('vector-row')).toContainText('every fault except half pixel');
});

test('test vectors find each fault; the harness from the page is compiled, run and checked, and a fault in it found', async ({
  page,
}, info) => {
  await openBench(page, '/deliver');
  await open(page, 'Vectors');
  await expect(page.getByTestId('vectors')).toContainText(/^\d+ rows detect \d\d faults\.$/);
  // What changes no number of this camera is named; a row says what it finds.
  await expect(page.locator('.sheet')).toContainText('Not visible in the numbers of this camera: roll negated, shift left out, viewport offset'); // prettier-ignore
  await cells(page, 'test vectors').getByText('projection', { exact: true }).first().click();
  await expect(page.getByTestId('vector-row')).toContainText('aspect inverted');
  await expect(page.getByTestId('vector-row')).not.toContainText('translation');
  await type(page, 'How many points are tested', '8');
  await expect(page.getByTestId('vectors')).not.toContainText('171 rows');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'All as a zip' }).click();
  const files = unzipSync(readFileSync(await (await download).path()));
  const folder = info.outputPath('suite');
  mkdirSync(folder, { recursive: true });
  for (const [name, bytes] of Object.entries(files)) writeFileSync(join(folder, name), bytes);
  const check = (source: string) => {
    writeFileSync(join(folder, 'camera.hpp'), source);
    execFileSync('g++', ['-std=c++17', '-Wall', '-Wextra', '-Wpedantic', '-Werror', 'harness.cpp', '-o', 'harness'], { cwd: folder }); // prettier-ignore
    writeFileSync(join(folder, 'answers.csv'), execFileSync('./harness', ['vectors.csv'], { cwd: folder }));
    return spawnSync('node', ['bin/astrolabe.js', 'check', join(folder, 'vectors.json'), join(folder, 'answers.csv')], { encoding: 'utf8' }); // prettier-ignore
  };
  const source = strFromU8(files['camera.hpp']!);
  const right = check(source);
  expect(right.status).toBe(0);
  expect(right.stdout).toMatch(/^\d+ right, 0 wrong\n$/m);
  const wrong = check(source.replace('camera.size.x / camera.size.y', 'camera.size.y / camera.size.x'));
  expect(wrong.status).toBe(1);
  expect(wrong.stdout).toContain('The aspect is height over width');
});

test('pictures, scenes and the report leave as files, and a scene comes back', async ({ page }, info) => {
  await openBench(page, '/deliver');
  const saved = async (press: () => Promise<unknown>) => {
    const download = page.waitForEvent('download');
    await press();
    const file = await download;
    return { name: file.suggestedFilename(), bytes: readFileSync(await file.path()) };
  };
  // As it stands on the screen: the same picture, dot for dot but for how letters are set.
  await open(page, 'Pictures');
  const overlay = page.locator('[data-picture="main"] > svg.overlay');
  const box = (await overlay.boundingBox())!;
  await type(page, 'Width of the saved picture', String(Math.round(box.width)));
  await page.mouse.move(5, 5);
  await drawn(page);
  const shot = await page.screenshot({ clip: { ...box, width: Math.round(box.width) } });
  const small = await saved(() => page.getByRole('button', { name: 'PNG', exact: true }).click());
  const [a, b] = [decode(shot), decode(small.bytes)];
  expect(Math.abs(a.height - b.height)).toBeLessThan(2);
  let off = 0;
  for (let y = 0; y < Math.min(a.height, b.height); y++)
    for (let x = 0; x < Math.min(a.width, b.width); x++) {
      const [i, k] = [(y * a.width + x) * a.channels, (y * b.width + x) * b.channels];
      if (Math.abs(a.data[i]! - b.data[k]!) > 60) off++;
    }
  expect(off / (a.width * a.height)).toBeLessThan(0.03);
  // Any size, from the caption, with the width that was asked for.
  await page.getByRole('button', { name: 'Save the picture: Plan' }).click();
  const large = await saved(() => page.getByRole('menuitem', { name: 'PNG 3840 wide' }).click());
  expect(large.name).toBe('saltmarrow-harbour-plan.png');
  expect(decode(large.bytes).width).toBe(3840);
  const lines = (await saved(() => page.getByRole('button', { name: 'SVG', exact: true }).click())).bytes.toString();
  expect(lines).toContain('data:image/png;base64,');
  expect(lines).toContain('@font-face');
  expect(lines).toContain('>Ferry Marsh Hen</text>');
  expect(lines).not.toMatch(/(?:href|src)="?(?:https?:|\/)/);
  // A scene with its motions, and what it cannot hold; it comes back as a project.
  await open(page, 'Files');
  const scene = await saved(() => page.getByRole('button', { name: '.glb', exact: true }).click());
  expect(scene.name).toBe('saltmarrow-harbour.glb');
  await expect(page.getByTestId('gltf-said')).toContainText('Spheres are written with facets');
  const path = info.outputPath('pier.glb');
  writeFileSync(path, scene.bytes);
  const [request] = [JSON.parse(execFileSync('node', ['bin/astrolabe.js', 'scene', path], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] }))] as [{ bodies: object[]; camera: { position: number[] } }]; // prettier-ignore
  expect(request.bodies).toHaveLength(82);
  expect(request.camera.position.map((v) => Number(v.toFixed(6)))).toEqual([-6, 14, 64]);
  await giveFile(page, () => page.getByRole('button', { name: 'Open glTF, OBJ, CSV or JSON' }).click(), path);
  await expect(page.locator('.project-button')).toContainText('pier');
  await expect(page.locator('.notices')).toContainText('Opened pier.');
  const [x, y] = await rung(page, 'world');
  expect([x, y].every(Number.isFinite)).toBe(true);
  // The camera's way went to Motion.
  await goTo(page, 'Motion');
  await expect(page.locator('.sheet')).toContainText(/Bridge wing\s*goes through keys/);
  await page.keyboard.press('Control+z');
  await expect(page.locator('.project-button')).toContainText('Saltmarrow harbour');
  // One page with everything.
  await goTo(page, 'Deliver');
  await open(page, 'Report');
  const report = (await saved(() => page.getByRole('button', { name: 'Save the report' }).click())).bytes.toString();
  for (const part of ['<h1>Saltmarrow harbour</h1>', 'Through the camera', '<math', 'viewProjection', 'Test vectors', 'world_to_screen']) expect(report).toContain(part); // prettier-ignore
  expect(report).not.toMatch(/(?:href|src)="?(?:https?:|\/)/);
});
