import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { giveFile, near, number, numbers, openBench, rung, type } from './bench';

/**
 * Convert, whole: off the picture, among nodes, the pointer’s way, many points, and every working.
 */
test.beforeEach(async ({ page }) => openBench(page));

const sheet = (page: Page) => page.getByRole('complementary', { name: 'Worksheet' });
const unfold = (page: Page, name: string) =>
  sheet(page).getByRole('region', { name, exact: true }).getByRole('button', { name, exact: true }).click();
const read = async (page: Page, field: string) => number(await page.getByLabel(field, { exact: true }).inputValue());

/** What the command line answers for the open project’s camera, asked these queries. */
async function asked(page: Page, queries: object[], file: string): Promise<Record<string, never>[]> {
  await page.getByRole('button', { name: /^Saltmarrow/ }).click();
  await page.getByRole('menuitem', { name: 'Copy as a compute request' }).click();
  const request = JSON.parse(await page.evaluate(() => navigator.clipboard.readText())) as object;
  writeFileSync(file, JSON.stringify({ ...request, queries }));
  const out = execFileSync('node', ['bin/astrolabe.js', 'compute', file], { encoding: 'utf8' });
  return (JSON.parse(out) as { results: Record<string, never>[] }).results;
}

/** Opens a working and reads what its lines come to: the numbers in bold. */
async function worked(page: Page, name: string, lines: readonly string[]): Promise<number[]> {
  await page.getByRole('button', { name: `Working: ${name}` }).click();
  const found: number[] = [];
  for (const line of lines) {
    await expect(page.locator(`[data-line="${line}"] .katex-html`)).toBeVisible();
    const tex = (await page.locator(`[data-line="${line}"] annotation`).textContent())!;
    found.push(...[...tex.slice(tex.lastIndexOf('\\mathbf')).matchAll(/-?\d+(\.\d+)?/g)].map(([v]) => Number(v)));
  }
  await page.keyboard.press('Escape');
  return found;
}

test('off the picture: which way, where a marker belongs, behind the eye too; size and rectangles there', async ({
  page,
}, info) => {
  near(numbers(await page.getByTestId('pixels-per-unit').innerText()), [13.8007, 13.8007], 1e-4);
  const [bounds, point] = await asked(page, [
    { id: 'b', op: 'screenBounds', bodies: ['buoy-1', 'buoy-1-tower', 'buoy-1-light'] },
    { id: 'p', op: 'worldToScreen', points: [[-21, 20.4, -20], [-20.999, 20.4, -20]] },
  ], info.outputPath('r.json')); // prettier-ignore
  const points = (point as unknown as { points: { screen: number[]; pixelsPerUnit: number[] }[] }).points;
  near(numbers(await page.getByTestId('pixels-per-unit').innerText()), points[0]!.pixelsPerUnit, 1e-4);
  const slope = points[1]!.screen.map((v, i) => (v - points[0]!.screen[i]!) / 0.001);
  near(numbers(await page.getByTestId('derivative-x').innerText()), slope, 1e-3);

  await page.getByRole('button', { name: /^Probe:/ }).click();
  await page.getByPlaceholder('Find a body').fill('Buoy 1');
  await page.keyboard.press('Enter');
  const parts = (bounds as unknown as { bodies: { bounds: { min: number[]; max: number[] } }[] }).bodies.map(
    (b) => b.bounds,
  );
  const [x, y] = [0, 1].map((i) => Math.min(...parts.map(({ min }) => min[i]!)));
  const [right, bottom] = [0, 1].map((i) => Math.max(...parts.map(({ max }) => max[i]!)));
  near(
    numbers(await page.getByTestId('rectangle-buoy-1').locator('button.number').innerText()),
    [x!, y!, right! - x!, bottom! - y!],
    0.06,
  );
  // Each opens into lines that come to what the sheet says.
  near(await worked(page, 'The bounding rectangle, Buoy 1', ['line-left', 'line-width']), [x!, right! - x!], 0.01);

  // To the right and behind: the marker stands on the right, where the mirrored pixel would be on
  // the left.
  await type(page, 'World x', '60');
  await type(page, 'World z', '80');
  await expect(page.getByTestId('verdict')).toContainText('Behind the eye');
  const marker = numbers(await page.getByTestId('edge-marker').innerText());
  near([marker[0]!], [1280 - 18], 1e-6);
  expect(marker[1]! > 18 && marker[1]! < 702).toBe(true);
  near(await worked(page, 'Where the edge marker stands', ['line-marker-x', 'line-marker-y']), marker, 0.02);
  await expect(page.locator('.ink-edge-marker')).toBeVisible();
  await type(page, 'World x', '-6');
  await type(page, 'World y', '14');
  await type(page, 'World z', '20');
  await expect(page.getByTestId('edge-marker')).toBeHidden();
});

test('a working opens with its numbers, and each leads to where it is set', async ({ page }) => {
  await page.getByRole('button', { name: 'in full: From the point to the pixel' }).click();
  const working = page.getByRole('dialog', { name: 'Working: From the point to the pixel' });
  await expect(working.getByRole('heading', { name: 'View to clip' })).toBeVisible();
  await expect(working.locator('[data-line=line-screen-x] [data-from=viewport]')).toHaveText('1280');
  // The step before.
  await working.locator('[data-line=line-ndc-x] [data-from=line-clip]').first().click();
  await expect(working.locator('[data-line=line-clip]')).toBeFocused();
  // By keyboard, to another task’s sheet.
  await working.locator('[data-line=line-clip] [data-from=lens]').first().focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/frame/);
  await expect(page.getByLabel('Vertical field', { exact: true })).toBeFocused();
  // Rows instead of columns: the working turns with them.
  await page.getByRole('link', { name: 'Convert' }).click();
  await page.getByTitle('Conventions in force').click();
  await page.getByRole('group', { name: 'Vectors' }).getByRole('button', { name: 'row' }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'in full: From the point to the pixel' }).click();
  await expect(working).toContainText('Rows multiply from the left');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Working: From the pixel to the point' }).click();
  await expect(page.getByRole('dialog', { name: 'Working: From the pixel to the point' }).getByRole('heading', { name: 'The point', exact: true })).toBeVisible(); // prettier-ignore
});

test('nodes: stack, another’s space, another parent, a turn about a pivot', async ({ page }) => {
  await unfold(page, 'Nodes');
  const nodes = page.getByRole('region', { name: 'Nodes' });
  await nodes.getByLabel('Node', { exact: true }).selectOption('crane-a-jib');
  const stack = nodes.getByRole('list', { name: 'Transform stack' });
  await expect(stack.getByRole('listitem')).toHaveCount(3);
  await expect(stack).toContainText('draw, then restore 2 times');
  await stack.getByRole('button', { name: /^Crane A jib/ }).click();
  await expect(stack).toContainText('what this level contributes');
  const world = await rung(page, 'world');
  near(numbers(await page.getByTestId('between').innerText()), world, 2e-3);
  // In the space of its own parent and back: what Local says of the parent.
  await nodes.getByLabel('In the space of').selectOption('crane-a');
  const inParent = numbers(await page.getByTestId('between').innerText());
  await page.getByRole('region', { name: 'Local' }).getByRole('button', { name: 'drive from here' }).click();
  // Hung under the world it keeps its place.
  await nodes.getByLabel('Parent', { exact: true }).selectOption('');
  await expect(stack.getByRole('listitem')).toHaveCount(2);
  near(await rung(page, 'world'), world, 2e-4);
  near(numbers(await page.getByTestId('between').innerText()), inParent, 2e-3);
  // A descendant is no parent.
  await nodes.getByLabel('Node', { exact: true }).selectOption('crane-a');
  expect(await nodes.getByLabel('Parent', { exact: true }).locator('option', { hasText: 'Crane A hook' }).count()).toBe(
    0,
  );
  // A turn about a point of its own: that point stays, the rest goes round.
  await nodes.getByLabel('Node', { exact: true }).selectOption('lighthouse');
  for (const axis of ['x', 'y', 'z']) await type(page, `Local ${axis}`, axis === 'x' ? '3' : '0');
  await type(page, 'Pivot x', '3');
  const pivot = await rung(page, 'world');
  await type(page, 'Angle of the turn', '90');
  await nodes.getByRole('button', { name: 'Turn', exact: true }).click();
  near(await rung(page, 'world'), pivot, 2e-4);
  await type(page, 'Local x', '0');
  const origin = await rung(page, 'world');
  near([Math.hypot(origin[0]! - pivot[0]!, origin[2]! - pivot[2]!)], [3], 2e-4);
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', /Undo: move the probe/);
  const shown = numbers(await page.getByTestId('between').innerText());
  near((await worked(page, 'The probe in the other space', ['line-there'])).slice(0, 3), shown, 2e-3);
});

test('the pointer’s way, and what is left out of it found from printed numbers', async ({ page }) => {
  await unfold(page, 'The pointer’s way');
  const box = (await page.getByTestId('picture').boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.25, box.y + box.height * 0.5);
  const row = async (name: string) => numbers(await page.getByTestId(`way-${name}`).innerText());
  const css = numbers(await page.getByTestId('pointer-css').innerText());
  near(await row('Page'), [css[0]! + 24, css[1]! + 96], 0.06);
  near(
    await row('Framebuffer'),
    css.map((v) => 2 * v),
    0.11,
  );
  near(await row('NDC'), [-0.5, 0], 4e-3);
  near(await worked(page, 'The pointer’s way', ['line-n-x', 'line-n-y']), await row('NDC'), 6e-4);
  // Nothing is left out until the user says so.
  await expect(page.getByTestId('way-miss')).toContainText('Nothing that is left out changes');
  await page.getByLabel('leave out the device pixel ratio').check();
  await expect(page.getByTestId('way-miss')).toContainText('css px off');
  // The device pixel ratio left out at a quarter across halves the way again.
  await type(page, 'Printed x', '-0.75');
  await type(page, 'Printed y', String(0.5));
  const explained = page.getByRole('button', { name: 'Without the device pixel ratio', exact: true });
  await expect(explained).toBeVisible();
  await page.getByLabel('leave out the device pixel ratio').uncheck();
  await expect(page.getByTestId('way-miss')).toContainText('Nothing that is left out changes where the pointer is');
  await explained.click();
  await expect(page.getByLabel('leave out the device pixel ratio')).toBeChecked();
  await type(page, 'Canvas scale', '0.5');
  near(await row('Page'), [css[0]! / 2 + 24, css[1]! / 2 + 96], 0.06);
  // The bottom bar and y up: what the framebuffer has below the viewport.
  await type(page, 'Bar below', '100');
  await page.getByLabel('leave out the viewport’s size').check();
  await expect(page.getByTestId('way-miss')).toContainText('css px off');
});

test('the probe follows the pointer at the depth that is kept', async ({ page }) => {
  await type(page, 'Distance ahead', '5.5');
  await page.getByRole('button', { name: 'Keep the probe at this depth' }).click();
  const box = (await page.getByTestId('picture').boundingBox())!;
  for (const [x, y] of [
    [0.3, 0.4],
    [0.7, 0.6],
  ] as const) {
    await page.mouse.move(box.x + box.width * x, box.y + box.height * y);
    near(await rung(page, 'view').then((v) => [v[2]!]), [-5.5], 1e-4);
    near((await rung(page, 'screen')).slice(0, 2), numbers(await page.getByTestId('pointer-css').innerText()), 0.06);
  }
  await page.mouse.down();
  await page.mouse.up();
  const dropped = await rung(page, 'world');
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.2);
  near(await rung(page, 'world'), dropped, 0);
  await page.keyboard.press('Control+Z');
  near(await rung(page, 'world'), [-21, 20.4, -20], 1e-9);
});

test('a table of 100,000 points: read, converted, filtered, scrolled, probed and saved', async ({ page }, info) => {
  const count = 100_000;
  const lines = Array.from(
    { length: count },
    (_, i) => `p${i};${(i % 201) - 100};${(i % 37) / 2};${((i * 7) % 211) - 100}`,
  );
  const file = info.outputPath('points.csv');
  writeFileSync(file, `name;x;y;z\n${lines.join('\n')}\n`);
  await unfold(page, 'Points');
  const points = sheet(page).getByRole('region', { name: 'Points' });
  const load = (path: string) =>
    giveFile(page, () => points.getByRole('button', { name: 'Load a CSV file…' }).click(), path);
  await load(file);
  await expect(points).toContainText(/converted in \d+ ms/, { timeout: 30_000 });
  const table = page.getByRole('table', { name: 'Points' });
  await expect(table).toHaveAttribute('aria-rowcount', String(count));
  // Only what is in sight is on the page.
  expect(await table.getByRole('row').count()).toBeLessThan(60);
  const groups = points.getByRole('group', { name: 'Which points' });
  const counted = async (name: string) => Number(/\d+$/.exec(await groups.getByRole('button', { name: new RegExp(`^${name}`) }).innerText())![0]); // prettier-ignore
  expect((await counted('on')) + (await counted('off')) + (await counted('behind'))).toBe(count);
  await groups.getByRole('button', { name: /^on/ }).click();
  await expect(table).toHaveAttribute('aria-rowcount', String(await counted('on')));
  await table.evaluate((element) => element.scrollTo(0, element.scrollHeight));
  await expect(table.getByRole('row').last()).toContainText('on screen');
  await table.getByRole('row').last().click();
  await expect(page.getByTestId('verdict')).toContainText('On screen');
  const shown = (await table.getByRole('row').last().getByRole('cell').allInnerTexts()).map((text) => text.trim());
  near(await rung(page, 'world'), shown.slice(2, 5).map(number), 6e-3);
  near((await rung(page, 'screen')).slice(0, 2), shown.slice(11, 13).map(number), 6e-2);
  // What is saved is what the command line says of the same point, digit for digit.
  const [download] = await Promise.all([page.waitForEvent('download'), points.getByRole('button', { name: 'Save as CSV' }).click()]); // prettier-ignore
  const out = info.outputPath('out.csv');
  await download.saveAs(out);
  const saved = execFileSync('head', ['-2', out], { encoding: 'utf8' }).trim().split('\n').map((line) => line.split(',')); // prettier-ignore
  const column = (name: string) => Number(saved[1]![saved[0]!.indexOf(name)]);
  const world = ['x', 'y', 'z'].map((axis) => column(`world ${axis}`));
  const [answer] = await asked(page, [{ id: 'p', op: 'worldToScreen', points: [world] }], info.outputPath('q.json'));
  const point = (answer as unknown as { points: { screen: number[]; ndc: number[]; clip: number[] }[] }).points[0]!;
  near([column('screen x'), column('screen y')], point.screen, 1e-9 * 1e3);
  near(
    ['x', 'y', 'z'].map((axis) => column(`ndc ${axis}`)),
    point.ndc,
    1e-12,
  );
  near(
    ['x', 'y', 'z', 'w'].map((axis) => column(`clip ${axis}`)),
    point.clip,
    1e-9,
  );
  // The camera moves: the table follows. A bad file changes nothing.
  await groups.getByRole('button', { name: /^all/ }).click();
  const before = await counted('on');
  await page.getByRole('link', { name: 'Frame' }).click();
  await type(page, 'yaw', '120');
  await page.getByRole('link', { name: 'Convert' }).click();
  await expect.poll(() => counted('on')).not.toBe(before);
  writeFileSync(file, 'x,y,z\n1,2,3\n4,five,6\n');
  await load(file);
  await expect(points.getByRole('alert')).toContainText('Nothing was taken');
  await expect(points.getByRole('alert')).toContainText('line 3');
  await expect(points.getByRole('alert')).toContainText('y is “five”');
  expect(await counted('all')).toBe(count);
  await page.getByLabel('Points to take').fill('1 2 3\n4 5 6');
  await points.getByRole('button', { name: 'Take these' }).click();
  await expect.poll(() => counted('all')).toBe(2);
  // Kept with the project; deleted and brought back.
  await page.waitForTimeout(300);
  await page.reload();
  await expect.poll(() => counted('all')).toBe(2);
  await points.getByRole('button', { name: 'Delete the points of the text' }).click();
  // The other set is there still.
  await expect.poll(() => counted('all')).toBe(count);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => counted('all')).toBe(2);
});

test('scrolling a flat world: which edges land between pixels, and what snapping does', async ({ page }) => {
  await page.getByRole('button', { name: 'Saltmarrow harbour' }).click();
  await page.getByRole('menuitem', { name: /Saltmarrow chart/ }).click();
  await unfold(page, 'Scroll and seams');
  await page.getByRole('link', { name: 'Frame' }).click();
  await page.getByRole('button', { name: 'Zoom 5: 256 × 144 metres' }).click();
  await page.getByRole('link', { name: 'Convert' }).click();
  await type(page, 'Scroll right', '-13.05');
  const edges = page.getByTestId('edges-x');
  await expect(edges).toContainText('8 of 8 edges land between pixels free, no edge lands between pixels snapped');
  await page.getByRole('group', { name: 'Snap the scroll' }).getByRole('button', { name: 'nearest' }).click();
  await expect(edges).toContainText('to the nearest');
  // A tile of 8 at zoom 5 is 40 px wherever it is snapped.
  await expect(edges).toContainText('40 px snapped');
  await page.getByRole('button', { name: 'Working: From the pixel to the point' }).click();
  await expect(page.getByRole('dialog', { name: 'Working: From the pixel to the point' })).toContainText(
    'p = Rᵀ·(pixel − t) ÷ zoom',
  );
  expect(await read(page, 'Scroll right')).toBeCloseTo(-13.05, 6);
});
