import { describe, expect, it } from 'vitest';
import { STAGES } from '../stages.ts';
import { findHelp, findKeys, HELP_TEXTS, KEY_GROUPS, type HelpPlace } from './helpTexts.ts';

describe('help', () => {
  it('is there for every stage and page, and says no title twice', () => {
    const pages: HelpPlace[] = [...STAGES.map(({ stage }) => stage), 'shelf', 'machine', 'ticket', 'versions', 'workshop', 'keeping'];
    for (const page of pages) expect(HELP_TEXTS.filter(({ place }) => place === page).length).toBeGreaterThan(0);
    expect(new Set(HELP_TEXTS.map(({ title }) => title)).size).toBe(HELP_TEXTS.length);
  });

  it('of the place comes first while nothing is typed, and all of it is there', () => {
    const found = findHelp('', 'layout');
    expect(found).toHaveLength(HELP_TEXTS.length);
    expect(found[0].place).toBe('layout');
    expect(found.findIndex(({ place }) => place === 'shelf')).toBeGreaterThan(found.findIndex(({ place }) => place === 'everywhere'));
  });

  it.each([['background', 'clean', 'Take the background off'], ['MIRRORED', 'clean', 'Why is it mirrored?'], ['counters letters filled', 'clean', undefined], ['middles letters', 'shelf', 'The middles of letters stay filled'], ['zzz', 'clean', undefined]] as const)('for “%s” on %s begins with %s', (typed, place, title) => {
    expect(findHelp(typed, place)[0]?.title).toBe(title);
  });

  it('finds keys by what they do', () => {
    expect(findKeys('undo').flatMap(({ keys }) => keys.map(({ keys: pressed }) => pressed))).toEqual(['Ctrl+Z']);
    expect(findKeys('')).toEqual(KEY_GROUPS);
  });
});
