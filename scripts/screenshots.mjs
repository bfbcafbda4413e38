// Pictures of the main views, made from the demo data: npm run screenshots. They go to docs/screenshots/.
import { mkdirSync } from 'node:fs';
import { at } from './lib/fresh.mjs';
import { installPackages } from './lib/install.mjs';

installPackages();
const { ensureChromium, launchOptions } = await import('./lib/chromium.mjs');
if (!ensureChromium()) process.exit(1);
const { buildApp, buildNode } = await import('./lib/build.mjs');
await Promise.all([buildNode(), buildApp()]);
const { spawn } = await import('node:child_process');
const { chromium } = await import('@playwright/test');

const port = 4795;
const server = spawn('node', [at('bin/astrolabe.js'), 'serve', '--port', String(port)], {
  stdio: ['ignore', 'pipe', 'inherit'],
});
await new Promise((ready) => server.stdout.once('data', ready));
mkdirSync(at('docs/screenshots'), { recursive: true });
const browser = await chromium.launch(launchOptions);

/** Opens the demo afresh, does something to it, and takes its picture. */
async function take(
  name,
  { task = 'convert', theme = 'paper', width = 1280, height = 800, act = async () => {} } = {},
) {
  const page = await browser.newPage({ viewport: { width, height } });
  await page.addInitScript(
    (value) => localStorage.setItem('astrolabe-settings', JSON.stringify({ state: value, version: 0 })),
    { theme, chainWidth: 244, sheetWidth: 316, enlarged: null },
  );
  await page.goto(`http://127.0.0.1:${port}/${task}`);
  await page.getByRole('heading', { name: 'The Chain' }).waitFor();
  await page.evaluate(() => document.fonts.ready);
  await act(page);
  // Let marks of change fade and the canvas settle.
  await page.waitForTimeout(1200);
  await page.screenshot({ path: at(`docs/screenshots/${name}.png`) });
  await page.close();
}

await take('frame-paper', { task: 'frame' });
await take('frame-night', { task: 'frame', theme: 'night' });
await take('frame-depth', {
  task: 'frame',
  act: async (page) => {
    await page.getByRole('region', { name: 'Depth resolution' }).scrollIntoViewIfNeeded();
    await page
      .getByRole('complementary', { name: 'Worksheet' })
      .getByRole('region', { name: 'Screens' })
      .scrollIntoViewIfNeeded();
  },
});
await take('convert-paper');
await take('convert-night', { theme: 'night' });
await take('convert-wide', { width: 1600, height: 1000 });
await take('conventions', {
  task: 'frame',
  act: async (page) => {
    await page.getByTitle('Conventions in force').click();
    await page.getByRole('button', { name: 'Vulkan' }).click();
  },
});
await take('matrix', {
  act: async (page) => {
    await page.getByRole('button', { name: 'Open the projection matrix' }).click();
  },
});
await take('camera-explained', {
  task: 'frame',
  act: async (page) => {
    await page.getByLabel('Near', { exact: true }).fill('200');
    await page.keyboard.press('Enter');
  },
});
await browser.close();
server.kill();
