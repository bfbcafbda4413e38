import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { finds as convertFinds } from '../app/tasks/convert/finds';
import { finds as frameFinds } from '../app/tasks/frame/finds';
import { giveFile, goTo, near, openBench, rung, unfold } from './bench';

/** A whole session by the keyboard: nothing here touches the pointer. */

/** What has the focus, as a screen reader would name it. */
const focused = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const one = document.activeElement;
    if (!one || one === document.body) return '';
    const labelled = one.getAttribute('aria-labelledby');
    return (
      one.getAttribute('aria-label') ??
      (labelled ? document.getElementById(labelled)?.textContent : null) ??
      (one as HTMLInputElement).labels?.[0]?.textContent ??
      one.textContent ??
      ''
    ).trim();
  });

/** Tabs on until something of that name has the focus. */
async function tabTo(page: Page, name: string | RegExp, back = false): Promise<void> {
  const fits = (text: string) => (typeof name === 'string' ? text === name : name.test(text));
  for (let i = 0; i < 250; i++) {
    await page.keyboard.press(back ? 'Shift+Tab' : 'Tab');
    if (fits(await focused(page))) return;
  }
  throw new Error(`the Tab key does not come to “${name}”`);
}

async function command(page: Page, name: string): Promise<void> {
  await page.keyboard.press('Escape');
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press('/');
  await expect(page.getByPlaceholder('Commands, fields, help, bodies')).toBeFocused();
  await page.keyboard.insertText(name);
  await expect(page.locator('[cmdk-item][data-selected=true]')).toContainText(name);
  await page.keyboard.press('Enter');
  await expect(page.getByPlaceholder('Commands, fields, help, bodies')).toBeHidden();
  // A key that follows is for the page, not for the field that is going.
  await expect.poll(() => page.evaluate(() => document.activeElement?.tagName)).not.toBe('INPUT');
}

async function typeIn(page: Page, value: string): Promise<void> {
  await page.keyboard.press('ControlOrMeta+A');
  await page.keyboard.type(value);
  await page.keyboard.press('Enter');
}

const value = async (page: Page, name: string) =>
  Number((await page.getByLabel(name, { exact: true }).inputValue()).replaceAll('\u2212', '-'));

test('a whole session without the pointer', async ({ page }, info) => {
  test.setTimeout(180_000);
  await openBench(page, '/frame');
  // Help, and away again; the focus comes back to where it was.
  await tabTo(page, 'Near');
  await page.keyboard.press('F1');
  await expect(page.getByRole('heading', { name: 'Help with Frame' })).toBeFocused();
  await expect(page.getByRole('complementary', { name: 'Help' })).toContainText('Near decides nearly everything');
  await page.keyboard.press('Escape');
  expect(await focused(page)).toBe('Near');

  // What there is to try ticks itself off when it is done.
  const tries = page.getByRole('region', { name: 'To try' });
  await typeIn(page, '200');
  const stale = page.locator('.stale-note');
  await expect(stale).toBeVisible();
  await expect(tries.getByRole('listitem').filter({ hasText: 'Type 200' })).toContainText('Done:');
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.press('ControlOrMeta+Z');
  expect(await value(page, 'Near')).toBe(5);
  await expect(stale).toBeHidden();

  // The eye, grabbed in a drawing.
  const eye = await value(page, 'Eye x');
  await tabTo(page, 'Move the eye');
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowRight');
  expect(await value(page, 'Eye x')).toBeGreaterThan(eye);
  await page.keyboard.press('ControlOrMeta+Z');

  // Conventions from their sheet, opened and left by keys.
  await tabTo(page, /^WebGPU/);
  await page.keyboard.press('Enter');
  await tabTo(page, 'Vulkan');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: /Vulkan/ })).toBeVisible();

  // Another task; another rung drives.
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.press('2');
  await expect(page.getByRole('heading', { name: 'World point to screen' })).toBeVisible();
  const heldRung = () => page.evaluate(() => document.activeElement?.closest('[data-rung]')?.getAttribute('data-rung'));
  do await tabTo(page, 'drive from here');
  while ((await heldRung()) !== 'screen');
  await page.keyboard.press('Enter');
  await tabTo(page, 'Screen x');
  await typeIn(page, '640');
  near((await rung(page, 'screen')).slice(0, 1), [640], 1e-9);

  // A working, and from a number of it to the field that set it.
  await tabTo(page, 'Working: The Jacobian of the pixel');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toContainText('Its screen x with the point');
  await tabTo(page, /from the near limit$/);
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Near', { exact: true })).toBeFocused();

  // A body added, moved, and deleted.
  await command(page, 'Add a box at the probe');
  await page.keyboard.press('2');
  await tabTo(page, 'Nodes');
  await page.keyboard.press('Enter');
  await tabTo(page, 'Position x');
  await typeIn(page, '7');
  expect((await rung(page, 'world'))[0]).toBeCloseTo(7, 3);
  await command(page, 'Delete Box');
  await expect(page.getByRole('button', { name: 'Probe: Free point' })).toBeVisible();

  // Out to a file, and in again.
  const download = page.waitForEvent('download');
  await page.keyboard.press('ControlOrMeta+S');
  const file = info.outputPath('project.json');
  await (await download).saveAs(file);
  expect(JSON.parse(readFileSync(file, 'utf8'))).toMatchObject({ name: 'Saltmarrow harbour' });
  const asking = page.locator('input[type=file]');
  await giveFile(
    page,
    () => page.keyboard.press('ControlOrMeta+O'),
    {
      name: 'stakes.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('name,x,y,z\nWest stake,-8,1,-12\nEast stake,9,1,-12\n'),
    },
    // What asks is part of the page until it is answered, so that it cannot be cleared away before.
    () => expect(asking).toHaveCount(1),
  );
  await expect(page.locator('.notice', { hasText: 'Took the points of stakes.csv' })).toBeVisible();
  await expect(asking).toHaveCount(0);
  await tabTo(page, 'Make them a project');
  await page.keyboard.press('Enter');
  await expect(page.locator('.notice', { hasText: 'Opened stakes: 2 points, each a body' })).toBeVisible();
  await command(page, 'Probe East stake');
  near(await rung(page, 'world'), [9, 1, -12], 1e-9);

  // The page of projects: a version, another name, a copy, gone and back.
  await command(page, 'All projects and versions');
  await tabTo(page, 'A name for the version');
  await typeIn(page, 'Before the storm');
  await expect(page.getByRole('list', { name: 'Kept versions' })).toContainText('Before the storm');
  await tabTo(page, 'Rename stakes', true);
  await page.keyboard.press('Enter');
  await typeIn(page, 'Two stakes');
  await tabTo(page, 'Duplicate Two stakes');
  await page.keyboard.press('Enter');
  await tabTo(page, /^Delete Two stakes, copy/);
  await page.keyboard.press('Enter');
  const list = page.getByRole('list', { name: 'Kept projects' });
  await expect(list).not.toContainText('Two stakes, copy');
  await tabTo(page, 'Bring it back');
  await page.keyboard.press('Enter');
  await expect(list).toContainText('Two stakes, copy');
  await tabTo(page, '3D demo: the harbour');
  await tabTo(page, /^Two stakes$/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'The Chain' })).toBeVisible();
});

test('what is probed stays probed by whoever goes to another task at once', async ({ page }) => {
  await openBench(page, '/frame?probe=lighthouse');
  await expect(page).toHaveURL(/probe=lighthouse/);
  await page.getByRole('button', { name: 'Probe: Lighthouse' }).click();
  const gull = page.getByRole('option', { name: 'Gull 1' });
  await gull.evaluate((item: HTMLElement) => {
    item.click();
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key: '2', bubbles: true }));
  });
  await expect(page).toHaveURL(/convert\?probe=gull-1/);
  await expect(page.getByRole('button', { name: 'Probe: Gull 1' })).toBeVisible();
});

test('who goes on while a pop-over or a menu closes keeps the focus', async ({ page }) => {
  await openBench(page);
  for (const opener of [page.getByRole('button', { name: /^Working:/ }).first(), page.locator('.project-button')]) {
    await opener.click();
    await expect(page.locator('.pop:focus-within, .menu:focus-within')).toBeVisible();
    await page.evaluate(() => {
      document.activeElement!.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }));
      document.querySelector<HTMLElement>('[data-rung="world"] input')!.focus();
    });
    await expect(page.locator('.pop, .menu')).toHaveCount(0);
    await page.waitForTimeout(100);
    expect(await focused(page)).toBe('World x');
    // And at once to the search, as a quick hand has it.
    await opener.click();
    await expect(page.locator('.pop:focus-within, .menu:focus-within')).toBeVisible();
    await page.keyboard.press('Escape');
    await page.keyboard.press('/');
    await expect(page.getByPlaceholder('Commands, fields, help, bodies')).toBeFocused();
    await page.keyboard.press('Escape');
  }
});

test('what has the focus is seen to have it, wherever the Tab key comes', async ({ page }) => {
  test.setTimeout(120_000);
  for (const route of ['/frame', '/convert', '/projects']) {
    await page.goto(route);
    await expect(page.getByRole('heading', { name: /The Chain|^Projects$/ })).toBeVisible();
    await page.waitForTimeout(500);
    const seen = new Set<string>();
    const unseen: string[] = [];
    const nameless: string[] = [];
    for (let i = 0; i < 160; i++) {
      await page.keyboard.press('Tab');
      const name = await focused(page);
      const at = await page.evaluate(() => {
        const one = document.activeElement as HTMLElement;
        // What the focus changes, on the thing itself, what it is in, or what is drawn in it.
        const looks = () =>
          [one, one.parentElement!, ...one.querySelectorAll('*')]
            .map((part) => {
              const { outline, boxShadow, borderColor, backgroundColor, stroke, fill, opacity, color } =
                getComputedStyle(part);
              return [outline, boxShadow, borderColor, backgroundColor, stroke, fill, opacity, color].join();
            })
            .join('|');
        const held = looks();
        one.blur();
        const free = looks();
        one.focus({ focusVisible: true } as FocusOptions);
        return { body: one === document.body, shown: held !== free, html: one.outerHTML.slice(0, 90) };
      });
      if (at.body) break;
      seen.add(at.html);
      if (!at.shown) unseen.push(at.html);
      if (!name) nameless.push(at.html);
    }
    expect(seen.size, route).toBeGreaterThan(10);
    expect(unseen, route).toEqual([]);
    expect(nameless, route).toEqual([]);
  }
});

// That every command runs is asked in Node (app/shell/commands.test.ts); here the search runs some.
test('commands run by their names', async ({ page }) => {
  const problems: string[] = [];
  page.on('pageerror', (error) => problems.push(error.message));
  await openBench(page, '/frame');
  await command(page, 'Change between paper and night');
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night');
  await command(page, 'Fit everything');
  await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled();
  await command(page, 'Undo');
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
  await command(page, 'Open the demo, Saltmarrow chart');
  await expect(page.getByRole('region', { name: 'Focus and anchor' })).toBeVisible();
  await command(page, 'Go to Spawn');
  await expect(page).toHaveURL(/spawn/);
  expect(problems).toEqual([]);
});

test('fields, sections and help are found by their names and by other words of the trade', async ({ page }) => {
  await openBench(page, '/frame');
  // The worksheet is two keys from the top, and one from anywhere.
  await page.keyboard.press('Tab');
  await expect(page.getByRole('button', { name: 'Skip to the worksheet' })).toBeFocused();
  await page.keyboard.press('Enter');
  const inSheet = () => page.evaluate(() => document.activeElement!.closest('.sheet') !== null);
  expect(await inSheet()).toBe(true);
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.press('w');
  expect(await inSheet()).toBe(true);

  const search = async (typed: string) => {
    const field = page.getByPlaceholder('Commands, fields, help, bodies');
    // What was gone to takes the focus when the search has closed, which may be after it was let go.
    await expect(async () => {
      await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
      if (!(await field.isVisible())) await page.keyboard.press('/');
      await expect(field).toBeFocused({ timeout: 1500 });
    }).toPass();
    await page.keyboard.insertText(typed);
    await expect(page.locator('[cmdk-item][data-selected=true]')).toBeVisible();
    const first = await page.locator('[cmdk-item]').first().innerText();
    await page.keyboard.press('Enter');
    return first;
  };
  expect(await search('fov')).toContain('field of view');
  await expect.poll(() => focused(page)).toMatch(/field$/);
  expect(await search('translate')).toMatch(/in (Frame|Convert)/);
  expect(await search('unproject')).toContain('in Convert');
  await expect(page).toHaveURL(/convert/);
  expect(await search('devicePixelRatio')).toContain('Device pixels per CSS pixel');
  await expect.poll(() => focused(page)).toBe('Device pixels per css px');
  expect(await search('shear is refused')).toContain('help with Convert');
  await expect(page.getByRole('complementary', { name: 'Help' })).toBeVisible();
  await expect.poll(() => page.evaluate(() => document.activeElement?.getAttribute('data-passage'))).toBe('Nodes');
});

test('everything that can be found is there', async ({ page }) => {
  for (const world of ['space', 'flat'] as const) {
    await openBench(page, '/frame');
    if (world === 'flat') {
      await page.getByRole('button', { name: /^Saltmarrow/ }).click();
      await page.getByRole('menuitem', { name: /Saltmarrow chart/ }).click();
    }
    for (const [task, finds] of [
      ['Frame', frameFinds],
      ['Convert', convertFinds],
    ] as const) {
      await goTo(page, task);
      const first = { Frame: { space: 'seen', flat: 'flat-seen' }, Convert: { space: 'to-screen', flat: 'to-screen' } };
      await expect(page.locator(`.sheet [data-section="${first[task][world]}"]`)).toBeVisible();
      await unfold(page);
      for (const { name, at } of finds.filter((one) => (one.world ?? world) === world))
        await expect(page.locator(at).first(), `${name} of ${task}, ${world}`).toBeAttached();
    }
  }
});
