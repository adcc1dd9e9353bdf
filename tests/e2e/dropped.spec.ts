import { expect, type Locator, type Page } from '@playwright/test';
import sharp from 'sharp';
import { asItCame, dropFiles, goTo, openShelfWith, settled, test } from './bench.ts';

/** A regatta badge as a customer sends it: seven tones with the paper, compressed. */
const badge = (): Promise<Buffer> =>
  sharp(
    Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="700" height="840" viewBox="0 0 1000 1200"><rect width="1000" height="1200" fill="#fff"/><circle cx="500" cy="520" r="380" fill="#24509a"/><circle cx="500" cy="520" r="340" fill="#f4ead2"/>
<path d="M230 640L770 640C740 760 660 800 560 806L440 806C340 800 260 760 230 640Z" fill="#b3262e"/><path d="M490 230L490 610L270 610C350 520 430 400 490 230Z" fill="#fff" stroke="#1c1b22" stroke-width="12"/>
<path d="M515 270L515 610L730 610C690 500 610 380 515 270Z" fill="#f2b632" stroke="#1c1b22" stroke-width="12"/><path d="M190 840C300 800 400 880 500 840C600 800 700 880 810 840L760 760L240 760Z" fill="#3c7a4b"/></svg>`),
  )
    .jpeg({ quality: 72 })
    .toBuffer();

const rolls = (page: Page): Locator => page.locator('.rack .roll .name');

test('a flat picture that is dropped stands as its films, is laid out by one click, and comes back as it came', async ({ page }) => {
  await openShelfWith(page, []);
  await dropFiles(page, [{ name: 'badge.jpg', type: 'image/jpeg', bytes: new Uint8Array(await badge()) }]);
  await expect(page.getByText(/^Started as 6 films, one for each tone/)).toBeVisible({ timeout: 60_000 });
  // One click to the sheets of all films.
  await goTo(page, 'Lay out');
  await settled(page);
  await expect(page.locator('.tab', { hasText: 'Lay out' })).toContainText('6 sheets, mirrored');
  await expect(rolls(page)).toHaveCount(6);
  for (const film of ['Regatta blue', 'Pennant red', 'Sail cream', 'Lamp yellow', 'Reed green', 'Tar black']) await expect(rolls(page).filter({ hasText: film })).toHaveCount(1);

  // The white sail is an opening at first; as a film it is the other way to start.
  await goTo(page, 'Picture');
  const white = page.getByRole('group', { name: 'Ways to start' }).getByRole('button', { name: 'With white as a film' });
  await expect(white.locator('canvas')).toBeVisible({ timeout: 30_000 });
  await white.click();
  await expect(white).toHaveAttribute('aria-pressed', 'true');
  await settled(page);
  await goTo(page, 'Separate');
  await expect(rolls(page)).toHaveCount(7);
  await expect(rolls(page).filter({ hasText: 'Foam white' })).toHaveCount(1);

  // Its name on the shelf opens it, as its picture does.
  await page.getByRole('link', { name: 'Shelf' }).or(page.getByRole('button', { name: 'Shelf' })).first().click();
  await page.getByRole('heading', { name: 'Badge' }).click();
  await goTo(page, 'Picture');
  await asItCame(page);
  await goTo(page, 'Separate');
  await expect(rolls(page)).toHaveCount(1);
  await page.keyboard.press('Control+z');
  await expect(rolls(page)).toHaveCount(7);
});

test('of a picture that is no flat art nothing is taken up by itself: ways to start stand side by side', async ({ page }) => {
  const [width, height] = [320, 240];
  const shaded = Buffer.from(Uint8Array.from({ length: width * height * 3 }, (_, i) => Math.round(120 + 70 * Math.sin(i / 5000) + 50 * Math.cos(i / 71_000) + 9 * Math.sin(i * 12.9898))));
  await openShelfWith(page, []);
  await dropFiles(page, [{ name: 'evening.png', type: 'image/png', bytes: new Uint8Array(await sharp(shaded, { raw: { width, height, channels: 3 } }).png().toBuffer()) }]);
  const ways = page.getByRole('group', { name: 'Ways to start' }).getByRole('button');
  await expect(ways).toHaveCount(3, { timeout: 60_000 });
  await expect(page.getByRole('button', { name: 'As it came', exact: true })).toBeDisabled();
  await ways.filter({ hasText: 'Print it' }).click();
  await expect(page.locator('.slip')).toContainText('Waterslide');
  await page.keyboard.press('Control+z');
  await expect(page.locator('.slip')).toContainText('Heat-transfer vinyl');
});

test('a logo with a gradient is offered as a film for each colour, one saved with squares for its clear ground stands without them', async ({ page }) => {
  const logo = `<defs><linearGradient id="g" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#8fc4e6"/><stop offset="1" stop-color="#123a63"/></linearGradient></defs><circle cx="200" cy="200" r="150" fill="FILL"/><path d="M190 90L190 230L100 230Z" fill="#fff"/><path d="M90 250L310 250L270 300L130 300Z" fill="#b3262e"/>`;
  const drawn = (ground: string, fill: string): Promise<Buffer> =>
    sharp(Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="400" height="400">${ground}${logo.replace('FILL', fill)}</svg>`)).flatten({ background: '#fff' }).jpeg({ quality: 80 }).toBuffer();
  const squares = Array.from({ length: 1600 }, (_, k) => ((k + Math.floor(k / 40)) % 2 === 0 ? '' : `<rect x="${(k % 40) * 10}" y="${Math.floor(k / 40) * 10}" width="10" height="10" fill="#ccc"/>`)).join('');

  await openShelfWith(page, []);
  await dropFiles(page, [{ name: 'gradient.jpg', type: 'image/jpeg', bytes: new Uint8Array(await drawn('', 'url(#g)')) }]);
  const first = page.getByRole('group', { name: 'Ways to start' }).getByRole('button', { name: /films, one for each colour/ });
  await expect(first.locator('canvas')).toBeVisible({ timeout: 60_000 });
  await first.click();
  await settled(page);
  await goTo(page, 'Separate');
  await expect(rolls(page)).toHaveCount(2);

  await page.getByRole('link', { name: 'Shelf' }).or(page.getByRole('button', { name: 'Shelf' })).first().click();
  await dropFiles(page, [{ name: 'squares.jpg', type: 'image/jpeg', bytes: new Uint8Array(await drawn(squares, '#24509a')) }]);
  await expect(page.getByText(/^Started as 3 films, one for each tone/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText('The squares around it stand for clear')).toBeVisible();
  await goTo(page, 'Clean');
  await expect(page.getByText('squares that stand for clear')).toBeVisible();
  await goTo(page, 'Separate');
  await settled(page);
  await expect(rolls(page).filter({ hasText: 'Foam white' })).toHaveCount(1);
});
