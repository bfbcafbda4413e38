// Pictures of the main views, made from the demo data: npm run screenshots. They go to
// docs/screenshots/.
import { mkdirSync, readFileSync } from 'node:fs';
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
process.on('exit', () => server.kill());
await new Promise((ready) => server.stdout.once('data', ready));
mkdirSync(at('docs/screenshots'), { recursive: true });
const browser = await chromium.launch(launchOptions);

/** Opens the demo afresh, does something to it, and takes its picture. */
async function take(
  name,
  { task = 'convert', theme = 'paper', width = 1280, height = 800, tries = false, act = async () => {} } = {},
) {
  const page = await browser.newPage({ viewport: { width, height } });
  await page.addInitScript(
    (value) => localStorage.setItem('astrolabe-settings', JSON.stringify({ state: value, version: 0 })),
    { theme, enlarged: null, triesAway: !tries },
  );
  await page.goto(`http://127.0.0.1:${port}/${task}`);
  await page.getByRole('heading', { name: 'The Chain' }).waitFor();
  await page.evaluate(() => document.fonts.ready);
  await page.getByRole('region', { name: 'Begin with' }).getByRole('button', { name: 'Put away' }).click();
  await act(page);
  // Let marks of change fade and the pictures be drawn.
  await page.waitForTimeout(1200);
  await page.locator('main.centre[aria-busy=true]').waitFor({ state: 'detached' });
  await page.screenshot({ path: at(`docs/screenshots/${name}.png`) });
  await page.close();
}

/** Opens a section of the worksheet and brings it up. */
const open = (page, title) => page.getByRole('navigation', { name: 'Sections' }).getByTitle(title).click();

await take('frame-paper', { task: 'frame', tries: true });
await take('outside', {
  task: 'frame',
  act: async (page) => {
    await page.getByRole('button', { name: /^Pane: (?!Plan)/ }).click();
    await page.getByRole('menuitemradio', { name: 'Outside' }).click();
    for (let i = 0; i < 60; i++) await page.keyboard.press('Shift+ArrowRight');
  },
});
await take('convert-paper');
await take('conventions', {
  task: 'frame',
  act: async (page) => {
    await page.getByTitle('Conventions in force').click();
    await page.getByRole('button', { name: 'Vulkan' }).click();
  },
});
const chart = async (page) => {
  await page.locator('.project-button').click();
  await page.getByRole('menuitem', { name: /Saltmarrow chart/ }).click();
  await page.getByRole('button', { name: 'Dismiss' }).waitFor({ state: 'detached' });
  await page.waitForTimeout(3000);
};
await take('flat-paper', { task: 'frame', act: chart });
await take('quay', {
  task: 'order',
  act: async (page) => {
    await page.locator('.project-button').click();
    await page.getByRole('menuitem', { name: /Saltmarrow quay/ }).click();
    await page.getByRole('button', { name: 'Dismiss' }).waitFor({ state: 'detached' });
    await open(page, 'Sprites and feet');
    await page.waitForTimeout(1000);
  },
});
await take('deliver', {
  task: 'deliver',
  act: async (page) => {
    await page
      .getByText('inline ScreenPoint world_to_screen')
      .scrollIntoViewIfNeeded()
      .catch(() => {});
    await page.getByTestId('code').evaluate((element) => (element.scrollTop = 1650));
  },
});
// The report as it is saved, the beginning of its page.
{
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript((value) => localStorage.setItem('astrolabe-settings', JSON.stringify({ state: value, version: 0 })), { theme: 'paper' }); // prettier-ignore
  await page.goto(`http://127.0.0.1:${port}/deliver`);
  await page.getByTestId('code').waitFor();
  await page.waitForTimeout(1500);
  await open(page, 'Report');
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save the report' }).click()]); // prettier-ignore
  await page.goto('about:blank');
  await page.setViewportSize({ width: 1000, height: 1180 });
  await page.setContent(readFileSync(await download.path(), 'utf8'));
  await page.waitForTimeout(800);
  await page.screenshot({ path: at('docs/screenshots/report.png') });
  await page.close();
}
await take('convert-points', {
  act: async (page) => {
    const sheet = page.getByRole('complementary', { name: 'Worksheet' });
    for (const name of ['The pointer’s way', 'Nodes', 'Points']) await open(page, name);
    const lines = Array.from({ length: 600 }, (_, i) => `${(i % 97) - 48} ${(i % 23) / 2} ${((i * 7) % 131) - 90}`);
    await page.getByLabel('Points to take').fill(lines.join('\n'));
    await page.getByRole('button', { name: 'Take these' }).click();
    await page.getByText(/converted in/).waitFor();
    await page.waitForTimeout(3000);
    await sheet.getByRole('region', { name: 'Nodes' }).scrollIntoViewIfNeeded();
  },
});
await take('projects', {
  task: 'frame',
  act: async (page) => {
    await page.keyboard.press('Control+S');
    await page.getByLabel('Near', { exact: true }).fill('7');
    await page.keyboard.press('Enter');
    await page.locator('.project-button').click();
    await page.getByRole('menuitem', { name: /All projects/ }).click();
    await page.getByRole('button', { name: '2D demo: the chart' }).click();
    await page.getByRole('region', { name: 'Focus and anchor' }).waitFor();
    await page.locator('.project-button').click();
    await page.getByRole('menuitem', { name: /All projects/ }).click();
    const list = page.getByRole('list', { name: 'Kept projects' });
    await list.getByRole('button', { name: 'Saltmarrow harbour', exact: true }).click();
    await page.getByRole('region', { name: 'Lens' }).waitFor();
    await page.locator('.project-button').click();
    await page.getByRole('menuitem', { name: /All projects/ }).click();
    await page.getByRole('button', { name: 'Compare saved as a file' }).click();
  },
});
await take('model', {
  task: 'frame',
  act: async (page) => {
    // A mooring ring with its post, as a modeller would hand it over.
    const lines = ['o Mooring ring'];
    const [around, across] = [28, 12];
    for (let i = 0; i < around; i++)
      for (let j = 0; j < across; j++) {
        const [a, b] = [(2 * Math.PI * i) / around, (2 * Math.PI * j) / across];
        const r = 3 + 0.7 * Math.cos(b);
        lines.push(`v ${r * Math.cos(a)} ${0.7 * Math.sin(b)} ${r * Math.sin(a)}`);
      }
    const at = (i, j) => (i % around) * across + (j % across) + 1;
    for (let i = 0; i < around; i++)
      for (let j = 0; j < across; j++) lines.push(`f ${at(i, j)} ${at(i, j + 1)} ${at(i + 1, j + 1)} ${at(i + 1, j)}`);
    lines.push('o Post');
    for (const y of [-0.6, 5])
      for (let i = 0; i < 8; i++) lines.push(`v ${Math.cos((i * Math.PI) / 4)} ${y} ${Math.sin((i * Math.PI) / 4)}`);
    for (let i = 0; i < 8; i++) lines.push(`f ${[i - 16, i - 8, ((i + 1) % 8) - 8, ((i + 1) % 8) - 16].join(' ')}`);
    lines.push('f -1 -2 -3 -4 -5 -6 -7 -8');
    await page.evaluate((text) => {
      const data = new DataTransfer();
      data.items.add(new File([text], 'mooring ring.obj'));
      document.body.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
    }, lines.join('\n'));
    await page.locator('.notice').filter({ hasText: 'Opened' }).waitFor();
    await page.locator('.notice').waitFor({ state: 'detached' });
  },
});
await take('motion', {
  task: 'motion',
  act: async (page) => {
    // The dolly zoom of the Breakwater, where the quay has come near.
    await page.getByRole('table', { name: 'cameras', exact: true }).getByText('Breakwater').click();
    await page.getByTestId('motion-fov').waitFor();
    const moment = page.getByRole('slider', { name: 'The moment' });
    await moment.focus();
    for (let i = 0; i < 48; i++) await page.keyboard.press('Shift+ArrowRight');
    await open(page, 'Over time');
    await page.locator('.recharts-line').nth(2).waitFor();
  },
});
await take('order-paper', { task: 'order', act: (page) => page.keyboard.press('g') });
const swept = (page) => page.getByText('1280 × 720 rays').waitFor({ timeout: 30_000 });
await take('pick-aim', {
  task: 'pick',
  act: async (page) => {
    await page.getByLabel('Show where it lands fired along the gaze').check();
    await open(page, 'Aim');
    await swept(page);
  },
});
await take('diagnose', {
  task: 'diagnose',
  act: async (page) => {
    await page.getByTestId('mend-code').waitFor();
  },
});
await take('visibility', {
  task: 'visibility',
  act: async (page) => {
    await page.getByTestId('count-inside').waitFor();
  },
});
await take('billboard', {
  task: 'billboard',
  act: async (page) => {
    await open(page, 'Lean of flat sprites');
    await page.waitForTimeout(1500);
  },
});
await take('spawn', {
  task: 'spawn',
  theme: 'night',
  act: async (page) => {
    await chart(page);
    await open(page, 'The first frame');
    await page.getByTestId('first').getByText('before it moved').waitFor();
    await open(page, 'The first frame');
    await page.waitForTimeout(1500);
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
