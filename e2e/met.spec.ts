import { readFileSync } from 'node:fs';
import type { Page, Route } from '@playwright/test';
import { expect, test } from './test';
import { drop, near, number, numbers, openBench, paste, rung, type } from './bench';

/** What stopped or misled those who met the bench for the first time. */

const sheet = (page: Page) => page.getByRole('complementary', { name: 'Worksheet' });
const unfold = (page: Page, name: string) =>
  sheet(page).getByRole('region', { name, exact: true }).getByRole('button', { name, exact: true }).click();
const cell = async (page: Page, row: number, column: number) =>
  number(await page.getByRole('table', { name: 'Points' }).getByRole('row').nth(row).getByRole('cell').nth(column).innerText()); // prettier-ignore

test('columns of points are shown with what they are taken for, and taken otherwise', async ({ page }) => {
  await openBench(page);
  await drop(page, 'stakes.csv', 'id,pos_x,pos_y,pos_z\n10,1,2,3\n11,4,5,6\n');
  const notice = page.locator('.notice', { hasText: 'Took the points of stakes.csv' });
  await expect(notice).toContainText('x from pos_x, y from pos_y, z from pos_z, names from id');
  const columns = page.getByRole('region', { name: 'Columns' });
  await expect(columns.getByLabel('pos_x is taken for')).toHaveValue('x');
  await expect(columns.getByLabel('id is taken for')).toHaveValue('name');
  const point = async () => [await cell(page, 1, 2), await cell(page, 1, 3)];
  await expect.poll(point).toEqual([1, 2]);
  // Swapped, turned over, in centimetres.
  await columns.getByLabel('pos_x is taken for').selectOption('y');
  await expect(columns.getByLabel('pos_y is taken for')).toHaveValue('x');
  await expect.poll(point).toEqual([2, 1]);
  await columns.getByRole('button', { name: 'pos_x with its sign turned over' }).click();
  await expect.poll(point).toEqual([2, -1]);
  await type(page, 'Unit of the columns', '0.01');
  await expect.poll(point).toEqual([0.02, -0.01]);
  // A column that is none of numbers says so by its line; the points of before stand.
  await page.getByLabel('Points to take').fill('x,y,height\n1,2,3\n');
  await page.getByRole('button', { name: 'Take these' }).click();
  await expect(page.getByRole('alert')).toContainText('columns for x and y, and not for z');
  await columns.getByLabel('height is taken for').selectOption('z');
  await expect(page.getByRole('alert')).toHaveCount(0);
  await expect.poll(point).toEqual([1, 2]);
});

test('CSS pixels run down from the top left, and the framebuffer’s as its origin says', async ({ page }) => {
  await openBench(page);
  await page.keyboard.press('/');
  await page.getByPlaceholder('Commands, fields, help, bodies').fill('Conventions of WebGL');
  await page.keyboard.press('Enter');
  const box = (await page.getByTestId('picture').boundingBox())!;
  await page.mouse.move(box.x + box.width / 4, box.y + box.height / 4);
  const css = page.getByTestId('pointer-css');
  await expect.poll(async () => numbers(await css.innerText())[1]! / 720).toBeCloseTo(0.25, 2);
  const [, up] = numbers(await page.getByTestId('pointer-framebuffer').innerText());
  near([up!], [2 * (720 - numbers(await css.innerText())[1]!)], 0.3);
  await expect(page.locator('[data-rung=screen]')).toContainText('px, y up');
  await unfold(page, 'The pointer’s way');
  await expect(page.locator('.way')).toContainText('pixels rendered, y up from the bottom left');
});

test('what is saved says what it is written in, and how much of what is wanted is seen is said', async ({ page }) => {
  await openBench(page, '/frame');
  await expect(page.getByTestId('seen-share')).toHaveText('100 % of it within');
  // The camera turned until a corner of the lighthouse is left.
  await type(page, 'yaw', '19.8');
  await expect(page.getByTestId('seen-share')).not.toHaveText('100 % of it within');
  await type(page, 'yaw', '60');
  await expect(page.getByTestId('seen-share')).toHaveText('0 % of it within');
  const saving = page.waitForEvent('download');
  await page.keyboard.press('Control+s');
  const file = JSON.parse(readFileSync(await (await saving).path(), 'utf8')) as { writtenIn: Record<string, unknown> };
  expect(file.writtenIn.axes).toEqual({ handedness: 'right', right: '+x', up: '+y', forward: '-z' });
});

test('the up vector is a field, and a roll survives being held by a point', async ({ page }) => {
  await openBench(page, '/frame');
  await type(page, 'roll', '20');
  await page.getByRole('button', { name: /^Looks at a point/ }).click();
  near([number(await page.getByLabel('roll', { exact: true }).inputValue())], [20], 1e-4);
  // Straight down, which the world's up cannot say, by another up.
  for (const [axis, v] of [['x', 0], ['y', 1], ['z', 0]] as const) await type(page, `Look-at up ${axis}`, String(v)); // prettier-ignore
  for (const axis of ['x', 'z']) {
    const eye = await page.getByLabel(`Eye ${axis}`, { exact: true }).inputValue();
    await type(page, `Look at ${axis}`, eye.replace('\u2212', '-'));
  }
  await expect(page.locator('.stale-note')).toContainText('Give another up vector');
  await type(page, 'Look-at up z', '-1');
  await expect(page.locator('.stale-note')).toBeHidden();
});

test('what is nearer than near is said on the way back', async ({ page }) => {
  await openBench(page);
  await page.getByRole('radio', { name: /Distance ahead/ }).click();
  await type(page, 'Distance ahead', '2');
  await expect(page.getByTestId('result-past')).toContainText('It is 2.00 ahead, nearer than near (5.00)');
  await type(page, 'Distance ahead', '30');
  await expect(page.getByTestId('result-past')).toHaveCount(0);
});

test('a node is turned and scaled by fields, in an order of angles or by a quaternion', async ({ page }) => {
  await openBench(page);
  await unfold(page, 'Nodes');
  const read = async (field: string) => number(await page.getByLabel(field, { exact: true }).inputValue());
  expect(await read('Rotation about y')).toBe(20);
  await type(page, 'Rotation about x', '30');
  await type(page, 'Rotation about z', '-40');
  near([await read('Rotation about y'), await read('Rotation about x')], [20, 30], 0.01);
  await page.getByLabel('How the rotation is said').selectOption('quaternion');
  const parts = await Promise.all([...'xyzw'].map((letter) => read(`Rotation ${letter}`)));
  expect(Math.hypot(...parts)).toBeCloseTo(1, 2);
  // y, then x, then z: the half angles multiplied out.
  const [c, s] = [20, 30, -40].reduce<[number[], number[]]>(
    ([cs, ss], a) => [
      [...cs, Math.cos((a * Math.PI) / 360)],
      [...ss, Math.sin((a * Math.PI) / 360)],
    ],
    [[], []],
  );
  near([parts[3]!], [c[0]! * c[1]! * c[2]! + s[0]! * s[1]! * s[2]!], 1e-3);
  await page.keyboard.press('ControlOrMeta+Z');
  await type(page, 'Scale y', '2');
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', 'Undo: scale Lighthouse');
  // A turn about a world axis, and which way it goes, in words.
  await page.getByRole('button', { name: 'the world', exact: true }).click();
  await page.getByLabel('Axis of the turn').selectOption('right');
  await expect(sheet(page)).toContainText('+ turns y towards z, counter-clockwise seen from the tip of x');
  await page.getByRole('button', { name: 'Turn', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', 'Undo: turn Lighthouse');
});

test('every matrix and its inverse open, and conventions are found by what they are', async ({ page }) => {
  await openBench(page);
  await page.getByLabel('Open the projection matrix').click();
  const shown = () => page.getByTestId('matrix').locator('span').allInnerTexts();
  const matrix = async (name: string) => {
    await page.getByRole('button', { name, exact: true }).click();
    return (await shown()).map(number);
  };
  const [p, inverse] = [await matrix('P'), await matrix('P⁻¹')];
  const product = [0, 1, 2, 3].flatMap((i) =>
    [0, 1, 2, 3].map((j) => [0, 1, 2, 3].reduce((sum, k) => sum + p[4 * i + k]! * inverse[4 * k + j]!, 0)),
  );
  near(product, [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1], 2e-4);
  expect(await matrix('P·V')).not.toEqual(p);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^WebGPU/ }).click();
  await page.getByLabel('Find conventions by words').fill('left z up rows reversed');
  await page.getByRole('list', { name: 'Conventions found' }).getByRole('button').first().click();
  await expect(page.getByRole('dialog', { name: 'Conventions' })).toContainText(
    'Now: left-handed, z up, x ahead; depth 1 to 0, reversed; row vectors, row-major.',
  );
});

test('formulas without matrices are taken home as code that gives the numbers of the screen', async ({ page }) => {
  const code = async (of: string) => {
    await page.getByLabel(`Formulas: ${of}`).click();
    const pop = page.getByRole('dialog', { name: `Formulas: ${of}` });
    await expect(pop.locator('[data-step] .katex-html').first()).toBeVisible();
    // It does not lie over the worksheet that it explains.
    const [own, beside] = [(await pop.boundingBox())!, (await sheet(page).boundingBox())!];
    expect(own.x + own.width).toBeLessThanOrEqual(beside.x + 1);
    await pop.getByLabel('Language of the code').selectOption('JavaScript');
    await pop.getByRole('button', { name: 'Copy code' }).click();
    const body = await page.evaluate(() => navigator.clipboard.readText());
    const wanted = /wanted: (.*)$/.exec(body)![1]!;
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    return new Function(`${body}\nreturn [${wanted}];`)() as number[];
  };
  for (const world of ['harbour', 'chart']) {
    await openBench(page);
    if (world === 'chart') {
      await page.getByRole('button', { name: /^Saltmarrow/ }).click();
      await page.getByRole('menuitem', { name: /Saltmarrow chart/ }).click();
      await expect(page.getByRole('button', { name: 'Saltmarrow chart' })).toBeVisible();
    }
    const there = await code('To the pixel without matrices');
    near(there.slice(-2), (await rung(page, 'screen')).slice(0, 2), 1e-3);
    const back = await code('Back from the pixel without matrices');
    near(back, numbers(await page.getByTestId('result-world').innerText()), 0.006);
  }
});

test('a project that cannot be shown says so, and is left for another; numbers that could not be read back are refused', async ({
  page,
}) => {
  await openBench(page);
  await page.getByRole('button', { name: /^Probe:/ }).click();
  await page.getByRole('option', { name: 'Free point' }).click();
  // A rejected entry stays in the field, marked, and changes nothing.
  for (const wrong of ['1e31', '5 constructor']) {
    const before = await rung(page, 'screen');
    await type(page, 'Point x', wrong);
    await expect(page.getByLabel('Point x', { exact: true })).toHaveValue(wrong);
    await expect(page.getByLabel('Point x', { exact: true })).toHaveAttribute('aria-invalid', 'true');
    near(await rung(page, 'screen'), before, 0);
    await page.getByLabel('Point x', { exact: true }).press('Escape');
  }
  await type(page, 'Point x', '2 km');
  await expect(page.getByLabel('Point x', { exact: true })).toHaveValue('2000.00');

  // A mesh of nothing is a point, and blanks nothing.
  const saving = page.waitForEvent('download');
  await page.keyboard.press('Control+s');
  const project = JSON.parse(readFileSync(await (await saving).path(), 'utf8')) as { bodies: object[]; id: string };
  const nothing = { id: 'nothing', name: 'Nothing', position: [0, 1, 0], rotation: [0, 0, 0, 1], scale: [1, 1, 1] };
  project.bodies.push({ ...nothing, parent: null, shape: { kind: 'mesh', positions: [], indices: [] } });
  await drop(page, 'nothing.json', JSON.stringify(project));
  await expect(page.locator('.notice', { hasText: 'Opened Saltmarrow harbour' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'The Chain' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'The Chain' })).toBeVisible();

  // A part that can no longer be fetched: the page stands, and says what can be done.
  await page.getByRole('button', { name: /^Saltmarrow/ }).click();
  await expect(page.getByRole('menu')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.route('**/assets/**', (route) => route.abort());
  await page.getByRole('button', { name: /^Saltmarrow/ }).click();
  await page.getByRole('menuitem', { name: 'All projects and versions' }).click();
  await expect(page.getByRole('alert')).toContainText('A part of the page could not be fetched');
  await expect(page.getByRole('button', { name: 'Save the project as a file' })).toBeVisible();
  await page.unroute('**/assets/**');
  await page.getByRole('button', { name: 'All projects' }).click();
  await expect(page.getByRole('heading', { name: 'Projects', exact: true })).toBeVisible();
});

test('a worker that cannot be had, a file that is gone and one that is no text are said, and nothing waits for them', async ({
  page,
}) => {
  const lose = (route: Route) => route.abort();
  await page.route(/\/assets\/worker-(points|imports)-/, lose);
  await openBench(page, 'convert');
  await paste(page, 'x,y,z\n1,2,3');
  await expect(page.getByRole('alert')).toContainText('Reading What was pasted failed: a part of the page could not be fetched'); // prettier-ignore
  await page.unroute(/\/assets\/worker-(points|imports)-/);
  await page.route(/\/assets\/worker-points-/, lose);
  await paste(page, 'x,y,z\n1,2,3');
  await expect(page.getByRole('alert')).toContainText('They could not be read');
  await page.unroute(/\/assets\/worker-points-/);
  await paste(page, 'x,y,z\n1,2,3');
  await expect(page.getByRole('table', { name: 'Points' })).toHaveAttribute('aria-rowcount', '1');

  await drop(page, 'picture.csv', 'a\u0000b');
  await expect(page.getByRole('alert')).toContainText('It is not text');
  await page.evaluate(() => {
    Blob.prototype.arrayBuffer = () => Promise.reject(new DOMException('gone', 'NotFoundError'));
  });
  await drop(page, 'gone.csv', 'x,y\n1,2');
  await expect(page.getByRole('alert')).toContainText('it may have been moved');
  await page.evaluate(() => Object.defineProperty(File.prototype, 'size', { get: () => 300e6 }));
  await drop(page, 'huge.csv', 'x,y\n1,2');
  await expect(page.getByRole('alert')).toContainText('It has 300 million bytes, and 256 million can be read here');
  await expect(page.getByRole('table', { name: 'Points' })).toHaveAttribute('aria-rowcount', '1');
});

test('in a narrow window the columns lie below one another, and all of it can be reached', async ({ page }) => {
  for (const [width, height] of [
    [640, 400],
    [400, 300],
  ] as const) {
    // prettier-ignore
    await page.setViewportSize({ width, height });
    await openBench(page, 'convert');
    const box = async (selector: string) => (await page.locator(selector).first().boundingBox())!;
    const [centre, chain, sheet] = [await box('.centre'), await box('.chain'), await box('.sheet')];
    for (const column of [centre, chain, sheet]) expect(column.width).toBe(width);
    expect(centre.height).toBeGreaterThan(400);
    expect(chain.y).toBeGreaterThanOrEqual(centre.y + centre.height);
    expect(sheet.y).toBeGreaterThanOrEqual(chain.y + chain.height);
    const picture = await box('.picture-block');
    expect(Math.min(picture.width, 1.6 * picture.height)).toBeGreaterThan(240);
    // The last thing of the worksheet can be scrolled to, above the strip, and used.
    const last = page.locator('.sheet :is(button, input)').last();
    await last.scrollIntoViewIfNeeded();
    await last.click({ trial: true });
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(width);
  }
});

test('in a narrow window the picture stays visible while a field is edited', async ({ page }) => {
  const [width, height] = [853, 533];
  await page.setViewportSize({ width, height });
  await openBench(page, '/frame');
  await expect(page.locator('.coming')).toHaveCount(0);
  const field = page.getByLabel('Vertical field', { exact: true });
  await field.scrollIntoViewIfNeeded();
  await field.click();
  const [edited, picture] = [(await field.boundingBox())!, (await page.getByTestId('picture').boundingBox())!];
  expect(picture.y).toBeGreaterThanOrEqual(0);
  expect(edited.y).toBeGreaterThan(picture.y + picture.height);
  expect(edited.y + edited.height).toBeLessThan(height);
});

test('a camera is set by the size that is wanted, moved by amounts, and its pitch is held', async ({ page }) => {
  await openBench(page, '/frame');
  const read = async (field: string) => number(await page.getByLabel(field, { exact: true }).inputValue());
  const [fov, near0] = [await read('Vertical field'), await read('Pixels per unit there')];
  await type(page, 'Pixels per unit there', String(2 * near0));
  const tan = (v: number) => Math.tan((v * Math.PI) / 360);
  near([tan(await read('Vertical field'))], [tan(fov) / 2], 1e-4);
  await page.getByRole('button', { name: 'the eye', exact: true }).click();
  const [ahead] = /([\d.]+) ahead/
    .exec(await sheet(page).innerText())!
    .slice(1)
    .map(Number);
  await type(page, 'Pixels per unit there', String(near0));
  near([tan(await read('Vertical field'))], [tan(fov) / 2], 1e-4);
  // Half the size at twice the distance: the eye has gone back.
  await expect
    .poll(async () => Number(/([\d.]+) ahead/.exec(await sheet(page).innerText())![1]))
    .toBeCloseTo(2 * ahead!, 0);

  const eye = async () => Promise.all(['x', 'y', 'z'].map((axis) => read(`Eye ${axis}`)));
  await page.getByRole('button', { name: /^Angles/ }).click();
  for (const [angle, v] of [['yaw', '0'], ['pitch', '0'], ['roll', '0']] as const) await type(page, angle, v); // prettier-ignore
  const before = await eye();
  for (const [way, v] of [['right', '1'], ['up', '2'], ['ahead', '3']] as const) await type(page, `Move ${way}`, v); // prettier-ignore
  await page.getByRole('button', { name: 'Move', exact: true }).click();
  near(await eye(), [before[0]! + 1, before[1]! + 2, before[2]! - 3], 0.01);

  await type(page, 'Pitch limit', '20');
  const box = (await page.getByTestId('picture').boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + 40);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height + 400, { steps: 8 });
  await page.mouse.up();
  expect(Math.abs(await read('pitch'))).toBe(20);
});

test('a flat camera is said by its centre and half its size, which way it turns, and the viewport that would do', async ({
  page,
}) => {
  await openBench(page, '/frame');
  await page.getByRole('button', { name: /^Saltmarrow/ }).click();
  await page.getByRole('menuitem', { name: /Saltmarrow chart/ }).click();
  const read = async (field: string) => number(await page.getByLabel(field, { exact: true }).inputValue());
  await expect(page.getByTestId('turn-sense')).toContainText('counter-clockwise, and so the camera');
  await type(page, 'Centre x', '10');
  await type(page, 'Half width seen', '64');
  near([await read('Zoom'), await read('Half height seen')], [10, 36], 1e-6);
  await expect(page.getByTestId('seen-right')).toContainText('to');
  const range = (await page.getByTestId('seen-right').innerText()).split(' to ').map(number);
  near([range[1]! - range[0]!], [128], 0.01);
  // Square in a wide picture: said, with the viewport that would show it to its edges.
  await page.getByRole('button', { name: /Show at least a world rectangle/ }).click();
  for (const [side, v] of [
    ['right from', '-50'],
    ['right to', '50'],
    ['up from', '-50'],
    ['up to', '50'],
  ] as const)
    await type(page, `Rectangle ${side}`, v);
  await expect(page.getByTestId('rectangle-exact')).toContainText('taller than the picture is');
  await page.getByRole('button', { name: 'A viewport of 720 × 720 shows it exactly' }).click();
  await expect(page.getByTestId('seen-size')).toHaveText('100 × 100');
  await expect(page.getByTestId('rectangle-exact')).toHaveCount(0);

  // Another viewport goes on showing that, and more where it has room.
  await page.getByTitle('Viewport in CSS pixels, and device pixel ratio').click();
  await type(page, 'Viewport width', '1440');
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('seen-size')).toHaveText('200 × 100');
  near([await read('Centre x'), await read('Centre y')], [0, 0], 0.01);

  // Tiles of so many texels, each so many pixels.
  const side = await read('Tile side');
  await type(page, 'Texels across', '16');
  await type(page, 'Pixels a texel', '3');
  near([await read('Zoom')], [48 / side], 1e-6);
  await expect(page.getByTestId('texels')).toHaveText('Every texel is 3 px across.');
  await type(page, 'Pixels a texel', '2.5');
  await expect(page.getByTestId('texels')).toContainText('2 and 3 px across in turn');
});

test('points are kept in the project, several sets of them, undone, and made bodies', async ({ page }, info) => {
  await openBench(page);
  await drop(page, 'stakes.csv', 'name,x,y,z\nWest stake,-8,1,-12\nEast stake,9,1,-12\n');
  const table = page.getByRole('table', { name: 'Points' });
  await expect(table).toHaveAttribute('aria-rowcount', '2');
  await drop(page, 'lamps.csv', 'name,x,y,z\nRed lamp,1,2,3\nGreen lamp,4,5,6\nWhite lamp,7,8,9\n');
  await expect(table).toHaveAttribute('aria-rowcount', '3');
  const sets = page.getByRole('radiogroup', { name: 'The set that is shown' });
  await expect(sets.getByRole('radio')).toHaveCount(2);
  await sets.getByRole('radio', { name: 'Show stakes.csv' }).click();
  await expect(table).toHaveAttribute('aria-rowcount', '2');
  await expect(table).toContainText('West stake');
  await sets.getByLabel('Name of stakes.csv').fill('Stakes');
  await page.keyboard.press('Enter');
  await sets.getByRole('button', { name: 'Delete the points of Stakes' }).click();
  await expect(table).toHaveAttribute('aria-rowcount', '3');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(sets.getByRole('radio')).toHaveCount(2);

  // Out to a file with their points, and in again where nothing is known of them.
  const saving = page.waitForEvent('download');
  await page.keyboard.press('Control+s');
  const file = info.outputPath('kept.json');
  await (await saving).saveAs(file);
  const project = JSON.parse(readFileSync(file, 'utf8')) as { pointSets: { name: string; coordinates: number[] }[] };
  expect(project.pointSets.map(({ name, coordinates }) => [name, coordinates.length])).toEqual([['Stakes', 6], ['lamps.csv', 9]]); // prettier-ignore
  project.pointSets[0]!.coordinates[0] = 77;
  await drop(page, 'other.json', JSON.stringify({ ...project, id: 'other', name: 'Other harbour' }));
  await expect(page.getByRole('button', { name: /^Other harbour/ })).toBeVisible();
  await sets.getByRole('radio', { name: 'Show Stakes' }).click();
  await expect(table).toContainText('77');

  // Kept past a reload, by their keys.
  await page.waitForTimeout(600);
  await page.reload();
  await expect(table).toHaveAttribute('aria-rowcount', '3');

  // Each a body of the open project.
  const strip = page.getByRole('contentinfo', { name: 'Pointer' });
  await expect(strip).toContainText('82 bodies');
  await page.getByRole('button', { name: 'Make them bodies' }).click();
  await expect(strip).toContainText('85 bodies');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(strip).toContainText('82 bodies');
});

test('points held to an edge stand there on every screen; a body is held under the pointer', async ({ page }) => {
  await openBench(page);
  await unfold(page, 'Held to the screen');
  const add = page.getByRole('button', { name: 'Hold a point to the screen' });
  await add.click();
  await add.click();
  await page.getByLabel('Name of Label 1').fill('Score');
  await page.keyboard.press('Enter');
  const score = page.getByRole('region', { name: 'Score' });
  await expect(score.getByTestId('held here')).toHaveText('1256, 24');
  await expect(score.getByTestId('held Phone, upright')).toHaveText('366, 24');
  await type(page, 'Score inset x', '100');
  await expect(score.getByTestId('held 16 : 9')).toHaveText('1820, 24');
  // Held to another edge it stays where it is here, and goes with that edge elsewhere.
  await page.getByLabel('Score is held to').selectOption('bottom left');
  await expect(score.getByTestId('held here')).toHaveText('1180, 24');
  await expect(score.getByTestId('held Phone, upright')).toHaveText('1180, 148');
  await expect(page.locator('[data-picture=main] text', { hasText: 'Score' })).toBeVisible();
  await page.getByRole('button', { name: 'Show the screens' }).click();
  await expect(page.locator('[aria-label=Screens] .ink-path-key')).toHaveCount(10);

  // The body that is probed goes with the pointer, at the depth of the way back.
  await page.getByRole('radio', { name: /Distance ahead/ }).click();
  await type(page, 'Distance ahead', '20');
  await page.getByRole('button', { name: 'Hold Lighthouse there' }).click();
  const box = (await page.getByTestId('picture').boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.move(box.x + box.width / 2 + 8, box.y + box.height / 2 + 8);
  await page.mouse.down();
  await page.mouse.up();
  await expect(page.getByRole('button', { name: 'Hold Lighthouse there' })).toBeVisible();
  // The probe stands still in the world, and the body has gone: it lies otherwise in its space.
  const left = await rung(page, 'local');
  expect(Math.hypot(...left)).toBeGreaterThan(30);
  await page.mouse.move(box.x + 30, box.y + 30);
  near(await rung(page, 'local'), left, 1e-9);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => Math.hypot(...(await rung(page, 'local')))).toBeLessThan(30);
});
