import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core,contract,server,web,demo,scripts,endure}/**/*.test.{ts,tsx}'],
    testTimeout: 60_000,
    hookTimeout: 60_000,
    maxWorkers: 2,
  },
});
