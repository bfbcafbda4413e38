// Drives the real page on the demo scene. Of a dragged frame: the page's own measure "pointer to numbers" (from the pointer event to committed numbers), and all that the main
// thread worked in it. Of the first visit: when the page can be worked with.
import { spawn } from 'node:child_process';
import { at } from '../scripts/lib/fresh.mjs';
import { launchOptions } from '../scripts/lib/chromium.mjs';
import { chromium } from '@playwright/test';

const port = 4796;
const address = `http://127.0.0.1:${port}/frame`;

const summary = (values) => {
  const sorted = [...values].sort((a, b) => a - b);
  const share = (p) => sorted[Math.min(sorted.length - 1, Math.floor(p * sorted.length))];
  return { count: sorted.length, median: share(0.5), p95: share(0.95), most: sorted.at(-1) };
};
const mean = (values) => values.reduce((sum, v) => sum + v, 0) / values.length;

/** Milliseconds of main-thread work per pointer move and per dragged frame. */
async function measureHand(browser) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(address);
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
    const frames = [];
    let before = await worked();
    for (let i = 0; i < moves; i++) {
      const a = (i / moves) * 6 * Math.PI;
      await page.mouse.move(
        box.x + box.width * (0.5 + 0.3 * Math.cos(a)),
        box.y + box.height * (0.5 + 0.3 * Math.sin(1.3 * a)),
      );
      const after = await worked();
      frames.push(after - before);
      before = after;
    }
    const entries = await page.evaluate(() =>
      performance.getEntriesByName('pointer to numbers').map((entry) => entry.duration),
    );
    return { numbers: summary(entries), frame: { ...summary(frames), mean: mean(frames) } };
  };
  await run(60);
  const move = await run(300);
  await page.mouse.down();
  await run(30);
  const drag = await run(200);
  await page.mouse.up();
  await page.close();
  return { move, drag };
}

/** Milliseconds from the call of the address, in a browser that was never here, until the Chain is on the screen and no task of the page is longer than 50 ms for a second. */
async function measureVisit(browser) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.addInitScript(() => {
    const seen = (window.visit = { shown: 0, tasks: [] });
    new PerformanceObserver((list) => {
      for (const { startTime, duration } of list.getEntries()) seen.tasks.push([startTime, startTime + duration]);
    }).observe({ type: 'longtask', buffered: true });
    // The browser says when an element that is marked so was on the screen.
    new PerformanceObserver((list) => {
      seen.shown ||= list.getEntries()[0].renderTime;
    }).observe({ type: 'element', buffered: true });
    new MutationObserver((_, observer) => {
      const heading = document.querySelector('.chain h2');
      if (!heading) return;
      heading.setAttribute('elementtiming', 'chain');
      observer.disconnect();
    }).observe(document, { childList: true, subtree: true });
  });
  await page.goto(address);
  await page.getByRole('heading', { name: 'The Chain' }).waitFor();
  await page.waitForTimeout(4000);
  const { shown, tasks, painted } = await page.evaluate(() => ({
    ...window.visit,
    painted: performance.getEntriesByName('first-contentful-paint')[0].startTime,
  }));
  await context.close();
  if (!shown) throw new Error('the Chain was never seen');
  let interactive = shown;
  for (const [start, end] of tasks) if (start < interactive + 1000) interactive = Math.max(interactive, end);
  return { painted, interactive };
}

export async function measurePage() {
  const server = spawn('node', [at('bin/astrolabe.js'), 'serve', '--port', String(port)], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise((ready) => server.stdout.once('data', ready));
  const browser = await chromium.launch(launchOptions);
  try {
    const visits = [];
    for (let i = 0; i < 8; i++) visits.push(await measureVisit(browser));
    // The first also waits for the browser to start its own processes.
    const later = visits.slice(1);
    const visit = {
      painted: summary(later.map(({ painted }) => painted)),
      interactive: summary(later.map(({ interactive }) => interactive)),
    };
    return { ...(await measureHand(browser)), visit };
  } finally {
    await browser.close();
    server.kill();
  }
}
