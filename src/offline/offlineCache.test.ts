import { describe, expect, it } from 'vitest';
import { cacheName, dropOldCaches, fillCache, keptPath, type OfflineBuild } from './offlineCache.ts';

/** Caches in memory, as the Service Workers standard (W3C) has them. */
class CachesDouble {
  readonly all = new Map<string, Map<string, string>>();
  async open(name: string): Promise<{ put(path: string, response: { text: string }): Promise<void> }> {
    const cache = this.all.get(name) ?? new Map<string, string>();
    this.all.set(name, cache);
    return { put: async (path, { text }) => void cache.set(path, text) };
  }
  async match(path: string): Promise<unknown> {
    for (const cache of this.all.values()) if (cache.has(path)) return { ok: true, text: cache.get(path) };
    return undefined;
  }
  keys = async (): Promise<string[]> => [...this.all.keys()];
  delete = async (name: string): Promise<boolean> => this.all.delete(name);
  readonly asCaches = this as unknown as CacheStorage;
}
const server = (missing?: string) => {
  const asked: string[] = [];
  const fetchFile = (async (path: string) => {
    asked.push(path);
    return { ok: path !== missing, status: path === missing ? 404 : 200, text: `of the server: ${path}` };
  }) as unknown as typeof fetch;
  return { asked, fetchFile };
};
const build = (version: string, ...files: string[]): OfflineBuild => ({ version, files });

describe('the files of a build', () => {
  it('are kept whole, and those of the build before are not fetched again', async () => {
    const caches = new CachesDouble();
    await fillCache(build('1', '/index.html', '/assets/a-1.js'), caches.asCaches, server().fetchFile);
    const { asked, fetchFile } = server();
    await fillCache(build('2', '/index.html', '/assets/a-1.js', '/assets/b-1.js'), caches.asCaches, fetchFile);
    expect(asked.sort()).toEqual(['/assets/b-1.js', '/index.html']);
    expect([...caches.all.get('limner-2')!.keys()].sort()).toEqual(['/assets/a-1.js', '/assets/b-1.js', '/index.html']);
  });

  it('are not kept at all when one cannot be had', async () => {
    const caches = new CachesDouble();
    await expect(fillCache(build('1', '/index.html', '/assets/a.js'), caches.asCaches, server('/assets/a.js').fetchFile)).rejects.toThrow('404');
    expect(await caches.keys()).toEqual([]);
  });

  it('of the build before stay for pages that are open, older ones go, others’ caches are let be', async () => {
    const caches = new CachesDouble();
    for (const version of ['1', '2', '3']) await caches.open(cacheName(build(version)));
    await caches.open('of somebody else');
    await dropOldCaches(build('3'), caches.asCaches);
    expect(await caches.keys()).toEqual(['limner-2', 'limner-3', 'of somebody else']);
  });
});

describe('what is answered from them', () => {
  const asked = (path: string, change: Partial<Request> = {}) => keptPath({ method: 'GET', mode: 'no-cors', url: `http://localhost:4300${path}`, ...change }, 'http://localhost:4300');
  it('is the one page for every address of the application, and files as they are', () => {
    expect(asked('/job/a/clean', { mode: 'navigate' })).toBe('/index.html');
    expect(asked('/licences.txt', { mode: 'navigate' })).toBe('/licences.txt');
    expect(asked('/assets/a-1.js?x')).toBe('/assets/a-1.js');
  });
  it('is nothing of machines, of other sites, and nothing that is sent', () => {
    expect(asked('/devices/cutter/state')).toBeUndefined();
    expect(asked('/index.html', { method: 'POST' })).toBeUndefined();
    expect(keptPath({ method: 'GET', mode: 'no-cors', url: 'https://elsewhere.example/a.js' }, 'http://localhost:4300')).toBeUndefined();
  });
});
