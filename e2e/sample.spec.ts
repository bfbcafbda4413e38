import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
// Contexts of their own: the sample is served from another origin.
import { base as test, expect } from './test';
import { rooms, sampleTree } from '../scripts/lib/sampleTree.mjs';
import { drawn, giveFile } from './bench';

/*
 * A task is a folder and a line: the sample is put into a copy of the tree, built, used in the
 * browser and taken away again. Nothing outside its folder knows it.
 */

let made: Awaited<ReturnType<typeof sampleTree>>;
test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
  made = await sampleTree();
});
test.afterAll(() => made?.close());

async function open(page: Page, seed = '1'): Promise<void> {
  await page.goto(`${made.address}/frame`);
  await expect(page.getByRole('heading', { name: 'The Chain' })).toBeVisible();
  await drawn(page);
  await page.keyboard.press('m');
  await expect(page).toHaveURL(/\/sample/);
  await expect(page.getByTestId('seed')).toHaveText(seed);
}

/** How many pixels of a picture have one of some colours, to a few steps. */
async function pixelsOf(page: Page, picture: string, colours: readonly string[]): Promise<number> {
  const shot = (await page.locator(`[data-picture="${picture}"]`).screenshot()).toString('base64');
  return page.evaluate(
    async ([base64, wanted]) => {
      const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
      const image = await createImageBitmap(new Blob([bytes], { type: 'image/png' }));
      const context = new OffscreenCanvas(image.width, image.height).getContext('2d')!;
      context.drawImage(image, 0, 0);
      const { data } = context.getImageData(0, 0, image.width, image.height);
      const rgb = wanted.map((hex) => [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16)));
      let count = 0;
      for (let i = 0; i < data.length; i += 4)
        if (rgb.some((one) => one.every((v, k) => Math.abs(v - data[i + k]!) < 4))) count++;
      return count;
    },
    [shot, colours] as const,
  );
}
/** As they look from above, lit; and a quay's side. */
const tones = { inside: ['#dcedea'], outside: ['#efe2ef'], crosses: ['#ebd6a4', '#d3b370', '#f7ebcf'] };

test('a task that is a folder and a line has all that a task can have', async ({ page }) => {
  test.setTimeout(150_000);
  await open(page);

  // Its job runs off the page, shows how far it is, and answers sheet and pictures.
  const counting = page.locator('.notice', { hasText: 'Counting the sample' });
  await expect(counting).toBeVisible();
  await expect(counting.locator('progress')).toHaveJSProperty('max', 1);
  await expect(page.getByTestId('counted')).toHaveText('60001', { timeout: 20_000 });
  await expect(counting).toBeHidden();
  for (const picture of ['main', 'plan', 'sample/above'])
    await expect(page.locator(`[data-picture="${picture}"] text`, { hasText: 'Sample of 60001' })).toBeVisible();

  // A slice, a key and a try: one press is one step of undo.
  const first = page.locator('.tries li').first();
  await expect(first).toContainText('Press J');
  await page.keyboard.press('j');
  await expect(page.getByTestId('seed')).toHaveText('2');
  await expect(first).toHaveClass(/done/);
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('seed')).toHaveText('1');

  // 20,000 instances by verdict, tints of bodies, marks and panes in the pictures.
  await drawn(page);
  const [inside, outside] = [
    await pixelsOf(page, 'sample/above', tones.inside),
    await pixelsOf(page, 'sample/above', tones.outside),
  ];
  expect(inside).toBeGreaterThan(100);
  expect(outside).toBeGreaterThan(100);
  expect(await pixelsOf(page, 'sample/above', tones.crosses)).toBeGreaterThan(100);
  await expect(page.locator('[data-picture=plan] path.ink-region-edge')).toHaveCount(1);
  await expect(page.getByText('A chart of 60')).toBeVisible();

  // A handle, taken with the keys and with the pointer.
  const handle = page.locator('[data-picture=plan]').getByRole('button', { name: 'Move the centre of the sample' });
  await handle.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', 'Undo: move the sample');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: 'Undo' })).not.toHaveAttribute('title', 'Undo: move the sample');
  const grip = (await handle.boundingBox())!;
  await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2);
  await page.mouse.down();
  await page.mouse.move(grip.x + 60, grip.y + 20, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', 'Undo: move the sample');
  await page.keyboard.press('Control+z');

  // A working whose numbers lead to their field; a command; help.
  await page.getByRole('button', { name: 'Working: The floor of the sample' }).click();
  await page.locator('[data-from=spread]').first().click();
  await expect(page.getByLabel('Spread')).toBeFocused();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Search commands' }).click();
  await page.getByPlaceholder('Commands, fields, help, bodies').fill('scatter the sample');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('seed')).toHaveText('2');
  // The fields of its described state are found by their names, and by other words.
  await page.getByRole('button', { name: 'Search commands' }).click();
  await page.getByPlaceholder('Commands, fields, help, bodies').fill('centre of the sample');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Centre of the sample x')).toBeFocused();
  await page.keyboard.press('Escape');
  await page.keyboard.press('?');
  await expect(page.getByRole('complementary', { name: 'Help' })).toContainText('It is scattered about its centre.');
  await page.keyboard.press('Escape');

  // What it takes: text pasted, and a file that is no text.
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', 'sample 41');
    document.body.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
  });
  await expect(page.getByTestId('seed')).toHaveText('41');
  const ask = () => page.keyboard.press('Control+o');
  await giveFile(page, ask, { name: 'seed.bin', mimeType: 'x/y', buffer: Buffer.from([0x53, 0, 9]) });
  await expect(page.getByTestId('seed')).toHaveText('9');

  // Its part of the compute request.
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Saltmarrow harbour' }).click();
  await page.getByRole('menuitem', { name: 'Save as a compute request' }).click();
  const request = JSON.parse(readFileSync(await (await saving).path(), 'utf8')) as { queries: { id: string }[] };
  expect(request.queries.map(({ id }) => id)).toContain('sample centre');
});

test('what a task keeps survives a page that does not know it, and one that it cannot read is kept and said', async ({
  page,
}, info) => {
  await open(page);
  await page.keyboard.press('j');
  const save = async (name: string) => {
    const saving = page.waitForEvent('download');
    await page.keyboard.press('Control+s');
    const path = info.outputPath(name);
    await (await saving).saveAs(path);
    return JSON.parse(readFileSync(path, 'utf8')) as { name: string; tasks: Record<string, unknown> };
  };
  const load = (content: object) => {
    const buffer = Buffer.from(JSON.stringify(content));
    const file = { name: 'kept.astrolabe.json', mimeType: 'application/json', buffer };
    return giveFile(page, () => page.keyboard.press('Control+o'), file);
  };
  const kept = await save('kept.astrolabe.json');
  expect(kept.tasks.sample).toMatchObject({ version: 2, seed: 2 });

  // The built application has no such task: it opens, edits and saves the project, and nothing is
  // lost.
  await page.goto('/frame');
  await expect(page.getByRole('heading', { name: 'The Chain' })).toBeVisible();
  await drawn(page);
  await expect(page.getByRole('link', { name: 'Sample' })).toHaveCount(0);
  await load({ ...kept, name: 'Carried on' });
  await expect(page.getByRole('button', { name: 'Carried on' })).toBeVisible();
  await page.keyboard.press('c');
  const edited = await save('edited.astrolabe.json');
  expect(edited.tasks).toEqual(kept.tasks);

  // One of a newer version: said, kept, and stood in for by what stands at first.
  await open(page, '2');
  const newer = { version: 9, spread: 'wide' };
  await load({ ...kept, id: 'another', name: 'Of a newer page', tasks: { sample: newer } });
  await expect(page.locator('.notice', { hasText: 'of version 9, and this page knows 2.' })).toBeVisible();
  await expect(page.locator('.notice', { hasText: 'Undo brings back what was here.' })).toBeVisible();
  await expect(page.getByTestId('seed')).toHaveText('1');
  expect((await save('newer.astrolabe.json')).tasks.sample).toEqual(newer);
});

test('nothing outside its folder knows it', () => {
  made.remove();
  for (const room of rooms) expect(() => execFileSync('diff', ['-rq', room, join(made.tree, room)])).not.toThrow();
  expect(() => execFileSync('grep', ['-rliE', '--exclude=*.test.ts', "tasks/sample|'sample'", ...rooms])).toThrow();
});
