import { readFileSync, writeFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { drawn, giveFile, goTo, near, number, numbers, openBench, picture, type } from './bench';
import { answers, cells, choose, open, read } from './sheet';

/* Motion, walked: tracks and charts, the time rule, frame rates, the order of a frame, steering, files. */

const seconds = async (page: Page): Promise<number> =>
  Number(await page.getByRole('slider', { name: 'The moment' }).getAttribute('aria-valuenow'));
/** Steps by the keys of the time rule to a time. */
async function stepTo(page: Page, time: number): Promise<void> {
  await page.getByRole('slider', { name: 'The moment' }).focus();
  for (let left = Math.round((time - (await seconds(page))) * 60); left !== 0;) {
    const by = Math.abs(left) >= 10 ? 10 : 1;
    await page.keyboard.press(`${by === 10 ? 'Shift+' : ''}Arrow${left > 0 ? 'Right' : 'Left'}`);
    left -= Math.sign(left) * by;
  }
  expect(await seconds(page)).toBeCloseTo(time, 3);
  await drawn(page);
}
/** Takes the moment near to a time on the rule, and steps to it. */
async function scrubTo(page: Page, time: number): Promise<void> {
  const rule = (await page.locator('.time-track').boundingBox())!;
  const span = Number(await page.getByRole('slider', { name: 'The moment' }).getAttribute('aria-valuemax'));
  await page.mouse.click(rule.x + (rule.width * time) / span, rule.y + 8);
  // A step of the keys brings it to a whole one: a pixel of the rule is no step.
  await page.getByRole('slider', { name: 'The moment' }).focus();
  await page.keyboard.press('ArrowRight');
  await stepTo(page, time);
}
const lookThrough = (page: Page, name: string) => cells(page, 'cameras').filter({ hasText: name }).click();
const figure = async (page: Page, id: string): Promise<number> =>
  number((await read(page, id)).replace(/[^\d.−-]/g, ''));

test('in space: opening motions, charts, keys on the rule, the order of a frame, with the command line’s numbers', async ({
  page,
}, info) => {
  await openBench(page, '/frame');
  await goTo(page, 'Motion');
  // Opening changes neither the camera nor the time.
  await expect(page.getByRole('button', { name: 'Bridge wing' }).first()).toBeVisible();
  expect(await seconds(page)).toBe(0);
  await lookThrough(page, 'Breakwater');
  await scrubTo(page, 5);
  await expect(page.getByTestId('motion-fov')).toContainText('°');
  // What the page shows at the moment is what the operation answers.
  const track = await trackOf(page);
  const asked = await answers(page, info.outputPath('dolly.json'), [
    { id: 'motion', op: 'motion', track, times: [5] },
    { id: 'p', op: 'worldToScreen', points: [[-21, 13, -20]], when: { track, time: 5 } },
  ]);
  const { times } = asked['motion'] as unknown as { times: { camera: { position: number[]; verticalFov: number } }[] };
  near([await figure(page, 'motion-fov')], [times[0]!.camera.verticalFov], 6e-4);
  const shown = asked['p'] as unknown as { points: { screen: number[] }[] };
  near(shown.points[0]!.screen.slice(0, 2), [640, 360], 0.01);
  // The same moment by any way is the same picture.
  await stepTo(page, 4.5);
  await stepTo(page, 5);
  const stepped = await picture(page, 'main');
  await scrubTo(page, 21);
  await scrubTo(page, 5);
  expect(await picture(page, 'main')).toBe(stepped);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect.poll(() => seconds(page)).toBeGreaterThan(5.5);
  await page.getByRole('button', { name: 'Pause', exact: true }).click();
  await page.keyboard.press('Shift+ArrowRight');
  await stepTo(page, 5);
  expect(await picture(page, 'main')).toBe(stepped);
  await page.reload();
  await drawn(page);
  await scrubTo(page, 5);
  expect(await picture(page, 'main')).toBe(stepped);
  // The end: the field of view has opened, the height is held.
  const before = await figure(page, 'motion-fov');
  await scrubTo(page, 15);
  expect(await figure(page, 'motion-fov')).toBeGreaterThan(before + 40);

  // A path: keys where the camera is, dragged in the plan and on the rule.
  await lookThrough(page, 'Bridge wing');
  await expect(page.getByTestId('shake-miss')).toContainText('misses by');
  await page.getByLabel('Camera', { exact: true }).selectOption({ label: 'goes through keys' });
  await expect(cells(page, 'keys')).toHaveCount(2);
  const key = page.getByRole('slider', { name: 'Move key 2' });
  await key.focus();
  const at = Number(await key.getAttribute('aria-valuenow'));
  await page.keyboard.press('Shift+ArrowRight');
  await expect(key).toHaveAttribute('aria-valuenow', String(at + 1));
  await scrubTo(page, 3);
  await page.getByRole('button', { name: 'Key at the moment' }).click();
  await expect(cells(page, 'keys')).toHaveCount(3);
  const x = page.getByLabel('Key x');
  const was = await x.inputValue();
  await page.locator('[data-picture=plan]').getByRole('button', { name: /key 2 of Bridge wing/ }).focus(); // prettier-ignore
  await page.keyboard.press('ArrowRight');
  await expect(x).not.toHaveValue(was);
  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z');
  await expect(page.getByLabel('Camera', { exact: true })).toHaveValue('rest');
  // Angles of bodies, which the project stores in degrees.
  await open(page, 'Bodies');
  await page.getByLabel('Body', { exact: true }).selectOption('crane-a-hook');
  await expect(page.getByLabel('Amplitude')).toHaveValue('9.00');
  await type(page, 'Amplitude', '12');
  await expect(page.getByLabel('Amplitude')).toHaveValue('12.00');
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel('Amplitude')).toHaveValue('9.00');

  // The order of a frame: a board turned before the camera has moved, in Billboard too.
  await lookThrough(page, 'Round the light');
  await open(page, 'Order');
  await expect(page.getByTestId('order')).toHaveText('Every stage works with this frame.');
  await page.getByLabel('Frames a second of the order').fill('30');
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'billboards turn: earlier' }).click();
  await expect(page.getByTestId('order')).toContainText('billboards turn with a camera 1 frame old');
  // Twelve degrees a second, a thirtieth of a second.
  await expect(page.getByTestId('order')).toContainText(/[1-9][\d.]* pixels .* 0\.39\d°/);
  await goTo(page, 'Billboard');
  await open(page, 'Stale');
  await expect(page.getByTestId('stale-order')).toContainText('off at this moment');
  await goTo(page, 'Motion');
  // Charts above are still being made: what is pressed may move away from under the pointer.
  await expect(async () => {
    await page.getByRole('button', { name: 'In order' }).click();
    await expect(page.getByTestId('order')).toHaveText('Every stage works with this frame.', { timeout: 2000 });
  }).toPass();

  // Frame rates: no time step goes half as far in as many seconds.
  await open(page, 'Frame rates');
  await choose(page, 'Frames a second', '30');
  await expect(page.getByTestId('rates')).toContainText('Off by up to');
  await choose(page, 'Frames a second', '60');
  await expect(page.getByTestId('rates')).toContainText('comes out right');
  // A basis that drifts.
  await open(page, 'Drift');
  await expect(page.getByTestId('drift-error')).toContainText('e-');
});

/** The track that the page copies. */
async function trackOf(page: Page): Promise<unknown> {
  await open(page, 'Files');
  await page.getByRole('button', { name: 'Copy as a track of a request' }).click();
  await expect.poll(() => page.evaluate(() => navigator.clipboard.readText())).toContain('kind');
  return JSON.parse(await page.evaluate(() => navigator.clipboard.readText()));
}

test('steered by keys and pointer, recorded as a track; motions go out and come in as tables', async ({
  page,
}, info) => {
  await openBench(page, '/motion');
  await lookThrough(page, 'Quay');
  await open(page, 'Steer');
  await page.getByRole('button', { name: 'Steer the camera', exact: true }).click();
  await page.keyboard.down('ArrowUp');
  // Walked over frames, of which each counts at most a tenth of a second: held for enough of them.
  await page.evaluate(
    () =>
      new Promise<void>((done) => {
        const [from, frames] = [performance.now(), { left: 8 }];
        const next = () => (--frames.left <= 0 && performance.now() - from > 700 ? done() : void requestAnimationFrame(next)); // prettier-ignore
        requestAnimationFrame(next);
      }),
  );
  await page.keyboard.up('ArrowUp');
  const plate = (await page.locator('[data-picture=main]').boundingBox())!;
  await page.mouse.move(plate.x + plate.width / 2, plate.y + plate.height / 2);
  await page.mouse.down();
  await page.mouse.move(plate.x + plate.width / 2 + 90, plate.y + plate.height / 2, { steps: 9 });
  await page.mouse.up();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Steer the camera', exact: true })).toBeVisible();
  await expect(cells(page, 'stretches').first()).toBeVisible();
  const track = (await trackOf(page)) as { kind: string; inputs: { from: number; to: number; ahead: number; yawRate: number }[] }; // prettier-ignore
  expect(track.kind).toBe('walk');
  const walked = track.inputs.filter(({ ahead }) => ahead > 0);
  expect(walked.reduce((sum, { from, to }) => sum + to - from, 0)).toBeGreaterThan(0.1);
  // Ninety pixels at 0.2° each, whatever the frames were.
  const turned = track.inputs.reduce((sum, { from, to, yawRate }) => sum + yawRate * (to - from), 0);
  expect(Math.abs(turned)).toBeCloseTo(18, 0);
  // One step of undo takes it all back.
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel('Camera', { exact: true })).toHaveValue('rest');

  // Out as a table, in again as a path: the same way.
  await lookThrough(page, 'Round the light');
  await open(page, 'Files');
  await type(page, 'Lines a second', '4');
  const section = page.locator('[data-section="motion-home"]');
  const download = page.waitForEvent('download');
  await section.getByRole('button', { name: 'Save as CSV' }).first().click();
  const table = readFileSync(await (await download).path(), 'utf8');
  expect(table.split(/\r?\n/)[0]).toBe('time,x,y,z,yaw,pitch,roll,fov');
  const path = info.outputPath('motion.csv');
  writeFileSync(path, table);
  await lookThrough(page, 'Quay');
  await open(page, 'Files');
  await giveFile(page, () => section.getByRole('button', { name: 'Take a CSV' }).first().click(), path);
  await expect(page.getByLabel('Camera', { exact: true })).toHaveValue('path');
  const lines = table.trim().split(/\r?\n/).slice(1).map((line) => line.split(',').map(Number)); // prettier-ignore
  const taken = (await trackOf(page)) as { keys: { time: number; position: number[]; yaw: number }[] };
  expect(taken.keys).toHaveLength(lines.length);
  near(taken.keys[9]!.position, lines[9]!.slice(1, 4), 1e-6);
  // A table that is wrong is refused in a sentence.
  writeFileSync(path, 'time,x,y\n0,1,2\n');
  await giveFile(page, () => section.getByRole('button', { name: 'Take a CSV' }).first().click(), path);
  await expect(page.getByText('There is no column for z')).toBeVisible();
});

test('on the chart: the launch followed with a dead zone and bounds, frame rates, whole pixels and layers', async ({
  page,
}, info) => {
  await openBench(page, '/frame');
  await page.getByRole('button', { name: /^Saltmarrow/ }).click();
  await page.getByRole('menuitem', { name: /Saltmarrow chart/ }).click();
  await goTo(page, 'Motion');
  await expect(page.getByLabel('Half-life')).toHaveValue('0.6');
  await scrubTo(page, 10);
  const query = { id: 'motion', op: 'motion', track: await trackOf(page), times: [10] };
  const asked = await answers(page, info.outputPath('chart.json'), [query]);
  const [row] = (asked['motion'] as unknown as { times: [{ camera: { focus: number[] } }] }).times;
  const facts = await page.locator('.facts').first().textContent();
  near(numbers(/focus ([-−\d., ]+)/.exec(facts!)![1]!), row.camera.focus, 0.006);
  // The launch stands within the dead zone or is caught up with.
  const place = numbers(await read(page, 'motion-place'));
  expect(Math.abs(place[0]! - 640)).toBeLessThan(200);

  // The corner of the dead zone, by the keyboard, in the camera’s picture.
  const zone = page.getByLabel('Dead zone x');
  await page.locator('[data-picture=main]').getByRole('button', { name: /the dead zone by its corner/ }).first().focus(); // prettier-ignore
  await page.keyboard.press('Shift+ArrowRight');
  await expect(zone).not.toHaveValue('6');
  await page.keyboard.press('Control+z');
  await expect(zone).toHaveValue('6');

  await open(page, 'Frame rates');
  for (const rate of ['30', '144', 'uneven']) {
    await choose(page, 'Frames a second', rate);
    await expect(page.getByTestId('rates')).toContainText('Off by up to');
  }
  await open(page, 'Pixels');
  await expect(page.getByTestId('seams')).toContainText('A tile is 38.400 pixels');
  await expect(page.getByTestId('seams')).toContainText(/seams in [\d,]+ of/);
  await page.getByRole('button', { name: 'Add a layer' }).click();
  await expect(page.getByLabel('Factor of layer 3')).toHaveValue('0.5');
  // A body of the chart is given a way of its own.
  await open(page, 'Bodies');
  await page.getByLabel('Body', { exact: true }).selectOption({ label: 'Ferry Tern' });
  await page.getByLabel('How the body moves').selectOption({ label: 'drifts evenly' });
  await type(page, 'Drift x', '3');
  await scrubTo(page, 12);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel('How the body moves')).toHaveValue('rest');
});
