import { request as httpRequest, type IncomingHttpHeaders } from 'node:http';
import { gunzipSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import Ajv2020 from 'ajv/dist/2020';
import { operationTable } from '../core/compute/operations';
import { version } from '../core/version';
import { schemaNames } from '../formats/schemas';
import { buildNode } from '../scripts/lib/build.mjs';
import { serve } from './main';

/* The interface over HTTP beside `compute`: its description, the other endpoints, pages elsewhere, compression, queues. */

type Serving = Awaited<ReturnType<typeof serve>>;
const page = 'https://tools.example';
let serving: Serving;
beforeAll(async () => {
  await buildNode();
  serving = await serve({ port: 4950, host: '127.0.0.1', allowOrigin: [page] });
}, 60_000);
afterAll(() => void serving.server.close());

const camera = { position: [1, 2, 9], orientation: { lookAt: [0, 1, 0] }, projection: { kind: 'perspective', near: 0.5, far: 80, verticalFov: 50 } }; // prettier-ignore
const request = { astrolabe: 1, viewport: { width: 640, height: 360 }, camera, queries: [] };
const get = async (path: string) =>
  (await fetch(`${serving.address}${path}`)).json() as Promise<Record<string, unknown>>;
const post = async (path: string, body: unknown) => {
  const response = await fetch(`${serving.address}${path}`, { method: 'POST', body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }); // prettier-ignore
  return { status: response.status, body: (await response.json()) as Record<string, unknown> };
};

/** Sends a request as another client would, and returns the answer as it came. */
const send = (method: string, path: string, headers: Record<string, string>, body?: Uint8Array | string) =>
  new Promise<{ status: number; headers: IncomingHttpHeaders; bytes: Buffer }>((done, failed) => {
    const { hostname, port } = new URL(serving.address);
    const sent = httpRequest({ hostname, port, path, method, headers }, (response) => {
      const chunks: Buffer[] = [];
      response.on('data', (chunk: Buffer) => void chunks.push(chunk));
      response.on('end', () => done({ status: response.statusCode!, headers: response.headers, bytes: Buffer.concat(chunks) })); // prettier-ignore
    });
    sent.on('error', failed).end(body);
  });

describe('the interface over HTTP', () => {
  it('lists itself: version, limits, endpoints, schemas, health', async () => {
    const about = await get('/api');
    expect(about).toMatchObject({ version, health: 'ok', limits: { queries: 1000 }, description: '/api/openapi.json' });
    for (const path of about['schemas'] as string[]) expect((await get(path))['title']).toBeTruthy();
    expect(about['endpoints']).toEqual(['/api/compute', '/api/code', '/api/vectors', '/api/check', '/api/diagnose']);
  });

  it('is described by OpenAPI, whose references all lead to a schema', async () => {
    const text = JSON.stringify(await get('/api/openapi.json'));
    const description = JSON.parse(text) as { openapi: string; paths: Record<string, { post?: { description: string } }> };
    expect(description.openapi).toBe('3.1.0');
    for (const { name } of operationTable) expect(description.paths['/api/compute']!.post!.description).toContain(`\`${name}\``); // prettier-ignore
    for (const [, pointer] of text.matchAll(/"\$ref":"#\/([^"]*)"/g)) {
      const found = pointer!.split('/').reduce<unknown>((node, key) => (node as Record<string, unknown> | undefined)?.[key], description); // prettier-ignore
      expect(found, pointer).toBeDefined();
    }
    const { components } = description as unknown as { components: { schemas: Record<string, object> } };
    expect(Object.keys(components.schemas)).toEqual([...schemaNames]);
    const ajv = new Ajv2020({ strict: false }).addSchema(description, 'api');
    expect(ajv.validate({ $ref: 'api#/components/schemas/request' }, request)).toBe(true);
    expect(ajv.validate({ $ref: 'api#/components/schemas/request' }, { ...request, queris: [] })).toBe(false);
  }); // prettier-ignore

  it('writes code and vectors, checks answers and diagnoses logs as the command line does', async () => {
    const code = await post('/api/code', { request, language: 'rust', parts: ['camera', 'ray'], harness: true });
    expect(code.body['files']).toMatchObject([{ name: 'camera.rs' }, { name: 'harness.rs' }]);
    const vectors = await post('/api/vectors', { request, count: 5, seed: 2, parts: ['camera', 'ray'] });
    const rows = vectors.body['rows'] as { id: string; kind: string; expected: number[] }[];
    expect(new Set(rows.map(({ kind }) => kind))).toEqual(new Set(['view', 'projection', 'viewProjection', 'cameraToWorld', 'ray'])); // prettier-ignore
    const answers = Object.fromEntries(rows.map(({ id, kind, expected }) => [id, kind === 'ray' ? expected.map((v, i) => (i < 3 ? v : -v)) : expected])); // prettier-ignore
    const check = await post('/api/check', { vectors: vectors.body, answers });
    expect(check.body).toMatchObject({ astrolabeCheck: 1, explanations: [{ text: expect.stringContaining('towards the eye') }] }); // prettier-ignore
    const view = rows.find(({ kind }) => kind === 'view')!.expected;
    const diagnosis = await post('/api/diagnose', { request, log: `view = ${view.join(', ')}` });
    expect(diagnosis.body).toMatchObject({ answer: { verdict: 'agrees' } });
  });

  it.each([
    ['/api/code', { request, language: 'Cobol' }, 'language'],
    ['/api/code', { request, language: 'C', scope: '3d' }, 'scope'],
    ['/api/vectors', { request, count: 0 }, 'count'],
    ['/api/vectors', { request: { astrolabe: 1 } }, 'viewport'],
    ['/api/check', { vectors: {}, answers: {} }, 'vectors'],
    ['/api/diagnose', { request }, 'log'],
    ['/api/diagnose', [], ''],
  ])('rejects what %s cannot use, naming the key', async (path, body, key) => {
    const answered = await post(path, body);
    expect(answered.status).toBe(422);
    expect(answered.body['errors']).toContainEqual(expect.objectContaining({ path: key }));
  });

  it('answers pages of an allowed origin, with preflight, and says the option to others', async () => {
    const json = { 'content-type': 'application/json', host: new URL(serving.address).host };
    const preflight = await send('OPTIONS', '/api/compute', { ...json, origin: page, 'access-control-request-method': 'POST' }); // prettier-ignore
    expect(preflight.status).toBe(204);
    expect(preflight.headers).toMatchObject({ 'access-control-allow-origin': page, 'access-control-allow-headers': 'Content-Type' }); // prettier-ignore
    const answered = await send('POST', '/api/compute', { ...json, origin: page, 'sec-fetch-site': 'cross-site' }, JSON.stringify(request)); // prettier-ignore
    expect(answered.status).toBe(200);
    expect(answered.headers['access-control-allow-origin']).toBe(page);
    const other = await send('POST', '/api/compute', { ...json, origin: 'https://other.example' }, '{}');
    expect(other.status).toBe(403);
    expect(other.headers['access-control-allow-origin']).toBeUndefined();
    expect(other.bytes.toString()).toContain('--allow-origin');
  });

  it('compresses answers when asked, and reads a compressed request as large as a plain one', async () => {
    const json = { 'content-type': 'application/json', host: new URL(serving.address).host };
    const points = Array.from({ length: 200_000 }, (_, i) => [i % 50, i % 7, -(i % 90) - 1]);
    const text = JSON.stringify({ ...request, queries: [{ id: 'p', op: 'worldToScreen', points: points.slice(0, 20_000) }] }); // prettier-ignore
    const plain = await send('POST', '/api/compute', json, text);
    const packed = await send('POST', '/api/compute', { ...json, 'accept-encoding': 'gzip' }, text);
    expect(packed.headers['content-encoding']).toBe('gzip');
    expect(packed.bytes.length).toBeLessThan(plain.bytes.length / 3);
    expect(gunzipSync(packed.bytes).equals(plain.bytes)).toBe(true);
    const large = JSON.stringify({ ...request, queries: [{ id: 'p', op: 'worldToScreen', points }], $schema: 'x'.repeat(5_000_000) }); // prettier-ignore
    expect(large.length).toBeGreaterThan(7_000_000);
    const inflated = await send('POST', '/api/compute', { ...json, 'content-encoding': 'gzip', 'accept-encoding': 'gzip' }, gzipSync(large)); // prettier-ignore
    expect(inflated.status).toBe(200);
  });

  it('queues 500 requests in parallel and answers all of them', async () => {
    const points = Array.from({ length: 300 }, (_, i) => [i % 5, i % 7, -(i % 9) - 1]);
    const text = { ...request, queries: [{ id: 'p', op: 'worldToScreen', points }] };
    const all = await Promise.all(Array.from({ length: 500 }, () => post('/api/compute', text)));
    expect(all.every(({ status }) => status === 200)).toBe(true);
  });
});
