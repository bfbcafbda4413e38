import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { taskNames } from '../app/tasks/names';
import { goTo, openBench, unfold } from './bench';

const routes = taskNames.map(({ route }) => route);

/**
 * Nothing that axe finds, on any page, in either theme, in space and flat, with everything
 * unfolded.
 */

/** By night only the colours are others: all the rest has been asked of the same page on paper. */
async function clean(page: Page, theme: string, what: string, ...parts: readonly string[]): Promise<void> {
  // What a page has in common with one that was asked before is not asked again.
  const whole = new AxeBuilder({ page }).options({ resultTypes: ['violations'] });
  const axe = (parts.length ? parts : ['body']).reduce((axe, part) => axe.include(part), whole);
  const { violations } = await (theme === 'night' ? axe.withRules('color-contrast') : axe).analyze();
  const found = violations.map(({ id, nodes }) => `${id}: ${nodes.slice(0, 3).map(({ html, failureSummary }) => `${html.slice(0, 160)} ${failureSummary?.split('\n').slice(1, 3).join(' ')}`).join(' | ')}`); // prettier-ignore
  expect(found, what).toEqual([]);
}

for (const theme of ['paper', 'night'])
  test(`axe finds nothing, on ${theme}`, async ({ page }) => {
    test.setTimeout(480_000);
    await page.addInitScript((theme) => {
      if (!localStorage.getItem('astrolabe-settings'))
        localStorage.setItem('astrolabe-settings', JSON.stringify({ state: { theme }, version: 0 }));
    }, theme);
    const refused: string[] = [];
    page.on('console', (message) => /Content Security Policy/.test(message.text()) && refused.push(message.text()));
    await openBench(page, '/frame');
    await clean(page, theme, 'frame');
    await page.locator('.project-button').click();
    await expect(page.getByRole('menu')).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.locator('.project-button')).toBeFocused();
    await page.keyboard.press('/');
    await expect(page.getByPlaceholder('A command, a field or a body')).toBeFocused();
    await page.keyboard.press('Escape');
    await page.getByRole('link', { name: 'Convert' }).click();
    await page.getByRole('region', { name: 'Back to world' }).waitFor();
    await unfold(page);
    await clean(page, theme, 'convert', '.sheet', '.chain');
    await page.getByRole('button', { name: 'Working: From the pixel to the point' }).click();
    await page.getByRole('dialog').getByRole('heading', { name: 'The point', exact: true }).waitFor();
    await clean(page, theme, 'a working', '.pop');
    await page.keyboard.press('Escape');
    for (const name of routes.slice(2)) {
      await goTo(page, name);
      await unfold(page);
      await clean(page, theme, name, '.sheet', '.centre');
    }
    await page.getByRole('link', { name: 'Convert' }).click();
    await page.getByRole('region', { name: 'Back to world' }).waitFor();
    await page.getByRole('button', { name: 'Help', exact: true }).click();
    await page.getByRole('heading', { name: 'Help with Convert' }).waitFor();
    await clean(page, theme, 'help', 'aside[aria-label=Help]');
    await page.getByRole('button', { name: 'Close' }).click();
    await page.goto('/projects');
    await page.getByRole('heading', { name: 'Projects', exact: true }).waitFor();
    await clean(page, theme, 'projects');
    await page.getByRole('button', { name: 'New, in space' }).click();
    await page.getByRole('region', { name: 'To begin with' }).waitFor();
    await clean(page, theme, 'an empty project', '.sheet', '.centre', '.chain');
    await page.goto('/projects');
    await page.getByRole('heading', { name: 'Projects', exact: true }).waitFor();
    await page.getByRole('button', { name: 'Saltmarrow chart' }).click();
    await page.getByRole('region', { name: 'Focus and anchor' }).waitFor();
    await clean(page, theme, 'frame, flat', '.sheet', '.centre', '.header');
    await page.getByRole('link', { name: 'Convert' }).click();
    await page.getByRole('region', { name: 'Back to world' }).waitFor();
    await unfold(page);
    await clean(page, theme, 'convert, flat', '.sheet');
    for (const name of routes.slice(2)) {
      await goTo(page, name);
      await unfold(page);
      await clean(page, theme, `${name}, flat`, '.sheet');
    }
    // All of it under a policy that lets nothing written into the page be run or styled.
    expect(refused).toEqual([]);
  });
