import { unzipSync, strFromU8 } from 'fflate';
import { expect } from '@playwright/test';
import { choose, goTo, openJob, save, setQuantity, settled, table, takeCrestApart, test } from './bench.ts';

const rolls = (page: Parameters<typeof openJob>[0]) => page.locator('.rack .roll .name');
const tones = (page: Parameters<typeof openJob>[0]) => page.getByRole('list', { name: 'Tones and their films' }).getByRole('listitem');

test('a crest is taken apart into films that are merged, renamed, ordered and handed off, a sheet each', async ({ page }) => {
  await takeCrestApart(page);
  await expect(page.locator('.tab', { hasText: 'Separate' })).toContainText('4 colours');
  await expect(page.locator('.tab', { hasText: 'Lay out' })).toContainText('4 sheets, mirrored');

  // Yellow is cut with red, by dropping one on the other.
  await tones(page).filter({ hasText: /6\.\d %/ }).dragTo(tones(page).nth(2));
  await expect(rolls(page)).toHaveCount(3);
  await expect(tones(page).filter({ hasText: 'with' })).toHaveCount(1);
  await page.keyboard.press('Control+z');
  await expect(rolls(page)).toHaveCount(4);

  // White is the shirt itself: no film.
  await page.getByRole('button', { name: /What to do with tone 1/ }).click();
  await page.getByRole('menuitem', { name: 'Make it background' }).click();
  await expect(rolls(page)).toHaveCount(3);
  await expect(tones(page).first()).toContainText('Background, not cut');

  await page.getByLabel('Name of film Dark blue').fill('Harbour navy');
  await page.getByLabel('Name of film Dark blue').press('Enter');
  await expect(rolls(page).first()).toContainText('Harbour navy');

  // The order on the rack is that in which films go on.
  await page.locator('.rack .roll').nth(2).focus();
  await page.keyboard.press('Alt+ArrowLeft');
  await expect(rolls(page).nth(1)).toContainText('Yellow');
  await choose(page, 'How films meet', 'inset');
  await settled(page);

  await goTo(page, 'Lay out');
  await expect(page.getByRole('heading', { name: 'Harbour navy sheet' })).toBeVisible();
  await page.locator('.rack .roll').nth(1).click();
  await expect(page.getByRole('heading', { name: 'Yellow sheet' })).toBeVisible();
  await goTo(page, 'Hand off');
  await settled(page);
  const { name, bytes } = await save(page, 'Save SVG');
  expect(name).toBe('Crest, one film, SVG.zip');
  const files = unzipSync(new Uint8Array(bytes));
  expect(Object.keys(files).sort()).toEqual(['Crest, one film-1-harbour-navy.svg', 'Crest, one film-2-yellow.svg', 'Crest, one film-3-red.svg']);
  const widths = Object.values(files).map((file) => /width="([\d.]+)mm"/.exec(strFromU8(file))?.[1]);
  expect(new Set(widths).size).toBe(1);
  const dxf = await save(page, 'Save DXF');
  expect(dxf.name).toBe('Crest, one film.dxf');
  expect(dxf.bytes.toString('latin1')).toContain('HARBOUR-NAVY');
});

test('tones are counted anew, one is added from the art, and a photo is cut in tones of lightness', async ({ page }) => {
  await takeCrestApart(page, ['Lighthouse mug']);
  // The yellow would go first; held, it stays and another one goes.
  const holding = async (action: RegExp): Promise<void> => {
    await page.getByRole('button', { name: /What to do with tone \d, Yellow/ }).click();
    await page.getByRole('menuitem', { name: action }).filter({ visible: true }).click();
    await expect(page.getByRole('menuitem').filter({ visible: true })).toHaveCount(0);
  };
  await holding(/^Lock/);
  await expect(tones(page).getByRole('img', { name: 'Locked' })).toHaveCount(1);
  await setQuantity(page, 'Tones with background', '4');
  await expect(rolls(page)).toHaveCount(3);
  await expect(rolls(page).filter({ hasText: 'Yellow' })).toHaveCount(1);
  await holding(/^Unlock/);
  await expect(tones(page).getByRole('img', { name: 'Locked' })).toHaveCount(0);
  await expect(rolls(page).filter({ hasText: 'Yellow' })).toHaveCount(0);
  await settled(page);
  await expect(rolls(page)).toHaveCount(3);
  await page.getByRole('button', { name: 'Add a tone from the art' }).click();
  const box = await table(page).boundingBox();
  // The sun, right of the mast.
  await page.mouse.click((box?.x ?? 0) + (box?.width ?? 0) * 0.62, (box?.y ?? 0) + (box?.height ?? 0) * 0.33);
  await expect(rolls(page)).toHaveCount(4);
  // Its colour is set anew from the ground of the sea: what was sun goes to another tone.
  await page.getByRole('button', { name: /What to do with tone 4/ }).click();
  await page.getByRole('menuitem', { name: 'Pick its colour from the art' }).filter({ visible: true }).click();
  const tone = tones(page).nth(3).locator('.tone');
  const before = await tone.getAttribute('title');
  await page.mouse.click((box?.x ?? 0) + (box?.width ?? 0) * 0.58, (box?.y ?? 0) + (box?.height ?? 0) * 0.62);
  await expect(tone).not.toHaveAttribute('title', before ?? '');
  await page.keyboard.press('Control+z');
  await expect(tone).toHaveAttribute('title', before ?? '');
  await page.getByRole('button', { name: 'Find again' }).click();
  await settled(page);

  await openJob(page, 'Lighthouse mug', 'Separate');
  await choose(page, 'Way of separating', 'tones of a photo');
  await expect(rolls(page)).toHaveCount(2, { timeout: 30_000 });
  await setQuantity(page, 'Tones with the blank', '4');
  await expect(rolls(page)).toHaveCount(3);
  await setQuantity(page, 'Step 1, lightness', '40');
  await settled(page);
  await expect(page.getByLabel('Step 1, lightness')).toHaveValue('40');
});

test('single areas are pointed at, and the proof tells what a misplaced film would show', async ({ page }) => {
  await takeCrestApart(page);
  const pieces = async (name: string): Promise<number> => Number(/(\d+) piece/.exec((await page.locator('.rack .roll', { hasText: name }).locator('.facts').textContent()) ?? '')?.[1]);
  const before = await pieces('Yellow');

  // The sun becomes a cut of its own, then goes.
  await choose(page, 'What a pointed area becomes', 'a cut of its own');
  await page.getByRole('button', { name: 'Pick areas' }).click();
  const box = await table(page).boundingBox();
  const sun = { x: (box?.x ?? 0) + (box?.width ?? 0) * 0.62, y: (box?.y ?? 0) + (box?.height ?? 0) * 0.33 };
  await page.mouse.click(sun.x, sun.y);
  await expect(rolls(page)).toHaveCount(5);
  await expect(rolls(page).last()).toContainText('Yellow, apart');
  expect(await pieces('Yellow, apart')).toBe(1);
  await choose(page, 'What a pointed area becomes', 'not cut');
  await page.mouse.click(sun.x, sun.y);
  await expect(rolls(page)).toHaveCount(4);
  await settled(page);
  expect(await pieces('Yellow')).toBe(before - 1);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Reset all areas' }).click();
  await settled(page);
  expect(await pieces('Yellow')).toBe(before);

  await choose(page, 'How films meet', 'inset');
  await page.getByRole('radiogroup', { name: 'View' }).getByText('proof').click();
  const card = page.getByRole('region', { name: 'Proof' });
  const differs = async (): Promise<number> => Number(/([\d.]+) %/.exec((await card.textContent()) ?? '')?.[1]);
  await expect.poll(differs, { timeout: 20_000 }).toBeLessThan(5);
  const whole = await differs();
  const shift = page.getByLabel(/^Shift .* by$/);
  await shift.fill('1');
  await shift.press('Enter');
  await expect(card).toContainText('A reach of 1 mm would close the gaps.');
  await expect.poll(differs).toBeGreaterThan(whole);
});
