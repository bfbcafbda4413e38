import { createHash } from 'node:crypto';
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { drawn, near, number, numbers, openBench, picture, rung, type } from './bench';

test.beforeEach(async ({ page }) => openBench(page, '/frame'));

const read = async (page: Page, field: string) => number(await page.getByLabel(field, { exact: true }).inputValue());
const radians = (degrees: number) => (degrees * Math.PI) / 180;
const seen = async (page: Page) => numbers((await page.getByTestId('seen-size').innerText()).replace('×', ','));

test('one lens in every form: each is typed, and the others follow', async ({ page }) => {
  const tangent = async (field: string) => Math.tan(radians(await read(page, field)) / 2);
  const inStep = async () => {
    const t = await tangent('Vertical field');
    near([await tangent('Horizontal field')], [(t * 16) / 9], 2e-5 * (1 + t));
    near([await tangent('Diagonal field')], [t * Math.hypot(1, 16 / 9)], 4e-5 * (1 + t));
    near([await read(page, 'Focal length')], [(await read(page, 'Sensor height')) / (2 * t)], 2e-3);
  };
  await inStep();
  await type(page, 'Focal length', '50mm');
  near([await tangent('Vertical field')], [0.24], 1e-6);
  await inStep();
  await type(page, 'Horizontal field', '90');
  near([await tangent('Vertical field')], [9 / 16], 1e-6);
  await inStep();
  await type(page, 'Diagonal field', 'pi/2 rad');
  near([await tangent('Vertical field')], [1 / Math.hypot(1, 16 / 9)], 1e-6);
  await type(page, 'Sensor height', '12');
  await inStep();
  // What it sees at the subject's distance is what the angle says there.
  const [width, height] = await seen(page);
  const ahead = (await rung(page, 'view'))[2]! * -1;
  near([height!], [2 * ahead * (await tangent('Vertical field'))], 0.02);
  near([width!], [(height! * 16) / 9], 0.2);
  // Off-centre: an edge moved is a shift and an aspect.
  await page.getByRole('button', { name: 'Shift, edges and aspect…' }).click();
  const [left, right] = [await read(page, 'Edge left'), await read(page, 'Edge right')];
  near([left], [-right], 1e-3);
  await type(page, 'Edge right', '0');
  near([await read(page, 'Shift right')], [-1], 1e-9);
  near([await read(page, 'Aspect')], [8 / 9], 1e-3);
  await page.getByRole('button', { name: 'The viewport’s' }).click();
  near([await read(page, 'Aspect')], [16 / 9], 1e-5);
  await type(page, 'Shift right', '0');
  // Orthographic: height, width and scale.
  await page.getByRole('button', { name: 'orthographic' }).click();
  await type(page, 'Width', '64');
  near([await read(page, 'Height'), await read(page, 'Pixels per unit')], [36, 20], 1e-9);
  await type(page, 'Pixels per unit', '10');
  near([await read(page, 'Height'), await read(page, 'Width')], [72, 128], 1e-9);
  near(await seen(page), [128, 72], 1e-9);
  // And back: the sensor is the one that was chosen.
  await page.getByRole('button', { name: 'perspective', exact: true }).click();
  near([await read(page, 'Sensor height')], [12], 0);
  await inStep();
});

test('the gaze in every form, and a basis that has drifted is measured and repaired', async ({ page }) => {
  await type(page, 'yaw', '90');
  await type(page, 'pitch', '0');
  const basis = (axis: string) => Promise.all(['x', 'y', 'z'].map((letter) => read(page, `Basis ${axis} ${letter}`)));
  near(await basis('ahead'), [1, 0, 0], 1e-3);
  near(await basis('right'), [0, 0, 1], 1e-3);
  const half = Math.sqrt(0.5);
  const quaternion = await Promise.all(['x', 'y', 'z', 'w'].map((letter) => read(page, `Quaternion ${letter}`)));
  near(quaternion.map(Math.abs), [0, half, 0, half], 1e-3);
  // A quaternion's part: the whole comes back to length 1, and the angles follow.
  await type(page, 'Quaternion y', '0');
  near([await read(page, 'yaw')], [0], 1e-6);
  // A point: kept while the eye moves.
  await type(page, 'Look at x', '34');
  await expect(page.getByRole('group', { name: 'Looks at a point' }).getByRole('button')).toHaveAttribute('aria-pressed', 'true'); // prettier-ignore
  await type(page, 'Eye z', '100');
  near([await read(page, 'Look at x')], [34], 0);
  // A basis that is not one.
  const bench = page.getByRole('group', { name: 'Basis and quaternion' });
  await bench.getByRole('button', { name: /Basis and quaternion/ }).click();
  const before = await basis('ahead');
  await type(page, 'Basis up y', '1.25');
  await expect(bench).toContainText('Off orthonormal by');
  await expect(page.getByText('This is the last camera that could be.')).toBeVisible();
  await bench.getByRole('button', { name: 'Orthonormalise, ahead kept' }).click();
  await expect(page.getByText('This is the last camera that could be.')).toBeHidden();
  near(await basis('ahead'), before, 1e-3);
  // Another handedness has no quaternion, and says why.
  await page.getByTitle('Conventions in force').click();
  await page.getByRole('button', { name: 'Vulkan' }).click();
  await page.getByRole('group', { name: 'View up' }).getByRole('button', { name: '+y' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('region', { name: 'Eye and gaze' })).toContainText('No quaternion: the world is right-handed and the view left-handed'); // prettier-ignore
});

test('conventions are picked on a drawn cross, kept by name, and the numbers can be kept instead of the scene', async ({
  page,
}) => {
  const chip = page.getByTitle('Conventions in force');
  const first = await picture(page);
  await chip.click();
  const sheet = page.getByRole('dialog', { name: 'Conventions' });
  // Ahead becomes +z: the world turns left-handed, the picture stays, the numbers change.
  await sheet.getByRole('button', { name: 'World ahead: −z' }).click();
  await sheet.getByRole('group', { name: 'World ahead' }).getByRole('button', { name: '+z' }).click();
  await expect(sheet).toContainText('World left-handed');
  near([(await rung(page, 'world'))[2]!], [20], 0);
  expect(await picture(page)).toBe(first);
  await expect(sheet).toContainText('-6.00, 14.00, 64.00'.replaceAll('-', '−'));
  await expect(sheet).toContainText('-6.00, 14.00, -64.00'.replaceAll('-', '−'));
  await sheet.getByLabel('A name for these conventions').fill('House');
  await page.keyboard.press('Enter');
  // The other command: the numbers stay as they were and the scene is turned over.
  await sheet.getByRole('button', { name: 'Keep the numbers instead' }).click();
  near(await rung(page, 'world'), [-21, 20.4, -20], 1e-9);
  await page.keyboard.press('Escape');
  near([await read(page, 'Eye z')], [64], 0);
  expect(await picture(page)).not.toBe(first);
  await page.keyboard.press('Control+Z');
  await page.keyboard.press('Control+Z');
  near([(await rung(page, 'world'))[2]!], [-20], 0);
  expect(await picture(page)).toBe(first);
  // The named set is there after a reload.
  await page.reload();
  await chip.click();
  await sheet.getByRole('button', { name: 'House', exact: true }).click();
  near([(await rung(page, 'world'))[2]!], [20], 0);
  await sheet.getByRole('button', { name: 'Forget the conventions House' }).click();
  await expect(sheet.getByRole('button', { name: 'House', exact: true })).toHaveCount(0);
});

test('the camera is fitted to everything, to the probed body and to a rectangle', async ({ page }) => {
  const section = page.getByRole('region', { name: 'What the camera sees' });
  await section.getByRole('button', { name: 'Fit everything' }).click();
  await expect(section).toContainText('82 of 82 bodies in view');
  await expect(page.getByRole('group', { name: 'Through the camera' })).not.toContainText('off the picture');
  await section.getByRole('button', { name: 'Fit Lighthouse' }).click();
  await expect(page.getByTestId('verdict')).toContainText('On screen');
  // The lighthouse fills the height: its foot and its tip are 28 metres apart.
  expect((await seen(page))[1]!).toBeLessThan(60);
  await section.getByRole('button', { name: 'Fit a world rectangle…' }).click();
  for (const [field, value] of [
    ['right from', '-30'],
    ['right to', '30'],
    ['ahead from', '-10'],
    ['ahead to', '-40'],
  ] as const)
    // prettier-ignore
    await type(page, `Rectangle ${field}`, value);
  await section.getByRole('button', { name: 'Fit the rectangle' }).click();
  // The same by name, from the command search.
  await page.keyboard.press('/');
  await page.getByPlaceholder('Commands, fields, help, bodies').fill('Fit everything');
  await expect(page.getByRole('option', { name: 'Fit everything' })).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.press('Enter');
  const undo = page.getByRole('button', { name: 'Undo' });
  await expect(undo).toHaveAttribute('title', 'Undo: fit everything');
  await expect(section).toContainText('82 of 82 bodies in view');
  await undo.click();
  await expect(undo).toHaveAttribute('title', 'Undo: fit a world rectangle');
  // Its corners, probed, stand in the picture.
  for (const [x, z] of [
    [-30, -10],
    [30, -40],
  ]) {
    // prettier-ignore
    await type(page, 'World x', String(x));
    await type(page, 'World y', '0');
    await type(page, 'World z', String(z));
    const [px, py] = await rung(page, 'screen');
    expect(px! > 0 && px! < 1280 && py! > 0 && py! < 720).toBe(true);
  }
});

test('every camera that cannot be is explained, keeps its last picture, and is mended by one click', async ({
  page,
}) => {
  const stale = page.getByText('This is the last camera that could be.');
  const good = await picture(page);
  const note = page.getByRole('alert').filter({ hasText: 'last camera that could be' }).first();
  const mend = async (says: RegExp, button: string | RegExp) => {
    await expect(stale).toBeVisible();
    await expect(note).toContainText(says);
    expect(await picture(page)).toBe(good);
    await note.getByRole('button', { name: button }).click();
    await expect(stale).toBeHidden();
  };
  await type(page, 'Near', '0');
  await mend(/near is 0; in perspective the near plane lies ahead of the eye/, 'Set near to 0.1');
  await type(page, 'Near', '5');
  await type(page, 'Near', '300');
  await mend(/far is 140 and near is 300; far must be beyond near/, 'Exchange near and far');
  await type(page, 'Near', '5');
  await type(page, 'Far', '140');
  await type(page, 'Vertical field', '200');
  await mend(/vertical field of view is 200°; it must lie between 0° and 180°/, 'Set the vertical field to 60°');
  await type(page, 'Vertical field', '36');
  // Up along the gaze: the point is put straight below the eye.
  for (const axis of ['x', 'y', 'z'] as const) {
    const eye = await read(page, `Eye ${axis}`);
    await type(page, `Look at ${axis}`, String(axis === 'y' ? eye - 10 : eye));
  }
  await expect(stale).toBeVisible();
  await expect(note).toContainText('The gaze runs along up');
  await note.getByRole('button', { name: 'Aim by angles, pitch −90°' }).click();
  await expect(stale).toBeHidden();
  near([await read(page, 'pitch')], [-90], 0);
  await page.getByRole('button', { name: 'orthographic' }).click();
  await type(page, 'Height', '0');
  await expect(note).toContainText('The picture’s height is 0; it must be above 0');
  await note.getByRole('button', { name: 'Set the height to 20' }).click();
  await expect(stale).toBeHidden();
});

test('the screens show what their policy says, and one of them becomes the viewport', async ({ page }) => {
  const shows = async (i: number) => numbers((await page.getByTestId(`screen-${i}`).innerText()).replace(' m', '').replace('×', ',')); // prettier-ignore
  const [width, height] = await seen(page);
  const choose = (name: string) =>
    page.getByRole('group', { name: 'Fit to screens' }).getByRole('button', { name }).click();
  // 390 × 844 and 2560 × 1080.
  near(await shows(0), [width!, (width! * 844) / 390], 0.1);
  near(await shows(3), [(height! * 2560) / 1080, height!], 0.1);
  await choose('fixed height');
  near(await shows(0), [(height! * 390) / 844, height!], 0.1);
  await choose('fixed width');
  near(await shows(3), [width!, (width! * 1080) / 2560], 0.1);
  await choose('at most both');
  near(await shows(0), [(height! * 390) / 844, height!], 0.1);
  await choose('both, integer scale');
  near(await shows(0), [width!, height!], 0.1);
  // Letterboxed: the picture’s place on each screen, in whole pixels; stretched it has none of its own.
  await choose('both, with bars');
  near(await shows(0), [width!, height!], 0.1);
  await expect(page.getByTestId('letterbox-0')).toHaveText('picture at 0, 312: 390 × 219 px');
  await choose('both, stretched');
  await expect(page.getByTestId('letterbox-0')).toHaveCount(0);
  near(await shows(0), [width!, height!], 0.1);
  await page.getByRole('button', { name: 'Add a screen' }).click();
  await type(page, 'Screen 6 width', '500');
  await expect(page.getByRole('group', { name: 'Screens', exact: true })).toContainText('500×720');
  await page.getByRole('button', { name: 'Remove the screen Own 6' }).click();
  await expect(page.getByRole('group', { name: 'Screens', exact: true })).not.toContainText('500×720');
  await page.getByRole('button', { name: /^Take 4 : 3/ }).click();
  await expect(page.getByTitle('Viewport in CSS pixels, and device pixel ratio')).toContainText('1024 × 768');
  // Depth: at 80.28 ahead with near 5 and far 140 a 24-bit step is (1/(2²⁴ − 1)) · f²(F − n)/(F n).
  await page.getByRole('region', { name: 'Depth resolution' }).scrollIntoViewIfNeeded();
  const told = number(await page.getByTestId('depth-u24').innerText());
  near([told], [(80.2835 ** 2 * 135) / (140 * 5) / (2 ** 24 - 1)], 1e-6);
});

test('every number of the sheet is the command line’s', async ({ page }, info) => {
  await page.getByTitle('Conventions in force').click();
  await page.getByRole('button', { name: 'WebGL' }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Shift, edges and aspect…' }).click();
  await type(page, 'Shift right', '0.25');
  await type(page, 'yaw', '31.5');
  await page.getByRole('button', { name: 'Saltmarrow harbour' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: /Save as a compute request/ }).click(),
  ]);
  const file = info.outputPath('request.json');
  await download.saveAs(file);
  expect(readFileSync(file, 'utf8')).toContain('"shift"');
  const { camera } = JSON.parse(execFileSync('node', ['bin/astrolabe.js', 'compute', file], { encoding: 'utf8' })) as {
    camera: Record<string, number> & Record<'right' | 'up' | 'forward' | 'quaternion', number[]> & { extents: Record<string, number> }; // prettier-ignore
  };
  for (const axis of ['right', 'up', 'forward'] as const)
    for (const [i, letter] of ['x', 'y', 'z'].entries())
      near([await read(page, `Basis ${axis === 'forward' ? 'ahead' : axis} ${letter}`)], [camera[axis][i]!], 0.5e-3 + 1e-9); // prettier-ignore
  for (const [i, letter] of ['x', 'y', 'z', 'w'].entries())
    near([await read(page, `Quaternion ${letter}`)], [camera.quaternion[i]!], 0.5e-3 + 1e-9);
  for (const edge of ['left', 'right', 'bottom', 'top'])
    near([await read(page, `Edge ${edge}`)], [camera.extents[edge]!], 0.5e-3 + 1e-9);
  for (const [field, key] of [
    ['yaw', 'yaw'],
    ['pitch', 'pitch'],
    ['Vertical field', 'verticalFov'],
    ['Near', 'near'],
    ['Far', 'far'],
    ['Aspect', 'aspect'],
  ] as const)
    // prettier-ignore
    near([await read(page, field)], [camera[key]!], 1e-5 * Math.abs(camera[key]!) + 1e-9);
});

test('what is painted under the hand is what stands when it lets go, in either theme', async ({ page }) => {
  const box = (await page.getByTestId('picture').boundingBox())!;
  const words = page.locator('[data-picture=main] text.ink-name').first();
  const taken = () =>
    Promise.all(
      ['main', 'plan'].map(async (name) =>
        (await page.locator(`[data-picture=${name}] svg[role=group]`).screenshot()).toString('base64'),
      ),
    );
  // What is on a canvas may come to the screen a frame later than the page hears of it.
  const shots = async () => {
    await drawn(page);
    let last = await taken();
    for (let times = 0; times < 10; times++) {
      await page.waitForTimeout(100);
      const now = await taken();
      if (now.every((one, i) => one === last[i])) break;
      last = now;
    }
    return last;
  };
  const differing = (pairs: string[][]) =>
    page.evaluate(async (given) => {
      const pixels = async (base64: string) => {
        const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
        const image = await createImageBitmap(new Blob([bytes], { type: 'image/png' }));
        const context = new OffscreenCanvas(image.width, image.height).getContext('2d')!;
        context.drawImage(image, 0, 0);
        return context.getImageData(0, 0, image.width, image.height).data;
      };
      return Promise.all(
        given.map(async (pair) => {
          const [a, b] = (await Promise.all(pair.map(pixels))) as [Uint8ClampedArray, Uint8ClampedArray];
          return a.reduce((sum, v, i) => sum + Number(Math.abs(v - b[i]!) > 60), 0) / a.length;
        }),
      );
    }, pairs);
  for (const theme of ['paper', 'night']) {
    await expect(page.locator('html')).toHaveAttribute('data-theme', theme);
    await page.mouse.move(box.x + 300, box.y + 200);
    await page.mouse.down();
    await page.mouse.move(box.x + 330, box.y + 212);
    await page.mouse.move(box.x + 340, box.y + 215);
    await expect(words).toBeHidden();
    const held = await shots();
    await page.mouse.up();
    await expect(words).toBeVisible();
    const standing = await shots();
    // Letters lie a fraction of a pixel otherwise; a wrong face, colour or place is several times
    // as much.
    const first = await differing(held.map((one, i) => [one, standing[i]!]));
    for (const share of first) expect(share, String(first)).toBeLessThan(0.002);

    // The paper of a drawing is moved the same way.
    const eye = page.locator('[data-picture=plan] .set').first();
    const paper = (await page.locator('[data-picture=plan] svg[role=group]').boundingBox())!;
    await page.mouse.move(paper.x + 40, paper.y + 30);
    await page.mouse.down();
    await page.mouse.move(paper.x + 52, paper.y + 37);
    await expect(eye).toHaveCSS('visibility', 'hidden');
    const [, panned] = await shots();
    await page.mouse.up();
    await expect(eye).toHaveCSS('visibility', 'visible');
    const [, rests] = await shots();
    expect(rests).not.toBe(standing[1]);
    for (const share of await differing([[panned!, rests!]])) expect(share).toBeLessThan(0.002);
    await page.mouse.move(0, 0);
    await page.keyboard.press('t');
  }
});

test('pictures come back when the GPU does, and until then it is said', async ({ browser }) => {
  const page = await browser.newPage();
  await page.route('**/assets/worker-pictures-*.js', async (route) => {
    const response = await route.fetch();
    const kept =
      'const own=OffscreenCanvas.prototype.getContext;OffscreenCanvas.prototype.getContext=function(kind,...rest){const made=own.call(this,kind,...rest);if(kind==="webgl2")self.losing=made.getExtension("WEBGL_lose_context");return made};';
    await route.fulfill({ response, body: kept + (await response.text()) });
  });
  await page.addInitScript(() => {
    const workers: Worker[] = [];
    class RecordedWorker extends Worker {
      constructor(...args: ConstructorParameters<typeof Worker>) {
        super(...args);
        workers.push(this);
      }
    }
    Object.assign(window, { Worker: RecordedWorker, endWorkers: () => workers.forEach((one) => one.terminate()) });
  });
  const working = page.waitForEvent('worker', (one) => one.url().includes('/worker-pictures-'));
  await page.goto('/frame');
  const worker = await working;
  await expect(page.getByRole('heading', { name: 'The Chain' })).toBeVisible();
  await drawn(page);
  const picture = async () => {
    await drawn(page);
    return createHash('sha1').update(await page.locator('[data-picture=main]').screenshot()).digest('hex'); // prettier-ignore
  };
  await page.mouse.move(0, 0);
  const before = await picture();
  await worker.evaluate(() => (self as unknown as { losing: WEBGL_lose_context }).losing.loseContext());
  const note = page.getByRole('alert').filter({ hasText: 'No pictures here.' });
  await expect(note).toContainText('The browser took the GPU away');
  // What is not painted by it goes on.
  await page.getByLabel('Near', { exact: true }).fill('6');
  await page.getByLabel('Near', { exact: true }).press('Enter');
  await page.keyboard.press('Control+z');
  await worker.evaluate(() => (self as unknown as { losing: WEBGL_lose_context }).losing.restoreContext());
  await expect(note).toHaveCount(0);
  await expect.poll(picture, { timeout: 20_000 }).toBe(before);
  // The browser ends workers without an error: that is reported too, and the pictures are not busy for ever.
  await page.evaluate(() => (window as unknown as { endWorkers: () => void }).endWorkers());
  await expect(note).toContainText('the browser ended its worker');
  await expect(page.locator('main[aria-label=Pictures]')).toHaveAttribute('aria-busy', 'false');
  await page.close();
});

test('the camera is turned, moved and widened in the pictures', async ({ page }) => {
  const box = (await page.getByTestId('picture').boundingBox())!;
  const at = (x: number, y: number) => [box.x + box.width * x, box.y + box.height * y] as const;
  const before = await rung(page, 'screen');
  const first = await picture(page);

  // What is grabbed stays under the hand.
  await page.mouse.move(...at(0.5, 0.5));
  await page.mouse.down();
  await page.mouse.move(...at(0.6, 0.5), { steps: 5 });
  await page.mouse.up();
  const turned = await rung(page, 'screen');
  expect(Math.abs(turned[0]! - before[0]! - 128)).toBeLessThan(30);
  await drawn(page);
  expect(await picture(page)).not.toBe(first);
  await page.keyboard.press('Control+Z');
  near(await rung(page, 'screen'), before, 1e-4);

  // Shift moves across; the wheel goes ahead.
  await page.keyboard.down('Shift');
  await page.mouse.move(...at(0.5, 0.5));
  await page.mouse.down();
  await page.mouse.move(...at(0.55, 0.5), { steps: 4 });
  await page.mouse.up();
  await page.keyboard.up('Shift');
  expect(number(await page.getByLabel('Eye x').inputValue())).toBeLessThan(-6);
  await page.keyboard.press('Control+Z');
  const ahead = (await rung(page, 'view'))[2]!;
  await page.mouse.wheel(0, -100);
  await expect.poll(async () => (await rung(page, 'view'))[2]!).toBeGreaterThan(ahead + 1);
  await page.keyboard.press('Control+Z');

  await page.getByRole('button', { name: 'Pane: Screens' }).click();
  await page.getByRole('menuitemradio', { name: 'Section' }).click();
  // In the plan and the section: the eye, the aim, the field of view, near and far, all by keyboard
  // too.
  const plan = page.getByRole('group', { name: 'Plan' });
  const eye = (await plan.getByRole('button', { name: 'Move the eye' }).locator('circle').boundingBox())!;
  await page.mouse.move(eye.x + eye.width / 2, eye.y + eye.height / 2);
  await page.mouse.down();
  await page.mouse.move(eye.x + eye.width / 2 - 20, eye.y + eye.height / 2, { steps: 4 });
  await page.mouse.up();
  expect(number(await page.getByLabel('Eye x').inputValue())).toBeLessThan(-12);
  await plan.getByRole('button', { name: 'Move the aim' }).focus();
  for (let i = 0; i < 5; i++) await page.keyboard.press('Shift+ArrowRight');
  expect(number(await page.getByLabel('yaw', { exact: true }).inputValue())).toBeGreaterThan(15);
  await plan.getByRole('button', { name: 'Move the field of view' }).last().focus();
  await page.keyboard.press('Shift+ArrowRight');
  expect(number(await page.getByLabel('Vertical field').inputValue())).toBeGreaterThan(36);
  await page.getByRole('group', { name: 'Section' }).getByRole('button', { name: 'Move the far limit' }).focus();
  await page.keyboard.press('Shift+ArrowLeft');
  expect(number(await page.getByLabel('Far', { exact: true }).inputValue())).toBeLessThan(140);
});

test('what cannot be seen says why, and a camera that cannot be keeps its last picture', async ({ page }) => {
  const verdict = page.getByTestId('verdict');
  await type(page, 'World z', '200');
  await expect(verdict).toContainText('Behind the eye');
  await expect(page.locator('[data-rung="ndc"]')).toContainText('behind the eye');
  await type(page, 'World z', '-20');
  await type(page, 'World y', '60');
  await expect(verdict).toContainText('Off screen, above the top');
  await expect(verdict).toContainText('css px past the edge');
  await type(page, 'World y', '20.4');
  await type(page, 'Far', '60');
  await expect(verdict).toContainText('Beyond far');
  await expect(verdict).toContainText('80.28 ahead, and far is 60.00');
  await type(page, 'Far', '140');
  const good = await picture(page);
  await type(page, 'Near', '200');
  await expect(page.getByText('This is the last camera that could be.')).toBeVisible();
  await expect(page.getByRole('region', { name: 'What the camera sees' })).toContainText('far must be beyond near');
  await drawn(page);
  expect(await picture(page)).toBe(good);
  await type(page, 'Near', '5');
  await expect(page.getByText('This is the last camera that could be.')).toBeHidden();
  // Something in the way.
  await page.getByRole('button', { name: /^Probe:/ }).click();
  await page.getByPlaceholder('Find a body').fill('Bollard 2');
  await page.keyboard.press('Enter');
  await type(page, 'World z', '-40');
  await type(page, 'World y', '4');
  await expect(verdict).toContainText('hidden by');
});

test('the subject keeps its size from perspective to orthographic', async ({ page }) => {
  const before = await rung(page, 'screen');
  await expect(page.getByTestId('verdict')).toContainText('13.8 px per metre');
  await page.getByRole('button', { name: 'orthographic' }).click();
  await expect(page.getByTestId('verdict')).toContainText('13.8 px per metre');
  near((await rung(page, 'screen')).slice(0, 2), before.slice(0, 2), 0.01);
  near([(await rung(page, 'clip'))[3]!], [1], 0);
});
