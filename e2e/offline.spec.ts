import { readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import { expect, test, type Page } from '@playwright/test';
import express from 'express';
import { near, numbers, paste, rung, type } from './bench';

/**
 * The built application as plain files, below a folder of some site, with no server of ours; and
 * with no server at all after the first visit.
 */

test.use({ serviceWorkers: 'allow' });

const built = fileURLToPath(new URL('../dist/app', import.meta.url));
let server: Server;
let site = '';
/** What the server has beside what was built: another build differs in its service worker. */
let newer = '';

test.beforeAll(async () => {
  const files = express();
  files.get('/tools/bench/sw.js', (_request, response) => {
    response.type('text/javascript').send(readFileSync(`${built}/sw.js`, 'utf8') + newer);
  });
  files.use('/tools/bench', express.static(built));
  server = createServer(files);
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  site = `http://127.0.0.1:${(server.address() as AddressInfo).port}/tools/bench`;
});
test.afterAll(() => {
  server.closeAllConnections();
  server.close();
});

const there = (page: Page) => expect(page.getByRole('heading', { name: 'The Chain' })).toBeVisible();

test('a newer build is offered, goes on being offered in the menu, and every tab is told when one changes over', async ({
  page,
  context,
}) => {
  test.setTimeout(240_000);
  await page.goto(`${site}/frame`);
  await there(page);
  const kept = (page: Page) => page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await kept(page);
  await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(false);
  const beside = await context.newPage();
  await beside.goto(`${site}/frame`);
  await there(beside);
  // The page beside is the worker's; this one came before it, and is so once it is loaded again.
  await page.reload();
  await there(page);
  await expect(page.getByText('A newer Astrolabe is here.')).toBeHidden();
  newer = '\n// another build';
  await page.reload();
  await there(page);
  await expect(page.locator('.notice', { hasText: 'A newer Astrolabe is here.' })).toBeVisible({ timeout: 20_000 });
  await page.getByRole('button', { name: /^Saltmarrow harbour/ }).click();
  const reloaded = page.waitForEvent('load');
  await page.getByRole('menuitem', { name: 'Change over to the newer Astrolabe' }).click();
  await reloaded;
  await there(page);
  await expect(beside.getByRole('alert')).toContainText('Another tab has changed over to a newer Astrolabe');
  const again = beside.waitForEvent('load');
  await beside.getByRole('button', { name: 'Load it again' }).click();
  await again;
  await there(beside);
});

test('works as plain files from any folder, and without a network after the first visit', async ({ page }) => {
  const problems: string[] = [];
  page.on('pageerror', (error) => problems.push(error.message));
  await page.goto(`${site}/convert`);
  await there(page);
  await expect(page).toHaveURL(/\/tools\/bench\/convert(\?|$)/);
  await type(page, 'World x', '-20');
  const screen = await rung(page, 'screen');
  // Once everything is kept, nothing is asked of the network any more.
  await page.evaluate(() => navigator.serviceWorker.ready);
  await page.waitForTimeout(800);
  const port = Number(new URL(site).port);
  server.closeAllConnections();
  await new Promise((closed) => server.close(closed));
  try {
    await expect(page.evaluate((at) => fetch(`${at}/none`).then(() => 'there', () => 'gone'), site)).resolves.toBe('gone'); // prettier-ignore
    await page.goto(`${site}/convert/`);
    await there(page);
    near(await rung(page, 'screen'), screen, 1e-9);
    // What is fetched only when it is asked for is there too: the typesetting, the table and its
    // worker, the page of projects.
    await page.getByRole('button', { name: 'Working: From the pixel to the point' }).click();
    await expect(page.getByRole('dialog').getByRole('heading', { name: 'The point', exact: true })).toBeVisible();
    await page.keyboard.press('Escape');
    await paste(page, 'x,y,z\n-21,20.4,-20');
    await expect(page.getByRole('table', { name: 'Points' })).toHaveAttribute('aria-rowcount', '1');
    await page.goto(`${site}/projects`);
    await expect(page.getByRole('list', { name: 'Kept projects' })).toContainText('Saltmarrow harbour');
    await page.goto(`${site}/frame`);
    await there(page);
    expect(numbers(await page.getByTestId('pointer-css').innerText())).toHaveLength(2);
    expect(problems).toEqual([]);
  } finally {
    server = createServer();
    await new Promise<void>((ready) => server.listen(port, '127.0.0.1', ready));
  }
});
