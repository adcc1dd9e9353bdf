import { strFromU8, unzipSync } from 'fflate';
import { expect } from '@playwright/test';
import { dxfAsRead, pdfAsRead } from '../fixtures/foreignReaders.ts';
import { readPlotter } from '../../src/formats/plotter/readPlotter.ts';
import { goTo, openJob, save, settled, test, unfold } from './bench.ts';
import { stored } from './walk.ts';

test('a job leaves in every kind of file under a name of its own, and the choice is kept', async ({ page }) => {
  await openJob(page, 'Crew crest', 'Hand off');
  await settled(page);
  const files = page.getByRole('region', { name: 'Files', exact: true });
  await expect(files).toContainText('4 sheets, a file each, 305 × 610 mm, mirrored');
  for (const kind of ['Cut lines, DXF R12', 'PDF', 'Plotter language, HP-GL']) await files.getByLabel(`${kind} among the files to save`).check();
  await files.getByLabel('Names begin with').fill('{job}, {width}');
  await files.getByLabel('Names begin with').press('Enter');
  await expect(files).toContainText('Crew crest, 240 mm');
  await settled(page);
  // What is in a file is read back and shown.
  await files.getByRole('button', { name: 'Look into the HP-GL' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'nodes as it is read back' })).toContainText('Crew crest, 240 mm-1-sail-white.hpgl');
  await unfold(page, 'Plotter language');
  await page.getByRole('switch', { name: 'Tell tool, speed and force' }).locator('..').click();
  await settled(page);
  const { name, bytes } = await save(page, 'Save chosen: SVG, DXF R12, PDF, HP-GL');
  expect(name).toBe('Crew crest, 240 mm.zip');
  const found = unzipSync(new Uint8Array(bytes));
  const names = Object.keys(found);
  expect([names.filter((each) => each.endsWith('.svg')).length, names.filter((each) => each.endsWith('.hpgl')).length]).toEqual([4, 4]);
  const cut = dxfAsRead(strFromU8(found['Crew crest, 240 mm-r12.dxf']));
  const pdf = await pdfAsRead(found['Crew crest, 240 mm.pdf']);
  expect(pdf.layers).toEqual(['Sail white', 'Harbour navy', 'Rust', 'Sand']);
  expect(pdf.pages.reduce((sum, page) => sum + page.lengthMm, 0) / cut.lengthMm).toBeCloseTo(1, 3);
  expect(readPlotter(found['Crew crest, 240 mm-2-harbour-navy.hpgl'], 'a.hpgl')).toMatchObject({ speedMmS: 300, forceG: 90 });
  await goTo(page, 'Lay out');
  await goTo(page, 'Hand off');
  await expect(files.getByLabel('PDF among the files to save')).toBeChecked();
  expect(await stored(page)).toContain('"files":["svg","dxf-r12","pdf","hpgl"]');
});
