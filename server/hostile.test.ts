import { spawn, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { badRequests, requests } from '../core/testing/requests';
import { buildNode } from '../scripts/lib/build.mjs';
import { soaks } from '../core/testing/seed';

let server: ChildProcess;
let address = '';
/** What the server has said beside its address: a trace would be among it. */
let said = '';
beforeAll(async () => {
  await buildNode();
  const program = fileURLToPath(new URL('../bin/astrolabe.js', import.meta.url));
  server = spawn(process.execPath, [program, 'serve', '--port', '4890'], { stdio: ['ignore', 'pipe', 'pipe'] });
  server.stderr!.on('data', (text) => (said += text));
  address = await new Promise<string>((ready, failed) => {
    let text = '';
    server.stdout!.on('data', (piece) => {
      text += piece;
      const found = /Astrolabe is at (\S+)/.exec(text);
      if (found) ready(found[1]!);
    });
    server.on('exit', () => failed(new Error(`The server ended: ${said}`)));
  });
  // Building and starting wait for other tests on a busy machine.
}, 60_000);
afterAll(() => void server.kill());

const send = (body: string | Uint8Array) =>
  fetch(`${address}/api/compute`, {
    method: 'POST',
    body: body as BodyInit,
    headers: { 'content-type': 'application/json' },
  });

/** Texts that were requests before some of their bytes were changed, taken out, doubled or cut off. */
const tornTexts = fc
  .tuple(badRequests, fc.array(fc.tuple(fc.nat(), fc.nat(255), fc.nat(3)), { maxLength: 3 }))
  .map(([given, tears]) => {
    let bytes = new TextEncoder().encode(JSON.stringify(given) ?? 'null');
    for (const [at, byte, kind] of tears) {
      const i = at % (bytes.length + 1);
      const [before, after] = [bytes.subarray(0, i), bytes.subarray(i)];
      const parts = [
        [before, [byte], after.subarray(1)],
        [before, after.subarray(1 + (byte % 9))],
        [before, after, after.subarray(0, byte)],
        [before],
      ][kind]!;
      bytes = new Uint8Array(parts.flatMap((part) => [...part]));
    }
    return bytes;
  });

/** In kibibytes, what of the memory is the server's. */
const memory = (): number => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'))![1]);

describe('a server in the wild', () => {
  it('answers what is broken with what is wrong, and is none the worse for it', async () => {
    const found = new Map<number, number>();
    await fc.assert(
      fc.asyncProperty(tornTexts, async (bytes) => {
        const response = await send(bytes);
        const text = await response.text();
        found.set(response.status, (found.get(response.status) ?? 0) + 1);
        expect([200, 422]).toContain(response.status);
        expect(text).not.toMatch(/\bat .+:\d+:\d+\b|node:internal/);
        const answer = JSON.parse(text) as { title?: string; errors?: { message: string }[] };
        if (response.status === 422) expect(answer.errors!.every(({ message }) => message.length > 8)).toBe(true);
      }),
      { numRuns: soaks ? 10_000 : 250 },
    );
    expect(found.get(422)).toBeGreaterThan(found.get(200) ?? 0);
    expect(said).toBe('');
  }, 900_000);

  it('keeps every small request beside eight at the limit', async () => {
    const camera = { position: [0, 0, 5], orientation: { yaw: 0, pitch: 0 }, projection: { kind: 'perspective', near: 0.1, far: null, verticalFov: 60 } }; // prettier-ignore
    const small = JSON.stringify({ astrolabe: 1, viewport: { width: 20, height: 10 }, camera, queries: [{ id: 'a', op: 'worldToScreen', points: [[0, 0, 0]] }] }); // prettier-ignore
    const large = JSON.stringify({
      ...{ astrolabe: 1, viewport: { width: 20, height: 10 }, camera },
      bodies: Array.from({ length: 2_000 }, (_, i) => ({ id: `b${i}`, shape: { kind: 'sphere', radius: 0.01 }, position: [i % 7, i % 5, -(i % 9)] })), // prettier-ignore
      queries: [{ id: 'q', op: 'pick', all: true, pixels: Array.from({ length: soaks ? 60_000 : 1_000 }, (_, i) => [i % 20, i % 10]) }], // prettier-ignore
    });
    const eight = Array.from({ length: 8 }, () => send(large).then((response) => response.text().then(() => response.status))); // prettier-ignore
    const all = await Promise.all(Array.from({ length: 200 }, () => send(small).then(({ status }) => status)));
    expect(all).toEqual(all.map(() => 200));
    for (const status of await Promise.all(eight)) expect([200, 503]).toContain(status);
    expect((await send(small)).status).toBe(200);
  }, 120_000);

  const long = soaks ? it : null;
  long?.(
    'holds no more after 5,000 requests of every kind than after 500, but for a fifth',
    async () => {
      const kinds = fc.sample(fc.oneof(requests, badRequests), 500).map((given) => JSON.stringify(given) ?? 'null');
      const round = async () => {
        for (let i = 0; i < kinds.length; i += 10)
          await Promise.all(
            kinds.slice(i, i + 10).map((text) => send(text).then((response) => response.arrayBuffer())),
          );
      };
      await round();
      const early = memory();
      for (let i = 0; i < 9; i++) await round();
      const late = memory();
      console.error(`after 500 requests ${(early / 1024).toFixed(0)} MiB, after 5,000 ${(late / 1024).toFixed(0)} MiB`);
      expect(late).toBeLessThan(1.2 * early);
    },
    900_000,
  );
});
