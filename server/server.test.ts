import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { request as httpRequest } from 'node:http';
import { tmpdir } from 'node:os';
import { gzipSync } from 'node:zlib';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { randomFrom } from '../core/math/random';
import { buildNode } from '../scripts/lib/build.mjs';
import { serve } from './main';

type Serving = Awaited<ReturnType<typeof serve>>;
let first: Serving;
// A page of the test's own: the unit tests run before the application is built.
const folder = mkdtempSync(join(tmpdir(), 'page-'));
beforeAll(async () => {
  // The computing threads are those of the build.
  await buildNode();
  writeFileSync(join(folder, 'index.html'), '<!doctype html><title>The page</title>');
  first = await serve({ port: 4870, host: '127.0.0.1', folder });
});
afterAll(() => {
  first.server.close();
  rmSync(folder, { recursive: true });
});

const post = (body: string, type = 'application/json') =>
  fetch(`${first.address}/api/compute`, { method: 'POST', body, headers: { 'content-type': type } });

describe('the server', () => {
  it('answers a request, and takes the next port when one is taken', async () => {
    const request = {
      astrolabe: 1,
      viewport: { width: 2, height: 2 },
      camera: {
        position: [0, 0, 0],
        orientation: { yaw: 0, pitch: 0 },
        projection: { kind: 'orthographic', near: 0, far: 1, height: 2 },
      },
      queries: [{ id: 'a', op: 'worldToScreen', points: [[0, 0, 0]] }],
    };
    const response = await post(JSON.stringify(request));
    expect(response.status).toBe(200);
    expect(await response.json()).toMatchObject({
      results: [{ id: 'a', points: [{ screen: [1, 1], inFront: true }] }],
    });
    const second = await serve({ port: Number(new URL(first.address).port), host: '127.0.0.1' });
    expect(second.taken).toContain(Number(new URL(first.address).port));
    second.server.close();
  });

  /** What a browser or another client may send, which `fetch` does not let a test say. */
  const ask = (headers: Record<string, string>, method = 'POST', path = '/api/compute') =>
    new Promise<number>((done, failed) => {
      const { hostname, port } = new URL(first.address);
      const sent = httpRequest({ hostname, port, path, method, headers }, (response) => {
        response.resume().on('end', () => done(response.statusCode!));
      });
      sent.on('error', failed).end(method === 'POST' ? '[]' : undefined);
    });

  it('answers to its own names alone, and to no page from elsewhere, on any route', async () => {
    const { port, host } = new URL(first.address);
    const json = { 'content-type': 'application/json' };
    // What is wrong with the request itself is 422; whoever is not let in is told 403.
    for (const own of [host, `localhost:${port}`, `[::1]:${port}`]) expect(await ask({ ...json, host: own })).toBe(422);
    expect(await ask({ ...json, host, origin: `http://${host}`, 'sec-fetch-site': 'same-origin' })).toBe(422);
    const foreign: Record<string, string>[] = [
      { host: 'rebound.example' },
      { host: `rebound.example:${port}` },
      { host, origin: 'https://elsewhere.example' },
      { host, origin: 'http://localhost:1' },
      { host, origin: 'null' },
      { host, 'sec-fetch-site': 'cross-site' },
    ];
    for (const headers of foreign) {
      expect(await ask({ ...json, ...headers }), JSON.stringify(headers)).toBe(403);
      for (const path of ['/', '/frame', '/api/schema/compute'])
        expect(await ask(headers, 'GET', path), `${path} ${JSON.stringify(headers)}`).toBe(403);
    }
  });

  it('takes nothing but JSON, which no page from elsewhere can send unasked', async () => {
    for (const type of [
      'text/plain',
      'application/x-www-form-urlencoded',
      'multipart/form-data',
      'application/jsonp',
      'application/merge-patch+json',
      'application/json; charset=latin1',
    ])
      // prettier-ignore
      expect((await post('[]', type)).status).toBe(415);
    for (const type of ['application/json', 'application/json; charset=utf-8', 'Application/JSON;charset="UTF-8"'])
      expect((await post('[]', type)).status).toBe(422);
  });

  it('answers other methods than GET on pages as problems, not as pages', async () => {
    for (const method of ['PUT', 'DELETE', 'PATCH', 'OPTIONS', 'POST']) {
      const response = await fetch(`${first.address}/`, { method });
      expect([response.status, response.headers.get('allow')], method).toEqual([405, 'GET, HEAD']);
      expect(response.headers.get('content-type'), method).toMatch(/^application\/problem\+json/);
    }
  });

  it('rejects a body over the limit before it has come, a key twice, and millions of lists', async () => {
    const { hostname, port } = new URL(first.address);
    const status = await new Promise<number>((done, failed) => {
      const headers = { 'content-type': 'application/json', 'content-length': String(40 * 1024 * 1024) };
      const sent = httpRequest({ hostname, port, path: '/api/compute', method: 'POST', headers }, (response) => {
        response.resume();
        done(response.statusCode!);
        sent.destroy();
      });
      sent.on('error', failed);
      // Its beginning alone is sent.
      sent.write('[');
    });
    expect(status).toBe(413);
    const problem = async (body: string) => (await (await post(body)).json()) as { errors: { message: string }[] };
    expect((await problem('{"astrolabe":1,"queries":[],"queries":[]}')).errors[0]!.message).toContain('twice');
    const many = await problem(`{"astrolabe":1,"queries":[{"id":"c","op":"clip","polygons":[${'[],'.repeat(5_000_000)}[]]}]}`); // prettier-ignore
    expect(many.errors[0]!.message).toContain('lists and objects');
    expect((await problem('{"astrolabe":1,"viewport":{"width":1e400,"height":1}}')).errors.map(({ message }) => message).join()).toContain('beyond the range of doubles'); // prettier-ignore
  });

  it.each([
    ['not JSON', '{"astrolabe":', 422],
    ['nothing', '', 422],
    ['a list', '[]', 422],
    ['a number', '12', 422],
    ['too much', `"${'x'.repeat(33 * 1024 * 1024)}"`, 413],
  ])('gives a problem document for %s', async (_name, body, status) => {
    const response = await post(body);
    expect(response.status).toBe(status);
    expect(response.headers.get('content-type')).toMatch(/^application\/problem\+json/);
    expect(await response.json()).toMatchObject({
      status,
      errors: expect.arrayContaining([{ path: expect.anything(), message: expect.stringMatching(/\.$/) }]),
    });
  });

  it('answers a thousand torn requests with 4xx and a problem document, and is still there', async () => {
    const whole = JSON.stringify({
      astrolabe: 1,
      viewport: { width: 20, height: 10 },
      camera: { position: [0, 0, 0], orientation: { lookAt: [0, 0, -5] }, projection: { kind: 'perspective', near: 1, far: 9, verticalFov: 60 } }, // prettier-ignore
      bodies: [{ id: 'a', shape: { kind: 'mesh', positions: [0, 0, -3, 1, 0, -3, 0, 1, -3], indices: [0, 1, 2] }, position: [0, 0, 0] }], // prettier-ignore
      queries: [
        { id: 'p', op: 'pick', pixels: [[10, 5]] },
        {
          id: 's',
          op: 'spawn',
          surface: { plane: { point: [0, -1, 0], normal: [0, 1, 0] } },
          bounds: { ringOuter: 3 },
          count: 4,
        },
      ],
    });
    const random = randomFrom(9);
    const pieces = ['null', '-1', '1e400', '"x"', '[]', '{}', 'true', ',', '}', '\u0000', '9'.repeat(400), '"\\ud800"'];
    let refused = 0;
    for (let i = 0; i < 1000; i++) {
      let text = whole;
      for (let k = 0; k <= random() * 3; k++) {
        const at = Math.floor(random() * text.length);
        const piece = pieces[Math.floor(random() * pieces.length)]!;
        text = text.slice(0, at) + piece + text.slice(at + Math.floor(random() * 6));
      }
      const response = await post(text, random() < 0.1 ? 'text/plain' : 'application/json');
      expect(response.status, text).toBeLessThan(500);
      const body = (await response.json()) as { status?: number; errors?: { message: string }[] };
      if (response.status === 200) continue;
      refused++;
      expect(body.status).toBe(response.status);
      for (const { message } of body.errors!) expect(message, text).toMatch(/[.)]$/);
    }
    expect(refused).toBeGreaterThan(700);
    expect((await post(whole)).status).toBe(200);
  }, 60_000);

  const camera = {
    position: [0, 0, 0],
    orientation: { lookAt: [0, 0, -5] },
    projection: { kind: 'perspective', near: 1, far: 9, verticalFov: 60 },
  };
  const small = { astrolabe: 1, viewport: { width: 20, height: 10 }, camera, queries: [{ id: 'm', op: 'matrices' }] };
  /** Much work in few bytes: every pixel asks every body. */
  const heavy = (pixels: number) => ({
    ...small,
    bodies: Array.from({ length: 2_000 }, (_, i) => ({ id: `b${i}`, shape: { kind: 'sphere', radius: 0.01 }, position: [i % 7, i % 5, -(i % 9) - 1] })), // prettier-ignore
    queries: [{ id: 'many rays', op: 'pick', all: true, pixels: Array.from({ length: pixels }, (_, i) => [i % 20, i % 10]) }], // prettier-ignore
  });

  it('opens nothing that is compressed beyond its limit', async () => {
    const bodies = gzipSync(`{"astrolabe":1,"bodies":[{}${',{}'.repeat(12_000_000)}]}`);
    expect(bodies.length).toBeLessThan(100_000);
    const packed = (body: Buffer) =>
      fetch(`${first.address}/api/compute`, { method: 'POST', body: new Uint8Array(body), headers: { 'content-type': 'application/json', 'content-encoding': 'gzip' } }); // prettier-ignore
    const refused = await packed(bodies);
    expect(refused.status).toBe(413);
    expect(await refused.json()).toMatchObject({
      errors: [{ message: expect.stringContaining('32 MiB, compressed or not') }],
    });
    expect((await packed(gzipSync(JSON.stringify(small)))).status).toBe(200);
  });

  it('gives up on what takes too long, naming the query, and answers others meanwhile and after', async () => {
    // Reading a request ends in time on a busy machine, too; small requests wait as long as they must.
    const patience = { niceness: 5, quickMilliseconds: 60_000, waitingSeconds: 60 };
    const quick = await serve({ port: 4875, host: '127.0.0.1', seconds: 8, threads: 2, ...patience });
    const ask = (given: object) =>
      fetch(`${quick.address}/api/compute`, { method: 'POST', body: JSON.stringify(given), headers: { 'content-type': 'application/json' } }); // prettier-ignore
    try {
      const late = [1, 2].map(() => ask(heavy(120_000)));
      const beside = await Promise.all(Array.from({ length: 40 }, () => ask(small)));
      for (const one of beside) expect(one.status).toBe(200);
      for (const one of await Promise.all(late)) {
        expect(one.status).toBe(503);
        expect(await one.json()).toMatchObject({
          title: 'It took too long',
          errors: [{ path: 'queries[0]', message: expect.stringContaining('Query “many rays” took longer than the 8 seconds') }], // prettier-ignore
        });
      }
      expect((await ask(small)).status).toBe(200);
    } finally {
      quick.server.close();
    }
  }, 30_000);

  it('loses a thread to what needs too much memory, and nothing else', async () => {
    // Time enough for a slow machine to run out of memory first.
    const lean = await serve({ port: 4878, host: '127.0.0.1', memory: 96, threads: 1, seconds: 50 });
    const ask = (given: object) =>
      fetch(`${lean.address}/api/compute`, { method: 'POST', body: JSON.stringify(given), headers: { 'content-type': 'application/json' } }); // prettier-ignore
    try {
      const items = Array.from({ length: 250_000 }, () => ({ position: [0, 0, -4], mode: 'eyePoint' }));
      const lost = await ask({ ...small, queries: [{ id: 'boards', op: 'billboard', items }] });
      expect(lost.status).toBe(503);
      expect(await lost.json()).toMatchObject({ title: 'Too much memory' });
      expect((await ask(heavy(20))).status).toBe(200);
      expect((await ask(small)).status).toBe(200);
    } finally {
      lean.server.close();
    }
  }, 60_000);

  it('writes an answer in pieces that is far larger than what it holds, and stops when nobody takes it', async () => {
    const points = Array.from({ length: 60_000 }, (_, i) => [i % 7, i % 5, -(i % 9)]);
    const response = await post(JSON.stringify({ ...small, queries: [{ id: 'p', op: 'worldToScreen', points }] }));
    expect(response.status).toBe(200);
    const answer = (await response.json()) as { results: { points: { screen: number[] | null }[] }[] };
    expect(answer.results[0]!.points).toHaveLength(60_000);
    const left = new AbortController();
    const begun = await fetch(`${first.address}/api/compute`, { method: 'POST', signal: left.signal, body: JSON.stringify({ ...small, queries: [{ id: 'p', op: 'worldToScreen', points }] }), headers: { 'content-type': 'application/json' } }); // prettier-ignore
    left.abort();
    await begun.text().catch(() => undefined);
    expect((await post(JSON.stringify(small))).status).toBe(200);
  }, 60_000);

  it('leads an address with more folders than one back to the first, and nowhere else', async () => {
    const led = async (path: string) => {
      const { status, headers } = await fetch(first.address + path, { redirect: 'manual' });
      return [status, headers.get('Location')];
    };
    expect(await (await fetch(`${first.address}/frame`)).text()).toContain('The page');
    expect(await led('/frame/x')).toEqual([302, '/frame']);
    expect(await led('//elsewhere.example/x')).toEqual([302, '/']);
    // A part that a page of another build asks for is not there, rather than a page.
    for (const path of ['/assets/index-gone.js', '/assets/', '/sw-gone.js', '/assets/a/b.css'])
      expect(await led(path), path).toEqual([404, null]);
    expect(await led('/%5Celsewhere.example/x')).toEqual([302, '/']);
  });

  it('lets a page run what the server itself gives, and nothing written into it', async () => {
    const policy = (await fetch(`${first.address}/api/schema/compute`)).headers.get('Content-Security-Policy')!;
    expect(policy).toMatch(/^default-src 'self';/);
    expect(policy).not.toMatch(/unsafe|\*|https?:|data:/);
  });

  it('says what it has where there is nothing, and serves the schema', async () => {
    expect((await fetch(`${first.address}/api/compute`)).status).toBe(405);
    expect((await fetch(`${first.address}/api/elsewhere`)).status).toBe(404);
    expect(await (await fetch(`${first.address}/api/schema/compute`)).json()).toMatchObject({
      type: 'object',
      required: expect.arrayContaining(['viewport', 'queries']),
    });
  });
});
