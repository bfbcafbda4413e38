import { test as base, type BrowserContext, type CDPSession, type Page } from '@playwright/test';

/**
 * The tests of the walks. All walks of a worker share one browser context, which keeps what the browser has
 * compiled; what a page has stored is deleted before each walk. A walk whose options differ takes `base`.
 */
interface Shared {
  readonly context: BrowserContext;
  /** Deletes what the application has stored. */
  clear(): Promise<void>;
  /** Whether a page is the one that is kept. */
  isKeeper(page: Page): boolean;
}

export const test = base.extend<object, { readonly shared: Shared }>({
  shared: [
    async ({ browser }, use, { project }) => {
      const { viewport, baseURL, permissions, serviceWorkers } = project.use;
      const context = await browser.newContext({
        ...(viewport !== undefined && { viewport }),
        ...(baseURL !== undefined && { baseURL }),
        ...(permissions && { permissions }),
        ...(serviceWorkers && { serviceWorkers }),
        acceptDownloads: true,
        // The flash of changed numbers repaints the page for half a second after every edit.
        reducedMotion: 'reduce',
      });
      let keeper: CDPSession | null = null;
      let keeping: Page | null = null;
      const clear = async () => {
        if (!keeper || keeping?.isClosed()) {
          // A page of the origin keeps its process, and the scripts compiled there, from walk to walk.
          keeping = await context.newPage();
          keeping.on('crash', () => void (keeper = null));
          await keeping.goto('/mark.svg');
          keeper = await context.newCDPSession(keeping);
        }
        const storageTypes = 'indexeddb,local_storage,cache_storage,cookies';
        await keeper.send('Storage.clearDataForOrigin', { origin: baseURL!, storageTypes });
      };
      await use({ context, clear, isKeeper: (page: Page) => page === keeping });
      await context.close();
    },
    { scope: 'worker' },
  ],
  context: async ({ shared }, use, { project }) => {
    await shared.clear();
    shared.context.setDefaultTimeout(project.use.actionTimeout ?? 0);
    await use(shared.context);
    for (const left of shared.context.pages()) if (!shared.isKeeper(left)) await left.close();
    await shared.context.unrouteAll({ behavior: 'ignoreErrors' });
  },
});
export { base };
export { expect } from '@playwright/test';
