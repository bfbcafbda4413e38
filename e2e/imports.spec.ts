import { expect, test } from './test';
import { drop, near, number, numbers, openBench, paste, rung, type } from './bench';

/**
 * A model comes in off the page, with its progress and a stop; what cannot be read changes nothing.
 */

/** A ring of quads and, apart from it, a pyramid. */
function model(around: number): string {
  const lines = ['o Ring'];
  const at = (i: number, r: number, y: number) => {
    const a = (2 * Math.PI * i) / around;
    return `v ${r * Math.cos(a)} ${y} ${r * Math.sin(a)}`;
  };
  for (let i = 0; i < around; i++) lines.push(at(i, 8, 0), at(i, 8, 2));
  for (let i = 0; i < around; i++) {
    const [a, b] = [2 * i + 1, ((2 * i + 2) % (2 * around)) + 1];
    lines.push(`f ${a} ${a + 1} ${b + 1} ${b}`);
  }
  lines.push('o Light', 'v -1 3 -1', 'v 1 3 -1', 'v 1 3 1', 'v -1 3 1', 'v 0 5 0');
  lines.push('f -2 -3 -4 -5', 'f -5 -4 -1', 'f -4 -3 -1', 'f -3 -2 -1', 'f -2 -5 -1', '');
  return lines.join('\n');
}

test.beforeEach(({ page }) => openBench(page, '/convert'));

test('an OBJ model becomes a project, all of it in the picture, and undo has the old one back', async ({ page }) => {
  await drop(page, 'ring buoy.obj', model(24));
  await expect(
    page.locator('.notice', {
      hasText:
        'Opened ring buoy. Its axes, origin and size are set under Convert, Nodes. Undo brings back what was here.',
    }),
  ).toBeVisible();
  await expect(page.getByRole('button', { name: /^ring buoy/ })).toBeVisible();
  await page.getByRole('button', { name: /^Probe:/ }).click();
  await page.getByPlaceholder('Find a body').fill('Light');
  await page.keyboard.press('Enter');
  near(await rung(page, 'world'), [0, 4, 0], 1e-9);
  // The whole is in the picture: the rectangle of each body lies within the viewport.
  const [x, y, width, height] = numbers(await page.getByTestId('rectangle-light').locator('button.number').innerText());
  expect(x! > 0 && y! > 0 && x! + width! < 1280 && y! + height! < 720).toBe(true);
  expect(width! * height!).toBeGreaterThan(2000);
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: /^Saltmarrow/ })).toBeVisible();
});

test('a model dropped into an empty project fills it, and the task stays', async ({ page }) => {
  await page.locator('.project-button').click();
  await page.getByRole('menuitem', { name: 'New 3D project' }).click();
  await expect(page.getByRole('contentinfo', { name: 'Pointer' })).toContainText('0 bodies');
  await drop(page, 'ring buoy.obj', model(12));
  await expect(page.locator('.notice', { hasText: 'Opened ring buoy.' })).toBeVisible();
  await expect(page).toHaveURL(/\/convert/);
  await page.locator('.project-button').click();
  await page.getByRole('menuitem', { name: /All projects/ }).click();
  const list = page.getByRole('list', { name: 'Kept projects' });
  await expect(list).toContainText('ring buoy');
  await expect(list).not.toContainText('New 3D project');
});

test('the pane of points does not stay in another project', async ({ page }) => {
  await paste(page, 'x,y,z\n-21,20.4,-20');
  const points = page.getByRole('table', { name: 'Points' });
  await expect(points).toHaveAttribute('aria-rowcount', '1');
  await page.locator('.project-button').click();
  await page.getByRole('menuitem', { name: 'New 3D project' }).click();
  await expect(page.getByRole('contentinfo', { name: 'Pointer' })).toContainText('0 bodies');
  await expect(points).toHaveCount(0);
});

test('a model comes into the open project, and the same file again makes no second project', async ({ page }) => {
  const bodies = page.getByRole('contentinfo', { name: 'Pointer' });
  await expect(bodies).toContainText('82 bodies');
  await drop(page, 'ring buoy.obj', model(12));
  await page.getByRole('button', { name: 'Put its bodies into Saltmarrow harbour instead' }).click();
  await expect(
    page.locator('.notice', { hasText: 'of ring buoy into Saltmarrow harbour, where they stood.' }),
  ).toBeVisible();
  await expect(page.getByRole('button', { name: /^Saltmarrow/ })).toBeVisible();
  await expect(bodies).toContainText('84 bodies');

  // Its own axes and origin, kept or converted: its bodies follow, each change a step.
  await page.getByRole('button', { name: 'Nodes', exact: true }).last().click();
  const brought = page.getByRole('region', { name: 'Brought in' });
  await expect(brought).toContainText('ring buoy.obj');
  await page.getByRole('button', { name: /^Probe:/ }).click();
  await page.getByPlaceholder('Find a body').fill('Ring');
  await page.keyboard.press('Enter');
  const ring = () =>
    Promise.all(
      ['x', 'y', 'z'].map(async (letter) =>
        Math.abs(number(await page.getByLabel(`Position ${letter}`, { exact: true }).inputValue())),
      ),
    );
  await expect.poll(ring).toEqual([0, 1, 0]);
  await brought.getByLabel('Axes of the model').selectOption('right-handed, z up, y ahead');
  // What was up is the way ahead.
  await expect.poll(ring).toEqual([0, 0, 1]);
  await brought.getByLabel('Axes of the model').selectOption('those in force when it came');
  await expect.poll(ring).toEqual([0, 1, 0]);
  await brought.getByLabel('Origin of the model').selectOption('in its middle');
  await expect.poll(ring).toEqual([0, 1.5, 0]);
  await type(page, 'Size of the model', '10');
  await expect.poll(ring).toEqual([0, 15, 0]);
  for (let i = 0; i < 6; i++) await page.getByRole('button', { name: 'Undo' }).click();
  await expect(bodies).toContainText('82 bodies');
  // Of one name there is one, unless they differ: then they are told apart.
  await drop(page, 'ring buoy.obj', model(12));
  await expect(page.getByRole('button', { name: /^ring buoy/ })).toBeVisible();
  await page.waitForTimeout(700);
  await drop(page, 'ring buoy.obj', model(12));
  await expect(page.locator('.notice', { hasText: 'ring buoy was kept here already, and is open.' })).toBeVisible();
  await drop(page, 'ring buoy.obj', model(24));
  await expect(page.locator('.notice', { hasText: 'Opened ring buoy, 2.' })).toBeVisible();
});

test('a torn model is refused by its lines, and a long reading can be stopped; nothing has changed', async ({
  page,
}) => {
  const before = await rung(page, 'world');
  await drop(page, 'torn.obj', model(24).replace('f 1 2 4 3', 'f 1 2 400 3'));
  const alert = page.getByRole('alert');
  await expect(alert).toContainText('torn.obj was not opened, and nothing has changed.');
  await expect(alert).toContainText('line 50');
  await expect(alert).toContainText('vertex 400, and there are 48 by then');
  await alert.getByRole('button', { name: 'Dismiss' }).click();
  // So long that it cannot be through before a hand has come to the button.
  await drop(page, 'long.obj', `v 0 0 0\nv 1 0 0\nv 0 1 0\n${'f 1 2 3\n'.repeat(6_000_000)}`);
  const notice = page.locator('.notice');
  await expect(notice.getByRole('progressbar', { name: 'Reading long.obj' })).toBeVisible();
  await notice.getByRole('button', { name: 'Stop' }).click();
  await expect(notice).toBeHidden();
  near(await rung(page, 'world'), before, 0);
  // The next one is read as if nothing had been.
  await drop(page, 'ring.obj', model(12));
  await expect(page.getByRole('button', { name: /^ring/ })).toBeVisible();
});
