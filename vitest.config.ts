import { defineConfig } from 'vitest/config';

export default defineConfig({
  // Properties run hundreds of cases: how long that takes says nothing but how busy the machine is.
  test: {
    include: ['{core,formats,app,server,cli,demo}/**/*.test.ts'],
    passWithNoTests: false,
    testTimeout: 60_000,
    maxWorkers: '100%',
  },
});
