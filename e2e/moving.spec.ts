import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { drawn, numbers, openBench, picture, rung } from './bench';

/*
 * Several cameras, the clock, the view from outside, snapshots; and what the floor beneath them
 * promises.
 */

const undo = (page: Page) => page.getByRole('button', { name: 'Undo' });
const time = async (page: Page) =>
  Number.parseFloat(await page.getByRole('status', { name: 'Time in seconds' }).innerText());
const camera = (page: Page, name: string) => page.getByRole('button', { name: `Camera: ${name}` });

test('cameras are switched by key and menu, added, renamed, taken hold of and deleted, each with its own drawings', async ({
  page,
}) => {
  await openBench(page, '/frame');
  const paper = (await page.locator('[data-picture=plan] svg[role=group]').boundingBox())!;
  const bar = page.locator('[data-picture=plan] text.ink-figure').last();
  const scale = (await bar.textContent())!;
  await page.mouse.move(paper.x + 40, paper.y + 30);
  await expect(async () => {
    await page.mouse.wheel(0, -300);
    await expect(bar).not.toHaveText(scale, { timeout: 500 });
  }).toPass();
  const own = (await bar.textContent())!;

  await page.keyboard.press('c');
  await expect(camera(page, 'Breakwater')).toBeVisible();
  await expect(bar).not.toHaveText(own);
  await page.keyboard.press('Shift+C');
  await expect(camera(page, 'Bridge wing')).toBeVisible();
  await expect(bar).toHaveText(own);

  await camera(page, 'Bridge wing').click();
  await page.getByRole('menuitem', { name: 'Isometric' }).click();
  await camera(page, 'Isometric').click();
  await page.getByRole('menuitem', { name: 'Rename…' }).click();
  await page.getByLabel('Name of the camera').fill('Corner view');
  await page.keyboard.press('Enter');
  await expect(camera(page, 'Corner view')).toBeVisible();
  await expect(page.getByLabel('pitch', { exact: true })).toHaveValue('-35.2644');

  // Another camera is taken hold of in the plan, and its move is one step of undo.
  const quay = page.locator('[data-picture=plan]').getByRole('button', { name: 'Move the camera Quay' });
  await quay.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('ArrowDown');
  await expect(undo(page)).toHaveAttribute('title', 'Undo: move another camera');
  await page.keyboard.press('Control+z');
  await expect(undo(page)).toHaveAttribute('title', 'Undo: rename the camera');

  await camera(page, 'Corner view').click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(page.locator('.notice', { hasText: 'Deleted the camera Corner view.' })).toBeVisible();
  await page.keyboard.press('/');
  await page.getByPlaceholder('Commands, fields, help, bodies').fill('look through quay');
  await page.keyboard.press('Enter');
  await expect(camera(page, 'Quay')).toBeVisible();
});

test('what moves plays, pauses and steps; Chain and strip follow, and nothing is written or to be undone', async ({
  page,
}) => {
  await openBench(page, '/frame');
  await page.getByRole('button', { name: /^Probe: / }).click();
  await page.getByPlaceholder('Find a body').fill('Pilot launch');
  await page.keyboard.press('Enter');
  await page.locator('[data-rung=local]').hover();
  await page.locator('[data-rung=local]').getByRole('button', { name: 'drive from here' }).click();
  await drawn(page);
  const [still, world] = [await picture(page), await rung(page, 'world')];
  const steps = await undo(page).getAttribute('title');
  await expect(page.getByText('Being kept')).toHaveCount(0);

  await page.locator('main.centre').click({ position: { x: 4, y: 4 } });
  await page.keyboard.press(' ');
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await expect.poll(() => time(page)).toBeGreaterThan(1);
  const there = await rung(page, 'world');
  expect(Math.hypot(there[0]! - world[0]!, there[2]! - world[2]!)).toBeGreaterThan(0.5);
  await page.keyboard.press(' ');
  await expect(page.getByRole('button', { name: 'Play' })).toBeVisible();
  await drawn(page);
  expect(await picture(page)).not.toBe(still);
  // What is set and what is read are of one moment: the launch is where its closed form has it.
  const t = await time(page);
  const [x, , z] = await rung(page, 'world');
  const local = await rung(page, 'local');
  expect(local).toHaveLength(3);
  const radius = Math.hypot(world[0]! + 5.5, world[2]! - 58.9);
  expect(Math.abs(Math.hypot(x! + 5.5, z! - 58.9) - radius)).toBeLessThan(0.02);
  const turned = (Math.atan2(z! - 58.9, x! + 5.5) - Math.atan2(world[2]! - 58.9, world[0]! + 5.5)) / (2 * Math.PI);
  expect(Math.abs(((turned - t / 24) % 1 + 1.5) % 1 - 0.5)).toBeLessThan(0.01); // prettier-ignore

  await page.keyboard.press('Shift+ArrowRight');
  expect(await time(page)).toBeGreaterThanOrEqual(t);
  const slider = page.getByRole('slider', { name: 'The moment' });
  await slider.focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowLeft');
  expect(await time(page)).toBeLessThan(t - 0.4);
  // Neither a step of undo nor a writing came of it.
  await expect(undo(page)).toHaveAttribute('title', steps!);
  await page.getByRole('button', { name: 'Saltmarrow harbour' }).click();
  await expect(page.getByText('Kept in this browser')).toBeVisible();
  await page.keyboard.press('Escape');
  // Another project, that stands still, has no rule.
  await page.getByRole('button', { name: 'Saltmarrow harbour' }).click();
  await page.getByRole('menuitem', { name: /All projects/ }).click();
  await page.getByRole('button', { name: 'New 2D project, y down' }).click();
  await expect(page.getByRole('group', { name: 'Time' })).toHaveCount(0);
});

test('the view from outside goes round freely, in a third pane, and moves no camera', async ({ page }) => {
  await openBench(page, '/convert');
  await page.getByRole('button', { name: 'Pane: Section' }).click();
  await page.getByRole('menuitem', { name: 'A third pane beside it' }).click();
  await page.getByRole('button', { name: 'Pane: Screens' }).click();
  await page.getByRole('menuitemradio', { name: 'Outside' }).click();
  const outside = page.locator('[data-picture=outside]');
  await expect(outside.locator('path.ink-frustum-line')).not.toHaveAttribute('d', '');
  await drawn(page);
  const [before, line] = [await rung(page, 'view'), await outside.locator('path.ink-frustum-line').getAttribute('d')];
  const box = (await outside.locator('svg[role=group]').boundingBox())!;
  await page.mouse.move(box.x + 30, box.y + 20);
  await page.mouse.down();
  await page.mouse.move(box.x + 90, box.y + 40, { steps: 4 });
  await page.mouse.up();
  await drawn(page);
  const turned = await outside.locator('path.ink-frustum-line').getAttribute('d');
  expect(turned).not.toBe(line);
  expect(await rung(page, 'view')).toEqual(before);
  await outside.getByRole('button', { name: 'Fit' }).click();
  await expect(outside.locator('path.ink-frustum-line')).toHaveAttribute('d', line!);
  // The eye can be taken hold of there too.
  await outside.getByRole('button', { name: 'Move the eye' }).focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(undo(page)).toHaveAttribute('title', 'Undo: move the camera');
  // The panes are remembered.
  await page.reload();
  await expect(page.locator('[data-picture=outside]')).toBeVisible();
});

test('a frame is set aside, shown beside the present one and as a second reticle, and returned to', async ({
  page,
}) => {
  await openBench(page, '/frame');
  await page.keyboard.press('k');
  await page.locator('.notice').getByRole('button', { name: 'Show beside' }).click();
  await expect(page.getByRole('img', { name: 'Snapshot Bridge wing 1' })).toBeVisible();
  await page.keyboard.press('c');
  await expect(camera(page, 'Breakwater')).toBeVisible();
  await drawn(page);
  await camera(page, 'Breakwater').click();
  await page.getByRole('menuitem', { name: 'Bridge wing 1' }).hover();
  await page.getByRole('menuitem', { name: 'Show as a second reticle' }).click();
  await expect(page.locator('[data-picture=snapshot]')).toHaveCount(0);
  await expect(page.locator('[data-picture=main] path.ink-second-reticle').first()).toBeAttached();
  await camera(page, 'Breakwater').click();
  await page.getByRole('menuitem', { name: 'Bridge wing 1' }).hover();
  await page.getByRole('menuitem', { name: 'Return to it' }).click();
  await expect(camera(page, 'Bridge wing')).toBeVisible();
});

test('a worksheet has two sections open at first, and a line of them that jumps', async ({ page }) => {
  await page.goto('/frame');
  const line = page.getByRole('navigation', { name: 'Sections' });
  await expect(line.getByRole('button')).toHaveText(['Sees', 'Lens', 'Eye, gaze', 'Depth', 'Screens']);
  await expect(page.locator('.sheet h2 button[aria-expanded=true]')).toHaveCount(2);
  await line.getByRole('button', { name: 'Screens' }).click();
  await expect(page.getByLabel('Screen 1 width')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Screens', expanded: true })).toBeFocused();
  await page.reload();
  await expect(page.getByLabel('Screen 1 width')).toBeAttached();
});

test('the routes of the way back are gone through with the arrow keys', async ({ page }) => {
  await openBench(page, '/convert');
  const group = page.getByRole('radiogroup', { name: 'How far' });
  await group.getByRole('radio', { checked: true }).focus();
  const checked = group.getByRole('radio', { checked: true });
  const first = await checked.innerText();
  await page.keyboard.press('ArrowDown');
  await expect(checked).not.toHaveText(first);
  await expect(checked).toBeFocused();
  await page.keyboard.press('ArrowUp');
  await expect(checked).toHaveText(first);
});

test('the page’s own measures do not pile up under the pointer', async ({ page }) => {
  await openBench(page, '/frame');
  await page.getByTestId('picture').evaluate((element) => {
    const { left, top } = element.getBoundingClientRect();
    for (let i = 0; i < 1000; i++) {
      const at = { clientX: left + 100 + (i % 300), clientY: top + 100 + (i % 7) };
      element.dispatchEvent(new PointerEvent('pointermove', { ...at, bubbles: true, pointerId: 1 }));
    }
  });
  const kept = await page.evaluate(() => performance.getEntriesByType('measure').length + performance.getEntriesByType('mark').length); // prettier-ignore
  expect(kept).toBeGreaterThan(0);
  expect(kept).toBeLessThanOrEqual(400);
  expect(numbers(await page.getByTestId('pointer-css').innerText())).toHaveLength(2);
});

test('an older tab beside a newer one writes back what it does not know', async ({ page, context }) => {
  await openBench(page, '/frame');
  /** Changes the kept project behind the page's back, as a newer version would have written it. */
  const kept = (change: string | null) =>
    page.evaluate(
      (given) =>
        new Promise<Record<string, unknown>>((resolve, reject) => {
          const opening = indexedDB.open('astrolabe');
          opening.onerror = () => reject(opening.error);
          opening.onsuccess = () => {
            const store = opening.result.transaction('projects', 'readwrite').objectStore('projects');
            const all = store.getAll();
            all.onsuccess = () => {
              const row = all.result[0] as { project: Record<string, unknown> };
              if (given) {
                Object.assign(row.project, JSON.parse(given));
                (row.project.bodies as Record<string, unknown>[])[0]!.weight = 7;
                store.put(row);
              }
              opening.result.close();
              resolve(row.project);
            };
          };
        }),
      change,
    );
  await expect.poll(() => kept(null)).toHaveProperty('bodies');
  await kept(
    JSON.stringify({ weather: { wind: [1, 2] }, tasks: { later: { version: 12, deep: { list: [1, 'a'] } } } }),
  );
  const other = await context.newPage();
  await openBench(other, '/frame');
  await other.keyboard.press('c');
  await expect(camera(other, 'Breakwater')).toBeVisible();
  await expect.poll(async () => ((await kept(null)).camera as { name: string }).name).toBe('Breakwater');
  const now = await kept(null);
  expect(now.weather).toEqual({ wind: [1, 2] });
  expect(now.tasks).toEqual({ later: { version: 12, deep: { list: [1, 'a'] } } });
  expect((now.bodies as Record<string, unknown>[])[0]).toHaveProperty('weight', 7);
});
