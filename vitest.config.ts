// Sets of tests: `unit` and `web` beside the sources, `checks` against outside sources, `server` on a real PostgreSQL, `start`
// on real processes. What is pure shares its modules from file to file: reading them anew for each took most of the time.
import { defineConfig } from 'vitest/config';

const PROPERTY_SEED = 'scripts/lib/property-seed.ts';

export default defineConfig({
  test: {
    // Vitest leaves one core to others; here nothing else runs meanwhile.
    maxWorkers: 2,
    projects: [
      {
        test: {
          name: 'unit',
          isolate: false,
          setupFiles: [PROPERTY_SEED],
          // Property tests take a second; a busy machine may take ten.
          testTimeout: 20_000,
          include: [
            'core/src/**/*.spec.ts',
            'contract/src/**/*.spec.ts',
            'demo/**/*.spec.ts',
            'training/**/*.spec.ts',
            'server/src/**/*.unit.spec.ts',
          ],
        },
      },
      {
        test: {
          name: 'web',
          include: ['web/src/**/*.spec.ts'],
          environment: 'jsdom',
          testTimeout: 20_000,
          setupFiles: ['web/src/test-setup.ts', PROPERTY_SEED],
        },
      },
      {
        test: {
          name: 'checks',
          isolate: false,
          setupFiles: [PROPERTY_SEED],
          include: ['core/checks/**/*.check.ts', 'bench/**/*.check.ts'],
          testTimeout: 60_000,
        },
      },
      {
        // Only by `npm run test:instruments`, which fetches what it tries.
        test: { name: 'instruments', include: ['server/src/**/*.trial.ts'] },
      },
      {
        test: {
          name: 'start',
          include: ['e2e/start/**/*.spec.ts'],
          fileParallelism: false,
          testTimeout: 120_000,
          hookTimeout: 120_000,
        },
      },
      {
        test: {
          name: 'server',
          include: ['server/src/**/*.spec.ts'],
          exclude: ['server/src/**/*.unit.spec.ts'],
          // Files share two cores and one PostgreSQL; each has a database of its own.
          fileParallelism: false,
          // An analysis is nice to others: beside a busy browser it takes its time.
          testTimeout: 120_000,
          hookTimeout: 120_000,
        },
      },
    ],
  },
});
