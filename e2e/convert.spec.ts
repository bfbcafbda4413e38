import { expect, test } from './test';
import { drawn, goTo, near, number, numbers, openBench, picture, rung, type } from './bench';

test.beforeEach(async ({ page }) => openBench(page));

test('a point is followed through every space and back, and driven from either end', async ({ page }) => {
  near(await rung(page, 'world'), [-21, 20.4, -20], 0);
  near(await rung(page, 'screen'), [312.9485, 115.0932, 0.9725], 1e-4);
  await expect(page.getByTestId('verdict')).toContainText('On screen');

  // From the world: the screen follows.
  await type(page, 'World x', '-20');
  const moved = await rung(page, 'screen');
  expect(moved[0]).toBeGreaterThan(312.9485);

  // From the screen, the depth kept: the world follows, and the distance ahead stays.
  const view = await rung(page, 'view');
  await page.locator('[data-rung="screen"]').hover();
  await page.locator('[data-rung="screen"]').getByText('drive from here').click();
  await type(page, 'Screen x', '400');
  near([(await rung(page, 'screen'))[0]!], [400], 0);
  near([(await rung(page, 'view'))[2]!], [view[2]!], 1e-4);
  const world = await rung(page, 'world');

  // From clip: w is the distance ahead, behind the eye too, and z follows.
  await page.locator('[data-rung="clip"]').hover();
  await page.locator('[data-rung="clip"]').getByText('drive from here').click();
  await expect(page.getByLabel('Clip z', { exact: true })).toBeHidden();
  await type(page, 'Clip w', '-30');
  near([(await rung(page, 'view'))[2]!], [30], 1e-9);
  await expect(page.getByTestId('verdict')).toContainText('Behind the eye');
  await page.keyboard.press('ControlOrMeta+Z');
  await page.keyboard.press('ControlOrMeta+Z');
  near(await rung(page, 'world'), world, 0);

  // The driven end stays when the camera moves; the other end gives way.
  await goTo(page, 'Frame');
  await type(page, 'Eye x', '-3');
  near((await rung(page, 'screen')).slice(0, 1), [400], 0);
  expect(Math.abs((await rung(page, 'world'))[0]! - world[0]!)).toBeGreaterThan(1);

  // Every step can be undone by its name, and done again.
  const undo = page.getByRole('button', { name: 'Undo' });
  await expect(undo).toHaveAttribute('title', 'Undo: move the camera');
  for (let i = 0; i < 4; i++) await undo.click();
  await expect(undo).toBeDisabled();
  near(await rung(page, 'world'), [-21, 20.4, -20], 0);
  await page.keyboard.press('Control+Shift+Z');
  near([(await rung(page, 'world'))[0]!], [-20], 0);
});

test('Escape puts a number back, arrows step it, and one edit is one step of undo', async ({ page }) => {
  const field = page.getByLabel('World y', { exact: true });
  await field.fill('99');
  near([(await rung(page, 'world'))[1]!], [99], 0);
  await field.press('Escape');
  near([(await rung(page, 'world'))[1]!], [20.4], 0);
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
  await field.focus();
  for (const key of ['ArrowUp', 'Shift+ArrowUp', 'Alt+ArrowDown']) await field.press(key);
  await field.press('Enter');
  near([(await rung(page, 'world'))[1]!], [31.3], 1e-9);
  await page.keyboard.press('Control+Z');
  near([(await rung(page, 'world'))[1]!], [20.4], 0);
  // What is no number yet changes nothing, and says so.
  const screen = await rung(page, 'screen');
  await field.fill('(1+2');
  await expect(field).toHaveAttribute('aria-invalid', 'true');
  near(await rung(page, 'screen'), screen, 0);
  // A rejected entry stays in its field, marked and with the reason, until Escape.
  const reason = page.getByRole('alert').filter({ hasText: '“(1+2” is not a number' });
  await expect(reason).not.toBeVisible();
  await field.press('Enter');
  await expect(reason).toBeVisible();
  await field.press('Tab');
  await expect(field).toHaveValue('(1+2');
  await expect(field).toHaveAttribute('aria-invalid', 'true');
  await field.press('Escape');
  await expect(field).toHaveValue('20.4000');
  await expect(reason).not.toBeVisible();
  await type(page, 'Point y', '(1+2)*10m');
  near([(await rung(page, 'world'))[1]!], [30], 0);
  // It goes when the value changes by other means, and does not come back with the value.
  await field.fill('oops');
  await field.press('Tab');
  await expect(field).toHaveValue('oops');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(field).toHaveValue('20.4000');
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(field).toHaveValue('30.0000');
});

test('conventions re-express every number and move nothing', async ({ page }) => {
  const before = {
    picture: await picture(page),
    clip: await rung(page, 'clip'),
    ndc: await rung(page, 'ndc'),
    view: await rung(page, 'view'),
    screen: await rung(page, 'screen'),
  };
  await page.getByTitle('Conventions in force').click();
  await page.getByRole('button', { name: 'Vulkan' }).click();
  await page.keyboard.press('Escape');
  await drawn(page);
  expect(await picture(page)).toBe(before.picture);
  near(await rung(page, 'screen'), before.screen, 0);
  near(await rung(page, 'world'), [-21, 20.4, -20], 0);
  near(await rung(page, 'view'), [before.view[0]!, -before.view[1]!, -before.view[2]!], 0);
  near(await rung(page, 'clip'), [before.clip[0]!, -before.clip[1]!, before.clip[2]!, before.clip[3]!], 0);
  near(await rung(page, 'ndc'), [before.ndc[0]!, -before.ndc[1]!, before.ndc[2]!], 0);

  // WebGL counts its window from the bottom and its depth from −1.
  await page.getByTitle('Conventions in force').click();
  await page.getByRole('button', { name: 'WebGL' }).click();
  await drawn(page);
  near(await rung(page, 'screen'), [before.screen[0]!, 720 - before.screen[1]!, before.screen[2]!], 1e-4);
  near([(await rung(page, 'ndc'))[2]!], [2 * before.ndc[2]! - 1], 2e-4);

  // One axis at a time: z up, as many worlds have it. The axis set free goes where this one was.
  await page.getByRole('group', { name: 'World up' }).getByRole('button', { name: '+z' }).click();
  await expect(page.getByRole('button', { name: 'World ahead: +y' })).toBeVisible();
  await page.getByRole('group', { name: 'Vectors' }).getByRole('button', { name: 'row' }).click();
  await page.keyboard.press('Escape');
  await drawn(page);
  near(await rung(page, 'world'), [-21, 20, 20.4], 0);
  expect(await picture(page)).toBe(before.picture);
  await expect(page.getByTitle('Conventions in force')).toContainText('+x right, +z up, +y ahead');
});

test('a pixel goes back to the world by four ways of saying its depth', async ({ page }) => {
  await type(page, 'Pixel x', '640');
  await type(page, 'Pixel y', '500');
  await page.getByRole('radio', { name: /Plane/ }).click();
  await type(page, 'Plane', '0');
  const point = numbers(await page.getByTestId('result-world').innerText());
  expect(point[1]).toBe(0);
  for (const way of [/Depth value/, /Range/, /Distance ahead/]) {
    await page.getByRole('radio', { name: way }).click();
    near(numbers(await page.getByTestId('result-world').innerText()), point, 0.011);
  }
  // A pixel above the horizon never meets the water, and says so.
  await page.getByRole('radio', { name: /Plane/ }).click();
  await type(page, 'Plane', '0');
  await type(page, 'Pixel y', '50');
  await expect(page.getByTestId('result-none')).toContainText('behind the eye');
  await type(page, 'Pixel y', '500');
  await page.getByRole('button', { name: 'Put the probe here' }).click();
  near(await rung(page, 'screen').then((v) => v.slice(0, 2)), [640, 500], 1e-4);
});

test('matrices open and copy in the conventions in force', async ({ page }) => {
  const copied = () => page.evaluate(() => navigator.clipboard.readText());
  const open = async () => {
    await page.getByLabel('Open the view matrix').click();
    await page.getByRole('button', { name: 'Copy list' }).click();
    await page.keyboard.press('Escape');
    return JSON.parse(await copied()) as number[];
  };
  const columns = await open();
  expect(columns).toHaveLength(16);
  expect(columns.slice(12)).toEqual([expect.any(Number), expect.any(Number), expect.any(Number), 1]);
  await page.getByTitle('Conventions in force').click();
  await page.getByRole('group', { name: 'Storage order' }).getByRole('button', { name: 'row-major' }).click();
  await page.keyboard.press('Escape');
  const rows = await open();
  expect(rows).toEqual([0, 1, 2, 3].flatMap((r) => [0, 1, 2, 3].map((c) => columns[4 * c + r]!)));
  // A number copies whole, with an ASCII minus.
  await page.getByRole('button', { name: /^View x/ }).click();
  near([number(await copied())], [-23.6982], 1e-4);
  expect(await copied()).toMatch(/^-23\.698219/);
});

test('the pointer is in every space at once', async ({ page }) => {
  const box = (await page.getByTestId('picture').boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.45, box.y + box.height * 0.9);
  const css = numbers(await page.getByTestId('pointer-css').innerText());
  near(css, [576, 648], 1.1);
  near(numbers(await page.getByTestId('pointer-framebuffer').innerText()), [css[0]! * 2, css[1]! * 2], 0.11);
  near(
    numbers(await page.getByTestId('pointer-ndc').innerText()),
    [(css[0]! / 1280) * 2 - 1, 1 - (css[1]! / 720) * 2],
    1e-3,
  );
  const water = numbers(await page.getByTestId('pointer-ground').innerText());
  expect(water[1]).toBe(0);
  // What is clicked is probed: there the chain stands where the pointer said.
  await page.mouse.down();
  await page.mouse.up();
  near((await rung(page, 'world')).slice(0, 3), water, 0.011);
  near((await rung(page, 'screen')).slice(0, 2), css, 0.06);
});
