import { BaseSequencer, type TestSpecification } from 'vitest/node';
import { defineConfig } from 'vitest/config';

const shared = { setupFiles: ['core/testing/setup.ts'], testTimeout: 60_000 };

/** Tests that run compilers, which are no part of Node; the longest first. */
const compiled = [
  'core/deliver/harness.test.ts',
  'core/deliver/languages.test.ts',
  'core/deliver/region.test.ts',
  'cli/package.test.ts',
];
/** The longest of the others, so that no worker begins one when the rest is done. */
const longest = [
  'server/pool.test.ts',
  'cli/main.test.ts',
  'app/tasks/conformance.test.ts',
  'core/compute/extremes.test.ts',
  'core/visibility/showing.test.ts',
  'server/server.test.ts',
  'server/hostile.test.ts',
  'core/compute/diagnose.figures.test.ts',
  'app/shell/commands.test.ts',
  'app/tasks/workings.test.ts',
  'app/tasks/motion.test.ts',
];
/** Runs long files first: without the times of an earlier run, a fresh clone would leave them to the end. */
class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const order = [...compiled, ...longest];
    const rank = ({ moduleId }: TestSpecification) => {
      const at = order.findIndex((path) => moduleId.endsWith(path));
      return at < 0 ? order.length : at;
    };
    return [...files].sort((a, b) => rank(a) - rank(b));
  }
}

export default defineConfig({
  test: {
    passWithNoTests: false,
    maxWorkers: '100%',
    sequence: { sequencer: LongestFirst },
    // The projects transform the same modules: the second finds what the first has written.
    experimental: { fsModuleCache: true },
    projects: [
      {
        test: {
          ...shared,
          name: 'core',
          include: ['{core,formats,demo}/**/*.test.ts'],
          exclude: compiled,
          // Modules without state of their own: they are loaded once for all files of a worker.
          isolate: false,
        },
      },
      { test: { ...shared, name: 'app', include: ['{app,server,cli}/**/*.test.ts'], exclude: compiled } },
      { test: { ...shared, name: 'compiled', include: compiled } },
    ],
  },
});
