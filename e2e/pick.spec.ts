import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { drawn, drop, near, number, numbers, openBench, picture, type } from './bench';

/* Pick, walked: rays and hits, the sweep, aim, and the bench of faults. */

const section = (page: Page, id: string) => page.locator(`[data-section="${id}"]`);
const open = async (page: Page, short: string): Promise<void> => {
  await page.getByRole('navigation', { name: 'Sections' }).getByRole('button', { name: short, exact: true }).click();
};
const choose = (page: Page, group: string, option: string) =>
  page.getByRole('group', { name: group, exact: true }).getByRole('button', { name: option, exact: true }).click();
const cells = (page: Page, list: string) => page.getByRole('table', { name: list, exact: true }).locator('.data-body [role=row]'); // prettier-ignore
const row = (page: Page, list: string, name: string) => cells(page, list).filter({ hasText: name });
const read = async (page: Page, id: string): Promise<string> => (await page.getByTestId(id).textContent())!;
const clickAt = async (page: Page, x: number, y: number): Promise<void> => {
  const box = (await page.getByTestId('picture').boundingBox())!;
  await page.mouse.click(box.x + (x / 1280) * box.width, box.y + (y / 720) * box.height);
};

interface Request {
  camera: { position: [number, number, number]; orientation: { yaw: number; pitch: number; roll?: number } };
  queries: object[];
}
/** The project as a compute request, and what the command line answers to it. */
async function asked(page: Page, file: string, more: (request: Request) => object[] = () => []) {
  await page.locator('.project-button').click();
  await page.getByRole('menuitem', { name: 'Copy as a compute request' }).click();
  const request = JSON.parse(await page.evaluate(() => navigator.clipboard.readText())) as Request;
  writeFileSync(file, JSON.stringify({ ...request, queries: [...request.queries, ...more(request)] }));
  const out = execFileSync('node', ['bin/astrolabe.js', 'compute', file], { encoding: 'utf8', maxBuffer: 2 ** 26 });
  const { results } = JSON.parse(out) as { results: (Record<string, never> & { id: string })[] };
  return Object.fromEntries(results.map((one) => [one.id, one]));
}

test('a ray, what it meets, the sweep of the picture, and aiming past what is in the way', async ({ page }, info) => {
  await openBench(page, '/pick');
  await expect(page.getByTestId('ray-verdict')).toContainText('It meets North quay 84.21 along the ray');
  // A click has the ray go through the pixel; the tower has a front and, inside, a back.
  await clickAt(page, 312, 260);
  await expect(page.getByTestId('ray-verdict')).toContainText('Tower band');
  await page.getByLabel('All', { exact: true }).check();
  await page.getByLabel('Back faces too').check();
  const bodies = await cells(page, 'hits').locator('span:nth-child(2)').allTextContents();
  expect(bodies.length).toBeGreaterThan(3);
  const ranges = (await cells(page, 'hits').locator('span:nth-child(3)').allTextContents()).map(number);
  expect(ranges).toEqual([...ranges].sort((a, b) => a - b));
  expect(await cells(page, 'hits').locator('span:nth-child(4)').allTextContents()).toContain('back');
  await cells(page, 'hits').first().click();
  await expect(cells(page, 'hits').first()).toHaveAttribute('aria-selected', 'true');

  // Through the middle, and then under the pointer, which the worksheet and the drawings follow.
  await page.keyboard.press('Escape');
  await choose(page, 'Ray through', 'the centre');
  await expect(page.getByTestId('ray-pixel')).toHaveText('640.00, 360.00');
  await choose(page, 'Ray through', 'the pointer');
  const box = (await page.getByTestId('picture').boundingBox())!;
  await page.mouse.move(box.x + 0.2 * box.width, box.y + 0.5 * box.height);
  await drawn(page);
  near(numbers(await read(page, 'ray-pixel')), [256, 360], 2);
  await choose(page, 'Ray through', 'a pixel');
  await type(page, 'Ray pixel x', '812');
  await type(page, 'Ray pixel y', '344');
  await expect(page.getByTestId('ray-verdict')).toContainText('North quay');

  // Aim: the lighthouse is in the muzzle's way; beside it the way is free.
  await expect(page.getByTestId('aim-verdict')).toContainText('blocked by Lighthouse');
  await type(page, 'Muzzle z', '0');
  await expect(page.getByTestId('aim-verdict')).toContainText('is free');
  await page.keyboard.press('Control+z');
  const blocked = await picture(page);
  await page.getByLabel('Show where it lands fired along the gaze').check();
  const fall = number((await read(page, 'fall-off')).replace(' metres off', ''));
  expect(fall).toBeGreaterThan(50);
  await page.getByRole('button', { name: 'Bring the muzzle to the eye' }).click();
  await expect(page.getByTestId('aim-angle')).toHaveText('0.000°');
  await expect(page.getByTestId('fall-off')).toHaveText('0.00 metres off');
  await page.keyboard.press('Control+z');
  // The muzzle by the keyboard, in the plan.
  const handle = page
    .locator('[aria-label="Plan"], [data-picture="plan"]')
    .locator('[aria-label*="the muzzle"]')
    .first();
  await handle.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  expect(number(await page.getByLabel('Muzzle x').inputValue())).toBeGreaterThan(-36);
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('aim-verdict')).toContainText('blocked by Lighthouse');
  expect(await picture(page)).toBe(blocked);

  // The sheet's numbers are the command line's.
  const found = await asked(page, info.outputPath('request.json'));
  const [ray] = found['picked ray']!.pixels as unknown as { direction: number[]; nearPoint: number[] }[];
  near(numbers(await read(page, 'ray-direction')), ray!.direction, 5.1e-5);
  near(numbers(await read(page, 'ray-near')), ray!.nearPoint, 0.0051);
  const [pick] = found['picked']!.pixels as unknown as { hits: { body: string; distance: number; point: number[] }[]; tested: { boxes: number; triangles: number } }[]; // prettier-ignore
  near(numbers(await read(page, 'ray-hit')), pick!.hits[0]!.point, 0.0051);
  await expect(page.getByTestId('ray-tested')).toHaveText(`${pick!.tested.boxes} boxes, ${pick!.tested.triangles} surfaces`); // prettier-ignore
  const aim = found['aimed']! as unknown as { blockedBy: string; angle: number };
  expect(aim.blockedBy).toBe('lighthouse');
  near([number((await read(page, 'aim-angle')).replace('°', ''))], [aim.angle], 5.1e-4);

  // Every pixel picked: nothing differs from the painted picture but at silhouettes.
  await page.getByLabel('Back faces too').uncheck();
  await open(page, 'Sweep');
  await expect(page.getByTestId('sweep-verdict')).toContainText('every one at a silhouette', { timeout: 30_000 });
  await expect(page.getByTestId('sweep-rays')).toHaveText('1280 × 720');
  for (const by of ['distance', 'normal', 'boxes', 'body']) {
    await choose(page, 'Sweep by', by);
    await expect(page.getByRole('img', { name: `The sweep, by ${by}` })).toBeVisible();
  }
  await choose(page, 'Sweep by', 'boxes');
  await expect(page.getByTestId('boxes-mean')).toContainText('at most', { timeout: 30_000 });
  const swept = page.getByRole('img', { name: 'The sweep, by boxes' });
  const area = (await swept.boundingBox())!;
  await page.mouse.move(area.x + area.width * 0.245, area.y + area.height * 0.42);
  await expect(page.locator('.sweep p')).toContainText('Lighthouse');
  await cells(page, 'bodies swept').first().click();
  await expect(cells(page, 'bodies swept').first()).toHaveAttribute('aria-selected', 'true');
});

test('the classic fault: aimed under shake, and its mend, with the numbers of compareCameras', async ({
  page,
}, info) => {
  await openBench(page, '/pick');
  await choose(page, 'Ray through', 'the centre');
  await open(page, 'Faults');
  const off = async (name: string) =>
    (await row(page, 'faults', name).locator('span').allTextContents()).slice(1).map(number);
  await type(page, 'Shake yaw', '2');
  await type(page, 'Shake pitch', '-1');
  await type(page, 'Shake roll', '0');
  await type(page, 'Shake to the right', '0');
  await type(page, 'Shake upward', '0');
  const reticles = page.locator('svg[aria-label="Through the camera"] .ink-second-reticle');
  await expect(reticles).toHaveCount(0);
  await row(page, 'faults', 'without shake').click();
  await expect(reticles.first()).toBeAttached();
  await expect(page.getByTestId('fault-verdict')).toContainText('pixels in the picture');
  await expect(page.getByTestId('fault-mend')).toContainText('the camera that drew the picture');

  // The hit stays where the unshaken gaze points: the controller's camera, asked by the command line.
  const range = number((await read(page, 'ray-verdict')).match(/[\d.]+/)![0]);
  const found = await asked(page, info.outputPath('shake.json'), ({ camera }) => {
    const { yaw, pitch, roll = 0 } = camera.orientation;
    const other = (by: { yaw?: number; pitch?: number }) => ({ ...camera, orientation: { yaw: yaw - (by.yaw ?? 0), pitch: pitch - (by.pitch ?? 0), roll } }); // prettier-ignore
    const query = (id: string, by: { yaw?: number; pitch?: number }) => ({ id, op: 'compareCameras', camera: other(by), pixels: [[640, 360]], range }); // prettier-ignore
    return [query('shaken', { yaw: 2, pitch: -1 }), query('recoiled', { pitch: 1.5 }), query('before', { yaw: 90 / 60 })]; // prettier-ignore
  });
  for (const [id, name] of [
    ['shaken', 'without shake'],
    ['recoiled', 'without recoil'],
    ['before', 'frame before'],
  ] as const) {
    const [one] = found[id]!.pixels as unknown as { angle: number; miss: number; error: [number, number] }[];
    const [angle, miss, pixels] = await off(name);
    near([angle!, miss!, pixels!], [one!.angle, one!.miss, Math.hypot(...one!.error)], 0.06);
    // The exported request has it of itself.
    const fault = { shaken: 'shakeLeftOut', recoiled: 'recoilLeftOut', before: 'frameBefore' }[id];
    const [own] = found[`ray by ${fault}`]!.pixels as unknown as { angle: number; miss: number }[];
    near([own!.angle, own!.miss], [one!.angle, one!.miss], 0.006);
  }
  // The mend: the ray from the picture's own camera, which is no shake at all.
  await type(page, 'Shake yaw', '0');
  await type(page, 'Shake pitch', '0');
  expect((await off('without shake')).every((v) => v === 0)).toBe(true);
  await expect(page.getByTestId('fault-verdict')).toHaveText('Nothing is off by “without shake” here.');
  // In radians and other conventions the miss is the same.
  const before = await off('without recoil');
  await page.getByRole('button', { name: 'Put the second reticle away' }).click();
  await expect(reticles).toHaveCount(0);
  // Other sources: the half of a pixel, the other edge, device pixels.
  const [, , half] = await off('without the half');
  near([half!], [Math.SQRT1_2], 0.06);
  const [, , edge] = await off('other edge’s y');
  expect(edge).toBe(0);
  const [, , device] = await off('device pixels');
  near([device!], [Math.hypot(640, 360)], 0.2);
  // Another screen: upright, so the same pixel looks much less to the side; none at the middle.
  expect((await off('other aspect'))[2]).toBe(0);
  await choose(page, 'Ray through', 'a pixel');
  expect((await off('other aspect'))[2]).toBeGreaterThan(50);
  expect((await off('without recoil'))[0]).toBeLessThanOrEqual(before[0]!);
  await section(page, 'pick-bench').getByRole('button', { name: 'Copy', exact: true }).click();
  await expect
    .poll(() => page.evaluate(() => navigator.clipboard.readText()))
    .toMatch(/^Made,°,miss,px\nwithout shake,/);
});

test('a large mesh is made ready off the page, and picked', async ({ page }) => {
  await openBench(page, '/pick');
  const n = 110;
  const lines: string[] = [];
  for (let j = 0; j <= n; j++)
    for (let i = 0; i <= n; i++) lines.push(`v ${((i - n / 2) / n) * 40} ${2 * Math.sin(i / 9) + 8} ${((j - n / 2) / n) * 40}`); // prettier-ignore
  for (let j = 0; j < n; j++)
    for (let i = 0; i < n; i++) {
      const a = j * (n + 1) + i + 1;
      lines.push(`f ${a} ${a + n + 1} ${a + n + 2} ${a + 1}`);
    }
  await drop(page, 'waves.obj', lines.join('\n'));
  const asked = page.getByRole('button', { name: /own project|of its own/i });
  await expect(asked.or(page.locator('.project-button', { hasText: 'waves' })).first()).toBeVisible({
    timeout: 20_000,
  });
  if (await asked.count()) await asked.first().click();
  await expect(page.locator('.project-button')).toContainText('waves', { timeout: 20_000 });
  await clickAt(page, 850, 330);
  await expect(page.getByTestId('ray-verdict')).toContainText('It meets waves', { timeout: 20_000 });
  await expect(cells(page, 'hits')).toHaveCount(1);
  await expect(page.getByTestId('ray-tested')).toContainText('surfaces');
});

test('on a flat world: what lies under a point in order, and the same bench', async ({ page }, info) => {
  await openBench(page, '/pick');
  await page.keyboard.press('/');
  await page.getByPlaceholder('Commands, fields, help, bodies').fill('Open the demo, Saltmarrow chart');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Pane: Screens' })).toBeVisible();
  // The lamp on the tower on the mole.
  await clickAt(page, 601.6, 93.6);
  await page.getByLabel('All', { exact: true }).check();
  expect(await cells(page, 'hits').locator('span:nth-child(2)').allTextContents()).toEqual(['Lighthouse lamp', 'Lighthouse', 'Lamp mole']); // prettier-ignore
  const off = async (name: string) =>
    (await row(page, 'faults', name).locator('span').allTextContents()).slice(1).map(number);
  // 30 metres a second at 60 frames: half a metre, 2.4 pixels at 4.8 to the metre.
  near(await off('frame before'), [0.5, 2.4], 0.051);
  await type(page, 'Frames a second', '30');
  near(await off('frame before'), [1, 4.8], 0.051);
  near(await off('without the half'), [Math.SQRT1_2 / 4.8, Math.SQRT1_2], 0.051);
  await row(page, 'faults', 'frame before').click();
  await expect(page.locator('svg[aria-label="Through the camera"] .ink-second-reticle').first()).toBeAttached();
  const found = await asked(page, info.outputPath('flat.json'));
  const [pick] = found['picked']!.pixels as unknown as { hits: { body: string }[] }[];
  expect(pick!.hits.map(({ body }) => body).sort()).toEqual(['lamp', 'lighthouse', 'mole']);
});
