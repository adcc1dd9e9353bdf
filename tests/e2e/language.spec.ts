import { expect, type Page } from '@playwright/test';
import german from '../../src/core/words/de.json' with { type: 'json' };
import { openShelfWith, save, test } from './bench.ts';
import { readCutFile } from './svgGeometry.ts';

const words: Readonly<Record<string, string>> = german;
/** Names that the job brings along: they are its own, whatever language is spoken. */
const OF_THE_JOB = new Set(['Shirt, adult L', 'Mat 305 × 610', 'Harbour navy', 'shirt']);

/** What is shown or read out in English although German has it. */
async function english(page: Page): Promise<string[]> {
  const shown = await page.evaluate(() => {
    const texts: string[] = [];
    for (const element of document.body.querySelectorAll('*')) {
      for (const child of element.childNodes) if (child instanceof Text && child.data.trim() !== '') texts.push(child.data.trim());
      for (const name of ['title', 'aria-label', 'placeholder', 'alt']) texts.push(element.getAttribute(name) ?? '');
    }
    return texts;
  });
  return [...new Set(shown)].filter((text) => /\p{L}{2}/u.test(text) && Object.hasOwn(words, text) && words[text] !== text && !OF_THE_JOB.has(text));
}

const toStage = (page: Page, name: string): Promise<void> => page.locator('.tab', { hasText: name }).click();

test('German: chosen on the shelf, the whole road speaks it, numbers are written and typed by its rules, and files are the same', async ({ page }) => {
  await openShelfWith(page, ['Crew crest']);
  await page.getByRole('button', { name: 'Deutsch' }).click();
  await expect(page.getByRole('button', { name: 'Bild wählen' })).toBeVisible();
  await expect(page.locator('html')).toHaveAttribute('lang', 'de');
  expect(await english(page)).toEqual([]);

  await page.getByRole('button', { name: 'Crew crest öffnen' }).click();
  await expect(page.locator('.tab', { hasText: 'Übergeben' })).toContainText('fertig', { timeout: 60_000 });
  for (const stage of ['Bereinigen', 'Trennen', 'Zusammenstellen', 'Auslegen', 'Übergeben', 'Bild']) {
    await toStage(page, stage);
    await expect(page.locator('.tab[aria-current]')).toContainText(stage);
    expect(await english(page), stage).toEqual([]);
  }

  await toStage(page, 'Zusammenstellen');
  const width = page.getByRole('textbox', { name: 'Breite', exact: true });
  await width.fill('150,5');
  await width.press('Enter');
  await expect(width).toHaveValue('150,5 mm');
  await expect(page.getByTitle('Rückgängig: Fertigbreite')).toBeEnabled();

  await toStage(page, 'Übergeben');
  await expect(page.locator('.tab', { hasText: 'Übergeben' })).toContainText('fertig', { timeout: 60_000 });
  const { name, bytes } = await save(page, 'Nur diesen Bogen sichern');
  expect(name).toMatch(/\.svg$/);
  const sheet = readCutFile(bytes.toString('utf8'));
  expect(sheet.widthMm).toBeCloseTo(305, 1);

  await page.getByRole('button', { name: '‹ Regal' }).click();
  await page.getByRole('button', { name: 'English' }).click();
  await expect(page.getByRole('button', { name: 'Choose a picture' })).toBeVisible();
});

test.describe('a browser that asks for German', () => {
  test.use({ locale: 'de-AT' });
  test('is spoken to in German at once, also about what goes wrong', async ({ page }) => {
    await page.goto('/');
    await expect(page.getByRole('button', { name: 'Bild wählen' })).toBeVisible();
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Bild wählen' }).click();
    await (await chooser).setFiles({ name: 'zettel.png', mimeType: 'image/png', buffer: Buffer.from('kein Bild') });
    await expect(page.getByText('„zettel.png“ ist kein Bild, das Limner liest.')).toBeVisible();
  });
});
