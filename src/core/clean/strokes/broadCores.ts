/** Fewer inner pixels than this together are a thick place of a stroke, or what compression has made of the inside of a small letter. */
const FEWEST = 4;

/** The insides of areas without those of a few pixels alone. @param labels the tone of every pixel. @param core 1 inside areas of one tone. */
export function broadCores(labels: Uint8Array, core: Uint8Array, width: number, height: number): Uint8Array {
  const broad = core.slice();
  const bit: number[] = [];
  for (let y = 0; y < height; y++) {
    for (let x = 0, i = y * width; x < width; x++, i++) {
      // Every bit has a place with none of it to the left and above.
      if (core[i] === 0 || (x > 0 && core[i - 1] !== 0 && labels[i - 1] === labels[i]) || (y > 0 && core[i - width] !== 0 && labels[i - width] === labels[i])) continue;
      if (isBit(labels, core, width, height, i, bit)) for (const k of bit) broad[k] = 0;
    }
  }
  return broad;
}

/** Whether fewer than `FEWEST` pixels hang together with one; they are gathered. */
function isBit(labels: Uint8Array, core: Uint8Array, width: number, height: number, start: number, bit: number[]): boolean {
  bit.length = 0;
  bit.push(start);
  const take = (i: number): void => {
    if (core[i] !== 0 && labels[i] === labels[start] && !bit.includes(i)) bit.push(i);
  };
  for (let head = 0; head < bit.length && bit.length < FEWEST; head++) {
    const i = bit[head];
    const x = i % width;
    if (x > 0) take(i - 1);
    if (x < width - 1) take(i + 1);
    if (i >= width) take(i - width);
    if (i < (height - 1) * width) take(i + width);
  }
  return bit.length < FEWEST;
}
