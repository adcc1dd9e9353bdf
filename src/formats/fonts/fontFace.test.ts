import * as fontkit from 'fontkit';
import { describe, expect, it } from 'vitest';
import { loadFont } from '../../../cli/loadFont.ts';
import { packageFile } from '../../../cli/packageFile.ts';
import type { FontFace } from '../../core/lettering/fontFace.ts';
import { fontFace, type FontLibrary } from './fontFace.ts';

const hebrew = fontFace(fontkit as unknown as FontLibrary, new Uint8Array(await packageFile('@fontsource/amatic-sc/files/amatic-sc-hebrew-700-normal.woff2')), 'hebrew.woff2');
const read = (line: string): string => hebrew.shape(line).map(({ text }) => text).join('');

describe('a font', () => {
  it('tells each character that it does not have', () => {
    expect(hebrew.shape('אЖЩ').flatMap(({ isMissing, text }) => (isMissing ? [text] : []))).toEqual(['Ж', 'Щ']);
  });
});

describe('writing from right to left', () => {
  it('stands with its first letter on the right', () => {
    expect(read('אבג')).toBe('גבא');
    expect(hebrew.shape('אבג').some(({ isMissing }) => isMissing)).toBe(false);
  });

  it('keeps figures and words of the other direction in their own order', () => {
    expect(hebrew.shape('אב 12').map(({ isMissing, text }) => (isMissing ? '?' : text)).slice(-2).join('')).toBe('בא');
    const lengths = (line: string): number => hebrew.shape(line).reduce((sum, { advance }) => sum + advance, 0);
    expect(lengths('אב')).toBeGreaterThan(0);
    expect(lengths('אב גד')).toBeCloseTo(lengths('גד אב'), 6);
  });

  it('turns brackets around', () => {
    expect(read('(א)')).toBe('(א)');
    expect(read('א(ב')).toBe('ב)א');
  });
});

describe('a font in several files', () => {
  it('sets each stretch in the file that has its letters, as broad in all of them', async () => {
    const latin = await loadFont('Lora');
    const whole = await loadFont('Lora', 'Żuraw Ławica');
    expect(latin.shape('Żuraw').some(({ isMissing }) => isMissing)).toBe(true);
    expect(whole.shape('Żuraw Ławica').some(({ isMissing }) => isMissing)).toBe(false);
    const broad = (face: FontFace, line: string): number => face.shape(line).reduce((sum, { advance }) => sum + advance, 0);
    expect(broad(whole, 'Harbour')).toBe(broad(latin, 'Harbour'));
    // Glyphs of two files are not taken for each other.
    const ids = whole.shape('Żurawł').map(({ id }) => id);
    expect(new Set(ids).size).toBe(6);
  });
});
