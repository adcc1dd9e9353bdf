/** About what a value takes in memory or storage: typed arrays as they are, numbers as eight bytes, letters as one. The value holds itself nowhere. */
export function bytesOf(value: unknown): number {
  if (ArrayBuffer.isView(value)) return value.byteLength;
  if (typeof value === 'string') return value.length;
  if (Array.isArray(value)) return value.reduce<number>((sum, item) => sum + bytesOf(item), 8);
  if (value instanceof Map) return [...value].reduce((sum, [name, item]) => sum + bytesOf(name) + bytesOf(item), 8);
  if (typeof value === 'object' && value !== null) return Object.entries(value).reduce((sum, [name, item]) => sum + name.length + bytesOf(item), 8);
  return 8;
}
