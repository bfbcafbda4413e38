import { at, changed, sources } from './fresh.mjs';
import { standAlone } from './offline.mjs';

/** Bundles the command line and the server for Node, if their sources are newer than the bundle. */
export async function buildNode({ force = false } = {}) {
  if (!force && !changed('dist/node/cli.js', sources.node)) return;
  const { build } = await import('esbuild');
  await build({
    entryPoints: { cli: at('cli/main.ts'), server: at('server/main.ts') },
    outdir: at('dist/node'),
    bundle: true,
    splitting: true,
    format: 'esm',
    platform: 'node',
    target: 'node20.19',
    logLevel: 'warning',
    external: ['express'],
    // Some bundled packages still call require.
    banner: {
      js: "import { createRequire as __createRequire } from 'node:module'; const require = __createRequire(import.meta.url);",
    },
  });
}

/** Builds the application with Vite, if its sources are newer than the build. */
export async function buildApp({ force = false } = {}) {
  if (!force && !changed('dist/app/sw.js', sources.app)) return;
  console.log('Building the application…');
  const { build } = await import('vite');
  await build({ configFile: at('app/vite.config.ts'), logLevel: 'warn' });
  await standAlone();
}
