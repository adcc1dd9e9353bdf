import { describe, expect, it } from 'vitest';
import { codeOf } from '../tests/fixtures/errorCode.ts';
import { parseArguments } from './arguments.ts';

const OPTIONS = { out: { takes: 'a file', about: '' }, brightness: { takes: 'percent', about: '' }, grey: { about: '' }, force: { about: '' } };
const read = (...words: string[]) => parseArguments(words, OPTIONS);

describe('the words of a command', () => {
  it('are inputs and options, in their order, whatever stands first', () => {
    const { inputs, values, options } = read('a.png', '--grey', '--out', 'o.png', '--brightness=-20', 'b.png', '--force');
    expect([inputs, [...values], options]).toEqual([['a.png', 'b.png'], [['grey', ''], ['out', 'o.png'], ['brightness', '-20'], ['force', '']], ['--grey', '--brightness=-20']]);
  });

  it('may be values below nothing, and files that look like options after two dashes', () => {
    expect(read('--brightness', '-20').values.get('brightness')).toBe('-20');
    expect(read('--grey', '--', '--odd.png').inputs).toEqual(['--odd.png']);
  });

  it('are refused where the command does not know them, lacks a value or wants none', () => {
    for (const words of [['--colour'], ['-x'], ['--out'], ['--out', '--grey'], ['--grey=1'], ['--no-grey'], ['--__proto__', 'x'], ['--constructor=1']]) expect(codeOf(() => read(...words)), words.join(' ')).toBe('badValue');
    expect(read('--out=--grey').values.get('out')).toBe('--grey');
  });
});
