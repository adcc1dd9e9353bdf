import { cacheName, dropOldCaches, fillCache, keptPath, type OfflineBuild } from './offlineCache.ts';
import { TAKE_OVER } from './takeOver.ts';

/** Written here by the build, when all its other files are known. */
declare const __OFFLINE_BUILD__: OfflineBuild;
const build = __OFFLINE_BUILD__;
const worker = self as unknown as ServiceWorkerGlobalScope;

worker.addEventListener('install', (event) => event.waitUntil(fillCache(build, caches, (...args) => fetch(...args))));
worker.addEventListener('activate', (event) => event.waitUntil(dropOldCaches(build, caches).then(() => worker.clients.claim())));
worker.addEventListener('message', ({ data }) => {
  if (data === TAKE_OVER) void worker.skipWaiting();
});

/** Own files first, those of the build before next, the network last. */
async function answer(request: Request, path: string): Promise<Response> {
  const own = await (await caches.open(cacheName(build))).match(path);
  return own ?? (await caches.match(path)) ?? fetch(request);
}
worker.addEventListener('fetch', (event) => {
  const path = keptPath(event.request, worker.location.origin);
  if (path !== undefined) event.respondWith(answer(event.request, path));
});
