import { readdirSync, readFileSync, statSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

const root = fileURLToPath(new URL('..', import.meta.url));

/** Folders inside core, lowest first. A folder imports only from those before it and from itself. */
const CORE = ['words', 'units', 'errors', 'task', 'raster', 'colour', 'geometry', 'film', 'process', 'clean', 'separate', 'outline', 'combine', 'bridge', 'figure', 'lettering', 'assemble', 'operate', 'nest', 'print', 'layout', 'check', 'proof', 'job', 'workshop', 'edit', 'run', 'propose', 'ticket'];
/** What each layer may import beside itself. */
const LAYERS: Readonly<Record<string, readonly string[]>> = {
  'src/core': [],
  'src/formats': ['src/core'],
  'src/engine': ['src/core', 'src/formats'],
  'src/machines': ['src/core', 'src/formats'],
  'src/offline': [],
  'src/storage': ['src/core', 'src/formats'],
  'src/stores': ['src/core', 'src/formats', 'src/engine', 'src/storage'],
  'src/ui': ['src/core'],
  'src/stages': ['src/core', 'src/formats', 'src/engine', 'src/machines', 'src/offline', 'src/storage', 'src/stores', 'src/ui'],
  'src/app': ['src/core', 'src/formats', 'src/engine', 'src/offline', 'src/storage', 'src/stores', 'src/ui', 'src/stages'],
  server: ['src/core', 'src/formats', 'src/engine', 'src/machines'],
  cli: ['src/core', 'src/formats', 'src/engine'],
  bench: ['src/core', 'src/formats', 'src/engine'],
  demo: ['src/core', 'src/formats', 'src/engine', 'cli'],
};

function filesBelow(folder: string): string[] {
  return readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    if (name === 'node_modules') return [];
    return statSync(path).isDirectory() ? filesBelow(path) : /\.(ts|vue)$/.test(name) ? [path] : [];
  });
}

interface Import {
  readonly from: string;
  readonly to: string;
}

const isTest = (path: string): boolean => /\.(test|bench)\.ts$/.test(path);

/** Relative imports of a source file, as paths from the project's root. */
function importsOf(path: string): Import[] {
  const text = readFileSync(path, 'utf8');
  const found = text.matchAll(/(?:from|import)\s*\(?\s*'(\.[^']+)'/g);
  return [...found].map((match) => ({ from: relative(root, path), to: relative(root, resolve(dirname(path), match[1])) }));
}

const layerOf = (path: string): string | undefined => Object.keys(LAYERS).find((layer) => path.startsWith(`${layer}/`));

describe('architecture', () => {
  const imports = Object.keys(LAYERS).flatMap((layer) => filesBelow(join(root, layer)).filter((path) => !isTest(path)).flatMap(importsOf));

  it('sees the sources', () => {
    expect(imports.length).toBeGreaterThan(150);
  });

  it('imports only downwards between layers', () => {
    const wrong = imports.filter(({ from, to }) => {
      const layer = layerOf(from);
      const target = layerOf(to);
      return layer !== undefined && target !== undefined && target !== layer && !LAYERS[layer].includes(target);
    });
    expect(wrong).toEqual([]);
  });

  it('imports only downwards inside core', () => {
    const place = (path: string): number => CORE.indexOf(path.split('/')[2]);
    const inside = imports.filter(({ from, to }) => from.startsWith('src/core/') && to.startsWith('src/core/'));
    expect(inside.filter(({ from }) => place(from) < 0)).toEqual([]);
    expect(inside.filter(({ from, to }) => place(to) > place(from))).toEqual([]);
  });

  it('keeps core free of foreign packages but the schema library, and colour formulas and the cache in their folders', () => {
    const packages = filesBelow(join(root, 'src/core')).filter((path) => !isTest(path)).flatMap((path) => [...readFileSync(path, 'utf8').matchAll(/from '([^.'][^']*)'/g)].map((match) => ({ name: match[1], folder: relative(root, path).split('/')[2] })));
    expect(packages.filter(({ name, folder }) => name !== 'zod' && !(name === 'culori/fn' && folder === 'colour') && !(name === 'lru-cache' && folder === 'task'))).toEqual([]);
  });

  it('lets only base parts and stages, not ui, know a store', () => {
    expect(imports.filter(({ from, to }) => from.startsWith('src/ui/') && to.startsWith('src/stores/'))).toEqual([]);
  });

  it('has no folder that collects everything', () => {
    const folders = filesBelow(join(root, 'src')).map((path) => relative(root, path));
    expect(folders.filter((path) => /\/(utils?|helpers?|common|misc)\b/.test(path))).toEqual([]);
  });
});
