import { defineConfig } from 'vitest/config';

const shared = { setupFiles: ['core/testing/setup.ts'], testTimeout: 60_000 };

export default defineConfig({
  test: {
    passWithNoTests: false,
    maxWorkers: '100%',
    // Both projects transform the same modules: the second finds what the first has written.
    experimental: { fsModuleCache: true },
    projects: [
      {
        test: {
          ...shared,
          name: 'core',
          include: ['{core,formats,demo}/**/*.test.ts'],
          // Modules without state of their own: they are loaded once for all files of a worker.
          isolate: false,
        },
      },
      { test: { ...shared, name: 'app', include: ['{app,server,cli}/**/*.test.ts'] } },
    ],
  },
});
