/** Everything that the application is made of, as one build left it. */
export interface OfflineBuild {
  /** Changes with any of the files. */
  readonly version: string;
  /** Paths on the server, `/index.html` among them. */
  readonly files: readonly string[];
}

/** How the caches of builds are named. */
export const CACHE_PREFIX = 'limner-';
export const cacheName = ({ version }: OfflineBuild): string => `${CACHE_PREFIX}${version}`;

/** Files fetched at a time while the cache fills: the page that is open keeps its share. */
const AT_ONCE = 6;

/** A path that names its content by a hash: what is kept of another build under it is the same. */
const isHashed = (path: string): boolean => path.startsWith('/assets/');

/**
 * Puts all files of a build into its cache; those that an earlier build had too are taken from there. All or nothing: the cache is gone when one cannot be had.
 * @throws TypeError when a file cannot be had.
 */
export async function fillCache(build: OfflineBuild, caches: CacheStorage, fetchFile: typeof fetch): Promise<void> {
  const cache = await caches.open(cacheName(build));
  const left = [...build.files];
  const take = async (): Promise<void> => {
    for (let path = left.shift(); path !== undefined; path = left.shift()) {
      const kept = isHashed(path) ? await caches.match(path) : undefined;
      const response = kept ?? (await fetchFile(path, { cache: isHashed(path) ? 'default' : 'no-cache' }));
      if (!response.ok) throw new TypeError(`${path} was answered with ${response.status}`);
      await cache.put(path, response);
    }
  };
  try {
    await Promise.all(Array.from({ length: AT_ONCE }, take));
  } catch (error) {
    await caches.delete(cacheName(build));
    throw error;
  }
}

/** Removes the caches of builds before the last one: a page of that may still be open in another tab, and load what it has not yet needed. */
export async function dropOldCaches(build: OfflineBuild, caches: CacheStorage): Promise<void> {
  const own = (await caches.keys()).filter((name) => name.startsWith(CACHE_PREFIX) && name !== cacheName(build));
  await Promise.all(own.slice(0, -1).map((name) => caches.delete(name)));
}

/**
 * What a request is answered from: the kept file's path, or undefined where the network answers. Every address of the application itself is its one page.
 */
export function keptPath(request: Pick<Request, 'method' | 'mode' | 'url'>, origin: string): string | undefined {
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== origin || url.pathname.startsWith('/devices/')) return undefined;
  const isFile = /\.\w+$/.test(url.pathname);
  return request.mode === 'navigate' && !isFile ? '/index.html' : url.pathname;
}
