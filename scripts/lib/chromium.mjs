import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

export const chromiumPath = process.env.CHROMIUM ?? '/usr/bin/chromium';

/**
 * How every script and test starts the browser: WebGL2 in software, nothing asked of the network.
 */
export const launchOptions = {
  executablePath: chromiumPath,
  args: [
    '--no-sandbox',
    '--use-angle=swiftshader',
    '--enable-unsafe-swiftshader',
    '--ignore-gpu-blocklist',
    // Pages are painted and put together by the processor itself: with WebGL in software there is no
    // GPU to spare, and a page through it costs more than all its pictures.
    '--disable-gpu-rasterization',
    '--disable-gpu-compositing',
    // Letters come out alike in what is set and on canvases, which have no colour fringes either.
    '--disable-lcd-text',
    '--disable-background-networking',
  ],
};

/**
 * Sees to it that Debian's Chromium is there: installs it as root, otherwise says what to install.
 */
export function ensureChromium() {
  if (existsSync(chromiumPath)) return true;
  const advice = `The browser tests need Chromium at ${chromiumPath}. On Debian: apt-get install chromium. Elsewhere set CHROMIUM to its path.`;
  if (process.getuid?.() !== 0 || spawnSync('apt-get', ['--version']).status !== 0) {
    console.error(advice);
    return false;
  }
  console.log('Installing chromium (apt-get)…');
  const environment = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  spawnSync('apt-get', ['update'], { stdio: 'ignore', env: environment });
  const run = spawnSync('apt-get', ['install', '-y', '--no-install-recommends', 'chromium'], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: environment,
  });
  if (run.status === 0 && existsSync(chromiumPath)) return true;
  console.error(advice);
  return false;
}
