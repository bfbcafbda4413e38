import type { Locator, Page } from '@playwright/test';
import { expect, test } from './test';
import { drawn, drop, near, number, numbers, rung } from './bench';

/*
 * Thirteen jobs that a user brings, each to its end with its numbers, and in no more steps than it
 * may take: a step is a click, a drag or a field typed. The page is as one finds it.
 */

class Steps {
  taken = 0;
  constructor(readonly page: Page) {}
  async click(what: Locator, options?: Parameters<Locator['click']>[0]): Promise<void> {
    this.taken++;
    await what.click(options);
  }
  async button(name: string | RegExp): Promise<void> {
    await this.click(this.page.getByRole('button', { name, exact: true }).first());
  }
  async type(field: string, value: string): Promise<void> {
    this.taken++;
    const input = this.page.getByLabel(field, { exact: true });
    await input.fill(value);
    await input.press('Enter');
  }
  async choose(field: string, value: string): Promise<void> {
    this.taken++;
    await this.page.getByLabel(field, { exact: true }).selectOption(value);
  }
  async drag(from: readonly [number, number], to: readonly [number, number]): Promise<void> {
    this.taken++;
    const { mouse } = this.page;
    await mouse.move(...from);
    await mouse.down();
    await mouse.move((from[0] + to[0]) / 2, (from[1] + to[1]) / 2, { steps: 3 });
    await mouse.move(...to, { steps: 3 });
    await mouse.up();
  }
  /** Opens a section by the line of them. */
  async section(short: string): Promise<void> {
    await this.click(this.page.getByRole('navigation', { name: 'Sections' }).getByRole('button', { name: short, exact: true })); // prettier-ignore
  }
  async task(name: string): Promise<void> {
    await this.click(this.page.getByRole('navigation', { name: 'Tasks' }).getByRole('link', { name }));
  }
}

const read = async (page: Page, field: string) => number(await page.getByLabel(field, { exact: true }).inputValue());
/** The demo or an empty project, with the task open. */
async function begin(page: Page, path: string, project: 'harbour' | 'chart' | 'empty flat'): Promise<Steps> {
  await page.goto(path);
  await expect(page.getByRole('heading', { name: 'The Chain' })).toBeVisible();
  await drawn(page);
  if (project !== 'harbour') {
    await page.getByRole('button', { name: /^Saltmarrow/ }).click();
    if (project === 'chart') await page.getByRole('menuitem', { name: /Saltmarrow chart/ }).click();
    else {
      await page.getByRole('menuitem', { name: /All projects/ }).click();
      await page.getByRole('button', { name: 'New 2D project, y down' }).click();
    }
    await expect(page.getByRole('button', { name: project === 'chart' ? 'Saltmarrow chart' : 'New 2D project', exact: true })).toBeVisible(); // prettier-ignore
    await drawn(page);
  }
  return new Steps(page);
}
const middleOf = async (page: Page): Promise<[number, number]> => {
  const box = (await page.getByTestId('picture').boundingBox())!;
  return [box.x + box.width / 2, box.y + box.height / 2];
};

test('A: scroll a flat world, the pointer raw and in the world, a transform kept, changed and restored', async ({
  page,
}) => {
  const steps = await begin(page, '/frame', 'chart');
  const [x, y] = await middleOf(page);
  await steps.drag([x, y], [x + 60, y + 20]);
  const strip = page.getByRole('contentinfo', { name: 'Pointer' });
  await expect(strip).toContainText('css');
  await expect(strip).toContainText('World');
  const kept = [await read(page, 'Focus x'), await read(page, 'Focus y')];
  await steps.click(page.getByRole('button', { name: 'The fairway' }));
  await steps.click(page.getByRole('menuitem', { name: /Keep as a snapshot/ }));
  await steps.type('Focus x', '7');
  await steps.click(page.getByRole('button', { name: 'The fairway' }));
  await page.getByRole('menuitem', { name: 'The fairway 1' }).hover();
  await steps.click(page.getByRole('menuitem', { name: 'Return to it' }));
  near([await read(page, 'Focus x'), await read(page, 'Focus y')], kept, 0);
  expect(steps.taken).toBeLessThanOrEqual(6);
});

test('B: an empty flat project shows exactly 0 to 500 by 0 to 400, and says what an engine needs', async ({ page }) => {
  const steps = await begin(page, '/frame', 'empty flat');
  await steps.click(page.getByRole('button', { name: /Show at least a world rectangle/ }));
  for (const [side, v] of [['right from', '0'], ['right to', '500'], ['up from', '0'], ['up to', '400']] as const) await steps.type(`Rectangle ${side}`, v); // prettier-ignore
  await steps.click(page.getByRole('button', { name: /A viewport of 900 × 720 shows it exactly/ }));
  await expect(page.getByTestId('seen-right')).toHaveText('0.00 to 500.00');
  await expect(page.getByTestId('seen-up')).toHaveText('0.00 to 400.00');
  await steps.section('Zoom');
  near(
    await Promise.all(['Centre x', 'Centre y', 'Half width seen', 'Half height seen', 'Zoom'].map((one) => read(page, one))), // prettier-ignore
    [250, 200, 250, 200, 1.8],
    1e-6,
  );
  expect(steps.taken).toBeLessThanOrEqual(8);
});

test('C: (120, 80) in the middle at zoom 2 turned by 30°, y down, a label in the corner of every screen', async ({
  page,
}) => {
  const steps = await begin(page, '/frame', 'chart');
  await steps.section('Zoom');
  await steps.type('Zoom', '0');
  await expect(page.getByRole('alert').first()).toContainText('zoom is 0');
  await steps.type('Zoom', '2');
  await steps.type('Rotation', '30');
  await steps.type('Centre x', '120');
  await steps.type('Centre y', '80');
  await steps.click(page.getByRole('group', { name: 'World up' }).getByRole('button', { name: 'down' }));
  // At 4 a picture of 1280 × 720 shows 320 × 180.
  await steps.section('Scaling');
  await expect(page.getByRole('button', { name: /^Zoom 4: 320 × 180/ })).toBeAttached();
  const [x, y] = await middleOf(page);
  await page.mouse.move(x, y);
  await expect(page.getByRole('contentinfo', { name: 'Pointer' })).toContainText(
    /World (120\.0|119\.9)\d, −(80\.0|79\.9)\d/,
  );
  await steps.task('Convert');
  await expect(page.getByRole('region', { name: 'Back to world' })).toBeVisible();
  await page.keyboard.press('h');
  steps.taken++;
  const label = page.getByRole('region', { name: 'Label 1' });
  await expect(label.getByTestId('held Phone, upright')).toHaveText('366, 24');
  await expect(label.getByTestId('held 16 : 9')).toHaveText('1896, 24');
  expect(steps.taken).toBeLessThanOrEqual(10);
});

test('D: a part in the world and on the screen, under another parent, followed by the camera off centre', async ({
  page,
}) => {
  const steps = await begin(page, '/convert', 'chart');
  await steps.click(page.getByRole('button', { name: /^Probe:/ }));
  await page.getByPlaceholder('Find a body').fill('Lighthouse lamp');
  await steps.click(page.getByRole('option', { name: /Lighthouse lamp/ }));
  const world = await rung(page, 'world');
  await steps.section('Nodes');
  await steps.choose('Parent', 'the world');
  near(await rung(page, 'world'), world, 1e-9);
  await steps.task('Frame');
  await steps.click(page.getByRole('button', { name: 'Focus on the probe' }));
  await steps.type('Anchor x', '200');
  const screen = await rung(page, 'screen');
  near(screen.slice(0, 2), [200, await read(page, 'Anchor y')], 1e-6);
  expect(steps.taken).toBeLessThanOrEqual(8);
});

test('E: view and projection by two sets of conventions, a basis repaired, a node turned, its normal matrix', async ({
  page,
}) => {
  const steps = await begin(page, '/frame', 'harbour');
  const opened = async (name: string) => {
    await steps.click(page.getByRole('button', { name }));
    const pop = page.locator('.pop');
    await expect(pop.locator('.matrix > span')).toHaveCount(16);
    const cells = (await pop.locator('.matrix > span').allInnerTexts()).map(number);
    await page.keyboard.press('Escape');
    return cells;
  };
  await steps.section('Eye, gaze');
  for (const [axis, v] of [['x', '3'], ['y', '12'], ['z', '9']] as const) await steps.type(`Eye ${axis}`, v); // prettier-ignore
  for (const [axis, v] of [['x', '3'], ['y', '4'], ['z', '-60']] as const) await steps.type(`Look at ${axis}`, v); // prettier-ignore
  const view = await opened('Open the view matrix');
  expect(view).toHaveLength(16);
  await steps.click(page.getByTitle('Conventions in force'));
  await steps.click(page.getByRole('group', { name: 'Vectors' }).getByRole('button', { name: 'row' }));
  await page.keyboard.press('Escape');
  const rows = await opened('Open the view matrix');
  near(rows, view.map((_, i) => view[(i % 4) * 4 + Math.floor(i / 4)]!), 1e-9); // prettier-ignore
  await steps.click(page.getByRole('group', { name: 'Basis and quaternion' }).getByRole('button').first());
  await steps.type('Basis right x', '1.1');
  await steps.click(page.getByRole('button', { name: 'Orthonormalise, ahead kept' }));
  await expect(page.getByRole('button', { name: 'Orthonormalise, ahead kept' })).toHaveCount(0);
  await steps.task('Convert');
  await steps.section('Nodes');
  await steps.type('Pivot x', '2');
  await steps.click(page.getByRole('region', { name: 'Nodes' }).getByRole('button', { name: 'Turn', exact: true }));
  await steps.type('Scale x', '2');
  await expect(page.getByText('Normal matrix', { exact: false }).first()).toBeAttached();
  expect(steps.taken).toBeLessThanOrEqual(20);
});

test('F: a body under the pointer just beyond near, what happens nearer and behind, and the pointer’s way', async ({
  page,
}) => {
  const steps = await begin(page, '/convert', 'harbour');
  await steps.type('Distance ahead', '5.1');
  await steps.click(page.getByRole('button', { name: 'Hold Lighthouse there' }));
  const [x, y] = await middleOf(page);
  await page.mouse.move(x, y);
  await page.mouse.move(x + 5, y);
  steps.taken++;
  await page.mouse.down();
  await page.mouse.up();
  await steps.type('Distance ahead', '4');
  await expect(page.getByTestId('result-past')).toContainText('near');
  await steps.type('Distance ahead', '-1');
  await expect(page.getByTestId('result-none')).toContainText('behind');
  await steps.section('Pointer');
  await steps.type('Canvas x', '40');
  await steps.type('Canvas scale', '1.5');
  await expect(page.getByRole('button', { name: /@2×/ })).toBeVisible();
  expect(steps.taken).toBeLessThanOrEqual(8);
});

test('G: perspective to orthographic with a body’s size kept; two bodies’ sizes; texels of 3 px', async ({ page }) => {
  const steps = await begin(page, '/convert', 'harbour');
  const size = async () => numbers(await page.getByTestId('rectangle-lighthouse').locator('button.number').innerText()).slice(2); // prettier-ignore
  const before = await size();
  await steps.task('Frame');
  await steps.click(page.getByRole('group', { name: 'Projection' }).getByRole('button', { name: 'orthographic' }));
  await steps.task('Convert');
  // The scale at the probe is kept; what stands before or behind it is another size.
  const after = await size();
  expect(Math.abs(after[1]! / before[1]! - 1)).toBeLessThan(0.1);
  const flat = await begin(page, '/frame', 'chart');
  await flat.section('Pixels');
  await flat.type('Pixels a texel', '3');
  await expect(page.getByTestId('texels')).toHaveText('Every texel is 3 px across.');
  expect(steps.taken + flat.taken).toBeLessThanOrEqual(6);
});

test('H: world to screen in scalars, as code; behind the eye, where its marker belongs', async ({ page }) => {
  const steps = await begin(page, '/convert', 'harbour');
  await steps.click(page.getByLabel('Formulas: To the pixel without matrices'));
  const pop = page.getByRole('dialog', { name: 'Formulas: To the pixel without matrices' });
  await steps.click(pop.getByRole('button', { name: 'Copy code' }));
  expect(await page.evaluate(() => navigator.clipboard.readText())).toContain('sin');
  await page.keyboard.press('Escape');
  await steps.type('World z', '90');
  await expect(page.getByTestId('verdict')).toContainText('Behind the eye');
  await expect(page.locator('[data-picture=main] .ink-edge-marker')).toBeAttached();
  expect(steps.taken).toBeLessThanOrEqual(4);
});

test('I: the perspective factor, played with by dragging its numbers', async ({ page }) => {
  const steps = await begin(page, '/frame', 'harbour');
  const slide = async (field: string, by: number) => {
    const handle = page
      .locator('.field', { has: page.getByLabel(field, { exact: true }) })
      .locator('span')
      .first();
    // Scrolling is no step.
    await handle.scrollIntoViewIfNeeded();
    const grip = (await handle.boundingBox())!;
    const at = [grip.x + grip.width / 2, grip.y + grip.height / 2] as const;
    await steps.drag(at, [at[0] + by, at[1]]);
  };
  // The scale of the projection, then what is divided by.
  for (const [field, by] of [
    ['Focal length', 30],
    ['Eye z', -30],
  ] as const) {
    const before = await rung(page, 'screen');
    await slide(field, by);
    await expect.poll(() => rung(page, 'screen')).not.toEqual(before);
    await steps.section('Eye, gaze');
  }
  expect(steps.taken).toBeLessThanOrEqual(4);
});

test('J: 10,000 points with foreign headings: in, filtered, copied and saved', async ({ page }) => {
  const steps = await begin(page, '/convert', 'harbour');
  const lines = Array.from({ length: 10_000 }, (_, i) => `${i};${(i % 90) - 45},5;${i % 7};${-(i % 300)}`);
  steps.taken++;
  await drop(page, 'messwerte.csv', `Nr;Ort_x;Ort_y;Ort_z\n${lines.join('\n')}\n`);
  await expect(page.locator('.notice', { hasText: 'x from Ort_x, y from Ort_y, z from Ort_z' })).toBeVisible();
  await steps.click(page.getByRole('group', { name: 'Which points' }).getByRole('button', { name: /^on \d+/ }));
  await steps.button('Copy as CSV');
  const copied = await page.evaluate(() => navigator.clipboard.readText());
  const saving = page.waitForEvent('download');
  await steps.button('Save as CSV');
  await saving;
  const on = Number(/on (\d+)/.exec(await page.getByRole('button', { name: /^on \d+/ }).innerText())![1]);
  expect(copied.trim().split('\n')).toHaveLength(on + 1);
  expect(steps.taken).toBeLessThanOrEqual(7);
});

test('K: a model into the open project, a broken one refused, the project out and in', async ({ page }, info) => {
  const steps = await begin(page, '/convert', 'harbour');
  steps.taken++;
  await drop(page, 'ramp.obj', 'o Ramp\nv 0 0 0\nv 4 0 0\nv 0 3 0\nv 0 0 2\nf 1 2 3\nf 1 4 2\nf 1 3 4\nf 2 4 3\n');
  await steps.button('Put its bodies into Saltmarrow harbour instead');
  const strip = page.getByRole('contentinfo', { name: 'Pointer' });
  await expect(strip).toContainText('83 bodies');
  steps.taken++;
  await drop(page, 'torn.obj', 'o Torn\nv 0 0 0\nf 1 2 9\n');
  await expect(page.getByRole('alert')).toContainText('torn.obj was not opened, and nothing has changed.');
  const saving = page.waitForEvent('download');
  await page.keyboard.press('Control+s');
  steps.taken++;
  const file = info.outputPath('out.json');
  await (await saving).saveAs(file);
  steps.taken++;
  const { readFileSync } = await import('node:fs');
  const text = readFileSync(file, 'utf8');
  await drop(page, 'out.json', text);
  await expect(page.locator('.notice', { hasText: 'was kept here already, and is open.' })).toBeVisible();
  await expect(strip).toContainText('83 bodies');
  expect(steps.taken).toBeLessThanOrEqual(6);
});

test('M: the third job by the keyboard alone, in at most 25 keys beside the digits typed', async ({ page }) => {
  await begin(page, '/frame', 'chart');
  let keys = 0;
  const press = async (...given: string[]) => {
    for (const key of given) {
      keys++;
      await page.keyboard.press(key);
    }
  };
  const digits = async (text: string) => {
    await page.keyboard.press('Control+a');
    await page.keyboard.type(text);
  };
  const on = () =>
    page.evaluate(
      () => document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.textContent?.trim(),
    );
  const tabTo = async (field: string) => {
    for (let i = 0; i < 20 && (await on()) !== field; i++) await press('Tab');
    expect(await on()).toBe(field);
  };
  await press('w');
  await expect.poll(on).toBe('Focus x');
  // With the anchor in the middle the focus is what lies there.
  await digits('120');
  await press('Tab');
  await digits('80');
  await press('Tab');
  await digits('640');
  await press('Tab');
  await digits('360');
  await tabTo('Zoom and turn');
  near([await read(page, 'Anchor x'), await read(page, 'Anchor y')], [640, 360], 0);
  await press('Enter');
  await tabTo('Zoom');
  await digits('0');
  await press('Tab');
  await expect(page.getByRole('alert').first()).toContainText('zoom is 0');
  await press('Shift+Tab');
  expect(await on()).toBe('Zoom');
  await digits('2');
  await tabTo('Rotation');
  await digits('30');
  // Out of the field: what follows are keys of the page.
  await press('Enter');
  await press('2');
  await expect(page.getByRole('region', { name: 'Back to world' })).toBeVisible();
  await press('h');
  await expect(page.getByTestId('held here')).toHaveText('1256, 24');
  expect(keys).toBeLessThanOrEqual(25);
});
