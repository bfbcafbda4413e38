import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { near, number, numbers, openBench, type } from './bench';

/* Billboard, walked: modes, results, lettering, straight above, sizes, lean, and the frame before. */

const open = (page: Page, short: string): Promise<void> =>
  page.getByRole('navigation', { name: 'Sections' }).getByRole('button', { name: short, exact: true }).click();
const read = async (page: Page, id: string): Promise<string> => (await page.getByTestId(id).textContent())!;
const cells = (page: Page, list: string) => page.getByRole('table', { name: list, exact: true }).locator('.data-body [role=row]'); // prettier-ignore
const pick = (page: Page, board: string) => cells(page, 'boards').filter({ hasText: board }).first().click();

interface Item {
  readonly normal: [number, number, number];
  readonly right: [number, number, number];
  readonly matrix: number[];
  readonly quaternion: number[];
  readonly tilt: number;
  readonly angle: number;
  readonly turn: number;
}
/** What the command line answers to the project as it stands. */
async function answers(page: Page, file: string) {
  await page.locator('.project-button').click();
  await page.getByRole('menuitem', { name: 'Copy as a compute request' }).click();
  const text = await page.evaluate(() => navigator.clipboard.readText());
  writeFileSync(file, text);
  const out = execFileSync('node', ['bin/astrolabe.js', 'compute', file], { encoding: 'utf8', maxBuffer: 2 ** 26 });
  const { results } = JSON.parse(out) as { results: { id: string; items?: Item[]; error?: unknown }[] };
  for (const one of results) expect(one.error, one.id).toBeUndefined();
  return { of: (id: string) => results.find((one) => one.id === id)!.items!, request: JSON.parse(text) as { queries: { id: string; items?: unknown[] }[] } }; // prettier-ignore
}
const degrees = (v: number) => (v * 180) / Math.PI;
const between = (a: readonly number[], b: readonly number[]) =>
  degrees(Math.acos(Math.max(-1, Math.min(1, a[0]! * b[0]! + a[1]! * b[1]! + a[2]! * b[2]!))));

test('modes side by side, what turns a board, its lettering, and the frame before, with the command line’s numbers', async ({
  page,
}, info) => {
  await openBench(page, '/billboard');
  await open(page, 'Boards');
  await pick(page, 'Quay board');
  await pick(page, 'Fairway board');
  const first = await answers(page, info.outputPath('first.json'));
  const all = first.of('the chosen board by every mode');

  // The angle between each two modes.
  const names = ['view plane', 'eye', 'axis, eye', 'axis, gaze'];
  const rows = cells(page, 'angles between modes');
  await expect(rows).toHaveCount(6);
  for (const row of await rows.all()) {
    const [pair, angle] = await row.locator('> *').allTextContents();
    const [a, b] = pair!.split(' – ').map((name) => all[names.indexOf(name)]!);
    expect(Math.abs(number(angle!) - between(a!.normal, b!.normal)), pair).toBeLessThan(0.02);
  }
  // A pair that is chosen is held against each other over the picture.
  await rows.filter({ hasText: 'eye – axis, eye' }).first().click();
  await expect(page.getByTestId('differ')).toContainText('eye and axis, eye differ by');
  await type(page, 'Difference along the line', '170');
  await expect(page.getByTestId('differ')).toContainText('no more than');
  await type(page, 'Difference along the line', '10');

  // Faced to a point ahead of the eye it turns its back, faced to a nearer one it does not.
  await expect(page.getByTestId('point-ahead')).toContainText('turns its back');
  await type(page, 'Point ahead of the eye', '8');
  await expect(page.getByTestId('point-ahead')).not.toContainText('turns its back');

  // The result, in its own axes and for a mesh whose front is elsewhere.
  await open(page, 'Result');
  const [own] = first.of('boards');
  const shown = await page.getByTestId('item-axes').getByRole('button').allTextContents();
  near(numbers(shown[0]!), own!.right, 1e-4);
  near(numbers(shown[2]!), own!.normal, 1e-4);
  near(numbers(shown[3]!), own!.quaternion, 1e-4);
  const matrix = async () => (await page.getByTestId('item-matrix').locator('span').allTextContents()).map(number);
  const request = own!.matrix;
  // Columns after one another in the request, rows in what is shown.
  near(
    await matrix(),
    [0, 1, 2, 3].flatMap((row) => [0, 1, 2, 3].map((column) => request[4 * column + row]!)),
    1e-3,
  );
  await page.getByLabel('Front axis of the mesh').selectOption('-x');
  const turned = await matrix();
  near([-turned[0]!, -turned[4]!, -turned[8]!], own!.normal, 1e-3);
  await page.getByLabel('Up axis of the mesh').selectOption('+x');
  await expect(page.getByText('Front and up of a mesh lie along two letters')).toBeVisible();
  await page.getByLabel('Up axis of the mesh').selectOption('+y');
  await expect(page.getByTestId('two-lines')).toContainText('normalize(cross(up, eye - position))');

  // What is wrong with lettering, and what each fault does.
  const reading = page.getByTestId('reading');
  await expect(reading).toHaveText('Its lettering reads right.');
  await page.getByLabel('Back faces are left out').uncheck();
  for (const [fault, says] of [
    ['frontAxis', /is mirrored; the mesh’s back/],
    ['handedness', /is mirrored; right was made by the cross product the wrong way/],
    ['winding', /reads right, but its triangles show their back/],
  ] as const) {
    await page.getByLabel('What the engine gets wrong').selectOption(fault);
    await expect(reading).toHaveText(says);
  }
  await page.getByLabel('Back faces are left out').check();
  await expect(reading).toHaveText(/It is not drawn/);
  await page.getByLabel('What the engine gets wrong').selectOption('');

  // The frame before: the page's numbers are those of compareCameras.
  await open(page, 'Stale');
  await type(page, 'Turn rate of the camera', '180');
  await type(page, 'Frames a second', '30');
  const stale = (await answers(page, info.outputPath('stale.json'))).of('the frame before');
  const lines = cells(page, 'boards of the frame before');
  for (const [i, row] of (await lines.all()).entries()) {
    const [, normal, turn, pixels] = (await row.locator('> *').allTextContents()).map(number);
    near([normal!, turn!], [stale[i]!.angle, stale[i]!.turn], 1e-3);
    expect(pixels).toBeGreaterThan(0.1);
  }
  // Six degrees of turn between two frames are six degrees off for what goes by the gaze.
  near([stale[0]!.turn], [6], 1e-9);
  await page.getByRole('button', { name: 'before it' }).click();
  await expect(page.getByTestId('stale')).toContainText('So it is drawn');
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('stale')).toContainText('after the camera, and right');
});

test('boards are added, lettered, moved and made to go with a body; sizes, lean and the passage', async ({
  page,
}, info) => {
  await openBench(page, '/billboard');
  await open(page, 'Boards');
  await page.getByRole('button', { name: 'Add a board' }).click();
  await expect(cells(page, 'boards')).not.toHaveCount(0);
  await page.getByLabel('Lettering of the board').fill('NEW 7');
  await page.getByLabel('Lettering of the board').press('Enter');
  const x = page.getByLabel('Board x', { exact: true });
  const start = number(await x.inputValue());
  // By the keyboard, in the plan: a step is undone as one.
  const handle = page.getByRole('button', { name: /Move the board Board/ }).first();
  await handle.focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(async () => number(await x.inputValue())).not.toBe(start);
  await page.keyboard.press('Control+z');
  await expect(x).toHaveValue(String(start).replace('-', '\u2212'));
  // With a body: where it is seen stays, and it goes along while the clock plays.
  const place = async (name: string) => {
    const { request } = await answers(page, info.outputPath('at.json'));
    const item = request.queries.find(({ id }) => id === 'the chosen board by every mode')!.items![0] as { position: number[] }; // prettier-ignore
    return (void name, item.position);
  };
  const before = await place('before');
  await page.getByLabel('The body that the board goes with').selectOption({ label: 'Gull 1' });
  near(await place('after'), before, 1e-5);
  await page.getByRole('button', { name: 'Delete it' }).click();

  // Its size on the screen: the world height of 28 pixels, and what the picture then shows.
  await pick(page, 'Fairway board');
  await open(page, 'Size');
  await page.getByLabel('Boards keep their size on the screen').check();
  await type(page, 'Height on the screen', '40');
  // So far ahead, 720 pixels are 2·tan 18° times it.
  const ahead = number((await page.getByTestId('screen-size').locator('.right').first().textContent())!);
  near([number(await read(page, 'screen-height'))], [(40 / 720) * 2 * Math.tan(Math.PI / 10) * ahead], 2e-4);
  await type(page, 'Farthest distance', '20');
  near([number(await read(page, 'screen-height'))], [(40 / 720) * 2 * Math.tan(Math.PI / 10) * 20], 2e-4);

  // Lean: what the command line calls the tilt of an upright board.
  await open(page, 'Lean');
  const { of } = await answers(page, info.outputPath('lean.json'));
  near([number((await read(page, 'lean')).replace('°', ''))], [of('the chosen board by every mode')[2]!.tilt], 6e-3);

  // Straight above: v ÷ d, and no rate that would do straight over it; kept, the turn comes at once.
  await open(page, 'Above');
  await type(page, 'Offset of the line', '2');
  await type(page, 'Speed of the eye', '4');
  await expect(page.getByTestId('above')).toContainText('114.6° a second');
  await type(page, 'Offset of the line', '0');
  await expect(page.getByTestId('above')).toContainText('snaps half round');
  await type(page, 'Cone in which right is kept', '45');
  await expect(page.getByTestId('held')).toContainText('stands still for 5.00 s and then turns 180.0° at once');

  // Looked down on, the two about an axis are far from the two that tip over.
  await page.keyboard.press('Escape');
  await page.getByRole('heading', { name: 'Straight above' }).click();
  await page.keyboard.press('d');
  await expect.poll(async () => number((await cells(page, 'angles between modes').nth(1).locator('> *').nth(1).textContent())!)).toBeGreaterThan(55); // prettier-ignore
});

test('on a flat world boards stay upright, or turn with it, and keep their size', async ({ page }) => {
  await openBench(page, '/billboard');
  await page.keyboard.press('/');
  await page.getByPlaceholder('Commands, fields, help, bodies').fill('Open the demo, Saltmarrow chart');
  await page.keyboard.press('Enter');
  await expect(page.getByText('On a flat world every board faces the viewer')).toBeVisible();
  await expect(page.getByTestId('upright')).toContainText('turned back by as much');
  await page.getByLabel('Boards stay upright on the screen').uncheck();
  await expect(page.getByTestId('upright')).toContainText('boards turn with it');
  await open(page, 'Size');
  await page.getByLabel('Boards keep their size on the screen').check();
  await type(page, 'Height on the screen', '48');
  // At 4.8 pixels a metre.
  near([number(await read(page, 'screen-height'))], [10], 1e-3);
  await open(page, 'Boards');
  await page.getByRole('button', { name: 'Delete it' }).click();
  await expect(page.getByText('There are no boards. Add one.')).toBeVisible();
});
