import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import { licences, licencesText, mayShip } from './licences.ts';

const all = licences(fileURLToPath(new URL('..', import.meta.url)));

describe('licences', () => {
  it('of all that the product is installed with are known, and none asks more than to be named', () => {
    expect(all.length).toBeGreaterThan(100);
    expect(all.map(({ name }) => name)).toEqual(expect.arrayContaining(['vue', 'sharp', 'libheif-js', '@fontsource/lobster']));
    expect(all.filter(({ licence }) => !mayShip(licence))).toEqual([]);
    expect(all.map(({ name }) => name)).not.toContain('vitest');
  });

  it('lesser terms are for the modules that are loaded as files of their own', () => {
    const lesser = all.filter(({ licence }) => /LGPL/.test(licence)).map(({ name }) => name.replace(/^@img\/.*/, 'sharp'));
    expect(lesser.filter((name) => !['libheif-js', 'sharp'].includes(name))).toEqual([]);
  });

  it('are one text that names each', () => {
    const text = licencesText(all);
    expect(text).toContain('vue 3.');
    expect(text).toContain('SIL OPEN FONT LICENSE');
  });

  it.each([['MIT', true], ['(MIT OR GPL-3.0-or-later)', true], ['GPL-3.0', false], ['MIT AND AGPL-3.0', false], ['LGPL-3.0', true], ['not stated', false]])('%s may ship: %s', (licence, may) => expect(mayShip(licence)).toBe(may));
});
