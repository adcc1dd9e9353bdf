import { decimals, say } from '../../core/words/say.ts';

const UNITS = [say('bytes'), 'kB', 'MB', 'GB', 'TB'];

/** A number of bytes as one reads it, such as `12.4 MB`; below a MB without a fraction. @param count not below 0. */
export function byteWords(count: number): string {
  let [size, unit] = [count, 0];
  while (size >= 1000 && unit < UNITS.length - 1) {
    size /= 1000;
    unit++;
  }
  return `${unit < 2 ? Math.round(size) : decimals(size, 1)} ${UNITS[unit]}`;
}
