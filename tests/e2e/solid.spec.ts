import { expect } from '@playwright/test';
import sharp from 'sharp';
import { openJob, test } from './bench.ts';

test('a mug is turned by dragging, in three dimensions, with what is printed on it', async ({ page }) => {
  await openJob(page, 'Lighthouse mug', 'Lay out');
  await page.getByRole('radio', { name: 'on the blank' }).click();
  const mug = page.getByRole('img', { name: 'Mug, to be turned by dragging' });
  await expect(mug).toBeVisible({ timeout: 30_000 });
  const box = (await mug.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  /** How much of the picture is the red of the lighthouse's bands. */
  const red = async (): Promise<number> => {
    const shot = await page.screenshot({ clip: { x: middle.x - 100, y: middle.y - 100, width: 200, height: 200 } });
    const { data, info } = await sharp(shot).removeAlpha().raw().toBuffer({ resolveWithObject: true });
    let count = 0;
    for (let i = 0; i < data.length; i += 3) if (data[i] > 120 && data[i + 1] < 90 && data[i + 2] < 90) count++;
    return count / (info.width * info.height);
  };
  await expect.poll(red, { timeout: 30_000 }).toBeGreaterThan(0.03);
  // Turned half around, its back is in front.
  await page.mouse.move(middle.x, middle.y);
  await page.mouse.down();
  await page.mouse.move(middle.x + box.height / 2, middle.y, { steps: 8 });
  await page.mouse.up();
  await expect.poll(red).toBeLessThan(0.005);
  await expect(page.getByRole('button', { name: 'Save picture for the customer' })).toBeEnabled();
});
