import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: { include: ['{core,formats,app,server,cli,demo}/**/*.test.ts'], passWithNoTests: false },
});
