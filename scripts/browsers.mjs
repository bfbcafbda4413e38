// Opens every task of the application in Chromium, Firefox and WebKit, and compares the demo's pictures with
// Chromium's. `npm run soak` runs it; `node scripts/browsers.mjs` runs it alone, after a build.
import { spawn } from 'node:child_process';
import { resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { decode } from 'fast-png';
import { root } from './lib/fresh.mjs';
import { browsers, installBrowsers } from './lib/browsers.mjs';

const port = 4795;

/** The share of pixels that may differ from Chromium's: edges of surfaces are rounded otherwise. */
const mostDifferent = 0.02;

/** The names of the tasks, as their links begin. */
const tasks = ['Frame', 'Convert', 'Order', 'Pick', 'Visibility', 'Billboard', 'Spawn', 'Motion', 'Diagnose', 'Deliver']; // prettier-ignore

/** Records errors, which appear nowhere else. */
const record = `(() => {
  window.problems = [];
  addEventListener('error', (event) => problems.push(event.message));
  addEventListener('unhandledrejection', (event) => problems.push(String(event.reason)));
})()`;

/** Waits until the pictures show everything that was changed before. Rejects after two minutes. */
const drawn = `new Promise((done, fail) => {
  const until = performance.now() + 120000;
  let still = 0;
  const look = () => {
    const isBusy = document.querySelector('main[aria-label=Pictures]')?.getAttribute('aria-busy') !== 'false';
    still = isBusy ? 0 : still + 1;
    if (still > 20) done();
    else if (performance.now() > until) fail(new Error('The pictures are busy for two minutes.'));
    else requestAnimationFrame(look);
  };
  look();
})`;

const open = (task) => `(() => {
  const links = [...document.querySelectorAll('nav[aria-label=Tasks] a')];
  links.find((link) => link.textContent.includes(${JSON.stringify(task)})).click();
})()`;

/** The headings, errors and alerts on the screen. */
const report = `({
  heading: document.querySelector('.sheet h1')?.textContent ?? null,
  problems: [...problems, ...[...document.querySelectorAll('[role=alert]')].map((alert) => alert.textContent)],
})`;

/** The surfaces of a picture as a PNG. */
const surfaces = (name) => `(() => {
  const canvas = document.querySelector('.centre > canvas.pictures');
  const all = canvas.getBoundingClientRect();
  const part = document.querySelector('[data-picture=${name}]').getBoundingClientRect();
  const k = canvas.width / all.width;
  const copy = Object.assign(document.createElement('canvas'), { width: part.width * k, height: part.height * k });
  copy.getContext('2d').drawImage(canvas, (all.left - part.left) * k, (all.top - part.top) * k);
  return copy.toDataURL();
})()`;
const decodeUrl = (url) => decode(Buffer.from(url.split(',')[1], 'base64'));

/** The share of pixels that differ by more than three steps of 255 in any channel. */
function difference(a, b) {
  if (a.width !== b.width || a.height !== b.height) return 1;
  let count = 0;
  for (let i = 0; i < a.data.length; i += 4)
    if ([0, 1, 2].some((k) => Math.abs(a.data[i + k] - b.data[i + k]) > 3)) count++;
  return count / (a.width * a.height);
}

/** Opens all tasks in one browser. Returns the problems and the pictures of the demo. */
async function visit(browser, address) {
  const page = await browser.open();
  const problems = [];
  const pictures = {};
  try {
    await page.goto(`${address}/frame`);
    await page.evaluate(record);
    await page.evaluate(drawn);
    for (const name of ['main', 'plan']) pictures[name] = decodeUrl(await page.evaluate(surfaces(name)));
    for (const task of tasks) {
      await page.evaluate(open(task));
      await page.evaluate(drawn);
      const { heading, problems: found } = await page.evaluate(report);
      if (!heading?.includes(task)) problems.push(`${task}: the worksheet is headed ${heading}`);
      problems.push(...found.map((problem) => `${task}: ${problem}`));
      await page.evaluate('void (problems.length = 0)');
    }
  } catch (error) {
    problems.push(error.message);
  } finally {
    await page.close();
  }
  return { problems, pictures };
}

/**
 * Checks the application in every browser.
 *
 * @returns a name and the problems of each check; `skipped` is the reason where a browser is not installed
 */
export async function checkBrowsers() {
  installBrowsers();
  const server = spawn('node', [resolve(root, 'bin/astrolabe.js'), 'serve', '--port', String(port)], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise((ready) => server.stdout.once('data', ready));
  const checks = [];
  let expected = null;
  try {
    for (const browser of browsers) {
      const name = `all tasks in ${browser.name}`;
      if (!browser.isInstalled()) {
        checks.push({ name, problems: [], skipped: `${browser.package} is not installed` });
        continue;
      }
      const { problems, pictures } = await visit(browser, `http://127.0.0.1:${port}`);
      checks.push({ name, problems, skipped: null });
      if (!expected) expected = pictures;
      else
        for (const [picture, pixels] of Object.entries(pictures)) {
          const share = expected[picture] ? difference(pixels, expected[picture]) : 1;
          const title = `the demo’s ${picture} picture in ${browser.name} differs from Chromium’s by ${(100 * share).toFixed(2)} % of its pixels`; // prettier-ignore
          console.log(title);
          checks.push({ name: title, problems: share < mostDifferent ? [] : [`More than ${100 * mostDifferent} %.`], skipped: null }); // prettier-ignore
        }
    }
  } finally {
    server.kill();
  }
  return checks;
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const checks = await checkBrowsers();
  for (const { name, problems, skipped } of checks)
    console.log(`${skipped ? `skipped (${skipped})` : problems.length ? 'FAILED' : 'passed'}: ${name}${problems.map((one) => `\n  ${one}`).join('')}`); // prettier-ignore
  process.exit(checks.some(({ problems }) => problems.length) ? 1 : 0);
}
