import { readFileSync } from 'node:fs';
import ts from 'typescript';
import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { near, number, openBench, type } from './bench';
import { answers, cells, choose, open, read } from './sheet';

/* Spawn, walked: region, points, screens, until seen, the first frame, and what is taken home. */

const plainNumber = (text: string) => number(text.replaceAll(',', ''));

/** The points that the page saves, with their seconds. */
async function saved(page: Page): Promise<{ at: number[]; seconds: number; inView: boolean }[]> {
  await open(page, 'Files');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Points as CSV' }).click();
  const [, ...rows] = readFileSync(await (await download).path(), 'utf8')
    .trim()
    .split(/\r?\n/);
  return rows.map((row) => {
    const parts = row.split(',');
    const n = parts.length - 2;
    return {
      at: parts.slice(0, n).map(Number),
      seconds: parts[n] ? Number(parts[n]) : NaN,
      inView: parts[n + 1] === 'yes',
    };
  });
}

test('on the water: the region and its terms, points that nobody sees, and the first frame put right', async ({
  page,
}, info) => {
  await openBench(page, '/spawn');
  // The fault is set up: some are in view, for they appeared before the camera had moved.
  await open(page, 'First frame');
  await expect(page.getByTestId('first')).toContainText(/appears? in view|appear in view/);
  await page.getByRole('button', { name: 'bodies appear: later' }).click();
  await expect(page.getByTestId('first')).toHaveText('Bodies appear when the camera has moved: none is in view.');
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('first')).toContainText('before it moved');
  await page.keyboard.press('Control+Shift+z');

  // The command line has the same points, and sees none of them.
  await open(page, 'Points');
  await expect(page.getByTestId('points')).toHaveText('One try a point, and none is seen.');
  const points = await saved(page);
  expect(points).toHaveLength(400);
  const seen = { id: 'seen', op: 'worldToScreen', points: points.map(({ at }) => at) };
  const answered = await answers(page, info.outputPath('spawn.json'), [seen]);
  const spawned = answered['spawned'] as unknown as { points: number[][]; statistics: { areaAllowed: number; areaBounds: number } }; // prettier-ignore
  points.forEach(({ at, inView }, i) => {
    near(at, spawned.points[i]!, 1e-6);
    expect(inView).toBe(false);
  });
  for (const { inside } of (answered['seen'] as unknown as { points: { inside?: boolean; outside?: string[] }[] })
    .points)
    expect(inside ?? false).toBe(false);
  const area = plainNumber(/^([\d,]+) square/.exec(await read(page, 'region'))![1]!);
  expect(Math.abs(area - spawned.statistics.areaAllowed)).toBeLessThan(1);
  const left = (await cells(page, 'terms').locator('span:nth-child(3)').allTextContents()).map(plainNumber);
  expect(left[0]).toBe(Math.round(spawned.statistics.areaBounds));
  expect(left.every((v, i) => i === 0 || v <= left[i - 1]!)).toBe(true);

  // No area left names the term.
  await type(page, 'Padding', '400');
  await expect(page.getByTestId('region')).toContainText('The view with its padding covers the bounds');
  await page.keyboard.press('Control+z');
  // A corner of the bounds is taken hold of in the plan, by the keyboard.
  const x = page.getByLabel('Bounds to x');
  const before = await x.inputValue();
  await page
    .getByRole('button', { name: /the bounds by their last corner/ })
    .first()
    .focus();
  await page.keyboard.press('ArrowLeft');
  await expect(x).not.toHaveValue(before);
  await page.keyboard.press('Control+z');
  await expect(x).toHaveValue(before);

  // The region as code gives places that the page would have.
  await open(page, 'Files');
  const code = await read(page, 'spawn-code');
  const module = { mayAppear: (x: number, y: number) => x === y, rolledX: (u: number) => u, rolledY: (v: number) => v };
  new Function('exports', ts.transpileModule(code, { compilerOptions: { module: ts.ModuleKind.CommonJS } }).outputText)(module); // prettier-ignore
  const places = Array.from({ length: 200 }, () => [module.rolledX(Math.random()), module.rolledY(Math.random())] as const); // prettier-ignore
  const kept = places.filter(([x, y]) => module.mayAppear(x, y));
  expect(kept.length).toBeGreaterThan(20);
  for (const [px, pz] of places) expect(px >= -80 && px <= 80 && pz >= -160 && pz <= 80).toBe(true);
  const shown = { id: 'shown', op: 'worldToScreen', points: kept.map(([px, pz]) => [px, 0, pz]) };
  const there = (await answers(page, info.outputPath('code.json'), [shown]))['shown'] as unknown as { points: { onScreen: boolean }[] }; // prettier-ignore
  expect(there.points.map(({ onScreen }) => onScreen)).not.toContain(true);
  await page.getByLabel('Language of the code').selectOption('C');
  await expect(page.getByTestId('spawn-code')).toContainText('#include <math.h>');
  await open(page, 'Points');

  // The circle round the player: what pops into view, and what is thrown away.
  await choose(page, 'Method', 'circle');
  await expect(page.getByTestId('points')).toContainText('pop into view');
  await expect(page.getByTestId('chi')).toContainText('not even by area');
  await choose(page, 'Method', 'rolled again');
  await expect(page.getByTestId('points')).toContainText('tries a point');

  // The padding that every screen wants hides them on all.
  await open(page, 'Screens');
  await page.getByRole('button', { name: 'Take that padding' }).click();
  await expect(page.getByTestId('screens')).toContainText('None of them is seen on any of the 5 screens.');
});

test('on the chart: until they are seen, with firstSeen’s numbers; a ring, a sector and many points', async ({
  page,
}, info) => {
  await openBench(page, '/spawn');
  await page.keyboard.press('/');
  await page.getByPlaceholder('Commands, fields, help, bodies').fill('Open the demo, Saltmarrow chart');
  await page.keyboard.press('Enter');
  await open(page, 'First frame');
  await page.getByRole('button', { name: 'bodies appear: later' }).click();
  await expect(page.getByTestId('first')).toHaveText('Bodies appear when the camera has moved: none is in view.');
  await open(page, 'Until seen');
  await choose(page, 'How bodies come', 'evenly');
  await type(page, 'Velocity of the bodies x', '4');
  await type(page, 'Velocity of the bodies y', '-1');
  await expect(page.getByTestId('seen')).toContainText('are seen within 60 s');
  const points = await saved(page);
  const query = { id: 'first', op: 'firstSeen', points: points.map(({ at }) => at), radius: 3, surface: '2d', bodyVelocity: [4, -1], cameraVelocity: [3, 2], within: 60 }; // prettier-ignore
  const first = (await answers(page, info.outputPath('first.json'), [query]))['first'] as unknown as { points: { seconds: number | null }[] }; // prettier-ignore
  points.forEach(({ seconds }, i) => {
    const own = first.points[i]!.seconds;
    if (own === null) expect(seconds).toBeNaN();
    else near([seconds], [own], 1e-6);
  });
  expect(points.filter(({ seconds }) => !Number.isNaN(seconds)).length).toBeGreaterThan(20);

  await open(page, 'Region');
  await choose(page, 'Within', 'a ring');
  await page.getByLabel('Only ahead of the motion').check();
  await type(page, 'Half of the sector', '30');
  await expect(page.getByTestId('region')).toContainText('square');
  await open(page, 'Points');
  await type(page, 'How many points', '100000');
  await expect(page.getByTestId('points')).toHaveText('One try a point, and none is seen.', { timeout: 30_000 });
  await expect(page.getByTestId('chi')).toContainText('63 degrees of freedom');
  const share = Number(/: ([\d.]+) % of even lots/.exec(await read(page, 'chi'))![1]);
  expect(share).toBeGreaterThan(0.001);
});
