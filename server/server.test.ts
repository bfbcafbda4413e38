import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { serve } from './main';

type Serving = Awaited<ReturnType<typeof serve>>;
let first: Serving;
beforeAll(async () => {
  first = await serve({ port: 4870, host: '127.0.0.1' });
});
afterAll(() => first.server.close());

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

  it('says what it has where there is nothing, and serves the schema', async () => {
    expect((await fetch(`${first.address}/api/compute`)).status).toBe(405);
    expect((await fetch(`${first.address}/api/elsewhere`)).status).toBe(404);
    expect(await (await fetch(`${first.address}/api/schema/compute`)).json()).toMatchObject({
      type: 'object',
      required: expect.arrayContaining(['camera']),
    });
  });
});
