// Node built-ins alone: this runs before anything is installed.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, statSync } from 'node:fs';
import { at, root } from './fresh.mjs';

/** Runs `npm ci` when the packages are missing or older than the lock file. */
export function installPackages() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    console.error(`Astrolabe needs Node 20.19 or newer; this is ${process.version}.`);
    process.exit(1);
  }
  const marker = at('node_modules', '.package-lock.json');
  if (existsSync(marker) && statSync(marker).mtimeMs >= statSync(at('package-lock.json')).mtimeMs) return;
  if (existsSync(marker) && sameLock(marker)) return;
  console.log('Installing packages (npm ci)…');
  const npm = process.platform === 'win32' ? 'npm.cmd' : 'npm';
  const run = spawnSync(npm, ['ci', '--include=dev', '--no-audit', '--no-fund'], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
    shell: process.platform === 'win32',
  });
  if (run.status !== 0) {
    console.error('npm ci failed; what it said stands above.');
    process.exit(1);
  }
}

/** A checkout touches the lock file without changing what it asks for. */
function sameLock(marker) {
  const packages = (path) => JSON.parse(readFileSync(path, 'utf8')).packages;
  const have = packages(marker);
  const want = packages(at('package-lock.json'));
  return Object.entries(want).every(
    ([name, { version, optional, dev, peer, devOptional }]) =>
      name === '' || optional || devOptional || have[name]?.version === version || (dev && peer),
  );
}
