import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core,contract,server,web,demo,scripts,endure}/**/*.test.{ts,tsx}'],
    testTimeout: 60_000,
    hookTimeout: 60_000,
    maxWorkers: 2,
    // No test leaves anything behind in a module: a process of its own for each file took half the time.
    isolate: false,
  },
});
