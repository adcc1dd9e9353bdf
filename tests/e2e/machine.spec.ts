import { expect, test, type Page } from '@playwright/test';
import { choose, goTo, openJob, settled, unfold } from './bench.ts';

const alert = (page: Page) => page.getByRole('alert');
const going = (page: Page) => page.locator('.going');
const loadAndCut = async (page: Page, film: string, mishap?: string): Promise<void> => {
  await expect(page.getByText(`Now load ${film}.`)).toBeVisible();
  await page.getByRole('button', { name: 'It is loaded' }).click();
  if (mishap !== undefined) await choose(page, 'What goes wrong next', mishap);
  await page.getByRole('button', { name: 'Cut', exact: true }).click();
};
const traces = async (page: Page): Promise<string[]> => [...(await (await page.request.get('/devices/cutter/picture')).text()).matchAll(/data-as="(\w+)"/g)].map(([, as]) => as);

// What a cutter refuses is an error in the console too: of this page only what was not caught is a fault.
test('film after film is loaded and cut on the stand-in, whatever goes wrong with it', async ({ page }) => {
  test.setTimeout(180_000);
  const faults: string[] = [];
  page.on('pageerror', (error) => faults.push(error.message));
  await openJob(page, 'Crew crest', 'Hand off');
  await settled(page);
  await page.getByRole('link', { name: 'Open the cutter' }).click();
  await expect(page.getByRole('region', { name: 'Cutter', exact: true })).toContainText('it reaches 305 mm × 610 mm');
  await unfold(page, 'Stand-in');
  await choose(page, 'How fast it goes', 'twenty-five times as fast');

  await test.step('no mat, then a pen drawing, then a piece that lifts: only what was missed is sent', async () => {
    await loadAndCut(page, 'Sail white', 'no mat lies in it');
    await expect(alert(page)).toContainText('Nothing lies in the cutter.');
    await page.getByRole('button', { name: 'Pen drawing first' }).click();
    await expect(going(page)).toContainText(/^done, \d+ of \d+ lines$/, { timeout: 60_000 });
    expect(new Set(await traces(page))).toEqual(new Set(['drawn']));
    await choose(page, 'What goes wrong next', 'a piece lifts');
    await page.getByRole('button', { name: 'Cut', exact: true }).click();
    await expect(alert(page)).toContainText('A piece lifted from its carrier', { timeout: 60_000 });
    const before = (await traces(page)).filter((as) => as === 'cut').length;
    await page.getByRole('button', { name: 'Send only what was missed' }).click();
    await expect(page.getByRole('button', { name: 'Cut again' })).toBeVisible({ timeout: 60_000 });
    const whole = Number(/(\d+) lines are done/.exec((await page.getByText(/lines are done/).textContent()) ?? '')?.[1]);
    expect(before).toBeGreaterThan(0);
    expect((await traces(page)).filter((as) => as === 'cut')).toHaveLength(whole);
  });

  await test.step('a line that is lost in mid-cut: gone, then back, then gone on with', async () => {
    await page.getByRole('button', { name: 'Next film' }).click();
    await loadAndCut(page, 'Harbour navy', 'the line is lost in mid-cut');
    await expect(alert(page)).toContainText('does not answer', { timeout: 60_000 });
    await expect(alert(page)).toContainText('The line to the cutter was lost in mid-cut.', { timeout: 30_000 });
    await page.getByRole('button', { name: 'Go on' }).click();
    await expect(page.getByRole('button', { name: 'Cut again' })).toBeVisible({ timeout: 60_000 });
    await expect(alert(page)).toHaveCount(0);
  });

  await test.step('a blunt blade shows in what is left on the sheet, and it is cut once more', async () => {
    await page.getByRole('button', { name: 'Next film' }).click();
    await loadAndCut(page, 'Rust', 'the blade goes blunt');
    await expect(page.getByRole('button', { name: 'Cut again' })).toBeVisible({ timeout: 60_000 });
    const once = await traces(page);
    expect(once).toContain('scored');
    await page.getByRole('button', { name: 'Cut again' }).click();
    await expect.poll(async () => (await traces(page)).filter((as) => as === 'cut').length, { timeout: 60_000 }).toBeGreaterThanOrEqual(once.length);
    await expect(going(page)).toContainText(/^done/);
  });

  await test.step('a busy port is told, and a cut is paused, moved on and stopped', async () => {
    await page.getByRole('button', { name: 'Next film' }).click();
    await loadAndCut(page, 'Sand', 'it is busy');
    await expect(alert(page)).toContainText('busy with something else');
    await choose(page, 'How fast it goes', 'as fast as a real one');
    await expect(async () => {
      // One that was taken late is not sent again.
      const pause = page.getByRole('button', { name: 'Pause' });
      if (!(await pause.isVisible())) await page.getByRole('button', { name: 'Cut', exact: true }).click({ timeout: 1000 });
      await expect(pause).toBeVisible({ timeout: 1500 });
    }).toPass({ timeout: 20_000 });
    await page.getByRole('button', { name: 'Pause' }).click();
    await expect(page.getByRole('button', { name: 'Go on' })).toBeVisible();
    const there = await going(page).textContent();
    await page.getByRole('button', { name: 'Stop' }).click();
    await expect(going(page)).toContainText('stopped after');
    expect(there).toContain('left');
    await choose(page, 'How fast it goes', 'five times as fast');
    await page.getByRole('button', { name: 'Send only what was missed' }).click();
    await expect(page.getByRole('button', { name: 'Cut again' })).toBeVisible({ timeout: 60_000 });
    await expect(page.getByRole('region', { name: 'Sheets' }).getByText('cut', { exact: true })).toHaveCount(4);
  });
  expect(faults).toEqual([]);
});

test('a page is printed, laid in askew, found by its marks whatever goes wrong, and cut along what is on it', async ({ page }) => {
  const faults: string[] = [];
  page.on('pageerror', (error) => faults.push(error.message));
  await openJob(page, 'Lighthouse mug', 'Hand off');
  await page.getByRole('link', { name: 'Open printer and cutter' }).click();
  const print = page.getByRole('button', { name: /^Print/ });

  await test.step('a page without marks can only be printed', async () => {
    await print.click();
    await expect(page.getByRole('img', { name: 'Page 1 as it came out of the printer' })).toBeVisible({ timeout: 30_000 });
    await expect(page.getByText('The page has no marks.')).toBeVisible();
    await goTo(page, 'Lay out');
    await page.locator('label', { hasText: 'Cut line for a cutter' }).locator('.el-switch__core').click();
    await expect(page.getByLabel('Away from the ink')).toBeVisible();
    await settled(page);
    await goTo(page, 'Hand off');
    await page.getByRole('link', { name: 'Open printer and cutter' }).click();
    await unfold(page, 'Stand-in');
    await choose(page, 'How fast it goes', 'twenty-five times as fast');
  });

  await test.step('the ink ends on the page: the marks below are missed, and it is said', async () => {
    await choose(page, 'What goes wrong at the printer', 'the ink ends on the page');
    await print.click();
    await page.getByRole('button', { name: 'It is laid in' }).click();
    await page.getByRole('button', { name: 'Look for the marks' }).click();
    await expect(alert(page)).toContainText('Fewer than three marks were found.');
    await expect(page.getByRole('list', { name: 'Marks' }).getByRole('listitem').filter({ hasText: 'found' })).toHaveCount(2);
  });

  await test.step('a whole page whose one mark is covered is cut by three, and by four once it is seen', async () => {
    await print.click();
    await choose(page, 'What goes wrong next', 'a mark is covered');
    await page.getByRole('button', { name: 'It is laid in' }).click();
    await page.getByRole('button', { name: 'Look for the marks' }).click();
    await expect(page.getByText('Three marks are enough')).toBeVisible();
    await expect(page.getByRole('list', { name: 'Marks' })).toContainText('nothing dark there');
    await page.getByRole('button', { name: 'Lay it in anew' }).click();
    await page.getByRole('button', { name: 'Look for the marks' }).click();
    await expect(page.getByText(/They agree within 0\.\d\d mm/)).toBeVisible();
    await page.getByRole('button', { name: 'Cut along it' }).click();
    await expect(going(page)).toContainText(/^done, 6 of 6 lines$/, { timeout: 60_000 });
    expect(await traces(page)).toEqual(Array<string>(6).fill('cut'));
  });
  expect(faults).toEqual([]);
});
