/** A number of bytes as one reads it, such as `12.4 MB`. @param bytes not below 0. */
export function sizeWords(bytes: number): string {
  const units = ['bytes', 'kB', 'MB', 'GB', 'TB'];
  let [size, unit] = [bytes, 0];
  while (size >= 1000 && unit < units.length - 1) {
    size /= 1000;
    unit++;
  }
  return `${unit === 0 || size >= 100 ? Math.round(size) : size.toFixed(1)} ${units[unit]}`;
}
