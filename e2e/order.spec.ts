import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { decode, encode } from 'fast-png';
import { expect, test } from './test';
import { drawn, near, number, numbers, openBench, picture, type } from './bench';

/* Order, walked: clipping, winding, painting without a depth buffer, horizon, shadows, equal angles. */

const section = (page: Page, id: string) => page.locator(`[data-section="${id}"]`);
const open = async (page: Page, short: string): Promise<void> => {
  await page.getByRole('navigation', { name: 'Sections' }).getByRole('button', { name: short, exact: true }).click();
};
const choose = (page: Page, group: string, option: string) =>
  page.getByRole('group', { name: group, exact: true }).getByRole('button', { name: option, exact: true }).click();
const command = async (page: Page, name: string): Promise<void> => {
  await page.keyboard.press('/');
  await page.getByPlaceholder('Commands, fields, help, bodies').fill(name);
  await page.keyboard.press('Enter');
};
const cells = (page: Page, list: string) =>
  page.getByRole('table', { name: list, exact: true }).locator('.data-body [role=row]');
const read = async (page: Page, id: string): Promise<string> => (await page.getByTestId(id).textContent())!;

/** What the command line answers to the project as it stands, by the ids of its queries. */
async function answers(page: Page, file: string): Promise<Record<string, Record<string, never>>> {
  await page.locator('.project-button').click();
  await page.getByRole('menuitem', { name: 'Copy as a compute request' }).click();
  writeFileSync(file, await page.evaluate(() => navigator.clipboard.readText()));
  const out = execFileSync('node', ['bin/astrolabe.js', 'compute', file], { encoding: 'utf8', maxBuffer: 2 ** 26 });
  const { results } = JSON.parse(out) as { results: (Record<string, never> & { id: string })[] };
  return Object.fromEntries(results.map((one) => [one.id, one]));
}

test('a face through the eye’s plane, its winding and what is culled', async ({ page }, info) => {
  await openBench(page, '/order');
  // The gangway begins behind the eye.
  await expect(page.getByTestId('behind')).toContainText('2 corners lie behind the eye');
  await expect(page.getByRole('img', { name: 'The face three ways' })).toContainText('Uncut, wrong');
  await expect(page.getByTestId('near-corners')).toHaveText('4 corners');
  await expect(page.getByTestId('frustum-corners')).toHaveText('5 corners');
  const before = await picture(page);
  const errors = page.locator('svg[aria-label="Through the camera"] .ink-error-note');
  await expect(errors).toHaveCount(0);
  await page.keyboard.press('g');
  await expect(page.getByLabel('Show what dividing uncut would paint')).toBeChecked();
  await expect(page.locator('svg[aria-label="Through the camera"] .ink-fault').first()).toBeAttached();
  await page.keyboard.press('g');

  // The list of corners: filtered, walked, sorted, copied.
  await page.getByLabel('Show of the corners').selectOption('as given');
  await expect(cells(page, 'corners')).toHaveCount(4);
  await cells(page, 'corners').first().click();
  await page.keyboard.press('ArrowDown');
  await expect(cells(page, 'corners').nth(1)).toBeFocused();
  await page.getByRole('table', { name: 'corners' }).getByRole('button', { name: 'ahead' }).click();
  const ahead = await cells(page, 'corners').locator('span:nth-child(2)').allTextContents();
  expect(ahead.map(number)).toEqual([...ahead.map(number)].sort((a, b) => a - b));
  await section(page, 'order-through').getByRole('button', { name: 'Copy', exact: true }).click();
  await expect.poll(() => page.evaluate(() => navigator.clipboard.readText())).toMatch(/^Corner,ahead,w,x,y\n/);
  const copied = (await page.evaluate(() => navigator.clipboard.readText())).trim().split('\n');
  expect(copied).toHaveLength(5);
  // A corner moved by its number is brought before near, and undone.
  await type(page, 'Corner 1 z', '20');
  await type(page, 'Corner 2 z', '20');
  await expect(page.getByTestId('behind')).toHaveText('Every corner lies past near: cutting there changes nothing.');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('behind')).toContainText('2 corners lie behind the eye');

  // A click in the picture follows the face there, as one step with the probe.
  const box = (await page.getByTestId('picture').boundingBox())!;
  await page.mouse.click(box.x + (140 / 1280) * box.width, box.y + (640 / 720) * box.height);
  await expect(page.getByTestId('followed')).toHaveText('Custom house roof');
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('followed')).toHaveText('Gangway');
  await page.keyboard.press('Control+Shift+z');
  await expect(page.getByTestId('followed')).toHaveText('Custom house roof');

  // What front-face rule and culling make of it, and what would turn it over.
  const verdict = page.getByTestId('winding-verdict');
  await expect(verdict).toContainText('drawn, as all are');
  const all = number((await read(page, 'faces-drawn')).replaceAll(',', ''));
  expect(number(await read(page, 'faces-culled'))).toBe(0);
  await choose(page, 'Cull', 'back');
  await expect(verdict).toContainText('The face faces the eye and runs counter-clockwise as seen: drawn, a front face by the rule.'); // prettier-ignore
  const [kept, culled] = [await read(page, 'faces-drawn'), await read(page, 'faces-culled')].map((v) => number(v.replaceAll(',', ''))) as [number, number]; // prettier-ignore
  expect(kept + culled).toBe(all);
  // Nothing of closed bodies changes by it.
  await page.getByLabel('a mirrored view').check();
  await expect(verdict).toContainText('culled, a back face by the rule');
  await expect(page.getByTestId('supposed')).toHaveText('As it is, the face is drawn; as supposed, culled.');
  expect(number((await read(page, 'faces-drawn')).replaceAll(',', ''))).toBe(culled);
  expect(await picture(page)).not.toBe(before);
  await page.getByLabel('y of the framebuffer the other way').check();
  await expect(verdict).toContainText('drawn, a front face');
  await page.getByLabel('a negative scale on Custom house').check();
  await expect(verdict).toContainText('culled, a back face');
  await choose(page, 'Front face', 'clockwise');
  await expect(verdict).toContainText('drawn, a front face');

  // A supposed winding changes the sign of the area; the exported request has the face unchanged.
  expect(number((await read(page, 'signed-area')).replace(' px²', ''))).toBeLessThan(0);
  await page.getByLabel('a mirrored view').uncheck();
  // The sheet's numbers are those of the exported request.
  await page.getByLabel('Show of the corners').selectOption('cut at the frustum');
  const shown = await cells(page, 'corners').locator('span:nth-child(4)').allTextContents();
  const found = await answers(page, info.outputPath('request.json'));
  const [polygon] = found['the face cut']!.polygons as unknown as { frustum: { screen: [number, number] }[]; unclipped: { ghost: boolean }[] }[]; // prettier-ignore
  near(shown.map(number).sort((a, b) => a - b), polygon!.frustum.map(({ screen }) => screen[0]).sort((a, b) => a - b), 0.051); // prettier-ignore
  const triangles = found['the face’s winding']!.triangles as unknown as { facing: string; area: number }[];
  expect(new Set(triangles.map(({ facing }) => facing))).toEqual(new Set(['front']));
  const area = triangles.reduce((sum, one) => sum + one.area, 0);
  near([number((await read(page, 'signed-area')).replace(' px²', ''))], [area], 0.051);
});

test('painting without a depth buffer, horizon, shadows and equal angles', async ({ page }, info) => {
  await openBench(page, '/order');
  await open(page, 'Order');
  await expect(page.getByTestId('conflicts')).toHaveText('0');
  const withDepth = await picture(page);
  await choose(page, 'Far to near by', 'world y');
  const conflicts = number((await read(page, 'conflicts')).replace(/.* of /, '').replaceAll(',', ''));
  expect(conflicts).toBeGreaterThan(100);
  await choose(page, 'Cull', 'back');
  await choose(page, 'Paint', 'bodies');
  await expect(page.getByTestId('painted')).toContainText('come out wrong', { timeout: 20_000 });
  const wrong = async () => {
    await expect(page.getByTestId('painted')).toContainText('covered pixels', { timeout: 20_000 });
    const text = (await read(page, 'painted')).replaceAll(',', '');
    return text.startsWith('Every') ? 0 : Number(/^\d+/.exec(text)![0]);
  };
  const byHeight = await wrong();
  expect(await picture(page)).not.toBe(withDepth);
  // A pair of the list selects both its bodies.
  await cells(page, 'pairs painted wrong').first().click();
  await expect(cells(page, 'pairs painted wrong').first()).toHaveAttribute('aria-selected', 'true');
  await choose(page, 'Far to near by', 'ahead');
  await expect.poll(wrong).toBeLessThan(byHeight);
  const before = await wrong();
  // Three spars in a ring: wrong by every key, and taken away by one undo.
  await command(page, 'Lay three spars in a ring');
  for (const key of ['ahead', 'distance', 'screen y', 'world y']) {
    await choose(page, 'Far to near by', key);
    await expect(page.getByTestId('painted')).toContainText('come out wrong', { timeout: 20_000 });
    const names = await cells(page, 'pairs painted wrong').locator('span:nth-child(-n+2)').allTextContents();
    const [, download] = await Promise.all([
      section(page, 'order-draw').getByRole('button', { name: 'Save as CSV' }).first().click(),
      page.waitForEvent('download'),
    ]);
    const rows = readFileSync(await download.path(), 'utf8')
      .trim()
      .split('\n')
      .slice(1);
    expect(names.length).toBeGreaterThan(0);
    expect(
      rows.some((row) => /^Spar \d,Spar \d,/.test(row)),
      key,
    ).toBe(true);
  }
  // Three changes of the key, and the ring.
  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z');
  await expect.poll(wrong).toBe(before);
  await choose(page, 'Paint', 'depth buffer');

  await open(page, 'Horizon');
  const pitches = (await read(page, 'horizon-pitches')).split('…').map((v) => number(v.replace('°', '')));
  near(pitches, [-18, 18], 0.01);
  await open(page, 'Shadow');
  const plain = await picture(page);
  await page.getByLabel('Drawn in every picture').check();
  expect(await picture(page)).not.toBe(plain);
  const probe = [-21, 20.4, -20];
  const sunAt = async (bearing: number, altitude: number) => {
    const [a, b] = [(bearing * Math.PI) / 180, (altitude * Math.PI) / 180];
    const long = probe[1]! / Math.tan(b);
    near(numbers(await read(page, 'probe-shadow')), [probe[0]! - long * Math.sin(a), 0, probe[2]! + long * Math.cos(a)], 0.006); // prettier-ignore
  };
  await sunAt(120, 35);
  const casters = cells(page, 'casters');
  await section(page, 'order-shadow').getByLabel('Show of the casters').selectOption('shadow alone');
  expect(await casters.count()).toBe(number(await read(page, 'shadow-alone')));
  await page.getByRole('slider', { name: 'Bearing of the light' }).focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('PageUp');
  await sunAt(150, 35);
  await type(page, 'Altitude of the light', '50');
  await sunAt(150, 50);
  await type(page, 'Altitude of the light', '0');
  await expect(page.getByTestId('shadow-none')).toBeVisible();
  await page.keyboard.press('Control+z');
  await choose(page, 'Light', 'lamp');
  await type(page, 'Lamp x', '-21');
  await type(page, 'Lamp y', '40.8');
  await type(page, 'Lamp z', '-40');
  // As far beyond the probe as the lamp is before it.
  near(numbers(await read(page, 'probe-shadow')), [-21, 0, 0], 0.006);
  await open(page, 'Angles');
  const off = number((await read(page, 'angles-error')).replace(' px', ''));
  await page.getByLabel('Contours of the error').check();
  await expect(page.locator('svg[aria-label="Through the camera"] .ink-second-reticle').first()).toBeAttached();
  await page.getByRole('button', { name: 'Show the picture of equal angles' }).click();
  await expect(page.getByRole('button', { name: 'Pane: Equal angles' })).toBeVisible();
  await drawn(page);

  const found = await answers(page, info.outputPath('request.json'));
  const [angle] = found['equal angles']!.pixels as unknown as { error: [number, number] }[];
  near([off], [Math.hypot(...angle!.error)], 0.006);
  const [shadow] = found['shadow']!.points as unknown as { point: number[] }[];
  near(shadow!.point, [-21, 0, 0], 1e-9);
  const order = found['draw order']! as unknown as { order: string[] };
  expect(order.order).toHaveLength(82);
});

test('on a flat world: by layers and by height, the ring, and the sheet without what has no meaning', async ({
  page,
}, info) => {
  await openBench(page, '/order');
  await command(page, 'Open the demo, Saltmarrow chart');
  await expect(page.getByText('need a third dimension')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Pane: Screens' })).toBeVisible();
  await choose(page, 'Paint', 'bodies');
  await expect(page.getByTestId('painted')).toContainText('comes out right', { timeout: 20_000 });
  await choose(page, 'Far to near by', 'world y');
  await expect(page.getByTestId('painted')).toContainText('come out wrong', { timeout: 20_000 });
  // The shed lies on the quay, and higher on the chart than the quay's middle.
  await expect(cells(page, 'pairs painted wrong')).toHaveCount(1);
  await expect(cells(page, 'pairs painted wrong')).toContainText('Net shed');
  await expect(cells(page, 'pairs painted wrong')).toContainText('North quay');
  // 8.5 by 6.5 metres at 4.8 pixels each.
  const pixels = number((await cells(page, 'pairs painted wrong').locator('span').last().textContent())!);
  expect(Math.abs(pixels / (8.5 * 6.5 * 4.8 * 4.8) - 1)).toBeLessThan(0.03);
  const found = await answers(page, info.outputPath('request.json'));
  const { order, conflicts } = found['draw order']! as unknown as { order: string[]; conflicts: unknown[] };
  expect(conflicts).toEqual([]);
  const shown = await cells(page, 'order').locator('span:nth-child(2)').allTextContents();
  expect(shown[0]).toBe('Net shed');
  expect(order[0]).toBe('shed');
  await command(page, 'Lay three spars in a ring');
  await choose(page, 'Far to near by', 'list');
  await expect(page.getByTestId('painted')).toContainText('comes out right', { timeout: 20_000 });
});

test('sprites: a PNG as a body, its foot and size, the order by feet, and its texels in the picture', async ({
  page,
}) => {
  await openBench(page, '/order');
  await page.getByRole('button', { name: '2D demo: the quay' }).click();
  await expect(section(page, 'order-sprites')).toContainText('Fisher');
  await expect(page.getByRole('region', { name: 'Begin with' })).toHaveCount(0);

  // Magenta, with a clear left half.
  const data = Uint8Array.from({ length: 4 * 16 * 24 }, (_, i) => [255, 0, 255, i % 64 < 32 ? 0 : 255][i % 4]!);
  const png = encode({ width: 16, height: 24, data, channels: 4, depth: 8 });
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Add a sprite from a PNG…' }).click();
  await (await chooser).setFiles({ name: 'crab.png', mimeType: 'image/png', buffer: Buffer.from(png) });
  await expect(page.getByLabel('Foot y', { exact: true })).toHaveValue('12.00');
  await expect(page.getByLabel('Pixels per unit of the sprite')).toHaveValue('1.000');
  await expect(section(page, 'order-sprites')).toContainText('the foot is at 262.00, 202.00');

  await choose(page, 'Bodies cover one another', 'by feet');
  await drawn(page);
  const plate = (await page.getByTestId('picture').boundingBox())!;
  const shot = decode(await page.screenshot({ clip: plate }));
  const at = (right: number, down: number) => {
    const [x, y] = [640 + 4 * right, 360 + 4 * down].map((v) => Math.round((v * plate.width) / 1280));
    return [...shot.data.slice(shot.channels * (y! * shot.width + x!)).slice(0, 3)];
  };
  expect(at(6, 6)).toEqual([255, 0, 255]);
  expect(at(-6, 6)).not.toEqual([255, 0, 255]);

  await type(page, 'Pixels per unit of the sprite', '2');
  await expect(page.getByLabel('Foot y', { exact: true })).toHaveValue('6.00');
  await page.getByRole('button', { name: 'At the origin' }).click();
  await expect(section(page, 'order-sprites')).toContainText('the foot is at 262.00, 190.00');

  // A file that is not a PNG is rejected.
  const again = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Add a sprite from a PNG…' }).click();
  await (await again).setFiles({ name: 'crab.png', mimeType: 'image/png', buffer: Buffer.from('not a picture') });
  await expect(page.getByRole('alert')).toContainText('not a PNG file');
});
