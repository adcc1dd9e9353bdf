import sharp from 'sharp';
import { makeRgba8, type Rgba8 } from '../src/core/raster/raster.ts';
import { blob, ellipse, leaf, lettering, randomFrom, roundedBar, star } from './drawings.ts';

/**
 * What customers photograph: a painted sign on grained wood, a lined drawing on a dark ground, something round and pale in its rind on paper, a person before a
 * room.
 */
export const SCENES = ['painted wood', 'lines on dark', 'pale in a rind', 'portrait'] as const;
export type SceneKind = (typeof SCENES)[number];

const SIZE = 512;
type Random = () => number;

/** A photograph with the alpha of its subject, 512 px. */
export interface Photograph {
  readonly picture: Rgba8;
  readonly alpha: Uint8Array;
  /** Strokes that one would draw over the subject first; x, y pairs. */
  readonly strokes: readonly { readonly says: 'keep' | 'clear'; readonly points: readonly number[] }[];
}

interface Parts {
  readonly ground: string;
  readonly groundBlurPx: number;
  readonly subject: string;
  readonly shadow: number;
  readonly noise: number;
  readonly strokes: Photograph['strokes'];
}

const between = (r: Random, a: number, b: number): number => a + (b - a) * r();
const rgb = (values: readonly number[], by = 1): string => `rgb(${values.map((v) => Math.max(0, Math.min(255, Math.round(v * by)))).join(',')})`;

/** Long wavy grain and some knots. */
function wood(r: Random): string {
  const base = [between(r, 120, 190), between(r, 85, 130), between(r, 50, 85)];
  const lines = Array.from({ length: 90 }, (_, k) => {
    const y = (k * SIZE) / 90 + between(r, -4, 4);
    const sway = between(r, -9, 9);
    return `<path d="M-10 ${y}C130 ${y + sway} 260 ${y - sway} 522 ${y + between(r, -6, 6)}" fill="none" stroke="${rgb(base, between(r, 0.68, 1.22))}" stroke-width="${between(r, 0.6, 5)}"/>`;
  });
  const knots = Array.from({ length: 3 }, () => {
    const [x, y] = [between(r, 0, SIZE), between(r, 0, SIZE)];
    return [16, 11, 6].map((s, k) => `<ellipse cx="${x}" cy="${y}" rx="${s * 1.8}" ry="${s}" fill="${rgb(base, 0.85 - 0.14 * k)}"/>`).join('');
  });
  const planks = [between(r, 120, 180), between(r, 320, 390)].map((y) => `<rect x="0" y="${y}" width="512" height="2.5" fill="${rgb(base, 0.4)}"/>`);
  return `<rect width="512" height="512" fill="${rgb(base)}"/>${lines.join('')}${knots.join('')}${planks.join('')}`;
}

function paintedWood(r: Random): Parts {
  const [x, y, s] = [between(r, 220, 290), between(r, 220, 290), between(r, 100, 150)];
  const [paint, mark] = r() < 0.5 ? ['#f3efe6', '#22375f'] : ['#1f4f6b', '#f0d28a'];
  const plate = r() < 0.5 ? ellipse(x, y, s * 1.2, s) : roundedBar(x, y, s * 2.3, s * 1.4, 24, between(r, -8, 8));
  return { ground: wood(r), groundBlurPx: 0.7, subject: `<path d="${plate}" fill="${paint}"/><path d="${star(x, y - s * 0.15, s * 0.55, s * 0.26, 5, r())}" fill="${mark}"/><path d="${lettering('Row', x - s * 0.55, y + s * 0.75, s * 0.5)}" fill="${mark}"/>`, shadow: 0.35, noise: 2, strokes: [{ says: 'keep', points: [x - s * 0.7, y, x + s * 0.7, y] }] };
}

function linesOnDark(r: Random): Parts {
  const dark = [between(r, 26, 60), between(r, 26, 60), between(r, 34, 80)];
  const [x, y, s] = [256, 250, between(r, 120, 160)];
  const fills = ['#e0bf6a', '#9e2f4b', '#f7f4ee', '#8fb3c9'].sort(() => r() - 0.5);
  const lined = (d: string, fill: string): string => `<path d="${d}" fill="${fill}" stroke="#0c0a10" stroke-width="${between(r, 7, 12)}" stroke-linejoin="round"/>`;
  return {
    ground: `<defs><radialGradient id="g" cx="${r()}" cy="${r()}"><stop offset="0" stop-color="${rgb(dark, 1.35)}"/><stop offset="1" stop-color="${rgb(dark)}"/></radialGradient></defs><rect width="512" height="512" fill="url(#g)"/>`,
    groundBlurPx: 0.5,
    subject: lined(blob(r, x, y + s * 0.3, s, 7, 0.2), fills[0]) + lined(ellipse(x, y - s * 0.7, s * 0.55, s * 0.5), fills[1]) + lined(leaf(x - s * 1.2, y + s * 0.4, x + s * 1.1, y + s * 0.9, 0.6), fills[2]),
    shadow: 0,
    noise: 2,
    strokes: [{ says: 'keep', points: [x, y - s * 0.7, x, y + s * 0.6] }, { says: 'keep', points: [x - s * 0.8, y + s * 0.6, x + s * 0.8, y + s * 0.7] }],
  };
}

function paleInRind(r: Random): Parts {
  const [x, y, s] = [256, 256, between(r, 120, 170)];
  const rind = ['#c8402f', '#4d8a3c', '#d99a2b'][Math.floor(r() * 3)];
  const flesh = rgb([between(r, 246, 253), between(r, 243, 250), between(r, 228, 242)]);
  const seeds = Array.from({ length: 6 }, (_, k) => `<path d="${ellipse(x + s * 0.3 * Math.cos(k * 1.047), y + s * 0.3 * Math.sin(k * 1.047), s * 0.08, s * 0.045, k * 60)}" fill="#4a2c20"/>`).join('');
  return {
    ground: '<defs><radialGradient id="p" cx="0.3" cy="0.2" r="1.1"><stop offset="0" stop-color="#fdfcfa"/><stop offset="1" stop-color="#e9e6e1"/></radialGradient></defs><rect width="512" height="512" fill="url(#p)"/>',
    groundBlurPx: 0,
    subject: `<defs><radialGradient id="f"><stop offset="0.2" stop-color="${flesh}"/><stop offset="1" stop-color="${rgb([238, 236, 214])}"/></radialGradient></defs><path d="${ellipse(x, y, s, s * 0.94, 20)}" fill="${rind}"/><path d="${ellipse(x, y, s * 0.9, s * 0.84, 20)}" fill="url(#f)"/>${seeds}`,
    shadow: 0.25,
    noise: 1.5,
    strokes: [{ says: 'keep', points: [x - s * 0.5, y - s * 0.5, x + s * 0.5, y + s * 0.5] }, { says: 'keep', points: [x - s * 0.5, y + s * 0.5, x + s * 0.5, y - s * 0.5] }],
  };
}

/** Furniture, windows and light out of focus. */
function room(r: Random): string {
  const things = Array.from({ length: 22 }, () => `<rect x="${between(r, -60, 480)}" y="${between(r, -60, 460)}" width="${between(r, 30, 190)}" height="${between(r, 40, 260)}" fill="${rgb([between(r, 60, 220), between(r, 55, 205), between(r, 50, 190)])}"/>`);
  return `<rect width="512" height="512" fill="${rgb([150, 138, 124])}"/>${things.join('')}`;
}

function portrait(r: Random): Parts {
  const [x, y, s] = [between(r, 225, 290), between(r, 190, 220), between(r, 74, 92)];
  const skin = [[236, 196, 170], [198, 148, 112], [128, 86, 62]][Math.floor(r() * 3)];
  const hair = [[52, 36, 28], [132, 96, 58], [188, 180, 170]][Math.floor(r() * 3)];
  const shirt = [between(r, 70, 210), between(r, 70, 200), between(r, 70, 190)];
  const shades = (id: string, tone: readonly number[]): string => `<radialGradient id="${id}" cx="0.38" cy="0.35" r="0.8"><stop offset="0" stop-color="${rgb(tone, 1.08)}"/><stop offset="1" stop-color="${rgb(tone, 0.66)}"/></radialGradient>`;
  const shoulders = `M${x - s * 2.1} 520C${x - s * 2.2} ${y + s * 2} ${x - s * 1.2} ${y + s * 1.7} ${x - s * 0.4} ${y + s * 1.45}L${x + s * 0.4} ${y + s * 1.45}C${x + s * 1.2} ${y + s * 1.7} ${x + s * 2.2} ${y + s * 2} ${x + s * 2.1} 520Z`;
  const eyes = [-0.36, 0.36].map((side) => `<ellipse cx="${x + side * s}" cy="${y}" rx="${s * 0.13}" ry="${s * 0.07}" fill="#f4f1ec"/><circle cx="${x + side * s}" cy="${y}" r="${s * 0.065}" fill="#3a2a20"/><path d="M${x + side * s - s * 0.2} ${y - s * 0.2}q${s * 0.2} ${-s * 0.1} ${s * 0.4} 0" stroke="${rgb(hair)}" stroke-width="${s * 0.06}" fill="none"/>`).join('');
  return {
    ground: room(r),
    groundBlurPx: between(r, 5, 9),
    subject: `<defs>${shades('s', skin)}${shades('h', hair)}${shades('c', shirt)}</defs><path d="${ellipse(x, y - s * 0.25, s * 1.02, s * 1.15)}" fill="url(#h)"/><rect x="${x - s * 0.36}" y="${y + s * 0.7}" width="${s * 0.72}" height="${s}" fill="${rgb(skin, 0.75)}"/><path d="${shoulders}" fill="url(#c)"/><ellipse cx="${x}" cy="${y + s * 0.1}" rx="${s * 0.78}" ry="${s}" fill="url(#s)"/>${eyes}<path d="M${x} ${y}q${s * 0.14} ${s * 0.35} 0 ${s * 0.38}" stroke="${rgb(skin, 0.62)}" stroke-width="${s * 0.05}" fill="none"/><path d="M${x - s * 0.25} ${y + s * 0.62}q${s * 0.25} ${s * 0.12} ${s * 0.5} 0" stroke="#8c3f3a" stroke-width="${s * 0.08}" fill="none"/>`,
    shadow: 0,
    noise: 3,
    strokes: [{ says: 'keep', points: [x, y - s, x, y + s * 0.8, x, y + s * 1.6, x - s * 1.2, y + s * 2.4] }, { says: 'keep', points: [x, y + s * 1.6, x + s * 1.2, y + s * 2.4] }],
  };
}

const MAKERS: Readonly<Record<SceneKind, (r: Random) => Parts>> = { 'painted wood': paintedWood, 'lines on dark': linesOnDark, 'pale in a rind': paleInRind, portrait };

const svg = (inner: string): Buffer => Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="${SIZE}" height="${SIZE}">${inner}</svg>`);

/** A photograph put together by chance from the seed: slightly soft, with noise, saved as JPEG 88. */
export async function photographOf(kind: SceneKind, seed: number): Promise<Photograph> {
  const random = randomFrom(seed * 101 + SCENES.indexOf(kind));
  const { ground, groundBlurPx, subject, shadow, noise, strokes } = MAKERS[kind](random);
  const under = await sharp(await sharp(svg(ground)).flatten().png().toBuffer()).blur(Math.max(0.3, groundBlurPx)).removeAlpha().raw().toBuffer();
  const art = await sharp(await sharp(svg(subject)).png().toBuffer()).blur(0.6).ensureAlpha().raw().toBuffer();
  const alpha = Uint8Array.from({ length: SIZE * SIZE }, (_, i) => art[4 * i + 3]);
  const fall = await sharp(Buffer.from(alpha), { raw: { width: SIZE, height: SIZE, channels: 1 } }).blur(9).extractChannel(0).raw().toBuffer();
  const data = Buffer.alloc(SIZE * SIZE * 3);
  for (let i = 0; i < SIZE * SIZE; i++) {
    const a = alpha[i] / 255;
    const from = Math.max(0, i - 7 * SIZE - 5);
    for (let c = 0; c < 3; c++) {
      const gauss = noise * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
      data[3 * i + c] = Math.max(0, Math.min(255, Math.round(art[4 * i + c] * a + under[3 * i + c] * (1 - (shadow * fall[from]) / 255) * (1 - a) + gauss)));
    }
  }
  const read = await sharp(await sharp(data, { raw: { width: SIZE, height: SIZE, channels: 3 } }).jpeg({ quality: 88 }).toBuffer()).ensureAlpha().raw().toBuffer();
  return { picture: makeRgba8(SIZE, SIZE, new Uint8Array(read), true), alpha, strokes };
}
