/* Tells which texts a language lacks, and drops from it those that are in no source any more: `npm run words`. */
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { textsInSources } from './textsInSources.ts';

const sources = fileURLToPath(new URL('../src', import.meta.url));
const path = fileURLToPath(new URL('../src/core/words/de.json', import.meta.url));
const words = JSON.parse(readFileSync(path, 'utf8')) as Record<string, string>;
const found = new Map(textsInSources(sources).map(({ text, file }) => [text, file]));
const kept = Object.entries(words).filter(([text]) => found.has(text));
writeFileSync(path, `${JSON.stringify(Object.fromEntries(kept.sort(([a], [b]) => (a < b ? -1 : 1))), undefined, 1)}\n`);
const lacking = [...found].filter(([text]) => !Object.hasOwn(words, text));
process.stdout.write(`${kept.length} texts, ${Object.keys(words).length - kept.length} dropped, ${lacking.length} lacking\n`);
for (const [text, file] of lacking) process.stdout.write(`${file}: ${JSON.stringify(text)}\n`);
process.exitCode = lacking.length === 0 ? 0 : 1;
