// Drives the real page on the demo scene and reads the page's own measure "pointer to numbers": from the pointer event
// to the committed numbers and overlays, all of it main-thread work.
import { spawn } from 'node:child_process';
import { at } from '../scripts/lib/fresh.mjs';
import { launchOptions } from '../scripts/lib/chromium.mjs';
import { chromium } from '@playwright/test';

const port = 4796;

const summary = (values) => {
  const sorted = [...values].sort((a, b) => a - b);
  const share = (p) => sorted[Math.min(sorted.length - 1, Math.floor(p * sorted.length))];
  return { count: sorted.length, median: share(0.5), p95: share(0.95), most: sorted.at(-1) };
};

/** Milliseconds of main-thread work per pointer move and per dragged frame. */
export async function measurePage() {
  const server = spawn('node', [at('bin/astrolabe.js'), 'serve', '--port', String(port)], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise((ready) => server.stdout.once('data', ready));
  const browser = await chromium.launch(launchOptions);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`http://127.0.0.1:${port}/frame`);
    await page.getByRole('heading', { name: 'The Chain' }).waitFor();
    const box = await page.getByTestId('picture').boundingBox();
    const session = await page.context().newCDPSession(page);
    // Thread time: what the main thread itself worked (script, style, layout, paint), not what it waited for while software WebGL had the cores.
    await session.send('Performance.enable', { timeDomain: 'threadTicks' });
    const worked = async () => {
      const { metrics } = await session.send('Performance.getMetrics');
      return 1000 * metrics.find(({ name }) => name === 'TaskDuration').value;
    };
    const run = async (moves) => {
      await page.evaluate(() => performance.clearMeasures());
      const before = await worked();
      for (let i = 0; i < moves; i++) {
        const a = (i / moves) * 6 * Math.PI;
        await page.mouse.move(
          box.x + box.width * (0.5 + 0.3 * Math.cos(a)),
          box.y + box.height * (0.5 + 0.3 * Math.sin(1.3 * a)),
        );
      }
      const after = await worked();
      const entries = await page.evaluate(() =>
        performance.getEntriesByName('pointer to numbers').map((entry) => entry.duration),
      );
      return { ...summary(entries), worked: (after - before) / moves };
    };
    await run(60);
    const move = await run(300);
    await page.mouse.down();
    await run(30);
    const drag = await run(200);
    await page.mouse.up();
    return { move, drag };
  } finally {
    await browser.close();
    server.kill();
  }
}
