import { strToU8 } from 'fflate';
import fc from 'fast-check';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { decodeFile } from './decodeFile.ts';
import { discFiles } from '../tests/fixtures/files.ts';
import { isAppError } from '../src/core/errors/appError.ts';
import { cameraOf } from '../src/formats/picture/cameraOf.ts';
import { isSvg } from '../src/formats/picture/drawSvg.ts';

const svg = (body: string, size = 'width="80mm" height="40mm" viewBox="0 0 80 40"'): Uint8Array<ArrayBuffer> => new Uint8Array(strToU8(`<?xml version="1.0"?>\n<!-- a buoy -->\n<svg xmlns="http://www.w3.org/2000/svg" ${size}>${body}</svg>`));
const codeOfDecoding = async (bytes: Uint8Array<ArrayBuffer>): Promise<string> => {
  try {
    await decodeFile(bytes, 'buoy.svg', { drawnSidePx: 200 });
    return 'fine';
  } catch (error) {
    if (!isAppError(error)) throw error;
    return error.code;
  }
};

describe('an SVG', () => {
  it('is told by its beginning', async () => {
    expect(isSvg(svg(''))).toBe(true);
    expect(isSvg(strToU8('<svg></svg>'))).toBe(true);
    expect(isSvg(strToU8('<?xml version="1.0"?><html></html>'))).toBe(false);
    for (const bytes of Object.values(await discFiles())) expect(isSvg(bytes)).toBe(false);
  });

  it('is drawn at the chosen size, clear around it, with straight alpha', async () => {
    const { picture, drawnSidePx } = await decodeFile(svg('<rect x="20" y="10" width="40" height="20" fill="#c02040" opacity="0.5"/>'), 'buoy.svg', { drawnSidePx: 400 });
    expect([picture.width, picture.height, drawnSidePx]).toEqual([400, 200, 400]);
    const at = (x: number, y: number): number[] => [...picture.data.subarray((y * 400 + x) * 4, (y * 400 + x) * 4 + 4)];
    expect(at(5, 5)).toEqual([0, 0, 0, 0]);
    const [r, g, b, a] = at(200, 100);
    expect(Math.max(Math.abs(r - 0xc0), Math.abs(g - 0x20), Math.abs(b - 0x40), Math.abs(a - 128))).toBeLessThanOrEqual(2);
  });

  it('shows its text in the shipped font', async () => {
    const { picture } = await decodeFile(svg('<text x="5" y="30" font-size="24" font-family="No Such Font">Regatta</text>'), 'buoy.svg', { drawnSidePx: 400 });
    let inked = 0;
    for (let i = 3; i < picture.data.length; i += 4) if (picture.data[i] > 128) inked++;
    expect(inked).toBeGreaterThan(2000);
  });

  it('reaches nothing outside itself and runs nothing', async () => {
    const harmless = '<script>throw 1</script><image href="http://localhost:9/x.png" width="9" height="9"/><image href="file:///etc/hostname" width="9" height="9"/><rect width="9" height="9"/>';
    expect(await codeOfDecoding(svg(harmless))).toBe('fine');
    const bomb = `<!DOCTYPE svg [<!ENTITY a "${'a'.repeat(40)}">${['b', 'c', 'd', 'e', 'f', 'g'].map((name, k) => `<!ENTITY ${name} "${`&${'abcdef'[k]};`.repeat(20)}">`).join('')}]><svg xmlns="http://www.w3.org/2000/svg" width="4" height="2"><text>&g;</text></svg>`;
    expect(await codeOfDecoding(new Uint8Array(strToU8(bomb)))).toBe('badDrawing');
  });

  it('says so when it is broken, without a size or too thin', async () => {
    expect(await codeOfDecoding(new Uint8Array(strToU8('<svg xmlns="http://www.w3.org/2000/svg" width="9"><rect')))).toBe('badDrawing');
    expect(await codeOfDecoding(svg('<rect width="4" height="4"/>', 'width="0" height="40"'))).toBe('badDrawing');
    expect(await codeOfDecoding(svg('<rect width="9000" height="1"/>', 'width="9000" height="1"'))).toBe('pictureTooSmall');
  });

  it('ends with its own error or a picture, however it is mutilated', async () => {
    const whole = svg('<g transform="rotate(8)"><path d="M5 5 C 20 30 40 0 60 30 Z" fill="none" stroke="#000" stroke-width="2"/><use href="#x"/><circle id="x" cx="20" cy="20" r="9"/></g>');
    await fc.assert(
      fc.asyncProperty(fc.array(fc.tuple(fc.nat(whole.length - 1), fc.integer({ min: 9, max: 126 })), { maxLength: 6 }), async (changes) => {
        const bytes = whole.slice();
        for (const [at, value] of changes) bytes[at] = value;
        if (isSvg(bytes)) expect(['fine', 'badDrawing', 'pictureTooSmall']).toContain(await codeOfDecoding(bytes));
      }),
      { seed: 31, numRuns: 60 },
    );
  });
});

describe('the camera of a photo', () => {
  const photo = (exif: Record<string, string>): Promise<Buffer> => sharp({ create: { width: 20, height: 20, channels: 3, background: '#888' } }).withExif({ IFD0: exif }).jpeg().toBuffer();

  it('is told by its maker and model', async () => {
    expect(await cameraOf(new Uint8Array(await photo({ Make: 'Harbour', Model: 'Lookout 3' })), 'jpg')).toBe('Harbour Lookout 3');
    expect(await cameraOf(new Uint8Array(await photo({ Make: 'Harbour', Model: 'Harbour Lookout 3' })), 'jpg')).toBe('Harbour Lookout 3');
    expect(await cameraOf(new Uint8Array(await photo({ Make: 'Harbour' })), 'jpg')).toBeUndefined();
  });

  it('is unknown for other files and for broken EXIF', async () => {
    const files = await discFiles();
    for (const type of ['png', 'webp', 'jpg', 'heic', 'tiff'] as const) expect(await cameraOf(files[type], type)).toBeUndefined();
    const bytes = new Uint8Array(await photo({ Make: 'Harbour', Model: 'Lookout 3' }));
    for (let at = 20; at < 120; at++) {
      const broken = bytes.slice();
      broken[at] ^= 0xff;
      expect(['string', 'undefined']).toContain(typeof (await cameraOf(broken, 'jpg')));
    }
  });
});
