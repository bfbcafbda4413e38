import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { taskNames } from '../app/tasks/names';
import { goTo, openBench, unfold } from './bench';

const routes = taskNames.map(({ route }) => route);

/*
 * Axe finds nothing on any page, in 3D and 2D, with everything unfolded. Contrast is asked of every ink on
 * every ground in both themes in Node (app/ui/contrast.test.ts), and of the page here once.
 */

async function clean(page: Page, what: string, parts: readonly string[], contrast = false): Promise<void> {
  // The pages have no frames, whose results the other mode gathers in a page of its own.
  const builder = new AxeBuilder({ page }).setLegacyMode(true).options({
    resultTypes: ['violations'],
    rules: { 'color-contrast': { enabled: contrast } },
  });
  const { violations } = await parts.reduce((axe, part) => axe.include(part), builder).analyze();
  const found = violations.map(
    ({ id, nodes }) =>
      `${id}: ${nodes
        .slice(0, 3)
        .map(({ html, failureSummary }) => `${html.slice(0, 160)} ${failureSummary?.split('\n').slice(1, 3).join(' ')}`)
        .join(' | ')}`,
  );
  expect(found, what).toEqual([]);
}

/** Rejections by the policy that lets nothing written into the page be run or styled. */
function rejections(page: Page): string[] {
  const found: string[] = [];
  page.on('console', (message) => /Content Security Policy/.test(message.text()) && found.push(message.text()));
  return found;
}

test('axe finds nothing in 3D', async ({ page }) => {
  test.setTimeout(240_000);
  const rejected = rejections(page);
  await openBench(page, '/frame');
  await clean(page, 'frame', ['body'], true);
  await page.locator('.project-button').click();
  await expect(page.getByRole('menu')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.locator('.project-button')).toBeFocused();
  await page.keyboard.press('/');
  await expect(page.getByPlaceholder('Commands, fields, help, bodies')).toBeFocused();
  await page.keyboard.press('Escape');
  for (const route of routes.slice(1)) {
    await goTo(page, route);
    await unfold(page);
    // The pictures of two tasks stand for all.
    const parts = ['convert', 'motion'].includes(route) ? ['.sheet', '.centre'] : ['.sheet'];
    await clean(page, route, parts, route === 'convert');
  }
  await goTo(page, 'convert');
  await page.getByRole('button', { name: 'Working: From the pixel to the point' }).click();
  await page.getByRole('dialog').getByRole('heading', { name: 'The point', exact: true }).waitFor();
  await clean(page, 'a working', ['.pop'], true);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Help', exact: true }).click();
  await page.getByRole('heading', { name: 'Help with Convert' }).waitFor();
  await clean(page, 'help', ['aside[aria-label=Help]'], true);
  expect(rejected).toEqual([]);
});

test('axe finds nothing in 2D, in Projects and in an empty project', async ({ page }) => {
  test.setTimeout(240_000);
  const rejected = rejections(page);
  await page.goto('/projects');
  await page.getByRole('heading', { name: 'Projects', exact: true }).waitFor();
  await clean(page, 'projects', ['body'], true);
  await page.getByRole('button', { name: 'New 3D project' }).click();
  await page.getByRole('region', { name: 'To begin with' }).waitFor();
  await clean(page, 'an empty project', ['.sheet', '.centre', '.chain']);
  await page.keyboard.press('/');
  await page.getByPlaceholder('Commands, fields, help, bodies').fill('Open the demo, Saltmarrow chart');
  await page.keyboard.press('Enter');
  await page.getByRole('region', { name: 'Focus and anchor' }).waitFor();
  await clean(page, 'frame, 2D', ['.sheet', '.header'], true);
  for (const route of routes.slice(1)) {
    await goTo(page, route);
    await unfold(page);
    await clean(page, `${route}, 2D`, ['.sheet']);
  }
  expect(rejected).toEqual([]);
});
