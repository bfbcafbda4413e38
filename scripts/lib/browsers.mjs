// The browsers that `npm run soak` opens the application in: Chromium, Firefox and WebKit, each by the driver that
// it comes with. A browser that is not installed, and cannot be, is reported by its Debian packages.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { setTimeout as wait } from 'node:timers/promises';
import { chromium } from '@playwright/test';
import puppeteer from 'puppeteer-core';
import { launchOptions } from './chromium.mjs';

/** What a browser shows of a page, in CSS pixels. */
export const viewport = { width: 1280, height: 800 };

const display = ':47';
const webKitPort = 4796;
const firefoxPath = '/usr/bin/firefox-esr';
const webKitDriver = '/usr/bin/WebKitWebDriver';
const webKitBrowsers = ['4.1', '4.0', '6.0'].map((version) => `/usr/lib/x86_64-linux-gnu/webkit2gtk-${version}/MiniBrowser`); // prettier-ignore

const packages = { firefox: 'firefox-esr', webkit: 'webkit2gtk-driver', screen: 'xvfb' };

/** Installs Debian's packages where that is possible. */
export function installBrowsers() {
  const missing = [
    ...(existsSync(firefoxPath) ? [] : [packages.firefox]),
    ...(existsSync(webKitDriver) ? [] : [packages.webkit]),
    ...(existsSync('/usr/bin/Xvfb') ? [] : [packages.screen]),
  ];
  if (!missing.length) return;
  console.log(`Installing ${missing.join(' ')} (apt-get)…`);
  const options = { stdio: 'ignore', env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } };
  spawnSync('apt-get', ['update'], options);
  spawnSync('apt-get', ['install', '-y', '--no-install-recommends', ...missing], options);
}

/** Starts a screen for browsers that need one. Returns its end. */
async function openScreen() {
  const child = spawn('Xvfb', [display, '-screen', '0', '1600x1200x24'], { stdio: 'ignore' });
  await wait(1000);
  return () => child.kill();
}

/** Chromium, as all other tests start it. */
async function openChromium() {
  const browser = await chromium.launch(launchOptions);
  const page = await browser.newPage({ viewport, serviceWorkers: 'block' });
  return {
    goto: (address) => page.goto(address),
    evaluate: (script) => page.evaluate(script),
    close: () => browser.close(),
  };
}

/** Firefox by WebDriver BiDi. */
async function openFirefox() {
  const close = await openScreen();
  const browser = await puppeteer.launch({
    browser: 'firefox',
    executablePath: firefoxPath,
    headless: false,
    env: { ...process.env, DISPLAY: display },
    defaultViewport: viewport,
    extraPrefsFirefox: { 'webgl.force-enabled': true },
  });
  const [page] = await browser.pages();
  await page.setViewport(viewport);
  return {
    goto: (address) => page.goto(address),
    evaluate: (script) => page.evaluate(script),
    close: async () => {
      await browser.close();
      close();
    },
  };
}

/** A WebKit browser by WebDriver. */
async function openWebKit() {
  const close = await openScreen();
  const driver = spawn(webKitDriver, [`--port=${webKitPort}`], {
    stdio: 'ignore',
    env: {
      ...process.env,
      DISPLAY: display,
      WEBKIT_DISABLE_SANDBOX_THIS_IS_DANGEROUS: '1',
      LIBGL_ALWAYS_SOFTWARE: '1',
    },
  });
  await wait(1000);
  const request = async (method, path, body) => {
    const answer = await fetch(`http://127.0.0.1:${webKitPort}${path}`, {
      method,
      ...(body && { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    });
    const { value } = await answer.json();
    if (!answer.ok) throw new Error(`${value?.error}: ${value?.message}`);
    return value;
  };
  const binary = webKitBrowsers.find((path) => existsSync(path));
  const { sessionId } = await request('POST', '/session', {
    capabilities: { alwaysMatch: { 'webkitgtk:browserOptions': { binary, args: ['--automation'] } } },
  });
  const session = `/session/${sessionId}`;
  await request('POST', `${session}/timeouts`, { script: 300_000, pageLoad: 120_000 });
  const evaluate = (script) =>
    request('POST', `${session}/execute/async`, {
      script: `const done = arguments[0];
        Promise.resolve().then(() => (${script})).then((value) => done({ value }), (error) => done({ error: String(error) }));`,
      args: [],
    }).then(({ value, error }) => {
      if (error) throw new Error(error);
      return value;
    });
  // The window's own parts are around the page: it is larger by them.
  await request('POST', `${session}/window/rect`, { width: 1300, height: 900 });
  const inner = await evaluate('[innerWidth, innerHeight]');
  await request('POST', `${session}/window/rect`, { width: 1300 + viewport.width - inner[0], height: 900 + viewport.height - inner[1] }); // prettier-ignore
  return {
    goto: (url) => request('POST', `${session}/url`, { url }),
    evaluate,
    close: async () => {
      await request('DELETE', session).catch(() => {});
      driver.kill();
      close();
    },
  };
}

export const browsers = [
  {
    name: 'Chromium',
    isInstalled: () => existsSync(launchOptions.executablePath),
    open: openChromium,
    package: 'chromium',
  },
  { name: 'Firefox', isInstalled: () => existsSync(firefoxPath), open: openFirefox, package: packages.firefox },
  { name: 'WebKit', isInstalled: () => existsSync(webKitDriver), open: openWebKit, package: packages.webkit },
];
