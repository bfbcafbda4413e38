import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { at, changed, sources } from './fresh.mjs';
import { standAlone } from './offline.mjs';

const nodeFolder = at('dist', 'node');
/** Milliseconds for which what an earlier build made is left to those who may still be reading it. */
const graceTime = 60_000;

/**
 * Bundles the command line and the server for Node, if their sources are newer than the bundle, and
 * gives the folder they lie in. Made aside and put in place file by file, parts before what asks
 * for them: whoever starts meanwhile, or builds at the same time, has the one or the other whole.
 * Where the sources cannot be built now (one is half written), the last build is used and that is
 * said; where the tree cannot be written, a folder of the system's.
 */
export async function buildNode({ force = false } = {}) {
  const there = existsSync(join(nodeFolder, 'cli.js'));
  if (!force && !changed('dist/node/cli.js', sources.node)) return nodeFolder;
  let aside;
  let inTree = true;
  try {
    mkdirSync(nodeFolder, { recursive: true });
    aside = mkdtempSync(at('dist', 'node-'));
  } catch (error) {
    if (there) {
      console.error(`The bundle is older than its sources, and ${at('dist')} cannot be written: ${error.message}.`);
      return nodeFolder;
    }
    aside = mkdtempSync(join(tmpdir(), 'astrolabe-'));
    inTree = false;
  }
  try {
    const { build } = await import('esbuild');
    await build({
      entryPoints: { cli: at('cli/main.ts'), server: at('server/main.ts'), worker: at('server/worker.ts') },
      outdir: aside,
      bundle: true,
      splitting: true,
      format: 'esm',
      platform: 'node',
      // Modules rather than bundles for several loaders.
      mainFields: ['module', 'main'],
      target: 'node20.19',
      logLevel: force || !there ? 'warning' : 'silent',
      // Outside of the tree its packages are not found.
      external: inTree ? ['express', 'compression'] : [],
      // Some bundled packages still call require.
      banner: {
        js: "import { createRequire as __createRequire } from 'node:module'; const require = __createRequire(import.meta.url);",
      },
    });
    await copyAssets(aside);
  } catch (error) {
    rmSync(aside, { recursive: true, force: true });
    if (force || !there) throw error;
    console.error(`The sources cannot be bundled now, and the last bundle answers: ${error.message.split('\n')[0]}`);
    return nodeFolder;
  }
  if (!inTree) return aside;
  const entries = ['worker.js', 'server.js', 'cli.js'];
  // A folder cannot be put in the place of another: its files are.
  mkdirSync(join(nodeFolder, 'assets'), { recursive: true });
  const assets = readdirSync(join(aside, 'assets')).map((name) => join('assets', name));
  const made = readdirSync(aside);
  const parts = made.filter((one) => one !== 'assets' && !entries.includes(one));
  for (const name of [...assets, ...parts, ...entries]) renameSync(join(aside, name), join(nodeFolder, name));
  rmSync(aside, { recursive: true, force: true });
  for (const name of readdirSync(nodeFolder)) {
    const path = join(nodeFolder, name);
    // Another that builds may have taken it away already.
    const stat = made.includes(name) ? null : statSync(path, { throwIfNoEntry: false });
    if (stat && stat.mtimeMs < Date.now() - graceTime) rmSync(path, { recursive: true, force: true });
  }
  return nodeFolder;
}

/** Copies the files that the bundle reads (`cli/assets.ts`) beside it. */
async function copyAssets(folder) {
  const require = createRequire(import.meta.url);
  const assets = JSON.parse(readFileSync(at('cli/assets.json'), 'utf8'));
  mkdirSync(join(folder, 'assets'));
  for (const [name, path] of Object.entries(assets)) copyFileSync(require.resolve(path), join(folder, 'assets', name));
}

/** Builds the application with Vite, if its sources are newer than the build. */
export async function buildApp({ force = false } = {}) {
  if (!force && !changed('dist/app/sw.js', sources.app)) return;
  console.log('Building the application…');
  const { build } = await import('vite');
  await build({ configFile: at('app/vite.config.ts'), configLoader: 'runner', logLevel: 'warn' });
  await standAlone();
}
