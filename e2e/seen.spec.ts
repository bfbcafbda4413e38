import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { taskNames } from '../app/tasks/names';
import { drawn, goTo, openBench, unfold } from './bench';

const routes = taskNames.map(({ route }) => route);

/*
 * Every text on the page, measured: none is cut, none lies over another, none is smaller than
 * 11.5 px, at the sizes that screens have and in both themes.
 */

const sizes = [
  [1024, 768],
  [1280, 720],
  [1280, 800],
  [1600, 1000],
  [2560, 1440],
] as const;

/** The sizes that every task is made for. */
const madeFor = [sizes[0], sizes[2], sizes[3]] as const;

/** What is wrong with the texts that are in sight. */
const faults = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    interface Seen {
      text: string;
      element: Element;
      rect: DOMRect;
    }
    const found: string[] = [];
    const seen: Seen[] = [];
    const name = (text: string, element: Element) => {
      const of = element.closest('[data-section], [data-picture], [aria-label]');
      const place = of?.getAttribute('data-section') ?? of?.getAttribute('data-picture') ?? of?.getAttribute('aria-label'); // prettier-ignore
      return `“${text.trim().slice(0, 40)}” in ${place ?? element.className}`;
    };
    /** Whether this is what is seen there, and nothing that lies over it. */
    const isOver = (element: Element, x: number, y: number) => {
      const top = document.elementsFromPoint(x, y).find((one) => getComputedStyle(one).pointerEvents !== 'none' || one === element); // prettier-ignore
      return top !== undefined && (top === element || top.contains(element) || element.contains(top) || element instanceof SVGElement); // prettier-ignore
    };
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const text = node.textContent ?? '';
      const element = node.parentElement as Element | null;
      if (!element || !text.trim()) continue;
      // Formulas have their own measures; what is hidden is not read.
      if (element.closest('.katex, sub, sup, script, style, title, option, .sr-only, .skip-link')) continue;
      if (!element.checkVisibility({ visibilityProperty: true, opacityProperty: true })) continue;
      const range = document.createRange();
      range.selectNodeContents(node);
      let rect = element instanceof SVGElement ? element.getBoundingClientRect() : range.getBoundingClientRect();
      // Of what ends in dots and says the rest on hover, what is seen ends at its box: browsers
      // differ in whether the rest counts.
      if (getComputedStyle(element).textOverflow === 'ellipsis' && element.closest('[title]')) {
        const box = element.getBoundingClientRect();
        rect = new DOMRect(rect.left, rect.top, Math.max(0, Math.min(rect.right, box.right) - rect.left), rect.height);
      }
      if (rect.width < 1 || rect.bottom < 0 || rect.top > innerHeight || rect.left > innerWidth) continue;
      const style = getComputedStyle(element);
      // What has no colour stands under the same text in a field, to light parts of it.
      if (style.color === 'rgba(0, 0, 0, 0)') continue;
      const size = parseFloat(style.fontSize);
      if (size < 11.49) found.push(`${name(text, element)} is ${size} px`);
      if (rect.right > innerWidth + 1 || rect.left < -1) found.push(`${name(text, element)} leaves the page`);
      // Cut by a box that hides what leaves it; what ends in dots and says the rest on hover is not.
      let clipped: DOMRect = rect;
      let cut = false;
      for (let box: Element | null = element; box && box !== document.body; box = box.parentElement) {
        const of = getComputedStyle(box);
        const inner = box.getBoundingClientRect();
        if (of.overflowX === 'hidden' || of.overflowX === 'clip' || box instanceof SVGSVGElement) {
          const dotted = of.textOverflow === 'ellipsis' && box.closest('[title]');
          if (!dotted && (rect.right > inner.right + 1.5 || rect.left < inner.left - 1.5)) cut = true;
        }
        if (of.overflowX !== 'visible' || of.overflowY !== 'visible') {
          const [left, top] = [Math.max(clipped.left, inner.left), Math.max(clipped.top, inner.top)];
          const [right, bottom] = [Math.min(clipped.right, inner.right), Math.min(clipped.bottom, inner.bottom)];
          // Nothing is left of what lies wholly out of a box.
          clipped = new DOMRect(left, top, Math.max(0, right - left), Math.max(0, bottom - top));
        }
      }
      if (clipped.width < 1 || clipped.height < 4) continue;
      // What wraps out of sight is not cut.
      if (cut) found.push(`${name(text, element)} is cut`);
      // Line by line: what follows in the last line of a paragraph does not meet it.
      const lines = element instanceof SVGElement ? [clipped] : [...range.getClientRects()];
      for (const line of lines) {
        const [left, top] = [Math.max(clipped.left, line.left), Math.max(clipped.top, line.top)];
        const [wide, high] = [Math.min(clipped.right, line.right) - left, Math.min(clipped.bottom, line.bottom) - top];
        if (wide < 1 || high < 4) continue;
        // What lies under something else, as under the line of sections, is not seen.
        if (!isOver(element, left + wide / 2, top + high / 2)) continue;
        // Letters are less high than their lines.
        const inset = Math.min(3, high / 5);
        seen.push({ text, element, rect: new DOMRect(left, top + inset, wide, high - 2 * inset) });
      }
    }
    for (const input of document.querySelectorAll('input'))
      if (input.type !== 'checkbox' && input.checkVisibility() && input.scrollWidth > input.clientWidth + 1)
        found.push(`the value ${input.value} of “${input.getAttribute('aria-label')}” is cut`);
    seen.forEach((a, i) => {
      for (const b of seen.slice(i + 1)) {
        if (a.element === b.element) continue;
        const across = Math.min(a.rect.right, b.rect.right) - Math.max(a.rect.left, b.rect.left);
        const down = Math.min(a.rect.bottom, b.rect.bottom) - Math.max(a.rect.top, b.rect.top);
        if (across > 1 && down > 1) found.push(`${name(a.text, a.element)} meets ${name(b.text, b.element)}`);
      }
    });
    return found;
  });

/** The sheet from its top to its end, as far down as it is high at a time. */
async function downTheSheet(page: Page, look: () => Promise<void>): Promise<void> {
  const step = (by: number | null) =>
    page.evaluate((far) => {
      const sheet = document.querySelector('.sheet');
      if (!sheet) return false;
      const before = sheet.scrollTop;
      sheet.scrollTop = far === null ? 0 : before + sheet.clientHeight * far;
      return sheet.scrollTop > before;
    }, by);
  await step(null);
  await look();
  while (await step(0.8)) await look();
}

/** What is wrong with the texts of a page with all that it can unfold, at every size and in both themes. */
async function measured(page: Page, route: string, everySize = true): Promise<string[]> {
  const ofTask = route !== 'projects';
  await unfold(page);
  // What is worked out meanwhile is there to be measured too.
  if (ofTask)
    await expect(page.locator('.sheet')).not.toContainText(
      /(Making|Looking|Painting|Sweeping|Searching|counting)[a-z ]*…/,
      { timeout: 30_000 },
    );
  const wrong: string[] = [];
  const all = ['frame', 'convert', 'projects'].includes(route);
  for (const [width, height] of !everySize ? [sizes[2]] : all ? sizes : madeFor) {
    await page.setViewportSize({ width, height });
    if (ofTask) await drawn(page);
    const note = (theme: string) => (fault: string) => wrong.push(`${route}, ${width} × ${height}, ${theme}: ${fault}`);
    // The worksheet is as wide at every size: it is read from top to end at one, its top at the others.
    if (height === 800) await downTheSheet(page, async () => (await faults(page)).forEach(note('paper')));
    else (await faults(page)).forEach(note('paper'));
    // By night only the colours change.
    if (all && height === 800) {
      await page.keyboard.press('t');
      (await faults(page)).forEach(note('night'));
      await page.keyboard.press('t');
    }
    // All spaces of the Chain are in sight.
    if (ofTask)
      for (const rung of await page.locator('[data-rung]').all()) {
        const box = (await rung.boundingBox())!;
        if (box.y + box.height > height) wrong.push(`${route}, ${width} × ${height}: a space ends below the page`);
      }
  }
  return [...new Set(wrong)];
}

// Some tasks a page: a page takes longer to come than a task.
const together = [0, 2, 6].map((from, i, all) => routes.slice(from, all[i + 1]));
for (const demo of ['harbour', 'chart'] as const)
  for (const tasks of together)
    test(`no text is cut, met or too small, in ${tasks.join(', ')} on the ${demo}`, async ({ page }) => {
      test.setTimeout(300_000);
      await openBench(page, '/frame');
      if (demo === 'chart') {
        await page.getByRole('button', { name: /^Saltmarrow/ }).click();
        await page.getByRole('menuitem', { name: /Saltmarrow chart/ }).click();
      }
      const wrong: string[] = [];
      for (const task of tasks) {
        await page.setViewportSize({ width: 1280, height: 800 });
        await goTo(page, task);
        // In 2D the page is laid out alike: its own sections and pictures are read at one size.
        wrong.push(...(await measured(page, task, demo === 'harbour')));
      }
      expect(wrong).toEqual([]);
    });

test('no text is cut, met or too small, in projects', async ({ page }) => {
  test.setTimeout(150_000);
  await openBench(page, '/frame');
  await page.keyboard.press('/');
  await page.getByPlaceholder('Commands, fields, help, bodies').fill('All projects and versions');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Projects', exact: true })).toBeVisible();
  expect(await measured(page, 'projects')).toEqual([]);
});
