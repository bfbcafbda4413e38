import { test as base, type BrowserContext } from '@playwright/test';

/**
 * The tests of the walks. All walks of a worker share one browser context, which keeps what the browser has
 * compiled; what a page has stored is deleted before each walk. A walk whose options differ takes `base`.
 */
export const test = base.extend<object, { readonly sharedContext: BrowserContext }>({
  sharedContext: [
    async ({ browser }, use, { project }) => {
      const { viewport, baseURL, permissions, serviceWorkers } = project.use;
      const context = await browser.newContext({
        ...(viewport !== undefined && { viewport }),
        ...(baseURL !== undefined && { baseURL }),
        ...(permissions && { permissions }),
        ...(serviceWorkers && { serviceWorkers }),
        acceptDownloads: true,
      });
      await use(context);
      await context.close();
    },
    { scope: 'worker' },
  ],
  context: async ({ sharedContext, baseURL }, use, { project }) => {
    const page = await sharedContext.newPage();
    const session = await sharedContext.newCDPSession(page);
    const storageTypes = 'indexeddb,local_storage,cache_storage,cookies';
    await session.send('Storage.clearDataForOrigin', { origin: baseURL!, storageTypes });
    await page.close();
    sharedContext.setDefaultTimeout(project.use.actionTimeout ?? 0);
    await use(sharedContext);
    for (const left of sharedContext.pages()) await left.close();
    await sharedContext.unrouteAll({ behavior: 'ignoreErrors' });
  },
});
export { base };
export { expect } from '@playwright/test';
