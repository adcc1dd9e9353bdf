import { expect, type Page } from '@playwright/test';
import { strFromU8, unzipSync } from 'fflate';
import { PDFDocument } from 'pdf-lib';
import { choose, demoPicture, goTo, openJob, save, setQuantity, settled, test } from './bench.ts';
import { stored } from './walk.ts';

const card = (page: Page, name: string) => page.getByRole('region', { name });
/** Rings of the art of a saved sheet. */
const ringsOf = (svg: string): number => /-art"[^>]*>([\s\S]*?)<\/g>/.exec(svg)?.[1].match(/<path/g)?.length ?? 0;

test('a soap stencil: its islands are held, a bridge is moved, what falls out is shown, nothing is loose in the file', async ({ page }) => {
  await openJob(page, 'Duck race soap', 'Lay out');
  const bridges = card(page, 'Bridges');
  await expect(bridges).toContainText('2 islands held by 2 bridges');
  await expect(card(page, 'Cut check')).toContainText('nothing found');
  // Without bridges the check says what falls out; the rings of wing and eye are back.
  await bridges.locator('.el-switch').click();
  await expect(card(page, 'Cut check')).toContainText('nothing holds');
  await page.keyboard.press('Control+z');
  await expect(bridges).toContainText('2 islands held');
  await bridges.getByRole('button', { name: 'Choose one' }).click();
  await page.keyboard.press('Shift+ArrowLeft');
  await settled(page);
  expect(await stored(page)).toContain('"islands":[{');
  await bridges.getByRole('button', { name: 'One more across' }).click();
  await expect(bridges).toContainText('2 islands held by 3 bridges');
  await page.getByRole('radio', { name: 'cut out' }).click();
  await page.getByRole('radio', { name: 'on the blank' }).click();
  await settled(page);
  await bridges.getByRole('button', { name: 'All where they were found' }).click();
  await expect(bridges).toContainText('2 islands held by 2 bridges');
  // A duck is no mirror image of itself: half of it would not do, and all of it is cut. Laid again a step further it has holes to lay it by.
  const laid = card(page, 'Laid more than once');
  await choose(page, 'Is laid', 'half of it, turned over');
  await expect(laid).toContainText(/its halves differ by \d+ %: all of it is cut/);
  await choose(page, 'Is laid', 'again and again, in a row');
  await setQuantity(page, 'One step', '60 mm');
  await settled(page);
  expect(await stored(page)).toContain('"manner":"repeat"');
  await expect(page.getByRole('application')).toHaveAccessibleDescription(/Stencil film, 4 copies, 1\d\d(\.\d)? mm by/);
  await choose(page, 'Is laid', 'once');
  await settled(page);
  await goTo(page, 'Hand off');
  const { bytes } = await save(page, 'Save SVG');
  // Four copies of the duck and the wave, each one ring: its middles are part of the film.
  expect(ringsOf(bytes.toString())).toBe(8);
});

test('a page of decals: filled, for a mug of another colour, three pictures each by itself, saved as PDF', async ({ page }) => {
  await openJob(page, 'Lighthouse mug', 'Lay out');
  const pages = card(page, 'Print pages');
  await expect(pages).toContainText('9 motifs on 1 page');
  await choose(page, 'Shown', 'as it looks on the blank');
  await goTo(page, 'Assemble');
  for (const [k, name] of ['heron-mark.png', 'bread-and-rope.png'].entries()) {
    await page.getByRole('button', { name: 'Add a part' }).click();
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('menuitem', { name: 'Another picture' }).click();
    await (await chooser).setFiles(demoPicture(name));
    await expect.poll(async () => (JSON.parse(await stored(page)) as { pictures: unknown[] }).pictures.length, { timeout: 60_000 }).toBe(k + 2);
    await settled(page);
  }
  await goTo(page, 'Lay out');
  await pages.getByText('Each part by itself').locator('..').locator('.el-switch').click();
  await expect(pages).not.toContainText(/9 motifs/);
  await pages.getByText('Fill the page').locator('..').locator('.el-switch').click();
  await setQuantity(page, 'Copies of each', '2');
  await expect(pages).toContainText('6 motifs');
  for (const row of ['Cut line for a cutter', 'Slits through the waste']) await pages.locator('.row', { hasText: row }).locator('.el-switch__core').click();
  await settled(page);
  expect(await stored(page)).toContain('"weedLines":{"on":true');
  await goTo(page, 'Hand off');
  // No cut file of a silhouette beside it.
  await expect(page.getByRole('region', { name: 'Cut file, SVG' })).toHaveCount(0);
  const { name, bytes } = await save(page, 'Save PDF');
  expect(name).toBe('Lighthouse mug.pdf');
  const pdf = await PDFDocument.load(bytes);
  expect(pdf.getPages().map((each) => Math.round((each.getWidth() / 72) * 25.4))).toEqual(pdf.getPages().map(() => 210));
});

test('a glass that tapers: the design is bent for it, or cut flat on request, and a guide of card leaves with the sheet', async ({ page }) => {
  await openJob(page, 'Heron glasses', 'Picture');
  await choose(page, 'Blank', 'Tapered tumbler (100 mm × 95 mm)');
  await goTo(page, 'Lay out');
  await settled(page);
  const taper = card(page, 'Taper');
  await expect(taper).toContainText(/bent by \d\.\d mm/);
  await taper.locator('.el-switch__core').click();
  await expect(taper).toContainText('cut flat');
  await page.keyboard.press('Control+z');
  await expect(taper).toContainText('bent by');
  await setQuantity(page, 'Margin', '2 mm');
  await page.getByRole('radio', { name: 'on the blank' }).click();
  await card(page, 'Proof').locator('.row', { hasText: 'Placement guide' }).locator('.el-switch__core').click();
  await expect(card(page, 'Proof')).toContainText('Its corner on that of the printable area');
  await settled(page);
  await goTo(page, 'Hand off');
  const { name, bytes } = await save(page, 'Save SVG');
  expect(name).toBe('Heron glasses, SVG.zip');
  const files = unzipSync(new Uint8Array(bytes));
  expect(Object.keys(files).filter((each) => each.includes('placement-guide'))).toHaveLength(1);
  for (const file of Object.values(files)) expect(ringsOf(strFromU8(file))).toBeGreaterThan(0);
});

test('nested copies: laid by their outlines, then closer, and kept with the job', async ({ page }) => {
  await openJob(page, 'Heron glasses', 'Lay out');
  const copies = card(page, 'Copies');
  await choose(page, 'How they lie', 'nested by their outlines');
  await expect(copies).toContainText('of its length used');
  await settled(page);
  await copies.getByRole('button', { name: 'Lay closer' }).click();
  await expect(copies.getByRole('button', { name: 'Stop' })).toBeVisible();
  await expect(copies.getByRole('button', { name: 'Lay closer' })).toBeVisible({ timeout: 30_000 });
  await settled(page);
  expect(await stored(page)).toContain('"nests":[{');
  await goTo(page, 'Hand off');
  const before = ringsOf((await save(page, 'Save SVG')).bytes.toString());
  await page.keyboard.press('Control+z');
  await settled(page);
  expect(await stored(page)).not.toContain('"nests"');
  // Another way to lie loses nothing.
  expect(ringsOf((await save(page, 'Save SVG')).bytes.toString())).toBe(before);
});

test('a film is laid out by itself: on an offcut, each of its pieces, more often than the others', async ({ page }) => {
  await openJob(page, 'Crew crest', 'Lay out');
  const rolls = page.locator('.rack .roll');
  await rolls.filter({ hasText: 'Sand' }).click();
  const common = await page.getByLabel('Width', { exact: true }).inputValue();
  await card(page, 'This film by itself').locator('.el-switch').click();
  await expect(card(page, 'This film by itself')).toContainText('Sand: its sheet, box, weed lines and copies are its own');
  await choose(page, 'Sheet', 'A4 sheet');
  await card(page, 'Copies').getByText('Each piece by itself').locator('..').locator('.el-switch').click();
  const copies = page.getByRole('textbox', { name: 'Copies', exact: true });
  await copies.fill('3');
  await copies.press('Enter');
  await settled(page);
  await expect(page.getByLabel('Width', { exact: true })).toHaveValue(/^210/);
  await rolls.filter({ hasText: 'Rust' }).click();
  await expect(page.getByLabel('Width', { exact: true })).toHaveValue(common);
  await expect(copies).toHaveValue('1');
  await goTo(page, 'Hand off');
  await settled(page);
  await expect(page.getByText('4 sheets, a file each, 2 sizes, mirrored')).toBeVisible();
  const { bytes } = await save(page, 'Save SVG');
  const sizes = Object.entries(unzipSync(new Uint8Array(bytes))).map(([name, svg]) => [/sand/i.test(name), /width="(\d+)mm"/.exec(strFromU8(svg))?.[1]]);
  expect(sizes.filter(([isSand]) => isSand === true)).toEqual([[true, '210']]);
  expect(new Set(sizes.filter(([isSand]) => isSand === false).map(([, width]) => width)).has('210')).toBe(false);
});
