/** The first nine colours of the format by their numbers; 7 is what stands out from the ground. */
const FIRST = [0x000000, 0xff0000, 0xffff00, 0x00ff00, 0x00ffff, 0x0000ff, 0xff00ff, 0x000000, 0x808080, 0xc0c0c0];
/** Lightness of the shades of a hue, for the even last digits of their numbers. */
const SHADES = [1, 0.65, 0.5, 0.3, 0.15];
const GREYS = [0x333333, 0x5b5b5b, 0x848484, 0xadadad, 0xd6d6d6, 0xffffff];

/** The colour of a number of the format, as 0xrrggbb: 24 hues in ten shades each from 10 on, greys at the end. */
export function colourOfIndex(index: number): number {
  if (!(index >= 0 && index <= 255)) return 0;
  if (index < 10) return FIRST[Math.floor(index)];
  if (index >= 250) return GREYS[Math.floor(index) - 250];
  const hue = (Math.floor(index / 10) - 1) / 4;
  const value = 255 * SHADES[Math.floor((index % 10) / 2)];
  const least = index % 2 === 1 ? value / 2 : 0;
  const channel = (offset: number): number => {
    const at = (hue + offset) % 6;
    const share = Math.max(0, Math.min(1, Math.abs(at - 3) - 1));
    return Math.round(least + (value - least) * share);
  };
  return (channel(0) << 16) | (channel(4) << 8) | channel(2);
}
