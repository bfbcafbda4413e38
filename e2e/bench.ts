import { createHash } from 'node:crypto';
import { expect, type FileChooser, type Page } from '@playwright/test';

/** The page as a person has it: a fresh browser on the demo. */
export async function openBench(page: Page, path = '/convert'): Promise<void> {
  const problems: string[] = [];
  page.on('pageerror', (error) => problems.push(error.message));
  page.on('console', (message) => message.type() === 'error' && problems.push(message.text()));
  // Walks go through whole sheets: every section of theirs stands open.
  await page.addInitScript(() => {
    if (localStorage.getItem('astrolabe-settings')) return;
    const sections = ['gaze', 'depth', 'screens', 'zoom', 'whole-pixels', 'whole-zooms'];
    const folds = Object.fromEntries(sections.map((id) => [id, true]));
    localStorage.setItem('astrolabe-settings', JSON.stringify({ state: { folds }, version: 2 }));
  });
  await page.goto(path);
  await expect(page.getByRole('heading', { name: 'The Chain' })).toBeVisible();
  await drawn(page);
  expect(problems).toEqual([]);
}

/**
 * Waits until the pictures show every change made before. Looks at every frame: polling from outside would
 * wait longer than the drawing takes.
 */
export const drawn = (page: Page): Promise<void> =>
  page.evaluate(async () => {
    const frame = () => new Promise((done) => requestAnimationFrame(done));
    const until = performance.now() + 20_000;
    // The page sends a change to the drawing worker within two frames.
    for (let i = 0; i < 2; i++) await frame();
    while (document.querySelector('main[aria-label=Pictures]')?.ariaBusy !== 'false') {
      if (performance.now() > until) throw new Error('The pictures are busy for 20 s.');
      await frame();
    }
    await frame();
  });

/** The numbers of a rung as they are shown, whether it drives or not. */
export async function rung(page: Page, name: string): Promise<number[]> {
  const card = page.locator(`[data-rung="${name}"]`);
  const texts = await card.evaluate((element) =>
    [...element.querySelectorAll<HTMLElement>('input, button.number')].map((one) =>
      one instanceof HTMLInputElement ? one.value : (one.innerText ?? ''),
    ),
  );
  return texts.map(number);
}

/** A number as it is typeset. */
export const number = (text: string): number => Number(text.trim().replaceAll('\u2212', '-'));
export const numbers = (text: string): number[] => text.split(',').map(number);

const asked = new WeakSet<Page>();
/**
 * Gives a page the file that it asks for. The browser's own choice of files is held off from the
 * first question on: held off anew at every question, the next one can come too early, is refused,
 * and nothing is ever heard of it.
 */
export async function giveFile(
  page: Page,
  ask: () => Promise<unknown>,
  file: Parameters<FileChooser['setFiles']>[0],
  open?: () => Promise<void>,
): Promise<void> {
  if (!asked.has(page)) {
    page.on('filechooser', () => {});
    // It takes a moment to be in force, and nothing says when it is.
    await page.waitForTimeout(300);
  }
  asked.add(page);
  for (let times = 1; ; times++) {
    const coming = page.waitForEvent('filechooser', { timeout: 5000 }).catch(() => null);
    await ask();
    const chooser = await coming;
    if (chooser) {
      await open?.();
      return chooser.setFiles(file);
    }
    expect(times, 'how often a file was asked for in vain').toBeLessThan(3);
  }
}

/** Goes to another task, as a hand would; the worksheet of the one before stands until its own is there. */
export async function goTo(page: Page, task: string): Promise<void> {
  await page.getByRole('navigation', { name: 'Tasks' }).getByRole('link', { name: task }).click();
  await expect(page.locator('.sheet h1')).toHaveText(task, { ignoreCase: true });
  await expect(page.locator('.sheet [data-section]').first()).toBeVisible();
}

/** Opens every section of the worksheet, also those that appear when others open. */
export const unfold = (page: Page): Promise<void> =>
  page.evaluate(async () => {
    const frame = () => new Promise((done) => requestAnimationFrame(done));
    for (let quiet = 0; quiet < 2;) {
      const folded = document.querySelectorAll<HTMLElement>('.sheet h2 button[aria-expanded=false]');
      for (const button of folded) button.click();
      quiet = folded.length ? 0 : quiet + 1;
      await frame();
    }
  });

/** Types a number into a field and leaves it. */
export async function type(page: Page, field: string, value: string): Promise<void> {
  const input = page.getByLabel(field, { exact: true });
  await input.fill(value);
  await input.press('Enter');
}

export function near(actual: readonly number[], expected: readonly number[], tolerance: number): void {
  expect(actual).toHaveLength(expected.length);
  actual.forEach((v, i) =>
    expect(Math.abs(v - expected[i]!), `${actual.join()} against ${expected.join()}`).toBeLessThanOrEqual(tolerance),
  );
}

/**
 * The canvas once it stands still, or what one picture has of it, as a short text that two pictures can
 * be compared by.
 */
export async function picture(page: Page, of: string | null = null): Promise<string> {
  const now = async () => {
    await drawn(page);
    // It is drawn on by a worker: only a copy can be read.
    const pixels = await page.locator('.centre > canvas.pictures').evaluate((element, name) => {
      const canvas = element as HTMLCanvasElement;
      const all = canvas.getBoundingClientRect();
      const part = name === null ? all : document.querySelector(`[data-picture="${name}"]`)!.getBoundingClientRect();
      const k = canvas.width / all.width;
      const copy = Object.assign(document.createElement('canvas'), { width: part.width * k, height: part.height * k });
      copy.getContext('2d')!.drawImage(canvas, (all.left - part.left) * k, (all.top - part.top) * k);
      return copy.toDataURL();
    }, of);
    return createHash('sha256').update(pixels).digest('hex');
  };
  for (let last = await now(); ;) {
    const next = await now();
    if (next === last) return next;
    last = next;
  }
}

/** Drops a file of some name on the page. */
export const drop = (page: Page, name: string, text: string): Promise<void> =>
  page.evaluate(
    ([name, text]) => {
      const data = new DataTransfer();
      data.items.add(new File([text!], name!));
      document.body.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
    },
    [name, text],
  );

/** Pastes text on the page, outside of any field. */
export const paste = (page: Page, text: string): Promise<void> =>
  page.evaluate((given) => {
    const data = new DataTransfer();
    data.setData('text/plain', given);
    document.body.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  }, text);

/** Waits until the undo steps of the open project are stored with its last revision. */
export const stepsStored = (page: Page): Promise<void> =>
  expect
    .poll(() =>
      page.evaluate(async () => {
        const answer = <T>(request: IDBRequest<T>) =>
          new Promise<T>((done, failed) => {
            request.onsuccess = () => done(request.result);
            request.onerror = () => failed(request.error);
          });
        const database = await answer(indexedDB.open('astrolabe'));
        try {
          const store = database.transaction(['heads', 'histories']);
          const heads = (await answer(store.objectStore('heads').getAll())) as { id: string; revision: number }[];
          const histories = (await answer(store.objectStore('histories').getAll())) as {
            of: string;
            revision: number;
          }[];
          const last = (id: string) => heads.find((head) => head.id === id)?.revision;
          return histories.map(({ of, revision }) => `${of} ${revision} of ${last(of)}`).join();
        } finally {
          database.close();
        }
      }),
    )
    .toMatch(/\b(\d+) of \1(?:,|$)/);
