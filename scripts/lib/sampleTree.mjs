// A copy of the tree with one task more, the sample of the tests: a folder and a line. Built, and
// served from where it lies.
import { execFileSync } from 'node:child_process';
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { extname, join } from 'node:path';
import { at } from './fresh.mjs';

export const rooms = ['app', 'core', 'formats', 'demo'];

const types = {
  '.html': 'text/html',
  '.js': 'text/javascript',
  '.css': 'text/css',
  '.svg': 'image/svg+xml',
  '.woff2': 'font/woff2',
};

const sampleAfter = "{ route: 'convert', name: 'Convert', key: '2' },\n";
const sampleLine = "  { route: 'sample', name: 'Sample', key: 'm' },\n";

/** Makes and builds the tree; `remove` takes folder and line away again, `close` all of it. */
export async function sampleTree() {
  const tree = mkdtempSync(join(tmpdir(), 'astrolabe-sample-'));
  for (const room of rooms) cpSync(at(room), join(tree, room), { recursive: true });
  for (const file of ['package.json', 'tsconfig.json']) cpSync(at(file), join(tree, file));
  symlinkSync(at('node_modules'), join(tree, 'node_modules'));
  // The folder, whose ways lead from another place in the tests; and the line.
  const folder = join(tree, 'app/tasks/sample');
  const names = join(tree, 'app/tasks/names.ts');
  cpSync(at('e2e/sample'), folder, { recursive: true });
  for (const file of readdirSync(folder)) {
    const text = readFileSync(join(folder, file), 'utf8');
    const moved = text.replaceAll("'../../core/", "'../../../core/").replaceAll("'../../app/", "'../../");
    writeFileSync(join(folder, file), moved);
  }
  writeFileSync(names, readFileSync(names, 'utf8').replace(sampleAfter, sampleAfter + sampleLine));
  const vite = join(tree, 'node_modules/vite/bin/vite.js');
  execFileSync(process.execPath, [vite, 'build', '--config', 'app/vite.config.ts', '--logLevel', 'error'], {
    cwd: tree,
    stdio: 'inherit',
  });
  const server = createServer(({ url = '/' }, response) => {
    const path = new URL(url, 'http://host').pathname;
    const file = join(tree, 'dist/app', extname(path) ? path : 'index.html');
    try {
      const body = readFileSync(file);
      response.writeHead(200, { 'content-type': types[extname(file)] ?? 'application/octet-stream' }).end(body);
    } catch {
      response.writeHead(404).end();
    }
  });
  await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    tree,
    address: `http://127.0.0.1:${server.address().port}`,
    remove() {
      rmSync(folder, { recursive: true });
      writeFileSync(names, readFileSync(names, 'utf8').replace(sampleLine, ''));
    },
    close() {
      server.close();
      rmSync(tree, { recursive: true, force: true });
    },
  };
}
