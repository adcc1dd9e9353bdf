import { expect, type Page } from '@playwright/test';
import { randomFrom } from '../fixtures/shapes.ts';
import { openJob, settled, test } from './bench.ts';
import { act, ACTIONS_OF, facts, STAGES, stored } from './walk.ts';

test.use({ contextOptions: { reducedMotion: 'no-preference' } });

/** Seeds of the walks and how long each is; more than run each time can be asked for, to soak it. */
const SEEDS = Number(process.env['LIMNER_WALKS'] ?? 1);
const FIRST_SEED = Number(process.env['LIMNER_FIRST_WALK'] ?? 1);
const ACTIONS = Number(process.env['LIMNER_WALK_ACTIONS'] ?? 30);
/** Of the actions, how often the tab, and how often the worker, is killed. */
const KILLS_TAB = 0.04;
const KILLS_WORKER = 0.03;
/** What a tab may hold after a walk, once what is not needed was let go, MB. */
const MOST_HEAP_MB = 400;

const unexplained = (page: Page) => page.locator('.app-error', { hasText: 'Something went wrong inside' });

/** Closes the tab as a crash does and opens its address in another one: what was saved is what is shown. */
async function killTab(page: Page, faults: string[]): Promise<Page> {
  await settled(page);
  const [url, saved, shown] = [page.url(), await stored(page), await facts(page)];
  const context = page.context();
  await page.close({ runBeforeUnload: false });
  const next = await context.newPage();
  next.on('pageerror', (error) => faults.push(`page error: ${error.message}`));
  await next.goto(url);
  await settled(next);
  expect(JSON.parse(await stored(next))).toEqual(JSON.parse(saved));
  await expect.poll(() => facts(next), { timeout: 30_000 }).toEqual(shown);
  return next;
}

/** An error that nobody catches in a worker, as when memory runs out. */
async function killWorker(page: Page): Promise<void> {
  await page.workers().at(0)?.evaluate(() => void setTimeout(() => { throw new RangeError('out of memory'); }, 0)).catch(() => undefined);
}

async function heapMb(page: Page): Promise<number> {
  const session = await page.context().newCDPSession(page);
  await session.send('HeapProfiler.collectGarbage');
  const { metrics } = await session.send('Performance.enable').then(() => session.send('Performance.getMetrics'));
  await session.detach();
  return (metrics.find(({ name }) => name === 'JSHeapUsedSize')?.value ?? 0) / 1e6;
}

for (let seed = FIRST_SEED; seed < FIRST_SEED + SEEDS; seed++) {
  test(`walk ${seed} through the interface, with kills, ends without an unexplained fault, with what is shown saved and all of it undone`, async ({ page }) => {
    test.setTimeout(120_000 + ACTIONS * 6000);
    const faults: string[] = [];
    const random = randomFrom(seed);
    const pick = <Value>(list: readonly Value[]): Value => list[Math.floor(random() * list.length)];
    await openJob(page, pick(['Crew crest', 'Crest, one film', 'Heron glasses', 'Lighthouse mug']), pick(STAGES));
    let at = page;
    let begun = await stored(at);
    for (let k = 0; k < ACTIONS; k++) {
      const chance = random();
      if (chance < KILLS_TAB) {
        at = await killTab(at, faults);
        begun = await stored(at);
      } else if (chance < KILLS_TAB + KILLS_WORKER) await killWorker(at);
      else {
        const action = pick(ACTIONS_OF);
        await act(at, action, pick, random);
        await expect(unexplained(at), `seed ${seed}, action ${k}: ${action}`).toHaveCount(0);
      }
    }
    await at.keyboard.press('Escape');
    at = await killTab(at, faults);
    // Once more from there, and all of it taken back.
    begun = await stored(at);
    for (let k = 0; k < 6; k++) await act(at, pick(ACTIONS_OF), pick, random);
    await at.keyboard.press('Escape');
    await settled(at);
    const undo = at.getByRole('button', { name: 'Undo', exact: true });
    for (let k = 0; k < 60 && (await undo.isEnabled()); k++) await undo.click();
    await settled(at);
    expect(JSON.parse(await stored(at))).toEqual(JSON.parse(begun));
    expect(await heapMb(at)).toBeLessThan(MOST_HEAP_MB);
    expect(faults).toEqual([]);
  });
}
