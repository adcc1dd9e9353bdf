import { unzipSync } from 'fflate';
import { decode } from 'fast-png';
import { expect, type Locator, type Page } from '@playwright/test';
import { choose, drag, goTo, save, setQuantity, settled, table, takeCrestApart, test, unfold } from './bench.ts';

const rolls = (page: Page): Locator => page.locator('.rack .roll .name');
const look = (page: Page, view: string): Promise<void> => page.getByRole('radiogroup', { name: 'View' }).getByText(view, { exact: true }).click();

/** The crest in flat colours, at the view that fits the table: the sun's nodes lie at these shares of it. */
const SUN = { right: [0.6562, 0.3239], top: [0.6107, 0.2663], left: [0.5652, 0.3239], bottom: [0.6107, 0.3815], edge: [0.6429, 0.2832] } as const;

async function click(page: Page, [x, y]: readonly [number, number], keys: { shift?: boolean; twice?: boolean } = {}): Promise<void> {
  const box = await table(page).boundingBox();
  if (box === null) throw new Error('no light table');
  if (keys.shift === true) await page.keyboard.down('Shift');
  await page.mouse.click(box.x + x * box.width, box.y + y * box.height, { clickCount: keys.twice === true ? 2 : 1 });
  if (keys.shift === true) await page.keyboard.up('Shift');
}

test('nodes are dragged, added, taken out, straightened, cut open and joined; what is held asks before it is replaced', async ({ page }) => {
  await takeCrestApart(page);
  await look(page, 'nodes');
  const card = page.getByRole('region', { name: 'Nodes' });
  await expect(card).toContainText('shown');
  const shown = async (): Promise<number> => Number(/(\d+)(?: selected| shown)/.exec((await card.textContent()) ?? '')?.[1]);
  const before = await shown();

  // The sun's right node, dragged outwards.
  await click(page, SUN.right);
  await expect(card).toContainText(`1 of ${before} selected`);
  await drag(page, SUN.right, [0.69, 0.3239]);
  await expect(card).toContainText('Yellow is held by hand');
  await expect(card.getByText('is held by hand')).toHaveCount(1);
  await page.keyboard.press('Control+z');
  await expect(card.getByText('is held by hand')).toHaveCount(0);
  await settled(page);

  // One more on the round, which leaves it as it is, and out again by the keyboard.
  await click(page, SUN.edge, { twice: true });
  await expect.poll(shown).toBe(before + 1);
  await click(page, SUN.edge);
  await expect(card).toContainText('1 of');
  await page.keyboard.press('Delete');
  await expect.poll(shown).toBe(before);

  await click(page, SUN.top);
  await card.getByRole('button', { name: 'Corner' }).click();
  await card.getByRole('button', { name: 'Smooth' }).click();
  await page.keyboard.press('Shift+ArrowUp');
  await settled(page);
  await page.keyboard.press('Shift+ArrowDown');
  await settled(page);

  await click(page, SUN.right);
  await click(page, SUN.bottom, { shift: true });
  await expect(card).toContainText('2 of');
  await card.getByRole('button', { name: 'Straighten' }).click();
  await settled(page);
  expect(await shown()).toBe(before);

  // Cut open at the left: a piece less, and two ends, which are framed and joined.
  const pieces = async (): Promise<number> => Number(/(\d+) piece/.exec((await page.locator('.rack .roll', { hasText: 'Yellow' }).locator('.facts').textContent()) ?? '')?.[1]);
  const whole = await pieces();
  await click(page, SUN.left);
  await card.getByRole('button', { name: 'Cut open' }).click();
  await expect.poll(pieces).toBe(whole - 1);
  await settled(page);
  await drag(page, [SUN.left[0] - 0.02, SUN.left[1] - 0.03], [SUN.left[0] + 0.02, SUN.left[1] + 0.03]);
  await expect(card).toContainText('2 of');
  await card.getByRole('button', { name: 'Join ends' }).click();
  await expect.poll(pieces).toBe(whole);

  // Another setting asks before it takes what is held.
  await unfold(page, 'Outline');
  await setQuantity(page, 'Trace tolerance', '1.5');
  const note = page.getByRole('alert').filter({ hasText: 'held by hand' });
  await expect(note).toContainText('Yellow is held by hand, and what it was made from has changed');
  await note.getByRole('button', { name: 'Keep mine' }).click();
  await expect(note).toHaveCount(0);
  await expect(card).toContainText('Yellow is held by hand');
  await setQuantity(page, 'Trace tolerance', '0.4');
  await note.getByRole('button', { name: 'Trace again' }).click();
  await expect(note).toHaveCount(0);
  await expect(card.getByText('is held by hand')).toHaveCount(0);
});

test('a tone is parted by colour or by place, small ones are offered, and films come from the shelf', async ({ page }) => {
  await takeCrestApart(page);
  const parting = async (tone: RegExp, how: string): Promise<void> => {
    await page.getByRole('button', { name: tone }).click();
    await page.getByRole('menuitem', { name: how }).filter({ visible: true }).click();
  };
  // Of the yellow areas the sun alone lies in the frame.
  await parting(/What to do with tone 4, Yellow/, 'Split by place');
  await expect(page.getByText('Drag a frame around the areas of Yellow')).toBeVisible();
  await drag(page, [0.55, 0.24], [0.7, 0.41]);
  await expect(rolls(page)).toHaveCount(5);
  await expect(rolls(page).last()).toContainText('Yellow, apart');
  await page.keyboard.press('Control+z');
  await expect(rolls(page)).toHaveCount(4);

  await setQuantity(page, 'Tones with background', '4');
  await expect(rolls(page)).toHaveCount(3);
  await settled(page);
  await expect(page.getByRole('group', { name: 'Other numbers of tones' }).getByRole('button', { name: '5 tones' })).toBeEnabled({ timeout: 20_000 });
  await page.getByRole('group', { name: 'Other numbers of tones' }).getByRole('button', { name: '5 tones' }).click();
  await expect(rolls(page)).toHaveCount(4);
  await settled(page);

  await unfold(page, 'Films on the shelf');
  await page.getByRole('button', { name: 'Use nearest for all' }).click();
  await expect(rolls(page).first()).toContainText('Harbour navy');
  await expect(page.getByRole('list', { name: 'Tones and their films' })).toContainText('Δ');
  await page.getByRole('button', { name: 'Edit my films…' }).click();
  await page.getByLabel('Name of the new film').fill('Quay brick');
  await page.getByLabel('Name of the new film').press('Enter');
  await expect(page.getByLabel('Name of Quay brick')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.reload();
  await settled(page);
  await unfold(page, 'Films on the shelf');
  await page.getByRole('button', { name: 'Edit my films…' }).click();
  await expect(page.getByLabel('Name of Quay brick')).toBeVisible();
});

test('two variants stand side by side and one is taken; a border and the outermost edge; a picture of each film', async ({ page }) => {
  await takeCrestApart(page);
  await look(page, 'two variants');
  const card = page.getByRole('region', { name: 'Two variants' });
  await choose(page, 'The other variant', 'back and detail');
  await expect(card.getByRole('row', { name: /^Films/ })).toContainText('42', { timeout: 20_000 });
  await card.getByRole('button', { name: 'Use the other' }).click();
  await expect(rolls(page)).toHaveCount(2, { timeout: 20_000 });
  await expect(rolls(page).first()).toContainText('Back');
  await settled(page);
  await page.getByLabel('Fineness of the detail').focus();
  for (let k = 0; k < 20; k++) await page.keyboard.press('ArrowLeft');
  await settled(page);
  await choose(page, 'How the back is cut', 'full, without openings');
  await settled(page);
  await expect(page.locator('.rack .roll').first()).toContainText('1 piece');

  await unfold(page, 'Border and back');
  await page.getByRole('region', { name: 'Border and back' }).getByText('Border around everything').click();
  await expect(rolls(page)).toHaveCount(3);
  await expect(rolls(page).first()).toContainText('Border');
  await setQuantity(page, 'Border width', '4');
  await page.getByLabel('Name of the border’s film').fill('Foam white');
  await page.getByLabel('Name of the border’s film').press('Enter');
  await expect(rolls(page).first()).toContainText('Foam white');
  await expect(page.getByRole('region', { name: 'Result' })).toContainText('Most films on one spot');
  await goTo(page, 'Hand off');
  await settled(page);
  const { bytes } = await save(page, 'Save PNG');
  const files = unzipSync(new Uint8Array(bytes));
  const films = Object.entries(files).filter(([name]) => /-\d-.*\.png$/.test(name)).sort();
  expect(films.map(([name]) => name.replace(/^.*-(?=\d-)/, ''))).toEqual(['1-foam-white.png', '2-back.png', '3-detail.png']);
  expect(Object.keys(files)).toHaveLength(5);
  const sizes = films.map(([, file]) => decode(file)).map(({ width, height }) => `${width} × ${height}`);
  expect(new Set(sizes).size).toBe(1);

  await goTo(page, 'Separate');
  await page.getByRole('region', { name: 'Border and back' }).getByText('Outer edge only').click();
  await expect(rolls(page)).toHaveCount(1);
  await expect(page.locator('.rack .roll').first()).toContainText('1 piece');
});

test('a pair of films meets in its own way, and an area between lines is filled as far as their middle', async ({ page }) => {
  await takeCrestApart(page);
  await page.getByRole('button', { name: 'Set one pair differently' }).click();
  await choose(page, 'One film of the pair', 'Dark blue');
  await choose(page, 'The other film of the pair', 'Red');
  await page.getByRole('button', { name: 'Add pair' }).click();
  const card = page.getByRole('region', { name: 'How films meet' });
  await expect(card).toContainText('Dark blue and Red');
  await setQuantity(page, 'Reach of this pair', '0.5');
  await settled(page);
  await card.getByRole('button', { name: 'Same as the rest' }).click();
  await expect(card).not.toContainText('Dark blue and Red');

  // White becomes background; then the field with the sun in it is filled.
  await page.getByRole('button', { name: /What to do with tone 1, White/ }).click();
  await page.getByRole('menuitem', { name: 'Make it background' }).click();
  await expect(rolls(page)).toHaveCount(3);
  await choose(page, 'What a pointed area becomes', 'a cut of its own');
  await page.getByRole('button', { name: 'Pick areas' }).click();
  await click(page, [0.36, 0.3]);
  await expect(rolls(page)).toHaveCount(4);
  await expect(rolls(page).first()).toContainText('Fill');
  await expect(card).toContainText('Fill and Dark blue');
});
