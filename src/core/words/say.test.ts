import { afterEach, describe, expect, it } from 'vitest';
import { counted, decimals, grouped, inSentence, dateWords, say, sayOf, speak } from './say.ts';

const GERMAN = { 'Films': 'Folien', '{0} of {1} films': 'von {1} Folien {0}', 'light (theme)': 'hell', 'film': 'Folie', 'films': 'Folien' };
afterEach(() => speak('en', {}));

describe('say', () => {
  it('says English as it is written, with what is filled in', () => {
    expect(say('Films')).toBe('Films');
    expect(say`${2} of ${3.5} films`).toBe('2 of 3.5 films');
    expect(say('{0} of {1} films', 2, 3)).toBe('2 of 3 films');
    expect(sayOf('theme', 'light')).toBe('light');
    expect([inSentence('Area lift'), decimals(1.25, 1), grouped(12_345)]).toEqual(['area lift', '1.3', '12,345']);
  });

  it('says another language where it has the text, in its order and with its numbers, and English where it has not', () => {
    speak('de', GERMAN);
    expect([say('Films'), say('Sheets')]).toEqual(['Folien', 'Sheets']);
    expect(say`${2} of ${3.5} films`).toBe('von 3,5 Folien 2');
    expect([sayOf('theme', 'light'), sayOf('pressure', 'light')]).toEqual(['hell', 'light']);
    expect([inSentence('Fläche freistellen'), decimals(1.25, 1), grouped(12_345)]).toEqual(['Fläche freistellen', '1,3', '12.345']);
    expect(dateWords(new Date(2026, 10, 28, 9, 5), { dateStyle: 'long', timeStyle: 'short' })).toBe('28. November 2026 um 09:05');
  });

  it('counts one and several', () => {
    expect([counted(1, 'film', 'films'), counted(0, 'film', 'films'), counted(1200, 'film', 'films')]).toEqual(['1 film', '0 films', '1,200 films']);
  });

  it('fills in only what is given: slots of file names and of lettering stay, and so does what looks like a place within a value', () => {
    expect(say('The pattern takes {job} and {0}.')).toBe('The pattern takes {job} and {0}.');
    expect(say`“${'{1}'}” with ${'{0}'}`).toBe('“{1}” with {0}');
    expect(say`${undefined}${null}!`).toBe('!');
    expect(say('toString')).toBe('toString');
  });
});
