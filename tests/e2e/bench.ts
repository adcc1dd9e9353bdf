import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { expect, test as base, type Download, type Locator, type Page } from '@playwright/test';

/** Path of a demo picture. */
export const demoPicture = (name: string): string => fileURLToPath(new URL(`../../public/demo/pictures/${name}`, import.meta.url));

/** Every test fails on a request that leaves this machine, on a page error and on an error in the console. */
export const test = base.extend<{ page: Page }>({
  page: async ({ page }, use) => {
    const faults: string[] = [];
    page.on('request', (request) => {
      const { hostname, protocol } = new URL(request.url());
      if (protocol.startsWith('http') && hostname !== 'localhost') faults.push(`request to ${request.url()}`);
    });
    page.on('pageerror', (error) => faults.push(`page error: ${error.message}`));
    page.on('console', (message) => {
      if (message.type() === 'error') faults.push(`console: ${message.text()}`);
    });
    await use(page);
    expect(faults).toEqual([]);
  },
});

/** The shelf with all demo jobs on it. */
export async function openShelf(page: Page): Promise<void> {
  await page.goto('/');
  await expect(page.getByRole('button', { name: 'Open Crew crest' })).toBeVisible({ timeout: 90_000 });
  await expect(page.locator('.bringing')).toHaveCount(0);
}

/** The archive of a demo job, by the job's name. */
async function demoArchive(job: string): Promise<string> {
  const folder = fileURLToPath(new URL('../../public/demo/', import.meta.url));
  for (const name of JSON.parse(await readFile(`${folder}index.json`, 'utf8')) as string[]) {
    const { name: own } = JSON.parse(await readFile(`${folder}${name.replace('.limner', '.json')}`, 'utf8')) as { name: string };
    if (own === job) return name;
  }
  throw new Error(`the demo has no job ${job}`);
}

/**
 * Answers what the application fetches from an address, the first time, in the page itself: a browser whose requests are held up from outside now and then leaves one of them unanswered for good.
 */
async function answerFetch(page: Page, ending: string, json: unknown): Promise<void> {
  await page.addInitScript(
    ([end, body]) => {
      const fetched = window.fetch.bind(window);
      const key = `answered ${end}`;
      window.fetch = (input, init) => {
        const url = input instanceof Request ? input.url : String(input);
        if (!new URL(url, location.href).pathname.endsWith(end) || sessionStorage.getItem(key) !== null) return fetched(input, init);
        sessionStorage.setItem(key, 'once');
        return Promise.resolve(new Response(body, { headers: { 'content-type': 'application/json' } }));
      };
    },
    [ending, JSON.stringify(json)] as const,
  );
}

/** The shelf with some demo jobs alone, or none: most tests need no more, and wait for no more. */
export async function openShelfWith(page: Page, jobs: readonly string[]): Promise<void> {
  const archives = await Promise.all(jobs.map(demoArchive));
  await answerFetch(page, '/demo/index.json', archives);
  await page.goto('/');
  for (const job of jobs) await expect(page.getByRole('button', { name: `Open ${job}`, exact: true })).toBeVisible({ timeout: 90_000 });
  if (jobs.length === 0) await expect(page.getByRole('button', { name: 'Add the demo jobs' })).toBeVisible({ timeout: 30_000 });
  await expect(page.locator('.bringing')).toHaveCount(0);
}

/** Drops files on the page, as from the desktop. */
export async function dropFiles(page: Page, files: readonly { name: string; type: string; bytes: Uint8Array }[]): Promise<void> {
  const transfer = await page.evaluateHandle(
    (list) => {
      const data = new DataTransfer();
      for (const { name, type, base64 } of list) {
        const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
        data.items.add(new File([bytes], name, { type }));
      }
      return data;
    },
    files.map(({ name, type, bytes }) => ({ name, type, base64: Buffer.from(bytes).toString('base64') })),
  );
  await page.dispatchEvent('body', 'drop', { dataTransfer: transfer });
}

/** Opens a stage and waits until it is the one that is shown and that the address names. */
export async function goTo(page: Page, stage: string): Promise<void> {
  const tab = page.locator('.tab', { hasText: stage }).first();
  await tab.click();
  await expect(tab).toHaveAttribute('aria-current', 'page', { timeout: 20_000 });
}

/** Waits until the engine has nothing to do, what is shown is what the job says, and everything is saved. */
export async function settled(page: Page): Promise<void> {
  await expect(page.locator('.saved')).toHaveText('saved');
  await expect(page.locator('.readout [role="status"]')).not.toHaveText('working…', { timeout: 60_000 });
  await expect(page.locator('.job')).toHaveAttribute('data-current', 'true', { timeout: 60_000 });
  // A change that was still on its way when this was first asked is saved too.
  await expect(page.locator('.saved')).toHaveText('saved');
}

/** Opens a demo job at a stage and waits for it. @param beside other demo jobs that the test needs. */
export async function openJob(page: Page, job: string, stage: string, beside: readonly string[] = []): Promise<void> {
  await openShelfWith(page, [job, ...beside]);
  await page.getByRole('button', { name: `Open ${job}`, exact: true }).click();
  await goTo(page, stage);
  await settled(page);
}

/** The crest that is cut from one film, taken apart into flat colours: the line that holds its sail is a tone too, which these decorators leave out. */
export async function takeCrestApart(page: Page, beside: readonly string[] = []): Promise<void> {
  await openJob(page, 'Crest, one film', 'Separate', beside);
  await choose(page, 'Way of separating', 'flat colours');
  await expect(page.locator('.rack .roll')).toHaveCount(5, { timeout: 30_000 });
  await setQuantity(page, 'Tones with background', '5');
  await expect(page.locator('.rack .roll')).toHaveCount(4);
  await settled(page);
}

/** What a step of the recipe says of itself; of the last one of its name. */
export const stepWords = (page: Page, name: string): Locator => page.locator(`.step:has(.name:text-is("${name}")) .words`).last();

export const table = (page: Page): Locator => page.locator('.surface');

/** Presses the pointer at one place of the table and lets go at another; places are shares of its width and height. */
export async function drag(page: Page, from: readonly [number, number], to: readonly [number, number], keys: readonly string[] = []): Promise<void> {
  const box = await table(page).boundingBox();
  if (box === null) throw new Error('no light table');
  for (const key of keys) await page.keyboard.down(key);
  await page.mouse.move(box.x + from[0] * box.width, box.y + from[1] * box.height);
  await page.mouse.down();
  await page.mouse.move(box.x + ((from[0] + to[0]) / 2) * box.width, box.y + ((from[1] + to[1]) / 2) * box.height, { steps: 4 });
  await page.mouse.move(box.x + to[0] * box.width, box.y + to[1] * box.height, { steps: 4 });
  await page.mouse.up();
  for (const key of keys) await page.keyboard.up(key);
}

export async function addStep(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Add a step' }).click();
  await page.getByRole('menuitem', { name }).click();
}

/** Types a value into a quantity and takes it. */
export async function setQuantity(page: Page, label: string, value: string, nth = 0): Promise<void> {
  const input = page.getByLabel(label, { exact: true }).nth(nth);
  await input.fill(value);
  await input.press('Enter');
}

export async function save(page: Page, button: string): Promise<{ name: string; bytes: Buffer }> {
  const coming: Promise<Download> = page.waitForEvent('download');
  await page.getByRole('button', { name: button, exact: true }).click();
  const download = await coming;
  return { name: download.suggestedFilename(), bytes: await readFile(await download.path()) };
}

/** Unfolds a card of the tray that comes folded. */
export async function unfold(page: Page, title: string): Promise<void> {
  const head = page.getByRole('button', { name: title, exact: true });
  if ((await head.getAttribute('aria-expanded')) === 'false') await head.click();
  await expect(head).toHaveAttribute('aria-expanded', 'true');
}

/** Takes one of the named choices. */
export async function choose(page: Page, label: string, option: string): Promise<void> {
  await page.locator('.el-select', { has: page.getByRole('combobox', { name: label, exact: true }) }).click();
  await page.getByRole('option', { name: option, exact: true }).filter({ visible: true }).click();
  await expect(page.getByRole('option').filter({ visible: true })).toHaveCount(0);
}

/** Takes a picture that was just dropped as it came: without what the first look has proposed and the job has taken up. */
export async function asItCame(page: Page): Promise<void> {
  await settled(page);
  const button = page.getByRole('button', { name: 'As it came', exact: true });
  await expect(button).toBeVisible({ timeout: 30_000 });
  if (await button.isEnabled()) await button.click();
  await expect(button).toBeDisabled();
  await settled(page);
}
