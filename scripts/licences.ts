import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

/** A package that comes with the product, and what it may be used under. */
export interface Licence {
  readonly name: string;
  readonly version: string;
  /** As the package states it: an SPDX expression, mostly. */
  readonly licence: string;
  /** The text that it brings along. */
  readonly text: string;
}

interface Locked {
  readonly dev?: boolean;
  readonly optional?: boolean;
}

const stated = (field: unknown): string => {
  if (typeof field === 'string') return field;
  if (Array.isArray(field)) return field.map(stated).join(' OR ');
  return typeof field === 'object' && field !== null && 'type' in field && typeof field.type === 'string' ? field.type : 'not stated';
};

/** All packages that the product is installed with, tools of the tests left out, by name. What is for other machines only is not here and is left out too. */
export function licences(root: string): Licence[] {
  const { packages } = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8')) as { packages: Readonly<Record<string, Locked>> };
  const found = Object.entries(packages).flatMap(([path, { dev }]): Licence[] => {
    const at = join(root, path);
    if (path === '' || dev === true || !existsSync(join(at, 'package.json'))) return [];
    const own = JSON.parse(readFileSync(join(at, 'package.json'), 'utf8')) as { name: string; version: string; license?: unknown; licenses?: unknown };
    const texts = readdirSync(at).filter((name) => /^(licen[cs]e|copying|notice)/i.test(name)).sort();
    return [{ name: own.name, version: own.version, licence: stated(own.license ?? own.licenses), text: texts.map((name) => readFileSync(join(at, name), 'utf8').trim()).join('\n\n') }];
  });
  return [...new Map(found.map((each) => [`${each.name} ${each.version}`, each])).values()].sort((a, b) => a.name.localeCompare(b.name, 'en'));
}

/** The licences as one text to read. */
export function licencesText(all: readonly Licence[]): string {
  const head = `Limner is made with ${all.length} packages. What each may be used under:\n\n${all.map(({ name, version, licence }) => `${name} ${version}: ${licence}`).join('\n')}\n`;
  return [head, ...all.map(({ name, version, licence, text }) => `${'='.repeat(80)}\n${name} ${version}\n${licence}\n\n${text === '' ? 'It brings no text of its own.' : text}\n`)].join('\n');
}

/** Whether one may choose terms that ask nothing of what is built with it beyond being named; the lesser GPL passes for what is loaded as a file of its own. */
export function mayShip(licence: string): boolean {
  const choices = licence.replace(/[()]/g, '').split(/\s+OR\s+/i);
  return choices.some((choice) => choice.split(/\s+AND\s+/i).every((one) => !/^A?GPL/i.test(one.trim()) && one.trim() !== '' && one !== 'not stated' && one !== 'UNLICENSED'));
}
