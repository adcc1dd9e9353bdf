import { expect, it } from 'vitest';
import { byteWords } from './byteWords.ts';

it.each([[0, '0 bytes'], [999, '999 bytes'], [1200, '1 kB'], [12_400_000, '12.4 MB'], [5.4e9, '5.4 GB'], [2e15, '2000.0 TB']])('%d bytes read as %s', (count, words) => expect(byteWords(count)).toBe(words));
