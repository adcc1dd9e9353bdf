import type { Page } from '@playwright/test';
import sharp from 'sharp';
import { composedDrawing } from './composed.ts';
import { colourDrawings, colourSvgOf } from './colourDrawings.ts';
import { inBrowser } from './browserRun.ts';

const SIDE_PX = 1414;
/** So long it takes to find the file that is dropped, ms. */
const CHOOSING_MS = 5000;

/** Milliseconds from a picture dropped on the shelf: to the first sign of progress, and to its films on the table. */
export interface Dropped {
  readonly progressMs: number;
  readonly shownMs: number;
  readonly films: string;
}

/** Drops a file on a shelf and waits for its films. The time is taken in the page, so that what watches it costs nothing. */
export async function dropAndTime(page: Page, file: { name: string; type: string; bytes: Buffer }): Promise<Dropped> {
  return page.evaluate(async ({ name, type, base64 }) => {
    const data = new DataTransfer();
    data.items.add(new File([Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))], name, { type }));
    const started = performance.now();
    document.body.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true }));
    let progressMs = Infinity;
    return new Promise<{ progressMs: number; shownMs: number; films: string }>((resolve) => {
      const look = (): void => {
        const ms = performance.now() - started;
        if (progressMs === Infinity && document.querySelector('[role="progressbar"], .bringing') !== null) progressMs = ms;
        const job = document.querySelector('.job[data-current="true"]');
        const fact = [...document.querySelectorAll('.tab')].map((tab) => tab.textContent).join(' ');
        if (job !== null && /film|sheet/.test(fact)) resolve({ progressMs, shownMs: ms, films: fact });
        else requestAnimationFrame(look);
      };
      look();
    });
  }, { name: file.name, type: file.type, base64: file.bytes.toString('base64') });
}

/** What one waits for in the browser: from a dropped picture to its films, and from a job's card to all that it shows. */
export async function benchOpen(): Promise<void> {
  const drawings = [colourDrawings()[0], colourDrawings()[1], composedDrawing(60, 4), composedDrawing(61, 4)];
  console.log(`\n### In the browser, ${((SIDE_PX * SIDE_PX) / 1e6).toFixed(1)} megapixels\n\n| picture | progress from, ms | films shown, ms | |\n|---|---|---|---|`);
  await inBrowser(async (newPage) => {
    for (const drawing of drawings) {
      for (const type of ['png', 'jpeg'] as const) {
        const image = sharp(Buffer.from(colourSvgOf(drawing, SIDE_PX, false)), { density: 72 }).flatten({ background: '#fff' });
        const bytes = await (type === 'png' ? image.png() : image.jpeg({ quality: 85 })).toBuffer();
        const page = await newPage();
        // While one looks for the file, the engine gets ready.
        await page.waitForTimeout(CHOOSING_MS);
        const { progressMs, shownMs, films } = await dropAndTime(page, { name: `logo.${type}`, type: `image/${type}`, bytes });
        console.log(`| ${drawing.name}, ${type} | ${progressMs.toFixed(0)} | ${shownMs.toFixed(0)} | ${films} |`);
        await page.context().close();
      }
    }
  });
}
