import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['e2e/**/*.test.ts'],
    globalSetup: ['e2e/server.ts'],
    fileParallelism: false,
    testTimeout: 90_000,
    hookTimeout: 120_000,
    sequence: { concurrent: false },
  },
});
