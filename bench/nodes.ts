import type { Page } from '@playwright/test';
import sharp from 'sharp';
import { holdOutlines } from '../src/core/edit/paletteEdits.ts';
import { newJob } from '../src/core/job/newJob.ts';
import { FIRST_OBJECT_ID, tracedPart, withPart, withPicture } from '../src/core/job/tracedPart.ts';
import { trimNumber } from '../src/core/units/parseLength.ts';
import { writeArchive } from '../src/formats/archive/archive.ts';
import { pictureIdOf } from '../src/formats/picture/pictureId.ts';
import { inBrowser } from './browserRun.ts';

const SIDE_PX = 1000;
/** Outlines in a row, and rows. */
const ACROSS = 100;
const NODES_EACH = 10;
const EDITS = 5;
/** After each edit its result comes, and the job is saved, ms. */
const SETTLES_MS = 3500;
const AT_FIRST_MS = 8000;

/** A round outline of so many nodes, as path data. */
function roundPath(cx: number, cy: number, radius: number): string {
  const part = (2 * Math.PI) / NODES_EACH;
  const place = (angle: number, away = radius): string => [cx + away * Math.cos(angle), cy + away * Math.sin(angle)].map((value) => trimNumber(value, 6)).join(' ');
  const handle = radius / Math.cos(part / 3);
  const sides = Array.from({ length: NODES_EACH }, (_, k) => `C${place(k * part + part / 3, handle)} ${place((k + 1) * part - part / 3, handle)} ${place((k + 1) * part)}`);
  return `M${place(0)}${sides.join('')}Z`;
}

/** A job whose film is held by hand as ten thousand rounds. */
async function roundsJob(): Promise<Buffer> {
  const png = new Uint8Array(await sharp(Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="${SIDE_PX}" height="${SIDE_PX}"><rect width="100%" height="100%" fill="#fff"/><circle cx="50%" cy="50%" r="45%" fill="#22375f"/></svg>`)).png().toBuffer());
  const id = await pictureIdOf(png);
  const bare = withPicture(newJob('Rounds'), FIRST_OBJECT_ID, { id, fileName: 'rounds.png', widthPx: SIDE_PX, heightPx: SIDE_PX });
  const cell = SIDE_PX / ACROSS;
  const path = Array.from({ length: ACROSS * ACROSS }, (_, k) => roundPath(((k % ACROSS) + 0.5) * cell, (Math.floor(k / ACROSS) + 0.5) * cell, cell * 0.4)).join('');
  const job = withPart(bare, holdOutlines(tracedPart(bare), [{ film: bare.films[0].id, from: 'by hand', path }]));
  return Buffer.from(await writeArchive({ job, pictures: new Map([[id, png]]) }));
}

/** The longest task of the page while something is done, ms; those under 50 are not told by a browser. */
async function longestOf(page: Page, keys: string): Promise<number> {
  await page.evaluate('globalThis.longest = 0');
  await page.keyboard.press(keys);
  await page.waitForTimeout(SETTLES_MS);
  return page.evaluate<number>('globalThis.longest');
}

const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];
const told = (values: readonly number[]): string => `${median(values) < 50 ? 'under 50' : median(values).toFixed(0)} | ${Math.max(...values) < 50 ? 'under 50' : Math.max(...values).toFixed(0)}`;

/** How long the page stands still when one node among a hundred thousand is moved, and when that is undone: with all of them in view, and looked at closely. */
export async function benchNodes(): Promise<void> {
  const bytes = await roundsJob();
  console.log(`\n### One node of ${(ACROSS * ACROSS * NODES_EACH).toLocaleString('en')}, in ${(ACROSS * ACROSS).toLocaleString('en')} outlines\n\n| longest pause, ms | median | worst |\n|---|---|---|`);
  await inBrowser(async (newPage) => {
    const page = await newPage();
    await page.evaluate((base64) => {
      const data = new DataTransfer();
      data.items.add(new File([Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))], 'rounds.limner'));
      document.body.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true }));
    }, bytes.toString('base64'));
    await page.locator('.job[data-current="true"]').waitFor({ timeout: 60_000 });
    await page.evaluate("new PerformanceObserver((list) => { for (const { duration } of list.getEntries()) globalThis.longest = Math.max(globalThis.longest ?? 0, duration); }).observe({ entryTypes: ['longtask'] })");
    await page.locator('.tab', { hasText: 'Separate' }).first().click();
    await page.getByRole('button', { name: 'Keep mine' }).click();
    await page.getByText('nodes', { exact: true }).first().click();
    await page.waitForTimeout(AT_FIRST_MS);
    const table = await page.locator('canvas').first().boundingBox();
    if (table === null) throw new Error('the light table is not there');
    const [x, y] = [table.x + table.width / 2, table.y + table.height / 2];
    await page.mouse.move(x, y);
    for (let turn = 0; turn < 8; turn++) await page.mouse.wheel(0, -300);
    await page.waitForTimeout(SETTLES_MS);
    // A frame around some of them; the first edit shows whether one was chosen.
    await page.mouse.move(x - 120, y - 120);
    await page.mouse.down();
    await page.mouse.move(x + 120, y + 120, { steps: 4 });
    await page.mouse.up();
    await page.locator('[role="group"] button', { hasText: 'Remove' }).and(page.locator(':enabled')).waitFor();
    for (const view of ['closely', 'all in view'] as const) {
      if (view === 'all in view') await page.getByText('fit', { exact: true }).click();
      const edits: number[] = [];
      const undos: number[] = [];
      for (let k = 0; k < EDITS; k++) edits.push(await longestOf(page, 'ArrowRight'));
      for (let k = 0; k < EDITS; k++) undos.push(await longestOf(page, 'Control+z'));
      console.log(`| moved, ${view} | ${told(edits)} |\n| undone, ${view} | ${told(undos)} |`);
    }
  });
}
