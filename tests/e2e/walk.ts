import type { Page } from '@playwright/test';
import { addStep, goTo, table } from './bench.ts';

export const STAGES = ['Picture', 'Clean', 'Separate', 'Assemble', 'Lay out', 'Hand off'] as const;

/** The job of an address as it is stored. */
export const stored = (page: Page): Promise<string> =>
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

/** The live facts on the tabs of the stages. */
export const facts = (page: Page): Promise<string[]> => page.locator('.tab .fact').allTextContents();

/** What a walk may do, the usual more often. */
export const ACTIONS_OF = ['stage', 'stage', 'undo', 'redo', 'number', 'number', 'choice', 'switch', 'step', 'table', 'roll'] as const;

/** Does one thing somewhere on the bench, as chance has it. */
export async function act(page: Page, action: string, pick: <Value>(list: readonly Value[]) => Value, random: () => number): Promise<void> {
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
    // Those of this list: one that was open before may still be fading.
    const list = await select.getByRole('combobox').getAttribute('aria-controls');
    const option = page.locator(`[id="${list}"]`).getByRole('option').filter({ visible: true });
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
