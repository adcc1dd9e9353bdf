/** Font files that were brought in, kept by the browser where the page and its workers find them. */
const SHELF = 'limner-own-fonts';
const ADDRESS = '/own-fonts/';

const addressOf = (name: string): string => `${ADDRESS}${encodeURIComponent(name)}`;

/** Names of the fonts that were brought in, in the order of the alphabet. Where the browser keeps nothing there are none. */
export async function ownFontNames(): Promise<string[]> {
  if (typeof caches === 'undefined') return [];
  const kept = await (await caches.open(SHELF)).keys();
  return kept.map(({ url }) => decodeURIComponent(new URL(url).pathname.slice(ADDRESS.length))).sort((a, b) => a.localeCompare(b));
}

/** The file of a font that was brought in; undefined when there is none of that name. */
export async function ownFont(name: string): Promise<Uint8Array<ArrayBuffer> | undefined> {
  if (typeof caches === 'undefined') return undefined;
  const found = await (await caches.open(SHELF)).match(addressOf(name));
  return found === undefined ? undefined : new Uint8Array(await found.arrayBuffer());
}

export async function keepOwnFont(name: string, bytes: Uint8Array<ArrayBuffer>): Promise<void> {
  await (await caches.open(SHELF)).put(addressOf(name), new Response(bytes, { headers: { 'Content-Type': 'font/sfnt' } }));
}

export async function dropOwnFont(name: string): Promise<void> {
  await (await caches.open(SHELF)).delete(addressOf(name));
}
