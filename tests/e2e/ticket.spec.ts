import { expect } from '@playwright/test';
import { codeOnPage } from '../fixtures/foreignReaders.ts';
import { choose, openJob, save, settled, test } from './bench.ts';

test('a ticket says what a job takes, carries the order, runs its timers, and is scanned to find the job again', async ({ page }) => {
  await openJob(page, 'Crew crest', 'Hand off');
  await settled(page);
  await page.getByRole('link', { name: 'Open the ticket' }).click();
  const paper = page.getByRole('article', { name: 'Ticket' });
  await expect(paper).toContainText('Press Sail white: 155 °C', { timeout: 30_000 });
  await expect(paper).toContainText('below the collar');
  await page.getByLabel('Customer').fill('Mill Lane Rowing');
  await page.getByLabel('Customer').press('Tab');
  await choose(page, 'How far it has come', 'approved');
  await expect(paper).toContainText('Mill Lane Rowing');
  await expect(paper).toContainText('approved');
  await page.getByRole('button', { name: /^Start Press Sail white/ }).click();
  await expect(page.getByRole('timer')).toContainText(/\d+ s left/);
  const { name, bytes } = await save(page, 'Save ticket');
  expect(name).toBe('Crew crest, ticket.pdf');
  const code = await codeOnPage(bytes);
  expect(code).toMatch(/^LIMNER [0-9A-Z]{8}$/);
  await settled(page);
  await page.getByRole('button', { name: '‹ Shelf' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'Crew crest' })).toContainText('approved · Mill Lane Rowing');
  // A copy is an order of its own, for the same customer.
  await page.getByRole('button', { name: 'More for Crew crest', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).filter({ visible: true }).click();
  const copy = page.getByRole('listitem').filter({ hasText: 'Crew crest, copy' });
  await expect(copy).toContainText('asked · Mill Lane Rowing');
  await choose(page, 'How far it has come', 'approved');
  await expect(copy).toHaveCount(0);
  await expect(page.getByRole('status').filter({ hasText: 'job' })).toHaveText('1 job');
  await page.getByRole('button', { name: 'Show all', exact: true }).click();
  // A scanner types what it reads, and Enter.
  await page.getByLabel('Find jobs').fill(code ?? '');
  await expect(page.getByRole('status').filter({ hasText: 'job' })).toHaveText('1 job');
  await page.getByLabel('Find jobs').press('Enter');
  await expect(page.getByRole('heading', { name: 'Crew crest' }).first()).toBeVisible();
  await expect(page).toHaveURL(/\/job\//);
});
