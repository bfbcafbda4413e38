// Drives the real page on the demo scene. Of a dragged frame: the page's own measure "pointer to
// numbers" (from the pointer event to committed numbers), and all that the main thread worked in
// it. Of the first visit: when the page can be worked with.
import { spawn } from 'node:child_process';
import { at } from '../scripts/lib/fresh.mjs';
import { launchOptions } from '../scripts/lib/chromium.mjs';
import { chromium } from '@playwright/test';

const firstPort = 4796;

const summary = (values) => {
  const sorted = [...values].sort((a, b) => a - b);
  const share = (p) => sorted[Math.min(sorted.length - 1, Math.floor(p * sorted.length))];
  return { count: sorted.length, median: share(0.5), p95: share(0.95), most: sorted.at(-1) };
};
const mean = (values) => values.reduce((sum, v) => sum + v, 0) / values.length;

/** Milliseconds of main-thread work per pointer move and per dragged frame. */
async function measureHand(browser, address) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${address}/frame`);
  await page.getByRole('heading', { name: 'The Chain' }).waitFor();
  const box = await page.getByTestId('picture').boundingBox();
  const session = await page.context().newCDPSession(page);
  // Thread time: what the main thread itself worked (script, style, layout, paint), not what it
  // waited for while software WebGL had the cores.
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

/**
 * Milliseconds from the call of the address, in a browser that was never here, until the Chain is
 * on the screen and no task of the page is longer than 50 ms for a second.
 */
async function measureVisit(browser, address) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.addInitScript(() => {
    const seen = (window.visit = { shown: 0, pictured: 0, tasks: [] });
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
    // The pictures are busy until the surfaces of the project are on the canvas.
    new MutationObserver((_, observer) => {
      if (document.querySelector('main[aria-label=Pictures]')?.ariaBusy !== 'false') return;
      seen.pictured = performance.now();
      observer.disconnect();
    }).observe(document, { childList: true, subtree: true, attributeFilter: ['aria-busy'] });
  });
  await page.goto(`${address}/frame`);
  await page.getByRole('heading', { name: 'The Chain' }).waitFor();
  await page.waitForTimeout(4000);
  const { shown, tasks, pictured, painted } = await page.evaluate(() => ({
    ...window.visit,
    painted: performance.getEntriesByName('first-contentful-paint')[0].startTime,
  }));
  await context.close();
  if (!shown || !pictured) throw new Error('the Chain or the pictures were never seen');
  let interactive = shown;
  for (const [start, end] of tasks) if (start < interactive + 1000) interactive = Math.max(interactive, end);
  return { painted, interactive, pictured };
}

/** What the page's thread worked, as a function of how long it is watched. */
async function threadTime(page) {
  const session = await page.context().newCDPSession(page);
  await session.send('Performance.enable', { timeDomain: 'threadTicks' });
  return async () => {
    const { metrics } = await session.send('Performance.getMetrics');
    return 1000 * metrics.find(({ name }) => name === 'TaskDuration').value;
  };
}

/** Milliseconds of the page's thread per frame while the demo plays. */
async function measurePlaying(browser, address) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${address}/frame`);
  await page.getByRole('heading', { name: 'The Chain' }).waitFor();
  await page.waitForTimeout(3000);
  const worked = await threadTime(page);
  await page.getByRole('button', { name: 'Play' }).click();
  await page.waitForTimeout(1500);
  const turns = [];
  for (let i = 0; i < 5; i++) {
    const before = await worked();
    const frames = await page.evaluate(
      () =>
        new Promise((done) => {
          const end = performance.now() + 2000;
          let count = 0;
          const next = () => (performance.now() < end ? (count++, requestAnimationFrame(next)) : done(count));
          requestAnimationFrame(next);
        }),
    );
    turns.push(((await worked()) - before) / frames);
  }
  await page.close();
  return summary(turns);
}

/**
 * Milliseconds of the page's thread per dragged frame with 20,000 instances whose tints follow the
 * camera, and to upload them.
 */
async function measureInstances(browser) {
  const { sampleTree } = await import('../scripts/lib/sampleTree.mjs');
  const sample = await sampleTree();
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${sample.address}/sample`);
    await page.getByTestId('counted').waitFor();
    await page.waitForTimeout(6000);
    const box = await page.getByTestId('picture').boundingBox();
    const worked = await threadTime(page);
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    const move = (i) => {
      const a = (i / 150) * 4 * Math.PI;
      return page.mouse.move(
        box.x + box.width * (0.5 + 0.2 * Math.cos(a)),
        box.y + box.height * (0.5 + 0.2 * Math.sin(a)),
      );
    };
    for (let i = 0; i < 30; i++) await move(i);
    // Software WebGL takes several of the page's frames for one of its own: what is read follows
    // in each of them.
    await page.evaluate(() => {
      window.framesCounted = 0;
      const next = () => (window.framesCounted++, requestAnimationFrame(next));
      next();
    });
    const turns = [];
    for (let i = 30; i < 150;) {
      const [before, from] = [await worked(), await page.evaluate(() => window.framesCounted)];
      for (let k = 0; k < 20; k++, i++) await move(i);
      turns.push(((await worked()) - before) / ((await page.evaluate(() => window.framesCounted)) - from));
    }
    await page.mouse.up();
    const upload = await page.evaluate(() => {
      const gl = new OffscreenCanvas(8, 8).getContext('webgl2');
      const tints = new Uint8Array(20_000);
      gl.bindTexture(gl.TEXTURE_2D, gl.createTexture());
      gl.pixelStorei(gl.UNPACK_ALIGNMENT, 1);
      gl.texImage2D(gl.TEXTURE_2D, 0, gl.R8UI, 256, 79, 0, gl.RED_INTEGER, gl.UNSIGNED_BYTE, null);
      // The page's clock is coarse: many at once.
      const start = performance.now();
      for (let i = 0; i < 200; i++) {
        tints.fill(i % 4);
        gl.texSubImage2D(gl.TEXTURE_2D, 0, 0, 0, 256, 78, gl.RED_INTEGER, gl.UNSIGNED_BYTE, tints, 0);
        gl.texSubImage2D(gl.TEXTURE_2D, 0, 0, 78, 32, 1, gl.RED_INTEGER, gl.UNSIGNED_BYTE, tints, 78 * 256);
        gl.finish();
      }
      return (performance.now() - start) / 200;
    });
    await page.close();
    return { ...summary(turns), mean: mean(turns), upload };
  } finally {
    sample.close();
  }
}

const drawnTasks = ['frame', 'convert', 'order', 'pick', 'visibility', 'billboard', 'spawn', 'motion', 'diagnose', 'deliver']; // prettier-ignore

/**
 * Milliseconds of the drawing thread a frame while the camera is dragged, by part, and from a change to the
 * picture that shows it, in every task; in Visibility with the field of test bodies too.
 */
async function measureDrawing(browser, address) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const rows = [];
  const drag = async (what) => {
    await page.locator('main[aria-label=Pictures][aria-busy=false]').waitFor({ timeout: 120_000 });
    const box = await page.getByTestId('picture').boundingBox();
    const move = (i) => {
      const a = (i / 90) * 4 * Math.PI;
      return page.mouse.move(
        box.x + box.width * (0.5 + 0.2 * Math.cos(a)),
        box.y + box.height * (0.5 + 0.2 * Math.sin(a)),
      );
    };
    await move(0);
    await page.mouse.down();
    for (let i = 0; i < 15; i++) await move(i);
    const worker = page.workers().find((one) => one.url().includes('pictures'));
    await worker.evaluate(() => performance.clearMeasures());
    for (let i = 15; i < 90; i++) await move(i);
    const of = await worker.evaluate(() =>
      Object.fromEntries(
        ['compose', 'submit', 'marks', 'change to picture'].map((name) => [
          name,
          performance.getEntriesByName(name).map(({ duration }) => duration),
        ]),
      ),
    );
    await page.mouse.up();
    rows.push({ what, parts: Object.fromEntries(Object.entries(of).map(([name, all]) => [name, summary(all)])) });
  };
  for (const task of drawnTasks) {
    await page.goto(`${address}/${task}`);
    await page.getByRole('heading', { name: 'The Chain' }).waitFor();
    await page.waitForTimeout(1500);
    await drag(task);
  }
  for (const count of [10_000, 1_000_000]) {
    await page.goto(`${address}/visibility`);
    await page.getByRole('heading', { name: 'The Chain' }).waitFor();
    if (count === 10_000) {
      await page.keyboard.press('/');
      await page.getByPlaceholder('A command, a field or a body').fill('Show or hide the test bodies');
      await page.keyboard.press('Enter');
    }
    const field = page.getByLabel('How many test bodies', { exact: true });
    await field.fill(String(count));
    await field.press('Enter');
    await page.waitForTimeout(count > 100_000 ? 15_000 : 4000);
    await drag(`visibility, ${count.toLocaleString('en')} test bodies`);
  }
  await page.close();
  return rows;
}

/** Serves a checkout; gives its address and what ends it. */
async function served(folder, port) {
  const server = spawn('node', [`${folder}/bin/astrolabe.js`, 'serve', '--port', String(port)], {
    cwd: folder,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise((ready) => server.stdout.once('data', ready));
  return { address: `http://127.0.0.1:${port}`, end: () => server.kill() };
}

const middleOf = (runs) => {
  const sorted = [...runs].sort((a, b) => a.drag.frame.mean - b.drag.frame.mean);
  return sorted[sorted.length >> 1];
};

/** All of it, in turn with another checkout if there is one to compare with. */
export async function measurePage(against = null) {
  const folders = [...(against ? [against] : []), at()];
  const servers = [];
  for (const [i, folder] of folders.entries()) servers.push(await served(folder, firstPort + i));
  const browser = await chromium.launch(launchOptions);
  try {
    const hands = servers.map(() => []);
    const visits = servers.map(() => []);
    for (let turn = 0; turn < (against ? 3 : 1); turn++)
      for (const [i, { address }] of servers.entries()) hands[i].push(await measureHand(browser, address));
    // The first also waits for the browser to start its own processes.
    for (let turn = 0; turn < 8; turn++)
      for (const [i, { address }] of servers.entries()) {
        const visit = await measureVisit(browser, address);
        if (turn) visits[i].push(visit);
      }
    const made = servers.map((_, i) => ({
      ...middleOf(hands[i]),
      visit: {
        painted: summary(visits[i].map(({ painted }) => painted)),
        interactive: summary(visits[i].map(({ interactive }) => interactive)),
        pictured: summary(visits[i].map(({ pictured }) => pictured)),
      },
    }));
    const now = made.at(-1);
    const playing = await measurePlaying(browser, servers.at(-1).address);
    const instances = await measureInstances(browser);
    const drawing = await measureDrawing(browser, servers.at(-1).address);
    return { ...now, playing, instances, drawing, before: against ? made[0] : null };
  } finally {
    await browser.close();
    for (const { end } of servers) end();
  }
}
