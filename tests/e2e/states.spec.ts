import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import { duckPhoto, shadedSign } from '../fixtures/photos.ts';
import { randomFrom } from '../fixtures/shapes.ts';
import { addStep, choose, dropFiles, goTo, openJob, openShelf, save, setQuantity, settled, stepWords, table, test } from './bench.ts';

const STAGES = ['Picture', 'Clean', 'Separate', 'Assemble', 'Lay out', 'Hand off'] as const;

/** The job of an address as it is stored. */
const stored = (page: Page): Promise<string> =>
  page.evaluate(async () => {
    const id = /job\/([^/]+)/.exec(location.pathname)?.[1] ?? '';
    const database = await new Promise<IDBDatabase>((resolve, reject) => {
      const request = indexedDB.open('limner');
      request.onsuccess = () => resolve(request.result);
      request.onerror = () => reject(request.error as Error);
    });
    const row = await new Promise<{ job: unknown }>((resolve, reject) => {
      const request = database.transaction('entries').objectStore('entries').get(id);
      request.onsuccess = () => resolve(request.result as { job: unknown });
      request.onerror = () => reject(request.error as Error);
    });
    database.close();
    return JSON.stringify(row.job);
  });

const facts = (page: Page): Promise<string[]> => page.locator('.tab .fact').allTextContents();

test('a photograph goes through subject lift and every way of separating, with a border', async ({ page }) => {
  await openShelf(page);
  await dropFiles(page, [{ name: 'duck portrait.jpg', type: 'image/jpeg', bytes: await duckPhoto() }]);
  await expect(page.getByText('480 × 400', { exact: true })).toBeVisible({ timeout: 30_000 });
  await goTo(page, 'Clean');
  await addStep(page, 'Subject lift');
  await expect(stepWords(page, 'Subject lift')).toContainText('of the picture lifted', { timeout: 40_000 });
  await goTo(page, 'Separate');
  await page.getByRole('button', { name: 'Border and back', exact: true }).click();
  await page.getByRole('region', { name: 'Border and back' }).getByText('A film around everything').click();
  for (const way of ['flat colours', 'tones of a photo', 'back and detail', 'one colour']) {
    await choose(page, 'Way of separating', way);
    await settled(page);
    await expect(page.locator('.rack .roll').first(), way).toContainText('Border', { timeout: 30_000 });
    await expect(page.locator('.tab', { hasText: 'Hand off' }), way).toContainText('ready');
    await expect(page.locator('.app-error'), way).toHaveCount(0);
  }
  await goTo(page, 'Hand off');
  const { bytes } = await save(page, 'Save all sheets');
  expect(Object.keys(unzipSync(new Uint8Array(bytes)))).toHaveLength(2);
});

test('soft shading with a rim of a pixel stays in its frame, whatever its tones', async ({ page }) => {
  await openShelf(page);
  await dropFiles(page, [{ name: 'sign.png', type: 'image/png', bytes: await shadedSign() }]);
  await expect(page.getByText('520 × 360', { exact: true })).toBeVisible({ timeout: 30_000 });
  await goTo(page, 'Separate');
  await choose(page, 'Way of separating', 'flat colours');
  await settled(page);
  for (const count of ['3', '6', '9']) {
    await setQuantity(page, 'Tones, the background counted', count);
    await settled(page);
    // 280 mm wide, and as much higher or lower as the sign is.
    const fact = (await page.locator('.tab', { hasText: 'Assemble' }).locator('.fact').textContent()) ?? '';
    const [, width, height] = /^(\d+) × (\d+) mm$/.exec(fact) ?? [];
    expect(Number(width), fact).toBe(280);
    expect(Number(height) / Number(width), fact).toBeGreaterThan(0.45);
    expect(Number(height) / Number(width), fact).toBeLessThan(0.75);
  }
});

test('a job that is opened while another one is being read is the one that is shown', async ({ page }) => {
  await openShelf(page);
  await page.getByRole('button', { name: 'Open Landing stage', exact: true }).click();
  await page.getByRole('button', { name: '‹ Shelf' }).click();
  await page.getByRole('button', { name: 'Open Heron glasses', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Heron glasses' })).toBeVisible();
  await settled(page);
  await expect(page.locator('.tab', { hasText: 'Picture' })).not.toContainText('4,000');
  await expect(page.locator('.tab', { hasText: 'Hand off' })).toContainText('ready', { timeout: 30_000 });
});

test('one recipe on jobs of several films gives a sheet for each of them', async ({ page }) => {
  await openJob(page, 'Crew crest', 'Separate');
  await choose(page, 'Way of separating', 'flat colours');
  await expect(page.locator('.rack .roll')).toHaveCount(4, { timeout: 30_000 });
  await settled(page);
  await page.getByRole('button', { name: '‹ Shelf' }).click();
  await page.getByRole('button', { name: 'Open Lighthouse mug', exact: true }).click();
  await goTo(page, 'Clean');
  await addStep(page, 'Smoothing');
  await settled(page);
  await page.getByRole('button', { name: 'Recipes' }).click();
  await page.getByRole('menuitem', { name: 'Use it on many' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByText('Crew crest').click();
  await dialog.getByRole('button', { name: 'Use it on 1 picture' }).click();
  await expect(dialog.getByRole('button', { name: 'Save all cut files' })).toBeVisible({ timeout: 60_000 });
  const coming = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Save all cut files' }).click();
  const names = Object.keys(unzipSync(new Uint8Array(await readFile(await (await coming).path()))));
  expect(names.filter((name) => name.endsWith('.svg')).length).toBeGreaterThanOrEqual(4);
});

test('walking with Tab through every field of every stage changes nothing', async ({ page }) => {
  await openJob(page, 'Crew crest', 'Separate');
  await choose(page, 'Way of separating', 'flat colours');
  await settled(page);
  for (const stage of STAGES) {
    await goTo(page, stage);
    await settled(page);
    const before = await stored(page);
    await page.locator('.tab', { hasText: stage }).first().focus();
    let visited = 0;
    for (let k = 0; k < 60; k++) {
      await page.keyboard.press('Tab');
      if (await page.evaluate(() => document.activeElement?.matches('input:not([type="color"])') === true)) visited++;
    }
    await settled(page);
    expect(await stored(page), stage).toBe(before);
    if (stage !== 'Hand off') expect(visited, stage).toBeGreaterThan(0);
  }
});

test('what was taken back on another stage is said, also from a list', async ({ page }) => {
  await openJob(page, 'Crew crest', 'Assemble');
  await setQuantity(page, 'Width', '150');
  await goTo(page, 'Lay out');
  await page.getByRole('combobox', { name: 'Sheet', exact: true }).focus();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Taken back: Finished width')).toBeVisible();
  await expect(page.locator('.tab', { hasText: 'Assemble' })).toContainText('240');
});

/** Seeds of the walks; more than run each time can be asked for. */
const SEEDS = Number(process.env['LIMNER_WALKS'] ?? 2);
const ACTIONS = 30;

test('any walk through the interface ends without an unexplained fault, with what is shown saved', async ({ page }) => {
  test.setTimeout(90_000 + SEEDS * 90_000);
  for (let seed = 1; seed <= SEEDS; seed++) {
    const random = randomFrom(seed);
    const pick = <Value>(list: readonly Value[]): Value => list[Math.floor(random() * list.length)];
    await openJob(page, pick(['Crew crest', 'Heron glasses', 'Lighthouse mug']), pick(STAGES));
    for (let k = 0; k < ACTIONS; k++) {
      const action = pick(['stage', 'stage', 'undo', 'redo', 'number', 'number', 'choice', 'switch', 'step', 'table', 'roll'] as const);
      await act(page, action, pick, random);
      await expect(page.locator('.app-error', { hasText: 'Something went wrong inside' }), `seed ${seed}, action ${k}: ${action}`).toHaveCount(0);
    }
    await page.keyboard.press('Escape');
    await settled(page);
    await expect(page.locator('.readout [role="status"]')).toContainText('last', { timeout: 60_000 });
    const shown = await facts(page);
    await page.reload();
    await settled(page);
    await expect(page.locator('.readout [role="status"]')).toContainText('last', { timeout: 60_000 });
    await expect.poll(() => facts(page), { message: `seed ${seed}`, timeout: 20_000 }).toEqual(shown);
  }
});

async function act(page: Page, action: string, pick: <Value>(list: readonly Value[]) => Value, random: () => number): Promise<void> {
  const some = async (selector: string): Promise<ReturnType<Page['locator']> | undefined> => {
    const all = page.locator(`${selector}:visible`);
    const count = await all.count();
    return count === 0 ? undefined : all.nth(Math.floor(random() * count));
  };
  if (action === 'stage') await goTo(page, pick(STAGES));
  else if (action === 'undo') await page.keyboard.press('Control+z');
  else if (action === 'redo') await page.keyboard.press('Control+Shift+z');
  else if (action === 'number') {
    const input = await some('.tray .quantity input:enabled');
    if (input === undefined) return;
    await input.fill(String(pick([0, 1, 2, 5, 12, 40, 120])));
    await input.press('Enter');
    await input.press('Escape');
  } else if (action === 'choice') {
    const select = await some('.tray .el-select');
    if (select === undefined) return;
    await select.click();
    const option = page.getByRole('option').filter({ visible: true });
    const count = await option.count();
    if (count > 0) await option.nth(Math.floor(random() * count)).click();
    else await page.keyboard.press('Escape');
    // A question that comes of it is left.
    const question = page.locator('.el-message-box:visible');
    if ((await question.count()) > 0) await page.keyboard.press('Escape');
  } else if (action === 'switch') {
    const toggle = await some('.tray .el-switch');
    await toggle?.click();
  } else if (action === 'step') {
    await goTo(page, 'Clean');
    await addStep(page, pick(['Levels', 'Smoothing', 'Fewer colours', 'Sweep', 'Crop', 'Turn', 'Edge tidying', 'Draw in', 'Light levelling']));
  } else if (action === 'table') {
    const box = await table(page).boundingBox();
    if (box === null) return;
    await page.mouse.click(box.x + box.width * (0.3 + 0.4 * random()), box.y + box.height * (0.3 + 0.4 * random()));
  } else if (action === 'roll') {
    const roll = await some('.rack .roll');
    await roll?.click();
  }
}
