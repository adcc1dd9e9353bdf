import { readFile, writeFile } from 'node:fs/promises';
import sharp from 'sharp';
import { decode } from 'fast-png';
import { describe, expect, it } from 'vitest';
import { limner, ownFolder } from '../tests/fixtures/command.ts';
import { discPicture } from '../tests/fixtures/files.ts';
import { photoOf, SHEET_PHOTO, tilted } from '../server/devices/standInCamera.ts';
import { statedDpi } from '../src/formats/picture/statedDpi.ts';
import { markSheetPdf } from '../src/formats/pdf/markSheetPdf.ts';
import { decodeFile } from './decodeFile.ts';

const at = await ownFolder();
const image = () => sharp(Buffer.from(discPicture.data), { raw: { width: 80, height: 60, channels: 4 } });
const save = async (name: string, bytes: Uint8Array): Promise<string> => {
  await writeFile(at(name), bytes);
  return at(name);
};
const pixels = async (name: string) => decode(await readFile(at(name)));

describe('lift --subject', () => {
  it('clears all but the subject, for several pictures, and says when there is none', async () => {
    const disc = await save('disc.png', await image().png().toBuffer());
    const plain = await save('plain.png', await sharp({ create: { width: 40, height: 40, channels: 3, background: '#cde' } }).png().toBuffer());
    const { code, out, err } = await limner('lift', disc, plain, '--subject', '--out', at('lifted'), '--timings');
    expect(code).toBe(1);
    expect(err).toContain('No subject was found');
    expect(out).toMatch(/\d+ px lifted\n1 of 2 pictures done\ndecode_ms=/);
    const { data } = decode(await readFile(at('lifted/disc.png')));
    expect([data[3], data[(30 * 80 + 40) * 4 + 3]]).toEqual([0, 255]);
    expect((await limner('lift', disc, '--subject', '--at', '1,1', '--out', at('x.png'))).code).toBe(2);
    expect((await limner('lift', disc, '--out', at('x.png'))).err).toContain('--subject');
    expect((await limner('lift', disc, '--at', '1,1', '--hair', '4', '--out', at('x.png'))).code).toBe(2);
    expect((await limner('lift', disc, '--subject', '--hair', '4', '--out', at('x.png'))).code).toBe(0);
    const soft = decode(await readFile(at('x.png'))).data;
    expect([soft[3], soft[(30 * 80 + 40) * 4 + 3]]).toEqual([0, 255]);
  });
});

describe('square', () => {
  it('prints scale and residual, and writes a picture that states its true size', async () => {
    const photo = photoOf('letter', tilted('letter', 28, 4, 0.04));
    const file = await save('photo.png', await sharp(photo.data, { raw: { width: SHEET_PHOTO.widthPx, height: SHEET_PHOTO.heightPx, channels: 4 } }).png().toBuffer());
    const { code, out } = await limner('square', file, '--out', at('square.png'), '--keep-light', '--timings');
    expect(code).toBe(0);
    const [, scale, dpi] = /^scale ([\d.]+) px\/mm \(([\d.]+) dpi\), 179\.9 x 243\.4 mm\n/.exec(out) as RegExpExecArray;
    expect(out).toMatch(/residual 0\.0\d\d mm mean, 0\.\d\d\d mm worst, 18 of 18 marks \(letter\)\nlens 0\.0\d+,-?[\d.]+\ndecode_ms=/);
    const bytes = new Uint8Array(await readFile(at('square.png')));
    expect(statedDpi(bytes, 'png')).toBeCloseTo(Number(dpi), 0);
    expect(decode(bytes).width / Number(scale)).toBeCloseTo(179.9, 0);
  });

  it('takes corners by hand and refuses what it cannot read', async () => {
    const file = await save('disc2.png', await image().png().toBuffer());
    expect((await limner('square', file, '--out', at('c.png'), '--marks', '10,10;70,10;70,50;10,50', '--length', '60mm')).out).toContain('60.0 x 40.0 mm');
    expect((await limner('square', file, '--out', at('c.png'))).err).toContain('ring marks');
    for (const wrong of [['--marks', '1,2;3,4'], ['--marks', 'a,b;1,2;3,4;5,6'], ['--length', '20mm'], ['--lens', '9']]) expect((await limner('square', file, '--out', at('c.png'), ...wrong)).code).toBe(2);
    expect((await limner('square', file, '--out', at('c.png'), '--marks', '10,10;70,50;70,10;10,50', '--length', '60mm')).code).toBe(1);
  });

  it('ships the same mark sheets that the command writes', async () => {
    for (const paper of ['a4', 'letter'] as const) {
      expect((await limner('marks', '--paper', paper, '--out', at(`${paper}.pdf`))).code).toBe(0);
      const made = await readFile(at(`${paper}.pdf`));
      expect(made.equals(await readFile(new URL(`../public/mark-sheet-${paper}.pdf`, import.meta.url)))).toBe(true);
      expect(Buffer.from(await markSheetPdf(paper)).equals(made)).toBe(true);
    }
    expect((await limner('marks', '--paper', 'a9', '--out', at('x.pdf'))).code).toBe(2);
  });
});

describe('clean', () => {
  it('turns, mirrors, enlarges and tidies, and states the size of what it enlarged', async () => {
    const file = await save('sized.png', await image().extract({ left: 0, top: 0, width: 80, height: 40 }).withMetadata({ density: 100 }).png().toBuffer());
    expect((await limner('clean', file, '--out', at('t.png'), '--turn', '90', '--mirror', '--enlarge', '2', '--tidy', '1')).code).toBe(0);
    const { width, height } = await pixels('t.png');
    expect([width, height]).toEqual([80, 160]);
    expect(statedDpi(new Uint8Array(await readFile(at('t.png'))), 'png')).toBeCloseTo(200, 0);
    for (const wrong of [['--enlarge', '3'], ['--turn', '45'], ['--tidy', '0'], ['--straighten', '80']]) expect((await limner('clean', file, '--out', at('x.png'), ...wrong)).code).toBe(2);
  });

  it('makes the steps of a recipe of its options: the same pixels', async () => {
    const file = await save('options.png', await image().flatten({ background: '#fff' }).png().toBuffer());
    const base = { enabled: true, v: 1 };
    const recipe = [
      { id: 'a', kind: 'crop', rect: { xPx: 4, yPx: 2, widthPx: 70, heightPx: 54 }, ...base },
      { id: 'b', kind: 'smoothing', strength: 20, ...base },
      { id: 'c', kind: 'levels', points: { black: 10, white: 240 }, gamma: 1.2, saturation: 1, invert: false, ...base },
      { id: 'd', kind: 'turn', mirrored: false, quarters: 1, angleDeg: 0, ...base },
      { id: 'e', kind: 'edgeTidying', amountPx: 1.5, ...base },
    ];
    await writeFile(at('options.json'), JSON.stringify(recipe));
    expect((await limner('clean', file, '--recipe', at('options.json'), '--out', at('recipe.png'))).code).toBe(0);
    expect((await limner('clean', file, '--crop', '4,2,70,54', '--smooth', '20', '--levels', '10,240,1.2', '--turn', '90', '--tidy', '1.5', '--out', at('options-out.png'))).code).toBe(0);
    expect(await pixels('options-out.png')).toEqual(await pixels('recipe.png'));
  });

  it('sweeps by px of the art, whatever the finished size, and says when a step cannot be done', async () => {
    const data = new Uint8Array(120 * 90 * 4).fill(255);
    const fill = (left: number, top: number, side: number): void => {
      for (let y = top; y < top + side; y++) for (let x = left; x < left + side; x++) data.fill(0, 4 * (y * 120 + x), 4 * (y * 120 + x) + 3);
    };
    fill(40, 30, 30);
    fill(10, 10, 3);
    fill(100, 70, 4);
    const file = await save('specks.png', await sharp(data, { raw: { width: 120, height: 90, channels: 4 } }).png().toBuffer());
    for (const width of ['30mm', '400mm']) {
      expect((await limner('clean', file, '--sweep', '12', '--width', width, '--force', '--out', at('swept.png'))).code).toBe(0);
      const swept = await pixels('swept.png');
      const darkAt = (x: number, y: number): boolean => swept.data[(y * 120 + x) * 4] < 128 && swept.data[(y * 120 + x) * 4 + 3] > 128;
      expect([darkAt(11, 11), darkAt(101, 71), darkAt(55, 45)]).toEqual([false, true, true]);
    }
    const plain = await save('plain-sheet.png', await sharp({ create: { width: 40, height: 40, channels: 3, background: '#cde' } }).png().toBuffer());
    expect((await limner('clean', plain, '--full-contrast', '--out', at('x.png'))).code).toBe(1);
  });
});

describe('unusual files', () => {
  it('are read for what they show: four inks, sixteen bits, a palette with clear parts, the first frame of many', async () => {
    const flat = image().flatten({ background: '#fff' });
    const middle = async (bytes: Uint8Array): Promise<number[]> => {
      const { picture } = await decodeFile(new Uint8Array(bytes), 'odd');
      return [...picture.data.subarray((30 * picture.width + 40) * 4, (30 * picture.width + 40) * 4 + 4)];
    };
    const inks = await flat.clone().toColourspace('cmyk').jpeg({ quality: 95 }).toBuffer();
    expect((await middle(inks)).slice(0, 3).every((v) => v < 70)).toBe(true);
    expect((await middle(await flat.clone().toColourspace('rgb16').png().toBuffer())).slice(0, 3).every((v) => v < 40)).toBe(true);
    const holed = sharp(Buffer.from(discPicture.data.map((v, i) => (i % 4 === 3 && discPicture.data[i - 1] > 200 ? 0 : v))), { raw: { width: 80, height: 60, channels: 4 } });
    const palette = await decodeFile(new Uint8Array(await holed.png({ palette: true }).toBuffer()), 'palette.png');
    expect([palette.picture.data[3], palette.picture.data[(30 * 80 + 40) * 4 + 3]]).toEqual([0, 255]);
    const frames = await sharp([await image().png().toBuffer(), await sharp({ create: { width: 80, height: 60, channels: 3, background: '#f00' } }).png().toBuffer()], { join: { animated: true } }).gif({ delay: 100 }).toBuffer();
    const first = await decodeFile(new Uint8Array(frames), 'moving.gif');
    expect([first.picture.width, first.picture.height]).toEqual([80, 60]);
    expect((await middle(frames))[0]).toBeLessThan(60);
  });
});
