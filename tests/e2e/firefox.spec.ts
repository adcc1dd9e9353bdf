import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdtemp, readFile, readdir } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, test } from '@playwright/test';
import puppeteer, { type Browser, type Page } from 'puppeteer-core';
import { pointsOf, readCutFile } from './svgGeometry.ts';

const FIREFOX = process.env['LIMNER_FIREFOX'] ?? '/usr/bin/firefox-esr';
const ROOT = fileURLToPath(new URL('../../', import.meta.url));
const LONG_MS = 90_000;

/** A page of Firefox, worked by WebDriver BiDi. What puppeteer waits with is made by `eval`, which the page's policy forbids: so it is asked again and again from here. */
class FirefoxPage {
  constructor(private readonly page: Page) {}

  async until<Value, Args extends unknown[]>(what: string, look: (...args: Args) => Value, ...args: Args): Promise<NonNullable<Value>> {
    for (const end = Date.now() + LONG_MS; Date.now() < end; await new Promise((done) => setTimeout(done, 150))) {
      const found = (await this.page.evaluate(look as (...all: unknown[]) => Value, ...args)) as Value;
      if (found !== null && found !== undefined && found !== false) return found as NonNullable<Value>;
    }
    throw new Error(`waited in vain: ${what}`);
  }

  /** Clicks on what has a name or text, as a mouse does. */
  async click(selector: string, words: string): Promise<void> {
    const { x, y } = await this.until(
      `${selector} “${words}”`,
      (css: string, name: string) => {
        const found = [...document.querySelectorAll<HTMLElement>(css)].find((each) => (each.getAttribute('aria-label') ?? each.textContent ?? '').trim().includes(name));
        found?.scrollIntoView({ block: 'center' });
        const box = found?.getBoundingClientRect();
        return box === undefined || box.width === 0 ? undefined : { x: box.x + box.width / 2, y: box.y + box.height / 2 };
      },
      selector,
      words,
    );
    await this.page.mouse.click(x, y);
  }

  async shows(words: string): Promise<void> {
    await this.until(`the words “${words}”`, (text: string) => document.body.innerText.includes(text), words);
  }

  async goTo(stage: string): Promise<void> {
    await this.click('.tab', stage);
    await this.until(
      `${stage} stands`,
      (name: string) => document.querySelector('.tab[aria-current="page"]')?.textContent?.includes(name) === true && document.querySelector<HTMLElement>('.job')?.dataset['current'] === 'true' && document.querySelector('.saved')?.textContent === 'saved',
      stage,
    );
  }
}

const lengthOf = (svg: string): number =>
  readCutFile(svg).art.reduce((sum, path) => {
    const points = pointsOf(path);
    return sum + points.reduce((own, [x, y], k) => own + (k === 0 ? 0 : Math.hypot(x - points[k - 1][0], y - points[k - 1][1])), 0);
  }, 0);

test.describe('in Firefox', () => {
  test.skip(!existsSync(FIREFOX), `there is no Firefox at ${FIREFOX}: install firefox-esr, or name one in LIMNER_FIREFOX`);
  let browser: Browser | undefined;
  test.afterEach(async () => browser?.close());

  test('a demo job is opened, seen stage by stage, changed and saved: the sheets are those of the command line, and what is missing is said', async ({ baseURL }) => {
    const downloads = await mkdtemp(join(tmpdir(), 'limner-firefox-'));
    browser = await puppeteer.launch({
      browser: 'firefox',
      executablePath: FIREFOX,
      headless: true,
      defaultViewport: null,
      args: ['--width=1280', '--height=900'],
      extraPrefsFirefox: { 'browser.download.dir': downloads, 'browser.download.folderList': 2, 'browser.download.useDownloadDir': true, 'browser.helperApps.neverAsk.saveToDisk': 'image/svg+xml,application/octet-stream' },
    });
    const page = await browser.newPage();
    const faults: string[] = [];
    page.on('console', (message) => {
      if (message.type() === 'error') faults.push(message.text());
    });
    page.on('request', (request) => {
      const { hostname, protocol } = new URL(request.url());
      if (protocol.startsWith('http') && hostname !== 'localhost') faults.push(`request to ${request.url()}`);
    });
    await page.goto(baseURL as string);
    const firefox = new FirefoxPage(page);
    await firefox.click('button', 'Open Crest, one film');
    for (const stage of ['Picture', 'Clean', 'Separate', 'Assemble', 'Lay out']) await firefox.goTo(stage);
    await firefox.click('[role="radio"], label', 'weeded');
    await firefox.click('[role="radio"], label', 'on the blank');
    await firefox.shows('Below the collar');
    await firefox.goTo('Hand off');
    await firefox.click('button', 'Save SVG');
    const svgs = async (): Promise<string[]> => (await readdir(downloads)).filter((name) => name.endsWith('.svg'));
    await expect.poll(svgs, { timeout: LONG_MS }).toHaveLength(1);
    const [saved] = await svgs();
    // The name is there before what it names.
    await expect.poll(() => readFile(join(downloads, saved), 'utf8'), { timeout: LONG_MS }).toContain('</svg>');
    const own = await readFile(join(downloads, saved), 'utf8');

    const done = spawnSync(process.execPath, ['scripts/limner.mjs', 'export', 'public/demo/oneFilm.limner', '--as', 'svg', '--out', downloads], { cwd: ROOT, encoding: 'utf8' });
    expect(done.status, done.stderr).toBe(0);
    const others = (await svgs()).filter((name) => name !== saved);
    expect(others).toHaveLength(1);
    const command = await readFile(join(downloads, others[0]), 'utf8');
    expect([readCutFile(own).widthMm, readCutFile(own).heightMm]).toEqual([readCutFile(command).widthMm, readCutFile(command).heightMm]);
    expect(Math.abs(lengthOf(own) / lengthOf(command) - 1)).toBeLessThan(0.002);

    // What only other browsers have is said where it is offered.
    await firefox.click('a', 'Open the cutter');
    await firefox.shows('This browser has no serial interface');
    await page.goto(`${baseURL}/keeping`);
    await firefox.shows('This browser cannot write into a folder');
    expect(faults).toEqual([]);
  });
});
