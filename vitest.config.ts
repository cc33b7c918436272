import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['src/**/*.test.ts', 'calibrate/**/*.test.ts'],
    environment: 'node',
    setupFiles: ['src/testing/properties.ts'],
    testTimeout: 60_000,
    hookTimeout: 90_000,
  },
});
