import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { near, number, openBench, picture, type } from './bench';

/* Visibility, walked: verdicts, false alarms, shortcuts, why not, screens, shadows and sizes. */

const open = async (page: Page, short: string): Promise<void> => {
  await page.getByRole('navigation', { name: 'Sections' }).getByRole('button', { name: short, exact: true }).click();
};
const choose = (page: Page, group: string, option: string) =>
  page.getByRole('group', { name: group, exact: true }).getByRole('button', { name: option, exact: true }).click();
const cells = (page: Page, list: string) => page.getByRole('table', { name: list, exact: true }).locator('.data-body [role=row]'); // prettier-ignore
const read = async (page: Page, id: string): Promise<string> => (await page.getByTestId(id).textContent())!;
const counts = async (page: Page): Promise<Record<string, number>> =>
  Object.fromEntries(
    await Promise.all(
      ['inside', 'crosses', 'outside'].map(async (one) => [one, number(await read(page, `count-${one}`))] as const),
    ),
  );

/** What the command line answers to the project as it stands. */
async function answers(page: Page, file: string) {
  await page.locator('.project-button').click();
  await page.getByRole('menuitem', { name: 'Copy as a compute request' }).click();
  writeFileSync(file, await page.evaluate(() => navigator.clipboard.readText()));
  const out = execFileSync('node', ['bin/astrolabe.js', 'compute', file], { encoding: 'utf8', maxBuffer: 2 ** 26 });
  const { results } = JSON.parse(out) as { results: (Record<string, never> & { id: string })[] };
  return Object.fromEntries(results.map((one) => [one.id, one]));
}

test('what is in the frustum, what the planes and shortcuts make of it, and why a body is not seen', async ({
  page,
}, info) => {
  await openBench(page, '/visibility');
  const exact = await counts(page);
  expect(exact.inside! + exact.crosses! + exact.outside!).toBe(82);
  const before = await picture(page);
  await choose(page, 'Test', 'planes');
  const planes = await counts(page);
  expect(planes.outside).toBeLessThanOrEqual(exact.outside!);
  const alarms = Number(/^\d+/.exec(await read(page, 'alarms'))?.[0] ?? 0);
  expect(exact.outside! - planes.outside!).toBe(alarms);
  await choose(page, 'Test', 'exact');
  expect(await picture(page)).toBe(before);

  // A margin takes in what is near the picture, and is taken back.
  await type(page, 'Margin', '300');
  expect((await counts(page)).outside).toBeLessThan(exact.outside!);
  await type(page, 'Margin', '-400');
  await expect(page.getByText('leaves nothing of the viewport')).toBeVisible();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  expect(await counts(page)).toEqual(exact);

  // The list by verdict; a row selects its body, and Why not asks about it.
  await page.getByLabel('Show of the bodies').selectOption('outside');
  await expect(cells(page, 'bodies').first()).toBeVisible();
  const clear = (await cells(page, 'bodies').locator('span:nth-child(3)').allTextContents()).filter((v) => v !== '—');
  expect(clear.every((v) => number(v) <= 0)).toBe(true);

  await choose(page, 'Shortcut', 'sphere');
  await type(page, 'Radii of the sphere', '1');
  await expect(page.getByTestId('shortcut')).toContainText('0 missed');
  await choose(page, 'Shortcut', 'centre');
  await expect(page.getByTestId('shortcut')).toContainText('missed');

  // Behind the eye: the smallest turn shows it.
  await open(page, 'Why not');
  const asks = page.getByLabel('The body that is asked about');
  await asks.selectOption({ label: 'Pilot launch' });
  await expect(page.getByTestId('why')).toContainText('Pilot launch lies behind the eye');
  await expect(page.getByTestId('mend').first()).toContainText('Turn by');
  await page.getByTestId('mend').first().click();
  await expect(page.getByTestId('why')).not.toContainText('behind the eye');
  await expect(page.getByTestId('why')).not.toContainText('off the picture');
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('why')).toContainText('behind the eye');
  // Past far: far is raised by as much as it takes.
  await asks.selectOption({ label: 'Headland' });
  await expect(page.getByTestId('why')).toContainText('lies past far');
  await page.getByTestId('mend').first().click();
  await expect(page.getByTestId('why')).toHaveText('Headland is seen.');
  await page.keyboard.press('Control+z');
  // Hidden, and by what; a point has no surface.
  await asks.selectOption({ label: 'Bollard 5' });
  await expect(page.getByTestId('why')).toContainText(/is seen|hidden by/);
  await asks.selectOption({ label: 'Lighthouse lamp' });
  await expect(page.getByTestId('why')).toContainText('a point');
  await asks.selectOption({ label: 'Lighthouse' });
  await expect(page.getByTestId('why')).toHaveText('Lighthouse is seen.');

  // The sheet's numbers are the command line's.
  const found = await answers(page, info.outputPath('request.json'));
  expect(found['visible']!.counts).toEqual(exact);
  const by = found['visible by the shortcut']!.counts as unknown as Record<string, number>;
  await expect(page.getByTestId('shortcut')).toContainText(`Right for ${by.right}; ${by.missed} missed, ${by['false alarm']} false alarm`); // prettier-ignore
});

test('other screens, shadows alone, and sizes with their thresholds', async ({ page }, info) => {
  await openBench(page, '/visibility');
  await open(page, 'Screens');
  const rows = page.locator('[data-testid^="screen "]');
  await expect(rows).toHaveCount(5);
  for (const row of await rows.all()) {
    const sum = (await row.locator('.font-mono').allTextContents()).map(Number).reduce((a, b) => a + b, 0);
    expect(sum).toBe(82);
  }
  expect(await cells(page, 'bodies the screens differ on').count()).toBeGreaterThan(0);
  await open(page, 'Shadows');
  const alone = Number(/^\d+/.exec(await read(page, 'shadows'))?.[0] ?? 0);
  expect(alone).toBeGreaterThan(0);
  await page.getByLabel('Show of the casters in view').selectOption('shadow alone');
  await expect(cells(page, 'casters in view')).toHaveCount(alone);

  await open(page, 'Size');
  await page.getByLabel('The body that is asked about').selectOption({ label: 'Buoy 1' });
  await expect(page.getByTestId('size')).toContainText('Buoy 1');
  const px = Number(/([\d.]+) px across/.exec(await read(page, 'size'))![1]);
  // At the distance where it is as large as it is now, it is where it is now.
  await type(page, 'Threshold 1', String(px));
  const shown = number(await read(page, 'switch-0'));
  const found = await answers(page, info.outputPath('request.json'));
  const sizes = found['apparent sizes']!.bodies as unknown as { body: string; diameter: number; switches: number[] }[];
  const own = sizes.find(({ body }) => body === 'buoy-1')!;
  near([px, shown], [own.diameter, own.switches[0]!], 0.06);
  await expect(page.getByTestId('hysteresis')).toContainText('goes down a level at');
  await type(page, 'Hysteresis', '0');
  await expect(page.getByTestId('hysteresis')).toContainText('Without hysteresis');
  await page.getByRole('button', { name: 'Add a threshold' }).click();
  await page.getByRole('button', { name: 'Remove threshold 4' }).click();
  await page.getByLabel('Show of the levels').selectOption('level 3');
  expect(await cells(page, 'levels').count()).toBeGreaterThan(0);
});

test('over time: bars, events at the moments solved for, and how late a test once a frame is', async ({ page }) => {
  await openBench(page, '/visibility');
  await open(page, 'Time');
  await choose(page, 'What moves', 'a turn');
  await type(page, 'Seconds looked at', '4');
  await type(page, 'Turn of the camera', '90');
  await expect(page.getByTestId('over-time')).toContainText('enters or leaves', { timeout: 60_000 });
  await expect(page.getByRole('img', { name: 'In view over time, a body a line' })).toBeVisible();
  // A full turn: the light of the tower's lamp, a point in the middle of the left half, leaves by the
  // left edge and comes back by the right one, at half the horizontal field of view from there.
  const lamp = cells(page, 'events').filter({ hasText: 'Lighthouse lamp' });
  await page.getByRole('table', { name: 'events' }).getByRole('button', { name: 'Body' }).click();
  const list = page.getByRole('table', { name: 'events' }).locator('.data-body');
  for (let i = 0; i < 60 && (await lamp.count()) < 2; i++)
    await list.evaluate((element) => void (element.scrollTop += 80));
  const times = (await lamp.locator('span:nth-child(1)').allTextContents()).map(number).sort((a, b) => a - b);
  expect(times).toHaveLength(2);
  // It stands at a bearing from the eye; the turn is 90° a second from a yaw of 6°, the view 60.02° wide.
  const bearing = (Math.atan2(-21 - -6, 64 - -20) * 180) / Math.PI;
  expect(times[1]! - times[0]!).toBeGreaterThan(3);
  expect(Math.abs(times[0]! - (bearing - 6 + 30) / 90)).toBeLessThan(0.05);
  const late = (await lamp.locator('span:nth-child(4)').allTextContents()).map(number);
  for (const [i, one] of times.entries()) {
    const next = Math.ceil(one * 10 - 1e-6) / 10;
    expect(
      late.some((v) => Math.abs(v - (next - one) * 1000) < 0.6),
      `${i}`,
    ).toBe(true);
  }
  await choose(page, 'What moves', 'a walk');
  await expect(page.getByTestId('over-time')).toContainText(/enters or leaves|Nothing enters/, { timeout: 60_000 });
});

test('on a flat world: verdicts with a margin, why not, and sizes', async ({ page }, info) => {
  await openBench(page, '/visibility');
  await page.keyboard.press('/');
  await page.getByPlaceholder('Commands, fields, help, bodies').fill('Open the demo, Saltmarrow chart');
  await page.keyboard.press('Enter');
  await expect(page.getByText('On a flat world near and far play no part.')).toBeVisible();
  const exact = await counts(page);
  expect(exact.inside! + exact.crosses! + exact.outside!).toBe(21);
  await page.getByLabel('The body that is asked about').selectOption({ label: 'Fairway buoy' });
  const why = await read(page, 'why');
  expect(why).toMatch(/is seen|off the picture/);
  await type(page, 'Margin', '-200');
  expect((await counts(page)).outside).toBeGreaterThan(exact.outside!);
  const found = await answers(page, info.outputPath('flat.json'));
  expect(found['visible']!.counts).toEqual(await counts(page));
});

test('a field of test bodies: its counts are those of the same bodies one by one, while the camera moves too', async ({
  page,
}, info) => {
  await openBench(page, '/visibility');
  await open(page, 'Field');
  await page.getByLabel('Fill a box with test bodies').check();
  await choose(page, 'Arrangement of the test bodies', 'scatter');
  await choose(page, 'Shape of the test bodies', 'boxes');
  await type(page, 'How many test bodies', '1500');
  await type(page, 'Size of the test bodies', '7');
  const tested = page.getByTestId('field-tested');
  await expect(tested).toContainText('By the tree');
  const field = async () =>
    Object.fromEntries(
      await Promise.all(
        ['inside', 'crosses', 'outside'].map(
          async (one) => [one, Number((await read(page, `field-${one}`)).replaceAll(',', ''))] as const,
        ),
      ),
    );
  const first = await field();
  expect(first.inside! + first.crosses! + first.outside!).toBe(1500);

  // The same bodies by the command line, whose test knows nothing of the field's.
  const saved = page.waitForEvent('download');
  await page
    .getByRole('button', { name: 'Save as CSV' })
    .and(page.locator('[data-section="visibility-field"] *'))
    .click();
  const rows = readFileSync(await (await saved).path(), 'utf8').trim().split(/\r?\n/).slice(1).map((row) => row.split(',')); // prettier-ignore
  expect(rows).toHaveLength(1500);
  await page.locator('.project-button').click();
  await page.getByRole('menuitem', { name: 'Copy as a compute request' }).click();
  const request = JSON.parse(await page.evaluate(() => navigator.clipboard.readText())) as Record<string, unknown>;
  const bodies = rows.map((row, i) => ({ id: `${i}`, shape: { kind: 'box', size: [7, 7, 7] }, position: row.slice(0, 3).map(Number) })); // prettier-ignore
  const file = info.outputPath('field.json');
  const queries = ['exact', 'planes'].map((method) => ({ id: method, op: 'visibility', method }));
  writeFileSync(file, JSON.stringify({ ...request, bodies, queries }));
  const out = execFileSync('node', ['bin/astrolabe.js', 'compute', file], { encoding: 'utf8', maxBuffer: 2 ** 26 });
  const [exact, planes] = (JSON.parse(out) as { results: { counts: Record<string, number>; bodies: { verdict: string }[] }[] }).results; // prettier-ignore
  expect(exact!.counts).toEqual(first);
  expect(exact!.bodies.map(({ verdict }) => verdict)).toEqual(rows.map((row) => row[3]));
  const alarms = exact!.bodies.filter(({ verdict }, i) => verdict === 'outside' && planes!.bodies[i]!.verdict !== 'outside').length; // prettier-ignore
  await expect(page.getByTestId('field-alarms')).toContainText(
    alarms ? `${alarms} of those outside` : 'no false alarm among them',
  );

  // Many, and a camera that is turned by the keyboard: the counts follow, and the box is moved by its corner.
  await type(page, 'How many test bodies', '200000');
  await expect(page.getByTestId('field-outside')).toContainText(',');
  const many = await field();
  const aim = page.getByRole('button', { name: /Move the aim/ }).first();
  await aim.focus();
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowRight');
  await expect.poll(async () => (await field()).inside).not.toBe(many.inside);
  const corner = page.getByRole('button', { name: /the box of test bodies by its last corner/ }).first();
  const before = await page.getByLabel('Box of test bodies to x').inputValue();
  await corner.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByLabel('Box of test bodies to x')).not.toHaveValue(before);
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel('Box of test bodies to x')).toHaveValue(before);
});

test('what has left the view is put away, pops in late or is missing', async ({ page }) => {
  await openBench(page, '/visibility');
  await open(page, 'Time');
  await choose(page, 'What moves', 'a turn');
  await type(page, 'Seconds looked at', '4');
  await type(page, 'Turn of the camera', '90');
  await choose(page, 'What is done with what has left the view', 'deactivated');
  await type(page, 'Margin of what is put away', '0');
  const told = page.getByTestId('put-away');
  await expect(told).toContainText('after it should be seen', { timeout: 60_000 });
  // Without a margin nothing is noticed before it is in view: it is late by no more than one test.
  const late = Number(/up to ([\d.]+) ms late/.exec((await told.textContent())!)![1]);
  expect(late).toBeGreaterThan(50);
  expect(late).toBeLessThanOrEqual(100);
  const pops = cells(page, 'bodies put away');
  await page.getByLabel('Show of the bodies put away').selectOption('pops in');
  for (const one of await pops.locator('span:nth-child(4)').allTextContents())
    expect(number(one)).toBeLessThanOrEqual(0.1);
  // A tenth of a second of such a turn is 9°: with so wide a margin nothing is late at the sides. What
  // comes in over far is, whatever the margin.
  await type(page, 'Margin of what is put away', '400');
  await expect(told).toContainText('1 body pops in', { timeout: 60_000 });
  await expect(told).toContainText('what comes in over far, more tests alone');
  // What is removed comes round again.
  await choose(page, 'What is done with what has left the view', 'removed');
  await expect(told).toContainText('would be missing', { timeout: 60_000 });
  await expect(cells(page, 'bodies put away').first()).toContainText(/put away|missing/);
});
