import type { RequestCamera } from '../core/request/cameraSchema';
import { chromium, expect, test, type Page } from '@playwright/test';
import { codecOf } from '../core/conventions/codec';
import { presets } from '../core/conventions/conventions';
import { emitCode, emitHarness, printSource, setUpOf, sourceOf, type CodeWish } from '../core/deliver/code';
import { checkAnswers } from '../core/deliver/checkVectors';
import { kindsOf } from '../core/deliver/vectorKinds';
import { vectorsOf } from '../core/deliver/vectors';
import { mutants } from '../core/testing/mutants';
import { readAnswers, vectorsTable } from '../formats/vectors';

/* The shaders that are taken home, run by a real GPU interface over test vectors: GLSL by WebGL2, WGSL by WebGPU. */

const conventions = { ...presets.WebGPU, angles: { ...presets.WebGPU.angles, unit: 'degrees' as const } };
const viewport = { x: 16, y: 9, width: 1280, height: 720 };
const camera: RequestCamera = { position: [3, -5, 7], orientation: { yaw: 25, pitch: -12, roll: 8 }, projection: { kind: 'perspective', near: 0.5, far: 120, verticalFov: 50, shift: [0.1, -0.2] } }; // prettier-ignore
const rows = [
  { vectors: 'column', storage: 'column-major' },
  { vectors: 'column', storage: 'row-major' },
] as const;

/** What the harness page of a language answers, with code as it is or with a fault put into it. */
async function answersOf(page: Page, language: 'GLSL' | 'WGSL', matrix: (typeof rows)[number], fault: string | null) {
  const own = { ...conventions, matrix };
  const made = setUpOf(camera, viewport, codecOf(own), []);
  const given = vectorsOf({ astrolabe: 1, conventions: own, viewport, camera, queries: [] }, 14, 3);
  if (!made.ok || !given.ok) throw new Error('a proper camera');
  const { setUp } = made.value;
  const wish: CodeWish = { language, parts: ['camera', 'worldToScreen', 'screenToWorld', 'ray'], number: 'float', naming: 'own', constants: true }; // prettier-ignore
  const code = fault ? printSource(mutants[fault]!(sourceOf(setUp, wish)), setUp.e, wish) : emitCode(setUp, wish);
  const files: Record<string, string> = {
    [code.name]: code.text,
    'harness.html': emitHarness(setUp, wish),
    'vectors.csv': vectorsTable(given.vectors),
  };
  const faults: string[] = [];
  page.on('pageerror', (error) => faults.push(error.message));
  await page.route('http://localhost:9/**', (route) => {
    const name = new URL(route.request().url()).pathname.slice(1);
    const body = files[name];
    return body === undefined ? route.fulfill({ status: 404 }) : route.fulfill({ body, contentType: name.endsWith('.html') ? 'text/html' : 'text/plain' }); // prettier-ignore
  });
  await page.goto('http://localhost:9/harness.html');
  await expect.poll(async () => faults.join() || (await page.locator('pre').textContent())).not.toBe('');
  expect(faults).toEqual([]);
  const answers = readAnswers((await page.locator('pre').textContent())!);
  if (typeof answers === 'string') throw new Error(answers);
  await page.unrouteAll();
  // The other parts have no rows in this harness.
  const kinds = kindsOf(wish.parts, false);
  const rows = given.vectors.rows.filter(({ kind }) => kinds.includes(kind));
  return checkAnswers({ ...given.vectors, rows }, answers, 1e-4);
}
const faults = ['transposed', 'aheadNegated', 'pitchNegated', 'aspectMissing', 'depthReversed', 'viewportOffset', 'rayShiftLeftOut']; // prettier-ignore

test('GLSL by WebGL2 has every row right, and a row wrong for a fault', async ({ page }) => {
  for (const matrix of rows) expect((await answersOf(page, 'GLSL', matrix, null)).rows.filter(({ ok }) => !ok)).toEqual([]); // prettier-ignore
  for (const fault of faults) expect((await answersOf(page, 'GLSL', rows[0], fault)).wrong, fault).toBeGreaterThan(0);
});

test('WGSL by WebGPU has every row right, and a row wrong for a fault', async () => {
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--enable-unsafe-webgpu', '--enable-features=Vulkan', '--use-webgpu-adapter=swiftshader', '--ignore-gpu-blocklist'] }); // prettier-ignore
  try {
    const page = await browser.newPage();
    await page.route('http://localhost:9/empty', (route) => route.fulfill({ body: '', contentType: 'text/html' }));
    await page.goto('http://localhost:9/empty');
    const able = await page.evaluate(async () => {
      const { gpu } = navigator as { gpu?: { requestAdapter(): Promise<object | null> } };
      return Boolean(await gpu?.requestAdapter());
    });
    test.skip(!able, 'no WebGPU here');
    for (const matrix of rows) expect((await answersOf(page, 'WGSL', matrix, null)).rows.filter(({ ok }) => !ok)).toEqual([]); // prettier-ignore
    for (const fault of faults) expect((await answersOf(page, 'WGSL', rows[0], fault)).wrong, fault).toBeGreaterThan(0);
  } finally {
    await browser.close();
  }
});
