import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { expect, type Locator, type Page } from '@playwright/test';
import { unzipSync, strFromU8 } from 'fflate';
import sharp from 'sharp';
import { choose, drag, dropFiles, goTo, openJob, openShelfWith, save, setQuantity, settled, table, test } from './bench.ts';
import { fitted } from '../../src/ui/viewport.ts';
import { boxOf, readCutFile } from './svgGeometry.ts';

const svg = (width: number, height: number, body: string): string => `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="${width}" height="${height}" fill="#fff"/>${body}</svg>`;
/** Drops a drawing as a picture that was photographed from a screen, and waits until its films stand. */
async function dropDrawing(page: Page, name: string, drawing: string): Promise<void> {
  await openShelfWith(page, []);
  await dropFiles(page, [{ name: `${name}.png`, type: 'image/png', bytes: new Uint8Array(await sharp(Buffer.from(drawing)).png().toBuffer()) }]);
  await expect(page.locator('.job')).toHaveAttribute('data-current', 'true', { timeout: 60_000 });
  await goTo(page, 'Assemble');
  await settled(page);
}
const parts = (page: Page): Locator => page.getByRole('list', { name: 'Parts of the design' }).getByRole('button');
const rolls = (page: Page): Locator => page.locator('.rack .roll');
const piecesOf = async (page: Page, film: string): Promise<number> => Number(/(\d+) piece/.exec((await rolls(page).filter({ hasText: film }).locator('.facts').textContent()) ?? '')?.[1]);

async function operate(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Do something to it' }).click();
  await page.getByRole('menuitem', { name }).click();
  await settled(page);
}
async function add(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Add a part' }).click();
  await page.getByRole('menuitem', { name }).first().click();
  await settled(page);
}

/** Clicks a place of the design, mm from its upper left. */
async function pointAt(page: Page, xMm: number, yMm: number): Promise<void> {
  const surface = await table(page).boundingBox();
  const blank = /printable area ([\d.]+) mm × ([\d.]+) mm/.exec((await page.locator('.tray-card', { hasText: 'Place on the blank' }).textContent()) ?? '');
  if (surface === null || blank === null) throw new Error('no light table');
  const view = fitted({ x: 0, y: 0, width: Number(blank[1]), height: Number(blank[2]) }, surface);
  const at = async (label: string): Promise<number> => Number.parseFloat(await page.getByLabel(label, { exact: true }).inputValue());
  const [left, top] = [await at('From the left'), await at('From the top')];
  await table(page).click({ position: { x: view.x + (left + xMm) * view.scale, y: view.y + (top + yMm) * view.scale } });
}

test('a line drawing is coloured with three films, area by area', async ({ page }) => {
  const lantern = svg(900, 900, '<g fill="none" stroke="#1c1b22" stroke-width="16"><rect x="250" y="300" width="400" height="420"/><path d="M400 300V720"/><path d="M230 300L450 120L670 300Z"/></g>');
  await dropDrawing(page, 'lantern', lantern);
  await expect(rolls(page)).toHaveCount(1);
  await parts(page).first().click();
  const areas = page.getByRole('group', { name: 'Enclosed areas' }).getByRole('button');
  for (const [k, film] of ['Lamp yellow', 'Buoy orange', 'Pennant red'].entries()) {
    await operate(page, 'Fill between lines');
    await expect(areas).toHaveCount(3);
    await choose(page, 'Film of the operation', film);
    await settled(page);
    await areas.nth(k).click();
    await settled(page);
    await expect(areas.nth(k)).toHaveAttribute('aria-pressed', 'true');
    await expect(rolls(page).filter({ hasText: film })).toContainText('1 piece');
  }
  // Pointed at on the table the second pane goes back to paper, and comes again.
  await page.getByRole('list', { name: 'Operations' }).getByRole('button', { name: /^Fill between lines.*Buoy orange/ }).click();
  const filled = areas.and(page.locator('[aria-pressed="true"]'));
  await expect(filled).toHaveCount(1);
  // The art reaches from 206 px on over 488 px; its narrower pane lies on the left.
  const whole = Number.parseFloat(await page.getByLabel('Its width', { exact: true }).inputValue());
  await pointAt(page, ((325 - 206) * whole) / 488, whole * 0.9);
  await expect(filled).toHaveCount(0, { timeout: 20_000 });
  await page.keyboard.press('Control+z');
  await expect(filled).toHaveCount(1);
  await goTo(page, 'Lay out');
  await settled(page);
  await expect(page.locator('.tab', { hasText: 'Lay out' })).toContainText('4 sheets, mirrored');
});

test('a word is knocked out of a bar with a line around it, as one part that stays text', async ({ page }) => {
  await openJob(page, 'Crest, one film', 'Assemble');
  await add(page, 'Lettering');
  await page.getByLabel('Text', { exact: true }).fill('REGATTA');
  await page.getByLabel('Text', { exact: true }).press('Tab');
  await choose(page, 'Font', 'Alfa Slab One, slab');
  await settled(page);
  await operate(page, 'Field behind');
  await page.getByRole('switch', { name: 'Knock it out of the field' }).locator('..').click();
  await choose(page, 'Film of the operation', 'Rosehip');
  await settled(page);
  // The field, and what lies in R, A and A: the letters are openings.
  expect(await piecesOf(page, 'Rosehip')).toBe(4);
  await operate(page, 'Line along the edge');
  await choose(page, 'Film of the operation', 'Rosehip');
  await settled(page);
  expect(await piecesOf(page, 'Rosehip')).toBe(5);
  // Another word goes through all that is done to it.
  await page.getByLabel('Text', { exact: true }).fill('ROW');
  await page.getByLabel('Text', { exact: true }).press('Tab');
  await settled(page);
  expect(await piecesOf(page, 'Rosehip')).toBe(4);
  await page.getByRole('button', { name: 'Mirror left to right' }).click();
  await settled(page);
  expect(await piecesOf(page, 'Rosehip')).toBe(4);
  // A word that was turned over is told.
  await expect(rolls(page).filter({ hasText: 'Rosehip' }).locator('.pin')).toHaveText('1');
});

test('a panel of several sheets has a band and hanging holes in every one of them', async ({ page }) => {
  const harbour = svg(800, 600, '<rect width="800" height="600" fill="#f4ead2"/><circle cx="560" cy="200" r="90" fill="#f2b632"/><path d="M0 380C200 300 320 460 800 360V600H0Z" fill="#7fb2d9"/><path d="M200 420H520L470 520H250Z" fill="#22375f"/><path d="M350 120V410H240C280 320 320 220 350 120Z" fill="#b3262e"/>');
  await dropDrawing(page, 'harbour', harbour);
  await setQuantity(page, 'Width', '150');
  await add(page, 'Base under all');
  await choose(page, 'Form of the base', 'rectangle');
  await setQuantity(page, 'Reaches over by', '12');
  await page.getByRole('switch', { name: 'Band on every film' }).locator('..').click();
  await setQuantity(page, 'Band width', '20');
  await settled(page);
  await add(page, 'Holes through all');
  await settled(page);
  const films = await rolls(page).count();
  expect(films).toBeGreaterThanOrEqual(5);
  await goTo(page, 'Hand off');
  await settled(page);
  const { bytes } = await save(page, 'Save SVG');
  const sheets = Object.entries(unzipSync(new Uint8Array(bytes)));
  expect(sheets).toHaveLength(films);
  for (const [name, sheet] of sheets) {
    const paths = [...strFromU8(sheet).matchAll(/ d="([^"]+)"/g)].map(([, d]) => [...d.matchAll(/-?\d+(?:\.\d+)?/g)].map(([value]) => Number(value)));
    const widths = paths.map((values) => {
      const xs = values.filter((_, k) => k % 2 === 0);
      return Math.max(...xs) - Math.min(...xs);
    });
    expect(widths.filter((width) => Math.abs(width - 6) < 0.1).length, name).toBe(2);
  }
});

test('eleven names make eleven designs, seen side by side and saved together', async ({ page }) => {
  await openJob(page, 'Crest, one film', 'Assemble');
  await add(page, 'Lettering');
  await page.getByLabel('Text', { exact: true }).fill('{Name} {Number}');
  await page.getByLabel('Text', { exact: true }).press('Tab');
  await page.getByText('No wider than', { exact: true }).locator('..').locator('.el-switch').click();
  await setQuantity(page, 'Most width', '150');
  await settled(page);
  const crew = ['Ada', 'Bela', 'Cato', 'Dora', 'Edo', 'Fenna', 'Gijs', 'Hanna-Margarethe', 'Ilse', 'Jop', 'Kees'];
  const list = page.getByLabel('List of names');
  await list.fill('Name\n');
  await expect(page.getByText(/needs a line that names the columns/)).toBeVisible();
  await list.fill(`Name,Number\n${crew.map((name, k) => `${name},${k + 1}`).join('\n')}`);
  await list.press('Tab');
  await settled(page);
  await page.getByRole('button', { name: 'Look at all' }).click();
  const designs = page.getByRole('list', { name: 'Designs' }).getByRole('listitem');
  await expect(designs).toHaveCount(11);
  await expect(designs.locator('canvas')).toHaveCount(11, { timeout: 60_000 });
  const { bytes } = await save(page, 'Save the cut files of all');
  const files = unzipSync(new Uint8Array(bytes));
  expect(Object.keys(files).sort()[0]).toBe('ada-1.svg');
  expect(Object.keys(files)).toHaveLength(11);
  // Ada is narrow; the longest name is no wider than it may be, and every one has the crest above it.
  const widthOf = (name: string): number => {
    const box = boxOf(readCutFile(strFromU8(files[name])).art);
    return box.right - box.left;
  };
  expect(widthOf('hanna-margarethe-8.svg')).toBeCloseTo(widthOf('ada-1.svg'), 0);
});

test('the petals of a flower are found alike, and sewn with an allowance', async ({ page }) => {
  const petal = (turn: number): string => `<ellipse cx="450" cy="230" rx="90" ry="150" fill="#d9788f" transform="rotate(${turn} 450 450)"/>`;
  await dropDrawing(page, 'flower', svg(900, 900, `${[0, 90, 180, 270].map(petal).join('')}<circle cx="450" cy="450" r="62" fill="#f2b632"/>`));
  await expect(rolls(page)).toHaveCount(2);
  await setQuantity(page, 'Width', '150');
  await settled(page);
  await parts(page).first().click();
  const whole = Number.parseFloat(await page.getByLabel('Width', { exact: true }).inputValue());
  await pointAt(page, whole / 2, whole * 0.12);
  await expect(page.getByText('Found 4 times.')).toBeVisible();
  await page.getByRole('button', { name: 'Select all like it' }).click();
  await expect(page.getByRole('heading', { name: '4 pieces' })).toBeVisible();
  await page.getByRole('button', { name: 'Seam allowance' }).click();
  await settled(page);
  await goTo(page, 'Hand off');
  await settled(page);
  const { bytes } = await save(page, 'Save SVG');
  const sheets = Object.values(unzipSync(new Uint8Array(bytes))).map((sheet) => strFromU8(sheet));
  const marked = sheets.filter((sheet) => sheet.includes('-marks"'));
  expect(marked).toHaveLength(1);
  // Four lines to sew along are drawn, and what is cut around them is one piece: the allowances of petals meet.
  const group = /-marks"[^>]*>([\s\S]*?)<\/g>/.exec(marked[0])?.[1] ?? '';
  expect(group.match(/<path/g)).toHaveLength(4);
});

test('a drawing and a second picture come into the design, each with films of its own', async ({ page }) => {
  await openJob(page, 'Crest, one film', 'Assemble');
  const bring = async (choice: string, name: string, mimeType: string, buffer: Buffer): Promise<void> => {
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Add a part' }).click();
    await page.getByRole('menuitem', { name: choice }).click();
    await (await chooser).setFiles({ name, mimeType, buffer });
  };
  await bring('Drawing', 'anchor.svg', 'image/svg+xml', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><rect x="5" y="5" width="50" height="10" fill="#b3262e"/><circle cx="30" cy="30" r="8" fill="#3f7d4f"/></svg>'));
  await expect(parts(page)).toHaveCount(2);
  await expect(parts(page).first()).toContainText('anchor.svg');
  await settled(page);
  await expect(rolls(page)).toHaveCount(3);
  expect(Number.parseFloat(await page.getByLabel('Whole width').inputValue())).toBeCloseTo(50, 1);
  await bring('Drawing', 'broken.svg', 'image/svg+xml', Buffer.from('<svg'));
  await expect(page.locator('.app-error')).toBeVisible();
  await expect(parts(page)).toHaveCount(2);

  await bring('Another picture', 'buoy.png', 'image/png', await sharp(Buffer.from(svg(500, 500, '<circle cx="250" cy="250" r="180" fill="#e5702a"/><rect x="90" y="210" width="320" height="80" fill="#22375f"/>'))).png().toBuffer());
  await expect(parts(page)).toHaveCount(3, { timeout: 60_000 });
  await settled(page);
  await expect(rolls(page).filter({ hasText: 'Buoy orange' })).toHaveCount(1);
  // A double lies on the same films.
  const films = await rolls(page).count();
  await page.getByRole('button', { name: 'Double it' }).click();
  await expect(parts(page)).toHaveCount(4);
  await settled(page);
  await expect(rolls(page)).toHaveCount(films);
  await page.keyboard.press('Control+z');
  await expect(parts(page)).toHaveCount(3);
  await settled(page);
  // Clean and Separate work on either of them, and open what was selected last.
  await parts(page).filter({ hasText: 'buoy.png' }).click();
  await goTo(page, 'Separate');
  await settled(page);
  await expect(page.locator('.tab', { hasText: 'Separate' })).toContainText('2 colours');
  const works = page.locator('.el-select', { has: page.getByRole('combobox', { name: 'Works on', exact: true }) });
  await expect(works).toContainText('2: buoy.png');
  await choose(page, 'Works on', '1: crew-crest.jpg');
  await settled(page);
  await expect(works).toContainText('1: ');
  await choose(page, 'Works on', '2: buoy.png');
  await settled(page);
  await page.reload();
  await expect(page.locator('.job')).toHaveAttribute('data-current', 'true', { timeout: 60_000 });
  await goTo(page, 'Assemble');
  await settled(page);
  await expect(parts(page)).toHaveCount(3);
});

test('traced lettering is set anew in the font that it is most like, then in a font that was brought in', async ({ page }) => {
  await openShelfWith(page, []);
  const face = await readFile(createRequire(import.meta.url).resolve('@fontsource/lora/files/lora-latin-700-normal.woff2'));
  const drawing = svg(900, 420, '<circle cx="450" cy="140" r="100" fill="#b3262e"/><g fill="#22375f"><path d="M150 300H190V400H150Z"/><path d="M230 300H310V325H255V338H300V362H255V375H310V400H230Z"/><path d="M350 300H375V375H420V400H350Z"/><path d="M460 300H485V375H530V400H460Z"/><circle cx="620" cy="350" r="50"/></g><circle cx="620" cy="350" r="26" fill="#fff"/>');
  await dropFiles(page, [{ name: 'hello.png', type: 'image/png', bytes: new Uint8Array(await sharp(Buffer.from(drawing)).png().toBuffer()) }]);
  await expect(page.locator('.job')).toHaveAttribute('data-current', 'true', { timeout: 60_000 });
  await goTo(page, 'Assemble');
  await settled(page);
  await drag(page, [0.05, 0.3], [0.95, 0.62]);
  await expect(page.getByRole('heading', { name: '5 pieces' })).toBeVisible();
  await page.getByRole('button', { name: 'Which font is this?' }).click();
  const likely = page.getByRole('list', { name: 'Likely fonts' }).getByRole('button');
  await expect(likely).toHaveCount(5, { timeout: 60_000 });
  const before = await rolls(page).filter({ hasText: 'navy' }).textContent();
  await likely.first().click();
  await expect(parts(page)).toHaveCount(2);
  await settled(page);
  await page.getByLabel('Text', { exact: true }).fill('IELLO');
  await page.getByLabel('Text', { exact: true }).press('Tab');
  await settled(page);
  expect(Number(/(\d+) pieces/.exec((await rolls(page).filter({ hasText: 'navy' }).textContent()) ?? '')?.[1])).toBe(Number(/(\d+) pieces/.exec(before ?? '')?.[1]));

  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Own font' }).click();
  await (await chooser).setFiles({ name: 'boathouse.woff2', mimeType: 'font/woff2', buffer: Buffer.from('no font at all') });
  await expect(page.locator('.app-error')).toContainText('boathouse.woff2');
  const again = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Own font' }).click();
  await (await again).setFiles({ name: 'boathouse.woff2', mimeType: 'font/woff2', buffer: face });
  await expect(page.getByRole('button', { name: 'Forget it' })).toBeVisible({ timeout: 20_000 });
  await settled(page);
  await page.reload();
  await expect(page.locator('.job')).toHaveAttribute('data-current', 'true', { timeout: 60_000 });
  await settled(page);
  await parts(page).first().click();
  await expect(page.getByRole('button', { name: 'Forget it' })).toBeVisible();
});

test('a tag is drawn with the pen and sized by its grips, its name follows its edge, and what overlaps is joined', async ({ page }) => {
  await dropDrawing(page, 'float', svg(700, 700, '<circle cx="350" cy="350" r="300" fill="#1f3d6b"/>'));
  const surface = await table(page).boundingBox();
  if (surface === null) throw new Error('no light table');
  const spot = (across: number, down: number): [number, number] => [surface.x + surface.width * across, surface.y + surface.height * down];
  const pull = async (from: [number, number], to: [number, number]): Promise<void> => {
    await page.mouse.move(...from);
    await page.mouse.down();
    await page.mouse.move((from[0] + to[0]) / 2, (from[1] + to[1]) / 2);
    await page.mouse.move(...to);
    await page.mouse.up();
  };
  const size = async (label: string): Promise<number> => Number.parseFloat(await page.getByLabel(label, { exact: true }).inputValue());

  // Drawn corner by corner, the last one a curve; the first one again closes it.
  await page.getByRole('button', { name: 'Add a part' }).click();
  await page.getByRole('menuitem', { name: 'Drawn shape' }).click();
  await expect(page.getByText('The first node again closes the shape')).toBeVisible();
  // The list fades over the table.
  await expect(page.getByRole('menuitem').filter({ visible: true })).toHaveCount(0);
  for (const place of [spot(0.3, 0.5), spot(0.7, 0.5)]) await page.mouse.click(...place);
  await pull(spot(0.7, 0.7), spot(0.6, 0.75));
  await page.mouse.click(...spot(0.3, 0.7));
  await page.mouse.click(...spot(0.3, 0.5));
  await expect(parts(page).first()).toContainText('Drawn shape');
  await settled(page);
  await expect(parts(page)).toHaveCount(2);

  // A node of it is moved: it is higher by as much.
  const [wide, high] = [await size('Whole width'), await size('Whole height')];
  await page.getByRole('button', { name: 'Edit its nodes' }).click();
  await expect(page.getByText('4 nodes, 0 selected')).toBeVisible();
  await pull(spot(0.3, 0.5), spot(0.3, 0.4));
  await expect(page.getByText('4 nodes, 1 selected')).toBeVisible();
  await settled(page);
  await expect.poll(() => size('Whole height')).toBeGreaterThan(high + 5);
  await page.getByRole('button', { name: 'Leave its nodes' }).click();

  // The grip at its upper left pulls it smaller, its proportions kept; undone, it is as it was.
  const before = await size('Whole height');
  await pull(spot(0.3, 0.4), spot(0.45, 0.5));
  await settled(page);
  await expect.poll(() => size('Whole width')).toBeLessThan(0.9 * wide);
  expect(Math.abs((await size('Whole width')) / (await size('Whole height')) - wide / before)).toBeLessThan(0.02);
  await page.getByRole('button', { name: 'Undo' }).click();
  await settled(page);
  await expect.poll(() => size('Whole height')).toBeCloseTo(before, 1);

  // It lies over the float, on the same film: that is told, and joined by a click.
  await expect(page.getByText(/1 overlap of up to .* would be cut twice/)).toBeVisible();
  await page.getByRole('button', { name: 'Join', exact: true }).click();
  await settled(page);
  await expect(page.getByText('overlaps are joined')).toBeVisible();
  await expect(rolls(page).first()).toContainText('1 piece');

  // A name goes along its edge on another film, with letters that only the font's further files have.
  await add(page, 'Lettering');
  await choose(page, 'Film of the part', 'Lamp yellow');
  await page.getByLabel('Text', { exact: true }).fill('Łódź');
  await page.getByLabel('Text', { exact: true }).press('Tab');
  await settled(page);
  await choose(page, 'Stands', 'on a part’s edge');
  await choose(page, 'Part that it follows', 'Drawn shape');
  await settled(page);
  const along = await size('Down');
  await setQuantity(page, 'Away from its edge', '12');
  await settled(page);
  await expect.poll(() => size('Down')).toBeLessThan(along);

  // Inset, nothing lies on two films.
  await choose(page, 'How all films meet', 'inset');
  await settled(page);
  await expect(page.getByText('Most films on one spot')).toHaveCount(0);

  // A film that is chosen on the rack is looked at alone.
  const pixel = (): Promise<string> => page.evaluate(([x, y]) => {
    const canvas = document.querySelector<HTMLCanvasElement>('.surface canvas');
    return [...(canvas?.getContext('2d')?.getImageData(x * window.devicePixelRatio, y * window.devicePixelRatio, 1, 1).data ?? [])].join(' ');
  }, [surface.width * 0.5, surface.height * 0.62]);
  const withAll = await pixel();
  await rolls(page).filter({ hasText: 'Lamp yellow' }).click();
  await expect.poll(pixel).not.toBe(withAll);
  await rolls(page).filter({ hasText: 'Lamp yellow' }).click();
  await expect.poll(pixel).toBe(withAll);

  // A guide comes out of the ruler, and goes back into it.
  await pull([surface.x + 200, surface.y - 10], [surface.x + 200, surface.y + 60]);
  await expect(page.getByLabel('Level, from the top')).toBeVisible();
  await pull([surface.x + 20, surface.y + 60], [surface.x + 20, surface.y - 12]);
  await expect(page.getByLabel('Level, from the top')).toHaveCount(0);

  // Difference with the picture is a view of its own.
  await page.getByRole('radio', { name: 'Over the picture' }).click();
  await page.getByRole('switch', { name: 'Difference' }).locator('..').click();
  await expect(page.getByRole('slider', { name: 'How much of the picture is seen' })).toHaveCount(0);
});
