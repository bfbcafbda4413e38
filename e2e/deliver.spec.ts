import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { unzipSync, strFromU8 } from 'fflate';
import { expect, test, type Page } from '@playwright/test';
import { drawn, goTo, near, openBench, rung, type } from './bench';
import { open, read } from './sheet';

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

test('it is copied, saved and zipped; a flat camera is the orthographic one that it equals; one that cannot be is said', async ({
  page,
}) => {
  await openBench(page, '/deliver');
  await page.getByRole('button', { name: 'Copy', exact: true }).first().click();
  await expect.poll(() => page.evaluate(() => navigator.clipboard.readText())).toBe(await code(page));
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'All as a zip' }).click();
  const files = unzipSync(readFileSync(await (await download).path()));
  expect(Object.keys(files).sort()).toEqual(['camera.hpp', 'camera.json', 'commands.sh', 'example.cpp']);
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
  await expect(page.getByTestId('code')).toContainText('in world units');
  await expect(page.getByRole('checkbox', { name: 'dolly zoom' })).toBeDisabled();
});
