import { defineConfig } from '@playwright/test';

const PORT = Number(process.env['LIMNER_TEST_PORT'] ?? 4311);
const ARGS = ['--no-sandbox', '--disable-dev-shm-usage', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'];
const executablePath = process.env['LIMNER_CHROMIUM'] ?? '/usr/bin/chromium';

export default defineConfig({
  testDir: 'tests/e2e',
  // For a whole journey on a machine that does other things too; each step of it has its own, shorter, time below.
  timeout: 240_000,
  expect: { timeout: 30_000 },
  workers: 2,
  // A test that passes only the second time is counted and told as flaky.
  retries: 1,
  reporter: [['list']],
  use: {
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    // Less to draw and to wait for; walks.spec and firstShirt.spec move as they do for most people.
    contextOptions: { reducedMotion: 'reduce' },
    // Every test has a browser of its own, and would fetch all files once more; offline.spec allows it.
    serviceWorkers: 'block',
    actionTimeout: 20_000,
  },
  projects: [
    { name: 'bench', testIgnore: /solid\.spec/, use: { launchOptions: { executablePath, args: [...ARGS, '--disable-gpu'] } } },
    // What is drawn in three dimensions: by software here.
    { name: 'solid', testMatch: /solid\.spec/, use: { launchOptions: { executablePath, args: ARGS } } },
  ],
  webServer: { command: 'node --import tsx server/main.ts', env: { PORT: String(PORT) }, url: `http://localhost:${PORT}`, reuseExistingServer: false },
});
