import { expect, it } from 'vitest';
import { sizeWords } from './sizeWords.ts';

it.each([[0, '0 bytes'], [999, '999 bytes'], [1200, '1.2 kB'], [12_400_000, '12.4 MB'], [345_000_000, '345 MB'], [2e15, '2000 TB']])('%d bytes read as %s', (bytes, words) => expect(sizeWords(bytes)).toBe(words));
