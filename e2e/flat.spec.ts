import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { drawn, near, number, numbers, openBench, picture, rung, type } from './bench';

/** Frame on the harbour chart: a world of two dimensions. */
test.beforeEach(async ({ page }) => {
  await openBench(page, '/frame');
  await page.getByRole('button', { name: 'Saltmarrow harbour' }).click();
  await page.getByRole('menuitem', { name: /Saltmarrow chart/ }).click();
  await expect(page.getByRole('region', { name: 'Focus and anchor' })).toBeVisible();
});

const read = async (page: Page, field: string) => number(await page.getByLabel(field, { exact: true }).inputValue());
const pair = (page: Page, field: string) => Promise.all(['x', 'y'].map((letter) => read(page, `${field} ${letter}`)));
const seen = async (page: Page) => numbers((await page.getByTestId('seen-size').innerText()).replace('×', ','));
const under = async (page: Page) => numbers(await page.getByTestId('pointer-ground').innerText());

/** The requests and answers of the command line for the project as it is on the page. */
async function answered(page: Page, file: string) {
  await page.getByRole('button', { name: 'Saltmarrow chart' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: /Save as a compute request/ }).click(),
  ]);
  await download.saveAs(file);
  const out = execFileSync('node', ['bin/astrolabe.js', 'compute', file], { encoding: 'utf8' });
  const results = (JSON.parse(out) as { results: Record<string, unknown>[] }).results;
  const of = <T>(id: string) => results.find((one) => one.id === id) as T;
  return {
    request: JSON.parse(readFileSync(file, 'utf8')) as { camera: Record<string, unknown> },
    probe: of<{ points: { screen: number[]; ndc: number[]; view: number[]; clip: number[]; depth: number; pixelsPerUnit: number[] }[] }>('probe').points[0]!, // prettier-ignore
    back: of<{ pixels: { point: number[] }[] }>('back').pixels[0]!.point,
  };
}

test('what lies where and how large: focus, anchor, zoom, sizes and turn in step', async ({ page }) => {
  near(await seen(page), [266.67, 150], 0.01);
  await type(page, 'Zoom', '5');
  near(await seen(page), [256, 144], 0);
  near(await pair(page, 'Focus'), [-13, -73], 0);
  near((await rung(page, 'screen')).slice(0, 2), [640, 540], 1e-4);
  // The anchor is where the focus lands, whatever the zoom and the turn.
  await type(page, 'Anchor x', '320');
  await type(page, 'Anchor y', '200.5');
  await type(page, 'Rotation', '37');
  near((await rung(page, 'screen')).slice(0, 2), [320, 200.5], 1e-4);
  await type(page, 'Width seen', '320');
  near([await read(page, 'Zoom'), await read(page, 'Height seen')], [4, 180], 1e-9);
  await type(page, 'Height seen', '90');
  near([await read(page, 'Zoom'), await read(page, 'Width seen')], [8, 160], 1e-9);
  // Ten to the right of the focus, turned by a quarter counter-clockwise, is ten upward on the
  // screen.
  await type(page, 'Rotation', 'pi/2 rad');
  await page.getByRole('button', { name: 'drive from here' }).first().click();
  await type(page, 'World x', '-3');
  near((await rung(page, 'screen')).slice(0, 2), [320, 200.5 - 80], 1e-4);
  await page.getByRole('button', { name: 'Upright', exact: true }).click();
  near((await rung(page, 'screen')).slice(0, 2), [400, 200.5], 1e-4);
  // Y down re-expresses: the numbers change their sign, the picture stays.
  const before = await picture(page);
  await page.getByRole('group', { name: 'World up' }).getByRole('button', { name: 'down' }).click();
  near(await pair(page, 'Focus'), [-13, 73], 0);
  near(await rung(page, 'world'), [-3, 73], 1e-9);
  expect(await picture(page)).toBe(before);
  await page.getByRole('button', { name: 'Focus on the probe' }).click();
  near(await pair(page, 'Focus'), [-3, 73], 0);
  await page.getByRole('button', { name: 'Anchor in the middle' }).click();
  near((await rung(page, 'screen')).slice(0, 2), [640, 360], 1e-4);
});

test('whole zooms, snapping and the seams they mend', async ({ page }) => {
  const seams = page.getByTestId('seams');
  await expect(seams).toContainText('A tile of 8 is 38.4 px: its edges land between pixels. At zoom 4.75 or 4.875');
  await page.getByRole('button', { name: 'Zoom 4: 320 × 180 metres' }).click();
  near([await read(page, 'Zoom')], [4], 0);
  near(await seen(page), [320, 180], 0);
  near((await rung(page, 'screen')).slice(0, 2), [640, 540], 1e-4);
  await expect(page.getByRole('region', { name: 'Integer scaling' })).toContainText('426.67 × 240');
  await type(page, 'Focus x', '-13.07');
  // t = anchor − zoom·focus, y down on the screen.
  near(numbers(await page.getByTestId('translation').innerText()), [640 + 4 * 13.07, 540 - 4 * 73], 1e-3);
  await expect(seams).toContainText('t is not whole');
  await page.getByRole('group', { name: 'Snap' }).getByRole('button', { name: 'down' }).click();
  near(numbers(await page.getByTestId('snapped').innerText()), [692, 248], 0);
  await expect(seams).toContainText('without a seam');
  // The launch, at −13, lands on 692 − 52.
  near((await rung(page, 'screen')).slice(0, 2), [640, 540], 1e-4);
  await type(page, 'Focus x', '-13.2');
  await page.getByRole('group', { name: 'Snap' }).getByRole('button', { name: 'to the nearest' }).click();
  near(numbers(await page.getByTestId('snapped').innerText()), [693, 248], 0);
  await type(page, 'Rotation', '20');
  await expect(seams).toContainText('turned: edges run across pixels at any zoom');
  await page
    .getByRole('group', { name: 'Integer zooms counted in' })
    .getByRole('button', { name: 'device px' })
    .click();
  await page.getByRole('button', { name: 'Zoom 9: 284.44 × 160 metres' }).click();
  near([await read(page, 'Zoom')], [4.5], 0);
});

test('the world under the hand: dragged, turned, zoomed about the pointer, and taken by its frame', async ({
  page,
}) => {
  const box = (await page.getByTestId('picture').boundingBox())!;
  const at = (x: number, y: number) => [box.x + box.width * x, box.y + box.height * y] as const;
  await page.mouse.move(...at(0.3, 0.4));
  const grabbed = await under(page);
  await page.mouse.down();
  await page.mouse.move(...at(0.55, 0.7), { steps: 5 });
  // What is read follows at its own pace while the hand moves the world.
  await expect(async () => near(await under(page), grabbed, 0.02)).toPass();
  await page.mouse.up();
  await page.mouse.wheel(0, -300);
  await expect.poll(() => read(page, 'Zoom')).toBeGreaterThan(5.5);
  near(await under(page), grabbed, 0.06);
  await page.keyboard.down('Alt');
  await page.mouse.wheel(0, -100);
  await expect.poll(() => read(page, 'Zoom')).toBe(6);
  await page.mouse.wheel(0, 100);
  await expect.poll(() => read(page, 'Zoom')).toBe(5);
  await page.keyboard.up('Alt');
  await page.keyboard.down('Shift');
  await page.mouse.down();
  await page.mouse.move(...at(0.3, 0.3), { steps: 4 });
  await page.mouse.up();
  await page.keyboard.up('Shift');
  expect(Math.abs(await read(page, 'Rotation'))).toBeGreaterThan(5);
  await page.getByRole('button', { name: 'Upright', exact: true }).click();

  // The anchor moves, the picture does not.
  const before = await picture(page);
  await page.getByRole('button', { name: 'Move the anchor, the picture kept' }).focus();
  await page.keyboard.press('Shift+ArrowLeft');
  expect(await read(page, 'Anchor x')).toBeLessThan(640);
  await page.mouse.move(0, 0);
  expect(await picture(page)).toBe(before);

  // The plan is the world: its frame is taken by the focus, an edge and the turn.
  const world = page.getByRole('group', { name: 'World', exact: true });
  const [x] = await pair(page, 'Focus');
  await world.getByRole('button', { name: 'Move the focus' }).focus();
  await page.keyboard.press('Shift+ArrowRight');
  expect(await read(page, 'Focus x')).toBeGreaterThan(x! + 5);
  const zoom = await read(page, 'Zoom');
  await world.getByRole('button', { name: 'Move the right edge of what is seen' }).focus();
  await page.keyboard.press('Shift+ArrowRight');
  expect(await read(page, 'Zoom')).toBeLessThan(zoom);
  await world.getByRole('button', { name: 'Move the turn of the camera' }).focus();
  await page.keyboard.press('Shift+ArrowRight');
  // The frame turns clockwise with the hand, the world in it counter-clockwise.
  expect(await read(page, 'Rotation')).toBeGreaterThan(0);
  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+Z');
  near([await read(page, 'Zoom')], [zoom], 0);
});

test('fits, and a zoom that cannot be', async ({ page }) => {
  const section = page.getByRole('region', { name: 'What the camera sees' });
  await section.getByRole('button', { name: 'Fit Pilot launch' }).click();
  expect((await seen(page))[1]!).toBeLessThan(16);
  await section.getByRole('button', { name: 'Fit everything' }).click();
  await expect(section).toContainText('21 of 21 bodies in view');
  await expect(page.getByRole('group', { name: 'Through the camera' })).not.toContainText('off the picture');
  // Several at once: one by a click with Ctrl, one by name.
  const box = (await page.getByTestId('picture').boundingBox())!;
  const lighthouse = page.getByRole('group', { name: 'Through the camera' }).getByText('Lighthouse', { exact: true });
  await section.getByRole('button', { name: 'Fit Pilot launch' }).click();
  await page.keyboard.down('Control');
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
  await page.keyboard.up('Control');
  await page.keyboard.press('/');
  await page.getByPlaceholder('Commands, fields, help, bodies').fill('Select Lighthouse');
  await expect(page.getByRole('option', { name: 'Select Lighthouse', exact: true })).toHaveAttribute('aria-selected', 'true'); // prettier-ignore
  await page.keyboard.press('Enter');
  await section.getByRole('button', { name: /^Fit the \d selected$/ }).click();
  await expect(lighthouse).toBeVisible();
  // From the launch at y −73 to the lighthouse's far rim at 23.9, with its margin.
  near([(await seen(page))[1]!], [(23.9 + 77.5) / 0.94], 2);
  await section.getByRole('button', { name: 'Select nothing' }).click();
  await expect(section).toContainText('To fit several, select them');
  await section.getByRole('button', { name: 'Show at least a world rectangle…' }).click();
  for (const [field, value] of [
    ['right from', '-100'],
    ['right to', '50'],
    ['up from', '-90'],
    ['up to', '10'],
  ] as const)
    await type(page, `Rectangle ${field}`, value); // prettier-ignore
  await section.getByRole('button', { name: 'Show it to the edge' }).click();
  near([await read(page, 'Zoom')], [7.2], 1e-9);
  near(numbers((await page.getByTestId('seen-up').innerText()).replace(' to ', ',')), [-90, 10], 0.01);
  await section.getByRole('button', { name: 'At a whole zoom' }).click();
  near([await read(page, 'Zoom')], [7], 0);
  const good = await picture(page);
  const note = page.getByRole('alert').filter({ hasText: 'last camera that could be' }).first();
  for (const [bad, mended] of [
    [0, 1],
    [-3, 3],
  ] as const) {
    await type(page, 'Zoom', String(bad));
    await expect(note).toContainText('it is pixels per world unit and must be above 0');
    expect(await picture(page)).toBe(good);
    await note.getByRole('button', { name: `Set the zoom to ${mended}` }).click();
    await expect(note).toBeHidden();
    near([await read(page, 'Zoom')], [mended], 0);
    for (let i = 0; i < 2; i++) await page.keyboard.press('Control+Z');
    near([await read(page, 'Zoom')], [7], 0);
  }
  // Kept: a reload brings the chart back as it was.
  await expect(page.getByRole('button', { name: 'Saltmarrow chart' })).toBeVisible();
  await drawn(page);
  await page.waitForTimeout(600);
  await page.reload();
  near([await read(page, 'Zoom')], [7], 0);
});

test('every number is the command line’s, snapped and turned, y up and down', async ({ page }, info) => {
  await type(page, 'Zoom', '3.7');
  await type(page, 'Rotation', '-25');
  await page.getByRole('group', { name: 'Snap' }).getByRole('button', { name: 'down' }).click();
  const check = async (name: string) => {
    const { request, probe, back } = await answered(page, info.outputPath(name));
    expect(request.camera).toMatchObject({ kind: '2d', zoom: 3.7 });
    near((await rung(page, 'screen')).slice(0, 2), probe.screen, 1e-4);
    near(await rung(page, 'ndc'), probe.ndc, 1e-4);
    near([(await rung(page, 'screen'))[2]!], [probe.depth], 1e-4);
    near(await pair(page, 'Focus'), request.camera.focus as number[], 5e-3);
    near([await read(page, 'Rotation')], [request.camera.rotation as number], 1e-6);
    await page.getByRole('link', { name: 'Convert' }).click();
    near(numbers(await page.getByTestId('result-world').innerText()), back, 5e-3);
    near(numbers(await page.getByTestId('result-screen').innerText()), probe.screen, 5e-3);
    await page.getByRole('link', { name: 'Frame' }).click();
  };
  await check('up.json');
  await page.getByRole('group', { name: 'World up' }).getByRole('button', { name: 'down' }).click();
  await page.getByTitle('Conventions in force').click();
  await page.getByRole('button', { name: 'bottom-left' }).click();
  await page.keyboard.press('Escape');
  await check('down.json');
});

test('the Chain of a 2D camera goes to the pixel by one matrix, whose forms agree with the numbers', async ({
  page,
}) => {
  await expect(page.getByRole('region', { name: 'Clip' })).toHaveCount(0);
  await page.getByLabel('Open the world to pixel matrix').click();
  const dialog = page.getByRole('dialog', { name: 'world to pixel matrix' });
  const entries = async (count: number) => {
    const spans = dialog.getByTestId('matrix').locator('span');
    await expect(spans).toHaveCount(count);
    return (await spans.allInnerTexts()).map((text) => Number(text.replace('−', '-')));
  };
  const six = await entries(6);
  near(six, [4.8, 0, 702.4, 0, -4.8, 189.6], 1e-6);
  await dialog.getByRole('button', { name: '3×3' }).click();
  expect(await entries(9)).toEqual([...six, 0, 0, 1]);
  await dialog.getByRole('button', { name: 'A⁻¹' }).click();
  await expect(dialog.getByRole('heading', { name: 'Pixel to world' })).toBeVisible();
  const [a, , tx] = await entries(9);
  near([a! * 702.4 + tx!], [0], 1e-3);
  await expect(dialog.getByTestId('camera-formula')).toContainText('F = diag(1, −1)');
});
