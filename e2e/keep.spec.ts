import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { drop, giveFile, goTo, near, number, numbers, openBench, paste, rung, stepsStored, type } from './bench';

test.beforeEach(async ({ page }) => openBench(page));

const menu = async (page: Page, item: RegExp) => {
  await page.getByRole('button', { name: /^(Saltmarrow|Second)/ }).click();
  await page.getByRole('menuitem', { name: item }).click();
};
const saved = async (page: Page, item: RegExp) => {
  const [download] = await Promise.all([page.waitForEvent('download'), menu(page, item)]);
  return readFileSync(await download.path(), 'utf8');
};
const open = (page: Page, name: string, text: string) =>
  giveFile(page, () => menu(page, /Open a file/), { name, mimeType: 'application/json', buffer: Buffer.from(text) });

test('a project is there after a reload, and comes and goes as one file', async ({ page }) => {
  await type(page, 'World x', '-19.5');
  await page.getByTitle('Conventions in force').click();
  await page.getByRole('button', { name: 'glTF 2.0' }).click();
  await page.keyboard.press('Escape');
  const world = await rung(page, 'world');
  near(world, [19.5, 20.4, 20], 0);
  await page.getByRole('button', { name: /^Saltmarrow/ }).click();
  await expect(page.getByText('Kept in this browser')).toBeVisible();
  await page.keyboard.press('Escape');
  await stepsStored(page);
  await page.reload();
  near(await rung(page, 'world'), world, 0);

  // What was done before the reload can be taken back, and done again.
  await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled();
  await page.keyboard.press('Control+z');
  await expect(page.getByTitle('Conventions in force')).not.toContainText('glTF');
  near(await rung(page, 'world'), [-19.5, 20.4, -20], 1e-9);
  await page.keyboard.press('Control+z');
  near(await rung(page, 'world'), [-21, 20.4, -20], 1e-9);
  await page.keyboard.press('Control+Shift+z');
  await page.keyboard.press('Control+Shift+z');
  near(await rung(page, 'world'), world, 0);

  const file = await saved(page, /Save as a file/);
  const project = JSON.parse(file) as {
    name: string;
    camera: { projection: { near: unknown } };
    bodies: { id: string }[];
  };
  await open(page, 'second.json', JSON.stringify({ ...project, name: 'Second harbour' }));
  await expect(page.getByRole('button', { name: /^Second harbour/ })).toBeVisible();
  expect(JSON.parse(await saved(page, /Save as a file/))).toMatchObject({
    name: 'Second harbour',
    bodies: { length: project.bodies.length },
  });

  // A bad file says which field is wrong and changes nothing.
  const bad = structuredClone(project);
  bad.camera.projection.near = 'close';
  await open(page, 'bad.json', JSON.stringify(bad));
  const alert = page.getByRole('alert');
  await expect(alert).toContainText('bad.json was not opened, and nothing has changed.');
  await expect(alert).toContainText('camera, the near limit must be a number, not "close".');
  await expect(page.getByRole('button', { name: /^Second harbour/ })).toBeVisible();
  await alert.getByRole('button', { name: 'Dismiss' }).click();
  await open(page, 'torn.json', JSON.stringify(project).slice(0, 400));
  await expect(alert).toContainText('The file is not JSON');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: /^Saltmarrow/ })).toBeVisible();
});

test('a compute request and a list of points come in too, by drop and by paste', async ({ page }) => {
  const request = await saved(page, /Save as a compute request/);
  await open(page, 'harbour.request.json', request);
  await expect(page.getByRole('button', { name: /^harbour/ })).toBeVisible();
  near((await rung(page, 'world')).slice(0, 3), [-21, 20.4, -20], 1e-9);
  near((await rung(page, 'screen')).slice(0, 2), [312.9485, 115.0932], 1e-4);
  await paste(page, 'x,y,z\n1,2,3\n4,5,6');
  await expect(page.locator('.notice', { hasText: 'Took the points of What was pasted' })).toBeVisible();
  await expect(page.getByRole('table', { name: 'Points' })).toHaveAttribute('aria-rowcount', '2');
  await drop(page, 'bad.request.json', request.replace('"verticalFov": 36', '"verticalFov": 0'));
  await expect(page.getByRole('alert')).toContainText('bad.request.json was not opened, and nothing has changed.');
  await page.getByRole('button', { name: 'Dismiss' }).click();
  await drop(page, 'points.csv', '1;2;3\n4;5');
  await expect(page.locator('.notice[role=alert]')).toContainText('line 2');
  await expect(page.getByRole('table', { name: 'Points' })).toHaveAttribute('aria-rowcount', '2');
});

for (const preset of ['WebGL', 'Vulkan', 'glTF 2.0'])
  test(`the command line and the server give the numbers of the screen, in ${preset}`, async ({
    page,
    request,
  }, info) => {
    await page.getByTitle('Conventions in force').click();
    await page.getByRole('button', { name: preset }).click();
    if (preset === 'Vulkan') {
      await page.getByRole('group', { name: 'World up' }).getByRole('button', { name: '−z' }).click();
      await page
        .getByRole('group', { name: 'Pixel centres' })
        .getByRole('button', { name: 'at whole numbers' })
        .click();
      await page.getByRole('group', { name: 'Angles in' }).getByRole('button', { name: 'radians' }).click();
    }
    await page.keyboard.press('Escape');
    await type(page, 'World x', '12.25');
    await type(page, 'Pixel x', '333');
    const file = info.outputPath('request.json');
    const [download] = await Promise.all([page.waitForEvent('download'), menu(page, /Save as a compute request/)]);
    await download.saveAs(file);

    type Response = {
      camera: { position: number[]; yaw: number; pitch: number };
      warnings: unknown[];
      results: {
        id: string;
        points?: { view: number[]; clip: number[]; ndc: number[]; screen: number[]; depth: number }[];
        pixels?: { point?: number[]; hits?: { body: string }[] }[];
      }[];
    };
    const response = JSON.parse(
      execFileSync('node', ['bin/astrolabe.js', 'compute', file], { encoding: 'utf8' }),
    ) as Response;
    expect(response.warnings).toEqual([]);
    const result = (id: string) => response.results.find((one) => one.id === id)!;
    const [point] = result('probe').points!;
    const shown = 0.5e-4 + 1e-9;
    near(await rung(page, 'view'), point!.view, shown);
    near(await rung(page, 'clip'), point!.clip, shown);
    near(await rung(page, 'ndc'), point!.ndc, shown);
    near(await rung(page, 'screen'), [...point!.screen, point!.depth], shown);
    near(numbers(await page.getByTestId('result-world').innerText()), result('back').pixels![0]!.point!, 0.5e-2 + 1e-9);
    await goTo(page, 'Frame');
    for (const [i, axis] of ['x', 'y', 'z'].entries())
      near([number(await page.getByLabel(`Eye ${axis}`).inputValue())], [response.camera.position[i]!], 1e-6);
    near([number(await page.getByLabel('yaw', { exact: true }).inputValue())], [response.camera.yaw], 1e-5);

    const posted = await request.post('/api/compute', { data: JSON.parse(readFileSync(file, 'utf8')) as object });
    expect(posted.status()).toBe(200);
    expect(await posted.json()).toEqual(response);
  });
