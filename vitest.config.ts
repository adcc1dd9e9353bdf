import { availableParallelism } from 'node:os';
import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vitest/config';
import { sayTemplates } from './scripts/sayTemplates.ts';

export default defineConfig({
  plugins: [vue({ template: { compilerOptions: { nodeTransforms: [sayTemplates] } } })],
  define: { __LIMNER_BUILD__: JSON.stringify('tested') },
  test: {
    include: ['src/**/*.test.ts', 'cli/**/*.test.ts', 'server/**/*.test.ts', 'bench/**/*.test.ts', 'scripts/**/*.test.ts', 'tests/*.test.ts'],
    environment: 'node',
    testTimeout: 60_000,
    // Modules hold no state that a test could leave behind: loaded once a thread, they take half of the time.
    pool: 'threads',
    // Left to itself it keeps one core of two free.
    maxWorkers: Math.max(2, availableParallelism() - 1),
    isolate: false,
    server: { deps: { inline: ['element-plus'] } },
  },
});
