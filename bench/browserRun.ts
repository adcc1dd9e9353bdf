import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { chromium, type Browser, type Page } from '@playwright/test';
import { ensureBuild } from '../scripts/build.mjs';

const ROOT = fileURLToPath(new URL('..', import.meta.url));

/** The running application: its server and a browser, for as long as the work takes. */
export async function inBrowser<Value>(work: (newPage: () => Promise<Page>) => Promise<Value>): Promise<Value> {
  ensureBuild();
  const server = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], { cwd: ROOT, stdio: ['ignore', 'pipe', 'inherit'] });
  let browser: Browser | undefined;
  try {
    const address = await new Promise<string>((resolve, reject) => {
      server.stdout.on('data', (words: Buffer) => {
        const found = /http:\S+/.exec(words.toString())?.[0];
        if (found !== undefined) resolve(found);
      });
      server.on('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    });
    browser = await chromium.launch({ executablePath: process.env['LIMNER_CHROMIUM'] ?? '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--disable-dev-shm-usage', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'] });
    const running = browser;
    return await work(async () => {
      // A context of its own: nothing is kept from before.
      const page = await (await running.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
      // What the runner of TypeScript puts around named functions, which are sent into the page as text.
      await page.addInitScript('globalThis.__name = (named) => named');
      await page.goto(address);
      await page.getByRole('button', { name: 'Open Crew crest' }).waitFor({ timeout: 120_000 });
      await page.locator('.bringing').waitFor({ state: 'detached', timeout: 120_000 });
      return page;
    });
  } finally {
    await browser?.close();
    server.kill();
  }
}
