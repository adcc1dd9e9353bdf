/**
 * A 53-bit hash of text (two 32-bit multiply-xor lanes with a final avalanche after MurmurHash3 by Austin Appleby, public domain). For cache keys,
 * not for security.
 */
export function hashText(text: string, seed = 0): string {
  let a = 0xdeadbeef ^ seed;
  let b = 0x41c6ce57 ^ seed;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    a = Math.imul(a ^ c, 2654435761);
    b = Math.imul(b ^ c, 1597334677);
  }
  return mixed(a, b);
}

/** The same for bytes. */
export function hashBytes(bytes: Uint8Array, seed = 0): string {
  let a = 0xdeadbeef ^ seed ^ bytes.length;
  let b = 0x41c6ce57 ^ seed;
  for (let i = 0; i < bytes.length; i++) {
    const c = bytes[i];
    a = Math.imul(a ^ c, 2654435761);
    b = Math.imul(b ^ c, 1597334677);
  }
  return mixed(a, b);
}

function mixed(a: number, b: number): string {
  a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
  b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909);
  return (4294967296 * (2097151 & b) + (a >>> 0)).toString(36);
}

/** JSON with the keys of every object in order, so that equal values give equal text. */
export function canonicalJson(value: unknown): string {
  return JSON.stringify(value, (_key, inner: unknown) => {
    if (inner === null || typeof inner !== 'object' || Array.isArray(inner)) return inner;
    return Object.fromEntries(Object.entries(inner).sort(([x], [y]) => (x < y ? -1 : 1)));
  });
}
