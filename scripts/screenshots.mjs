import { spawn } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuild } from './build.mjs';
import { ensurePackages, root } from './setup.mjs';

/**
 * The pictures of docs/screenshots, taken in the running application on the demo jobs. Each view says its job, its stage and what is done before
 * the picture is taken.
 */
const VIEWS = [
  { name: 'shelf' },
  { name: 'picture', job: 'Crew crest', stage: 'Picture', async act(page) {
    await page.locator('.way').last().locator('canvas').waitFor({ timeout: 60_000 });
    await page.locator('.way').first().click();
    await page.locator('.readout [role="status"]').getByText('last').waitFor({ timeout: 60_000 });
    await page.mouse.move(600, 400);
  } },
  { name: 'clean', job: 'Crew crest', stage: 'Clean', async act(page) {
    await page.getByRole('button', { name: /^Area lift/ }).click();
  } },
  { name: 'clean-scan', job: 'Bell buoy tote', stage: 'Clean', async act(page) {
    for (const step of ['Light levelling', 'Gap mending', 'Fewer colours', 'Levels']) {
      await page.getByRole('button', { name: 'Add a step' }).click();
      await page.getByRole('menuitem', { name: step }).click();
      await page.waitForTimeout(2500);
    }
  } },
  { name: 'clean-subject', job: 'Landing stage', stage: 'Clean', async act(page) {
    await page.getByRole('button', { name: 'Add a step' }).click();
    await page.getByRole('menuitem', { name: 'Subject lift' }).click();
    await page.getByText('of the picture lifted').waitFor({ timeout: 60_000 });
    await page.getByRole('radio', { name: 'before | after' }).click();
    await page.locator('.readout [role="status"]').getByText('last').waitFor({ timeout: 60_000 });
  } },
  { name: 'versions', job: 'Crew crest', stage: 'Lay out', async act(page) {
    await page.getByRole('button', { name: 'Versions' }).click();
    await page.getByLabel('Note').fill('before the sail became sand');
    await page.getByRole('button', { name: 'Keep this version' }).click();
    await page.getByText('The job is now as it was then.').waitFor();
    await page.locator('.tab', { hasText: 'Assemble' }).click();
    await page.getByLabel('Width', { exact: true }).fill('180');
    await page.getByLabel('Width', { exact: true }).press('Enter');
    await page.locator('.job[data-current="true"]').waitFor({ timeout: 60_000 });
    await page.getByRole('button', { name: 'Versions' }).click();
    await page.getByRole('img', { name: /^The finished blank, then/ }).waitFor({ timeout: 60_000 });
    await page.getByRole('img', { name: 'The finished blank, now' }).waitFor({ timeout: 60_000 });
  } },
  { name: 'separate', job: 'Crew crest', stage: 'Separate', async act(page) {
    // The other numbers of tones are made once there is time for them.
    await page.locator('.counts canvas').nth(2).waitFor({ timeout: 60_000 });
  } },
  { name: 'assemble', job: 'Crew crest', stage: 'Assemble', async act(page) {
    await page.getByRole('button', { name: 'Add a part' }).click();
    await page.getByRole('menuitem', { name: 'Lettering' }).click();
    await page.getByLabel('Text', { exact: true }).fill('Spring Regatta');
    await page.getByLabel('Text', { exact: true }).press('Tab');
    for (const name of ['Field behind', 'Border']) {
      await page.getByRole('button', { name: 'Do something to it' }).click();
      await page.getByRole('menuitem', { name }).click();
      await page.locator('.job[data-current="true"]').waitFor({ timeout: 60_000 });
    }
    await page.locator('.tray .cards').evaluate((element) => element.scrollTo(0, 620));
    await page.mouse.move(600, 400);
  } },
  { name: 'assemble-apart', job: 'Crew crest', stage: 'Assemble', async act(page) {
    await page.getByRole('radio', { name: 'Films apart' }).click();
    await page.waitForTimeout(600);
  } },
  { name: 'layout', job: 'Crew crest', stage: 'Lay out' },
  { name: 'layout-page', job: 'Lighthouse mug', stage: 'Lay out', async act(page) {
    await page.getByText('9 motifs on 1 page').waitFor();
    await page.waitForTimeout(1500);
  } },
  { name: 'layout-blank', job: 'Crew crest', stage: 'Lay out', async act(page) {
    await page.getByRole('radio', { name: 'on the blank' }).click();
    await page.getByText('Sand, 4 of 4').waitFor({ timeout: 60_000 });
    await page.locator('.row', { hasText: 'Placement guide of card' }).locator('.el-switch__core').click();
    await page.getByText('Its upper notch on the middle of the collar').waitFor();
    await page.waitForTimeout(2500);
  } },
  { name: 'layout-dark', job: 'Duck race soap', stage: 'Lay out', theme: 'dark' },
  { name: 'separate-nodes', job: 'Crest, one film', stage: 'Separate', theme: 'dark', async act(page) {
    await takeApart(page);
    await page.getByRole('radio', { name: 'nodes' }).click();
    await page.waitForTimeout(1500);
    // The sun's right node is drawn out to a drop, then all that follows is traced otherwise.
    const box = await page.locator('.surface').boundingBox();
    const at = (x, y) => [box.x + x * box.width, box.y + y * box.height];
    await page.mouse.move(...at(0.6555, 0.324));
    await page.mouse.down();
    await page.mouse.move(...at(0.69, 0.332), { steps: 4 });
    await page.mouse.up();
    await page.waitForTimeout(2500);
  } },
  { name: 'workshop', async act(page) {
    await page.getByRole('link', { name: 'Workshop' }).click();
    await page.getByRole('button', { name: /^Materials/ }).click();
    await page.getByRole('button', { name: /^Glitter/ }).click();
  } },
  { name: 'together', async act(page) {
    await page.getByRole('link', { name: 'Several on one sheet' }).click();
    // On the shelf a click on a job's name would open it.
    await page.getByRole('button', { name: 'Lay them out' }).waitFor();
    await page.getByText('Crew crest').click();
    await page.getByText('Crest, one film').click();
    await page.getByLabel('Copies', { exact: true }).last().fill('3');
    await page.getByLabel('Copies', { exact: true }).last().press('Enter');
    await page.getByRole('button', { name: 'Lay them out' }).click();
    await page.getByRole('button', { name: /^Harbour navy: jobs/ }).click({ timeout: 60_000 });
  } },
  { name: 'hand-off', job: 'Crew crest', stage: 'Hand off', async act(page) {
    await page.getByRole('button', { name: 'Look into the PDF' }).waitFor();
    for (const kind of ['PDF', 'Plotter language, HP-GL']) await page.getByLabel(`${kind} among the files to save`).check();
    await page.getByRole('button', { name: 'Look into the HP-GL' }).click();
    await page.getByText('as it is read back').waitFor({ timeout: 60_000 });
  } },
  { name: 'ticket', job: 'Crew crest', stage: 'Hand off', async act(page) {
    await page.getByRole('link', { name: 'Open the ticket' }).click();
    await page.getByText('Then, in this order').first().waitFor({ timeout: 60_000 });
    await page.getByLabel('Customer').fill('Mill Lane Rowing');
    await page.getByLabel('Customer').press('Tab');
    await page.getByRole('article', { name: 'Ticket' }).getByText('Mill Lane Rowing').waitFor({ timeout: 60_000 });
    await page.waitForTimeout(1500);
  } },
  { name: 'machine', job: 'Crew crest', stage: 'Hand off', async act(page) {
    await page.getByRole('link', { name: 'Open the cutter' }).click();
    await page.getByRole('button', { name: 'Harbour navy' }).click();
    await page.getByRole('button', { name: 'It is loaded' }).click();
    await page.getByRole('button', { name: 'Cut', exact: true }).click();
    await page.getByText(/^[1-9]\d* of \d+ lines, /).waitFor({ timeout: 60_000 });
  } },
];

async function choose(page, label, option) {
  await page.locator('.el-select', { has: page.getByRole('combobox', { name: label, exact: true }) }).click();
  await page.getByRole('option', { name: option, exact: true }).filter({ visible: true }).click();
}

/** Separates into flat colours. */
async function takeApart(page) {
  await choose(page, 'Way of separating', 'flat colours');
  await page.locator('.rack .roll').nth(3).waitFor({ timeout: 30_000 });
}

/** Starts the application on a free port and gives its address. */
function serve() {
  const server = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], { cwd: root, stdio: ['ignore', 'pipe', 'inherit'] });
  return new Promise((resolve, reject) => {
    server.on('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    server.stdout.on('data', (text) => {
      const address = /http:\S+/.exec(String(text))?.[0];
      if (address !== undefined) resolve({ server, address });
    });
  });
}

ensurePackages();
ensureBuild();
const { chromium } = await import('@playwright/test');
const wanted = process.argv.slice(2);
const folder = join(root, 'docs/screenshots');
mkdirSync(folder, { recursive: true });
const { server, address } = await serve();
const browser = await chromium.launch({ executablePath: process.env.LIMNER_CHROMIUM ?? '/usr/bin/chromium', args: ['--no-sandbox'] });
try {
  for (const { name, job, stage, theme, act } of VIEWS) {
    if (wanted.length > 0 && !wanted.includes(name)) continue;
    // Each view has a shelf of its own: what is done for one picture shows in no other.
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.addInitScript((chosen) => {
      localStorage.setItem('limner.theme', chosen);
      localStorage.setItem('limner.tour', JSON.stringify({ is: 'left' }));
    }, theme ?? 'light');
    await page.goto(address);
    await page.getByRole('button', { name: 'Open Crew crest' }).waitFor({ timeout: 90_000 });
    await page.locator('.bringing').waitFor({ state: 'detached', timeout: 90_000 });
    if (job !== undefined) {
      await page.getByRole('button', { name: `Open ${job}`, exact: true }).click();
      await page.locator('.tab', { hasText: stage }).first().click();
      await page.locator('.readout [role="status"]').getByText('last').waitFor({ timeout: 60_000 });
    }
    await act?.(page);
    if (act !== undefined || job !== undefined) await page.waitForTimeout(1200);
    await page.screenshot({ path: join(folder, `${name}.png`) });
    await page.close();
    process.stdout.write(`docs/screenshots/${name}.png\n`);
  }
} finally {
  await browser.close();
  server.kill();
}
