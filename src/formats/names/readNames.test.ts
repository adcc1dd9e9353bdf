import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isAppError } from '../../core/errors/appError.ts';
import { MAX_ROWS, readNames, type NamesList } from './readNames.ts';

const read = (text: string): NamesList => readNames(new TextEncoder().encode(text), 'crew.csv');

describe('a list of names', () => {
  it('is read by its columns, whatever parts them, with quotes and empty lines', () => {
    for (const text of ['Name,Number\nIda,7\n\n"Oar, Ben",12\n', 'Name;Number\r\nIda;7\r\n"Oar, Ben";12', '\uFEFFName\tNumber\nIda\t7\nOar, Ben\t12']) {
      const { columns, rows } = read(text);
      expect(columns).toEqual(['Name', 'Number']);
      expect(rows.map((row) => [row.get('name'), row.get('number')])).toEqual([
        ['Ida', '7'],
        ['Oar, Ben', '12'],
      ]);
    }
    expect(read('Name\nIda').rows).toHaveLength(1);
  });

  it('is refused with the reason', () => {
    const reason = (text: string): string => {
      try {
        read(text);
        return 'fine';
      } catch (error) {
        return isAppError(error) ? `${error.code}: ${String(error.details['reason'])}` : 'other';
      }
    };
    for (const text of ['', 'Name', 'Name,Name\na,b', ',b\n1,2', 'Name\n"Ida']) expect(reason(text)).toContain('badNames');
    expect(reason(`Name\n${'Ida\n'.repeat(MAX_ROWS + 5)}`)).toContain('more than');
    expect(reason(`Name\n${'Ida\n'.repeat(1_300_000)}`)).toContain('fileTooLarge');
  });

  it('never breaks on what is no list', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), (text) => {
        try {
          read(text);
        } catch (error) {
          if (!isAppError(error)) throw error;
        }
      }),
      { seed: 51, numRuns: 500 },
    );
  });
});
