import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import german from '../src/core/words/de.json' with { type: 'json' };
import { textsInSources, unsaid, unsaidIn } from './textsInSources.ts';

const sources = fileURLToPath(new URL('../src', import.meta.url));
const texts = textsInSources(sources);
const words: Readonly<Record<string, string>> = german;
const places = (text: string): string[] => [...text.matchAll(/\{\d\}/g)].map(([place]) => place).sort();

describe('all texts', () => {
  it('are found: in scripts, in templates and in what templates compute', () => {
    const found = texts.map(({ text }) => text);
    for (const text of ['{0} is empty (0 bytes).', 'Drop it anywhere', 'Bringing in {0}…', 'Find jobs', 'Three marks are enough, but none tells whether they agree.', 'light (theme)']) expect(found).toContain(text);
    expect(texts.length).toBeGreaterThan(2500);
  });

  it('are said in German, and German says nothing else', () => {
    const known = new Set(texts.map(({ text }) => text));
    expect(texts.filter(({ text }) => !Object.hasOwn(words, text))).toEqual([]);
    expect(Object.keys(words).filter((text) => !known.has(text))).toEqual([]);
  });

  it('keep in German what is filled in, the slots that a person types, and the spaces around them', () => {
    // What is let go of is not named again in German.
    const unnamed = ['{0} Let go of {1}? Undo brings {2} back.'];
    for (const [text, said] of Object.entries(words)) {
      if (!unnamed.includes(text)) expect(new Set(places(said)), text).toEqual(new Set(places(text)));
      expect([/^\s/.test(said), /\s$/.test(said)], text).toEqual([/^\s/.test(text), /\s$/.test(text)]);
      expect(said.trim(), text).not.toBe('');
    }
  });

  it('go through say: no sentence of the interface stands in a script by itself', () => {
    expect(unsaid("const a = b ? 'the other film' : say('One film'); const c = { name: 'on the blank' }; d.catch(() => 'nobody waits for it'); e('wide');")).toEqual(['the other film', 'on the blank']);
    expect(['ui', 'stages', 'app'].flatMap((folder) => unsaidIn(`${sources}/${folder}`))).toEqual([]);
  });
});
