import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { randomFrom } from '../core/math/random';
import { serve } from './main';

type Serving = Awaited<ReturnType<typeof serve>>;
let first: Serving;
// A page of the test's own: the unit tests run before the application is built.
const folder = mkdtempSync(join(tmpdir(), 'page-'));
beforeAll(async () => {
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

  it('leads an address with more folders than one back to the first, and nowhere else', async () => {
    const led = async (path: string) => {
      const { status, headers } = await fetch(first.address + path, { redirect: 'manual' });
      return [status, headers.get('Location')];
    };
    expect(await (await fetch(`${first.address}/frame`)).text()).toContain('The page');
    expect(await led('/frame/x')).toEqual([302, '/frame']);
    expect(await led('//elsewhere.example/x')).toEqual([302, '/']);
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
      required: expect.arrayContaining(['camera']),
    });
  });
});
