import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { drawn, goTo, openBench, paste } from './bench';
import { answers, cells, open, read } from './sheet';

/* Diagnose, walked: a log with two faults, its reading corrected, the mends, and numbers by themselves. */

const field = (page: Page) => page.getByRole('textbox', { name: 'The engine’s numbers' });
const verdict = (page: Page) => expect(page.getByTestId('diagnosis'));
const faults = async (page: Page) => (await page.getByRole('list', { name: 'What is wrong' }).getByRole('listitem').allTextContents()).map((one) => one.trim()); // prettier-ignore
interface Diagnosed {
  verdict: string;
  residual: number;
  explanations: { faults: { where: string; fault: string }[]; equivalent: unknown[]; residual: number }[];
}

test('the opening log: two faults found, the reading corrected, what would decide, and the command line’s numbers', async ({
  page,
}, info) => {
  await openBench(page, '/frame');
  await page.keyboard.press('9');
  await verdict(page).toContainText('Two things are wrong');
  expect(await faults(page)).toEqual(['view right negated', 'projection half angle missing']);
  await expect(page.getByTestId('read-left')).toHaveText('Read: view, projection and 4 points. Nothing is left over.');
  await expect(page.getByTestId('mend')).toContainText('cross product');
  // The mend as lines in these conventions, to be copied.
  await expect(page.getByTestId('mend-code')).toContainText('+ t = tan(fov * PI / 360);');
  await expect(page.getByTestId('mend-code')).toContainText('− t = tan(fov * PI / 180);');
  // The engine's picture over the right one, and put away.
  await drawn(page);
  const ghost = page.locator('[data-picture=main] .ink-engine-way').first();
  await expect(ghost).toBeAttached();
  await page.getByRole('checkbox', { name: 'The engine’s picture over the right one' }).uncheck();
  await expect(ghost).not.toBeAttached();
  await page.getByRole('checkbox', { name: 'The engine’s picture over the right one' }).blur();
  await page.keyboard.press('o');
  await expect(ghost).toBeAttached();
  // One of the two mended in the text: one is left. The whole of the typing is one step of undo.
  const log = await field(page).inputValue();
  await field(page).fill(log.replace('-0.994522    0.000000   -0.104528    0.722690', ' 0.994522    0.000000    0.104528   -0.722690').replace(/\[labels\][^]*/, '')); // prettier-ignore
  await verdict(page).toContainText('One thing is wrong');
  expect(await faults(page)).toEqual(['projection half angle missing']);
  await field(page).blur();
  await page.keyboard.press('Control+z');
  await expect(field(page)).toHaveValue(log);
  await verdict(page).toContainText('Two things are wrong');

  // From the points alone two sets are alike; the number that would decide is named.
  await open(page, 'Reading');
  await page.getByLabel('Line 2 is', { exact: true }).selectOption('unused');
  await page.getByLabel('Line 7 is', { exact: true }).selectOption('unused');
  await expect(page.getByTestId('read-left')).toContainText('Read: 4 points');
  await expect(page.getByTestId('decides')).toContainText('What would decide: the view, row 1, column 1');
  expect((await faults(page)).map((one) => one.replace('points ', ''))).toEqual([
    'right negated',
    'half angle missing',
  ]);
  await cells(page, 'explanations').nth(1).click();
  expect((await faults(page)).join()).toContain('x flipped');
  // A projection read the other way is another.
  await page.getByLabel('Line 7 is', { exact: true }).selectOption('projection');
  await page.getByLabel('Line 7 was printed', { exact: true }).selectOption('turned');
  await verdict(page).not.toContainText('Two things are wrong. They put points up to 492');
  await page.getByLabel('Line 7 was printed', { exact: true }).selectOption('listed');
  await page.getByLabel('Line 2 is', { exact: true }).selectOption('view');
  await verdict(page).toContainText('Two things are wrong');

  // The command line has the sheet's numbers.
  const asked = await answers(page, info.outputPath('diagnose.json'));
  const answer = asked['the pasted numbers'] as unknown as Diagnosed;
  expect(answer.verdict).toBe('explained');
  expect(answer.explanations[0]!.faults).toEqual([{ where: 'view', fault: 'rightNegated' }, { where: 'projection', fault: 'halfAngleMissing' }]); // prettier-ignore
  expect(await read(page, 'diagnosis')).toContain(`up to ${answer.residual.toFixed(1)} px off`);
  // Past a reload it is all there.
  await page.reload();
  await verdict(page).toContainText('Two things are wrong');
});

test('the camera’s own numbers agree, another camera’s are known, and what is pasted alone gives conventions and a camera', async ({
  page,
}) => {
  await openBench(page, '/diagnose');
  await verdict(page).toContainText('Two things are wrong');
  await page.getByRole('button', { name: 'Copy the right numbers' }).click();
  const right = await page.evaluate(() => navigator.clipboard.readText());
  expect(right).toMatch(/^view .*\nprojection /);
  await field(page).fill(right);
  await verdict(page).toContainText('These are the camera’s numbers');
  // Another of the project's cameras is meant: its numbers are known by its name.
  await field(page).blur();
  await page.keyboard.press('c');
  await verdict(page).toContainText('wrong');
  expect((await faults(page)).join()).toContain('another camera’s: Bridge wing');
  await open(page, 'Reading');
  await page.getByRole('checkbox', { name: 'Ask the project’s other cameras too' }).uncheck();
  await verdict(page).toContainText('another proper camera’s');
  const what = await cells(page, 'differences').allTextContents();
  expect(what.map((one) => /^position|^yaw|^fieldOfView/.exec(one)?.[0])).toEqual(expect.arrayContaining(['position', 'yaw'])); // prettier-ignore
  // Its camera goes into the project, and out again.
  await page.getByRole('button', { name: 'Take the engine’s camera' }).click();
  await expect(page.getByRole('button', { name: 'As the engine has it' })).toBeVisible();
  await verdict(page).toContainText('These are the camera’s numbers');
  await page.keyboard.press('Control+z');
  await verdict(page).toContainText('another proper camera’s');

  // Pasted on the page of another task, it opens here: a view whose axes are z ahead, y down.
  await goTo(page, 'Frame');
  await paste(
    page,
    'W/Camera(88): worldToView = [1,0,0,0, 0,-1,0,0, 0,0,-1,0, 3,14,62,1]\nviewToClip [1.5,0,0,0, 0,-2.5,0,0, 0,0,1.002,1, 0,0,-0.2004,0]',
  );
  await expect(page).toHaveURL(/diagnose/);
  await expect(page.getByTestId('read-left')).toContainText('Read: view and projection');
  await open(page, 'Alone');
  await expect(page.getByTestId('alone')).toContainText('sets of conventions');
  await expect(page.locator('[data-open=ndc]')).toContainText('How far near is');
  await expect(cells(page, 'conventions').first()).toContainText('+x −y +z');
  await page.getByRole('button', { name: 'Take the conventions' }).click();
  await expect(page.getByText('The conventions were taken.')).toBeVisible();
  await page.getByRole('button', { name: 'Take the camera', exact: true }).click();
  await verdict(page).toContainText('These are the camera’s numbers');
  // What holds nothing is said, and nothing is lost by it.
  await field(page).fill('no numbers here');
  await expect(page.getByTestId('read-left')).toContainText('No matrix and no point');
  await expect(page.locator('[data-section=diagnose-verdict]')).toContainText('Paste something first');
  await field(page).fill('view 1 2 3 4 5 6 7 8 9 10 11 12 13 14 15 nan');
  await open(page, 'Reading');
  await expect(page.getByText('holds a number that is none')).toBeVisible();
  // A long text is read in a worker. Its lines are listed in parts, and nested brackets are reported.
  const row = 'view: [[1, 0, 0, 0.5], [0, 1, 0, 0], [0, 0, 1, 0], [0, 0, 0, 1]]\n';
  const long = row.repeat(1000) + '['.repeat(20_000);
  await field(page).fill(long);
  await expect(page.getByTestId('read-left')).toContainText('Read: view.');
  await expect(page.getByText('Line 1,001 nests brackets deeper than 32.')).toBeVisible();
  await page.getByRole('button', { name: 'Show more: 60 of 1,000 lines are listed' }).click();
  await expect(page.getByRole('button', { name: 'Show more: 120 of 1,000 lines are listed' })).toBeVisible();
  await expect(field(page)).toHaveValue(long);
});

test('a 2D camera: a matrix with y flipped and a point, its reading corrected, and the numbers read off', async ({
  page,
}) => {
  await openBench(page, '/diagnose');
  await page.locator('.project-button').click();
  await page.getByRole('menuitem', { name: /chart/i }).click();
  await expect(page.getByText('Paste a matrix of 2 × 3')).toBeVisible();
  await field(page).fill('view\n4.8 0 702.4\n0 4.8 890.4\n(10, -60) -> (750.4, 602.4)');
  await verdict(page).toContainText('One thing is wrong');
  expect(await faults(page)).toEqual(['world to pixel y flipped']);
  await drawn(page);
  await expect(page.locator('[data-picture=main] .ink-engine-way').first()).toBeVisible();
  await open(page, 'Read off');
  await expect(cells(page, 'camera that was read').getByText('4.8 px per unit')).toBeVisible();
  await open(page, 'Reading');
  await page.getByLabel('Line 2 is').selectOption('unused');
  await expect(page.getByTestId('read-left')).toHaveText('Read: 1 point.');
  await field(page).fill('4.8 0 702.4\n0 -4.8 189.6');
  await verdict(page).toContainText('These are the camera’s numbers');

  // By themselves: a world with y down, and its camera is taken into the project.
  await field(page).fill('9.6 0 100\n0 9.6 200');
  await open(page, 'Alone');
  await expect(page.getByTestId('alone')).toContainText('a 2D camera’s');
  await expect(cells(page, 'conventions').first()).toContainText('−y');
  await page.getByRole('button', { name: 'Take the conventions' }).click();
  await page.getByRole('button', { name: 'Take the camera' }).click();
  await verdict(page).toContainText('These are the camera’s numbers');
});
