import { expect, type Page } from '@playwright/test';
import { strFromU8, unzipSync } from 'fflate';
import sharp from 'sharp';
import { choose, dropFiles, goTo, openJob, openShelfWith, save, setQuantity, settled, test, unfold } from './bench.ts';
import { readCutFile } from './svgGeometry.ts';
import { stored } from './walk.ts';

const card = (page: Page, name: string) => page.getByRole('region', { name });
const flip = (page: Page, name: string) => page.locator('.el-switch', { has: page.getByRole('switch', { name, exact: true }) }).click();
const sheetsIn = (bytes: Buffer): Record<string, string> => Object.fromEntries(Object.entries(unzipSync(new Uint8Array(bytes))).map(([name, file]) => [name, strFromU8(file)]));

test('a shirt of three films: marks and boxes that line up, a coarse film is told, cut and weeded on the table, saved', async ({ page }) => {
  const boat = '<svg xmlns="http://www.w3.org/2000/svg" width="900" height="700"><rect width="900" height="700" fill="#fff"/><path d="M120 430h660l-110 170H230z" fill="#b3262e"/><path d="M430 90v320H190z" fill="#f2b632"/><path d="M470 60v350h240z" fill="#22375f"/></svg>';
  await openShelfWith(page, []);
  await dropFiles(page, [{ name: 'three-films.png', type: 'image/png', bytes: new Uint8Array(await sharp(Buffer.from(boat)).png().toBuffer()) }]);
  await expect(page.locator('.job')).toHaveAttribute('data-current', 'true', { timeout: 60_000 });
  await goTo(page, 'Lay out');
  await expect(page.locator('.rack .roll')).toHaveCount(3, { timeout: 30_000 });
  await settled(page);
  await choose(page, 'Box around', 'as large as the blank’s area');
  await flip(page, 'Register marks');
  await settled(page);
  await expect(page.getByRole('alert')).toContainText('too wide');
  await choose(page, 'Cutter', 'Roll cutter');
  await settled(page);
  await expect(page.locator('.misfit')).toHaveCount(0);
  await unfold(page, 'Material');
  await choose(page, 'Material', 'Flock heat-transfer film');
  await settled(page);
  expect(await stored(page)).toContain('flock-heat-film');
  await expect(card(page, 'Material')).toContainText('2 mm');
  await page.getByRole('radio', { name: 'cutting' }).click();
  const play = page.getByRole('button', { name: 'Play the cut' });
  await expect(play).toBeVisible();
  await expect(page.getByRole('group', { name: 'The cut' })).toContainText(/about .* cut, 4 starts/);
  await page.getByRole('radio', { name: 'weeded' }).click();
  await expect(page.getByRole('group', { name: 'The weeding' })).toContainText('1 bit of waste');
  // Pressed in order: film after film, to the last.
  await page.getByRole('radio', { name: 'on the blank' }).click();
  const films = page.getByRole('group', { name: 'The films in order' });
  await films.getByRole('slider').fill('1');
  await expect(films).toContainText('1 of 3');
  await films.getByRole('button', { name: 'Play the films in order' }).click();
  await expect(films).toContainText('3 of 3');
  await page.getByRole('radio', { name: 'sheet', exact: true }).click();
  // A weed line that is not wanted is left out, moved and put back by its keys.
  await flip(page, 'Weed lines');
  await settled(page);
  const lines = card(page, 'Weed lines');
  await lines.getByRole('button', { name: 'choose one' }).click();
  const line = lines.getByRole('group', { name: 'Chosen weed line' });
  await page.keyboard.press('Delete');
  await expect(line).toContainText('left out');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(line).toContainText('moved');
  await settled(page);
  expect(await stored(page)).toContain('"share":');
  await expect(page.getByRole('application')).toHaveAccessibleDescription(/1 copy, .*; mirrored; 1 weeding box; \d weed lines?;/);
  await line.getByRole('button', { name: 'As found' }).click();
  await flip(page, 'Weed lines');
  await settled(page);
  await goTo(page, 'Hand off');
  const files = Object.values(sheetsIn((await save(page, 'Save SVG')).bytes)).map(readCutFile);
  expect(files).toHaveLength(3);
  // The boxes are the blank's area, and lie on each other; every film has the two marks beside its own piece.
  for (const { boxes, art, widthMm } of files) {
    expect(widthMm).toBe(500);
    expect(boxes).toEqual(files[0].boxes);
    expect(art).toHaveLength(3);
  }
});

test('a sign that is larger than the film is parted into tiles, each a sheet of its own', async ({ page }) => {
  await openJob(page, 'Heron glasses', 'Assemble');
  await setQuantity(page, 'Height', '900 mm');
  await settled(page);
  await goTo(page, 'Lay out');
  await setQuantity(page, 'On this sheet', '1');
  await settled(page);
  await expect(page.getByRole('alert')).toContainText('too high');
  await page.getByRole('button', { name: 'Part it into tiles' }).click();
  await settled(page);
  await expect(page.locator('.misfit')).toHaveCount(0);
  const which = page.getByRole('group', { name: 'Which sheet' });
  await expect(which).toContainText('sheet 1 of');
  await which.getByRole('button', { name: 'The next sheet' }).click();
  await expect(which).toContainText('sheet 2 of');
  await expect(page.locator('.readout')).toContainText('tile');
  const count = Number(/of (\d+)/.exec((await which.textContent()) ?? '')?.[1]);
  await goTo(page, 'Hand off');
  const files = Object.entries(sheetsIn((await save(page, 'Save SVG')).bytes));
  expect(files).toHaveLength(count);
  expect(files[0][0]).toMatch(/sheet-1\.svg$/);
  for (const [, svg] of files) expect(readCutFile(svg)).toMatchObject({ widthMm: 305, heightMm: 305 });
});

test('two jobs are laid on one roll: what both cut of one film lies on one sheet, by its number', async ({ page }) => {
  await openShelfWith(page, ['Crew crest', 'Crest, one film']);
  await page.getByRole('link', { name: 'Several on one sheet' }).click();
  await expect(page.getByText('Several jobs on one roll')).toBeVisible();
  await page.getByText('Crew crest').click();
  await page.getByText('Crest, one film').click();
  await setQuantity(page, 'Copies', '2', 1);
  await page.getByRole('button', { name: 'Lay them out' }).click();
  const navy = page.getByRole('button', { name: 'Harbour navy: jobs 1, 2' });
  await expect(navy).toBeVisible({ timeout: 60_000 });
  await navy.click();
  const { bytes } = await save(page, 'Save the sheets');
  const [, svg] = Object.entries(sheetsIn(bytes)).find(([name]) => name.includes('navy')) ?? ['', ''];
  expect(svg.match(/<title>Job 1: Crew crest<\/title>/g)).toHaveLength(1);
  expect(svg.match(/<title>Job 2: Crest, one film<\/title>/g)).toHaveLength(2);
  // Something changed since: it is told, and nothing old leaves.
  await setQuantity(page, 'Copies', '3', 1);
  await expect(page.getByRole('button', { name: 'Save the sheets' })).toBeDisabled();
});

test('weak places are thickened, shown against what was there, taken back or kept; the smallest size is told', async ({ page }) => {
  await openJob(page, 'Heron glasses', 'Assemble');
  await setQuantity(page, 'Height', '22 mm');
  await settled(page);
  await goTo(page, 'Lay out');
  const check = card(page, 'Cut check');
  await expect(check).toContainText('wide: tears or lifts');
  const size = card(page, 'Smallest size');
  await size.getByRole('button', { name: 'Find it' }).click();
  await expect(size).toContainText(/Works from \d/);
  await check.getByRole('button', { name: /^Thicken/ }).first().click();
  await settled(page);
  const note = page.getByText(/places before, \d+ now/);
  await expect(note).toBeVisible();
  await page.getByRole('button', { name: 'Back', exact: true }).click();
  await settled(page);
  expect(await stored(page)).not.toContain('"mend"');
  await check.getByRole('button', { name: 'Thicken all thin strips' }).or(check.getByRole('button', { name: /^Thicken/ }).first()).first().click();
  await settled(page);
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(note).toHaveCount(0);
  expect(await stored(page)).toContain('"kind":"mend"');
  await goTo(page, 'Assemble');
  await page.getByRole('list', { name: 'Parts of the design' }).getByRole('button').first().click();
  await expect(page.getByText(/strips to 0.8/)).toBeVisible();
});

test('the workshop’s own limits are those of the check, also in a job that was made before', async ({ page }) => {
  await openShelfWith(page, ['Heron glasses']);
  await page.getByRole('link', { name: 'Workshop' }).click();
  await page.getByRole('button', { name: /^Materials/ }).click();
  await page.getByRole('button', { name: /^Gloss adhesive vinyl/ }).click();
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  // Its settings have come before its name is typed.
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('New material');
  await page.getByLabel('Name', { exact: true }).fill('Thick outdoor vinyl');
  await page.getByLabel('Name', { exact: true }).press('Tab');
  await setQuantity(page, 'Strip', '6 mm');
  await expect(page.getByRole('button', { name: /^Thick outdoor vinyl.*strips from 6 mm/ })).toBeVisible();
  const { name, bytes } = await save(page, 'Save as a file');
  expect([name, (JSON.parse(bytes.toString()) as { format: string }).format]).toEqual(['workshop.limner-workshop.json', 'limner-workshop']);
  await page.getByRole('link', { name: 'All jobs' }).click();
  await page.getByRole('button', { name: 'Open Heron glasses', exact: true }).click();
  await goTo(page, 'Lay out');
  await settled(page);
  const check = card(page, 'Cut check');
  const before = await check.textContent();
  await unfold(page, 'Material');
  await choose(page, 'Material', 'Thick outdoor vinyl');
  await settled(page);
  await expect(check).not.toHaveText(before ?? '');
  await expect(check).toContainText('wide: tear');
  await page.keyboard.press('Control+z');
  await settled(page);
  await expect(check).toHaveText(before ?? '');
});
