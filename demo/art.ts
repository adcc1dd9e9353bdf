import { openSync, type Font } from 'fontkit';
import { createRequire } from 'node:module';

/** The demo's drawings: a workshop that decorates for a village boat regatta. All drawn here, as SVG. */
const PALETTE = { navy: '#22375f', rust: '#bf5430', sand: '#e3bf73', white: '#ffffff', ink: '#1d1a22', grey: '#c9c9c6' } as const;

const svg = (width: number, height: number, body: string, ground = PALETTE.white as string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}"><rect width="100%" height="100%" fill="${ground}"/>${body}</svg>`;

const require = createRequire(import.meta.url);
const fonts = new Map<string, Font>();

/** A line of text as path data, so that no installed font is needed. Baseline at x, y. */
export function textPath(text: string, x: number, y: number, size: number, weight: 400 | 700 = 700, spacing = 0): { d: string; width: number } {
  const file = require.resolve(`@fontsource/hanken-grotesk/files/hanken-grotesk-latin-${weight}-normal.woff2`);
  const font = fonts.get(file) ?? (openSync(file) as Font);
  fonts.set(file, font);
  const scale = size / font.unitsPerEm;
  const run = font.layout(text);
  let pen = x;
  let d = '';
  run.glyphs.forEach((glyph, k) => {
    for (const { command, args } of glyph.path.commands) {
      const name = { moveTo: 'M', lineTo: 'L', quadraticCurveTo: 'Q', bezierCurveTo: 'C', closePath: 'Z' }[command];
      d += name + args.map((v, i) => (i % 2 === 0 ? pen + v * scale : y - v * scale).toFixed(3)).join(' ');
    }
    pen += run.positions[k].xAdvance * scale + spacing;
  });
  return { d, width: pen - x - spacing };
}

/** Text whose middle is at cx. */
function centred(text: string, cx: number, y: number, size: number, fill: string, weight: 400 | 700 = 700, spacing = 0): string {
  const { width } = textPath(text, 0, 0, size, weight, spacing);
  return `<path fill="${fill}" d="${textPath(text, cx - width / 2, y, size, weight, spacing).d}"/>`;
}

/** The crew crest: four flat colours, a white sail and white bands, on white paper. The sail is held by a thin grey outline only. */
export function crest(): string {
  const { navy, rust, sand, white, grey } = PALETTE;
  const shield = 'M590 60L1020 190L1020 620C1020 880 840 1060 590 1180C340 1060 160 880 160 620L160 190Z';
  const field = 'M590 130L956 240L956 618C956 838 806 990 590 1100C374 990 224 838 224 618L224 240Z';
  const waves = 'M224 690C290 650 340 650 400 690C460 730 520 730 590 690C660 650 720 650 780 690C840 730 900 730 956 690L956 618L956 640C950 850 806 990 590 1100C374 990 228 850 224 640Z';
  return svg(1180, 1240, `
<path fill="${navy}" d="${shield}"/><path fill="${white}" d="${field}"/>
<circle cx="790" cy="370" r="82" fill="${sand}"/>
<path fill="${rust}" d="${waves}"/>
<path fill="${white}" stroke="${grey}" stroke-width="3" d="M560 250L560 590L360 590C430 500 500 390 560 250Z"/>
<path fill="${sand}" d="M584 300L584 590L740 590C710 480 660 380 584 300Z"/>
<path fill="${navy}" d="M340 616L850 616C820 690 770 728 690 736L490 736C420 728 368 690 340 616Z"/>
<path fill="${navy}" d="M564 226h18v392h-18z"/><path fill="${rust}" d="M582 226L660 252L582 278Z"/>
<g fill="${white}"><path d="M330 830L820 920L824 900L334 810Z"/><path d="M850 830L360 920L356 900L846 810Z"/><ellipse cx="338" cy="822" rx="46" ry="22" transform="rotate(10 338 822)"/><ellipse cx="842" cy="822" rx="46" ry="22" transform="rotate(-10 842 822)"/></g>
<circle cx="590" cy="1000" r="40" fill="${white}"/><circle cx="590" cy="1000" r="22" fill="${navy}"/>`);
}

/** A bell buoy drawn in ink: one break in its outline, a faint pencil line across. `paper` draws the drawing alone. */
export function buoy(): string {
  const { ink } = PALETTE;
  return svg(1400, 1700, `
<g fill="none" stroke="${ink}" stroke-width="16" stroke-linecap="round" stroke-linejoin="round">
<path d="M420 1180C470 1140 930 1140 980 1180L1060 1340C1060 1420 340 1420 340 1340L410 1200"/>
<path d="M500 1150L640 560M900 1150L760 560"/><path d="M540 980L860 980M580 800L820 800"/>
<path d="M620 560L780 560L770 500L630 500Z"/><path d="M660 500C660 430 740 430 740 500"/>
<path d="M700 830L700 850"/><path d="M620 960C620 870 660 850 700 850C740 850 780 870 780 960Z"/>
<path d="M200 1450C280 1410 330 1410 400 1450C470 1490 530 1490 600 1450C670 1410 730 1410 800 1450C870 1490 930 1490 1000 1450C1070 1410 1130 1410 1210 1450"/>
<path d="M300 1540C380 1500 430 1500 500 1540C570 1580 630 1580 700 1540C770 1500 830 1500 900 1540C970 1580 1030 1580 1100 1540"/>
</g>
<circle cx="700" cy="972" r="18" fill="${ink}"/><circle cx="700" cy="390" r="46" fill="${ink}"/>
<g stroke="${ink}" stroke-width="12" stroke-linecap="round"><path d="M700 310L700 250M620 340L574 296M780 340L826 296M596 400L534 400M804 400L866 400"/></g>
<path d="M120 1080C420 1030 900 1120 1300 1060" stroke="#a9a5a2" stroke-width="4" fill="none"/>`, '#f7f3ea');
}

/** A line of lettering with counters and tight gaps. */
export function lettering(): string {
  const { ink } = PALETTE;
  return svg(1500, 520, `${centred('Bread, rope & boats', 750, 230, 150, ink, 700)}${centred('OAR AND RUDDER MENDED WHILE YOU WAIT', 750, 350, 56, ink, 700, 4)}<path fill="${ink}" d="M180 410h1140v10h-1140z"/>`);
}

const HERON = 'M196 486L210 342C146 312 120 226 172 176C208 140 244 136 256 98C264 68 296 52 324 66L432 90L330 102C322 132 310 154 300 192C294 254 286 304 244 338L262 484L246 484L226 344L212 486Z';

/** A heron: a one-colour mark, drawn in a 512 box. */
export function heron(): string {
  const { ink } = PALETTE;
  return svg(512, 512, `<path fill="${ink}" d="${HERON}"/><circle cx="306" cy="82" r="7" fill="#fff"/><path fill="${ink}" d="M70 492C110 474 140 474 170 488L300 488C340 474 380 474 440 492C360 500 150 500 70 492Z"/><path fill="${ink}" d="M98 484C94 410 84 360 60 300C92 350 106 410 108 484ZM120 484C124 420 132 390 148 356C138 400 134 440 132 484Z"/>`);
}

/** A duck for soap: its wing and its eye are islands that bridges hold. */
export function duck(): string {
  const { ink } = PALETTE;
  return svg(900, 640, `
<path fill="${ink}" d="M130 330C190 390 270 400 340 350C380 322 412 290 420 240C400 160 460 90 545 96C620 102 668 160 660 226L760 262C742 292 700 304 650 296C690 350 700 420 660 470L180 470C130 440 110 390 130 330Z"/>
<path fill="${ink}" d="M120 512C180 488 230 488 290 512C350 536 400 536 460 512C520 488 570 488 630 512C690 536 740 536 790 512L790 536C740 560 690 560 630 536C570 512 520 512 460 536C400 560 350 560 290 536C230 512 180 512 120 536Z"/>
<path fill="#fff" d="M262 432C350 446 460 424 500 348C450 384 390 398 322 392C312 408 290 424 262 432Z"/><circle cx="580" cy="180" r="25" fill="#fff"/>`);
}

/** A lighthouse at dusk: shaded, for tones. */
export function lighthouse(): string {
  return svg(1000, 1300, `
<defs><linearGradient id="sky" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#233a5e"/><stop offset=".55" stop-color="#c8785a"/><stop offset="1" stop-color="#f2cf95"/></linearGradient>
<linearGradient id="tower" x1="0" y1="0" x2="1" y2="0"><stop offset="0" stop-color="#fbf4e6"/><stop offset=".6" stop-color="#d9c7ad"/><stop offset="1" stop-color="#8a7560"/></linearGradient>
<radialGradient id="lamp"><stop offset="0" stop-color="#fff6c8"/><stop offset="1" stop-color="#fff6c8" stop-opacity="0"/></radialGradient>
<linearGradient id="rock" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#5b4a44"/><stop offset="1" stop-color="#211b20"/></linearGradient></defs>
<rect width="1000" height="1300" fill="url(#sky)"/><circle cx="520" cy="290" r="330" fill="url(#lamp)"/>
<path fill="url(#tower)" d="M430 400L610 400L670 1080L370 1080Z"/><path fill="#a63c2e" fill-opacity=".92" d="M418 540L622 540L636 690L404 690ZM390 850L650 850L663 1000L377 1000Z"/>
<path fill="#2b2a33" d="M410 400L630 400L630 372L410 372ZM450 372L590 372L590 260L450 260ZM440 260L600 260L520 180Z"/><path fill="#ffe9a3" d="M466 356L574 356L574 274L466 274Z"/>
<path fill="url(#rock)" d="M0 1110C140 1040 250 1060 360 1050C500 1030 640 1050 760 1070C860 1090 940 1060 1000 1090L1000 1300L0 1300Z"/>`);
}

/** The hand-painted sign, 4:3, as it hangs: plank, paint, lettering. */
export function sign(width: number): string {
  const planks = Array.from({ length: 5 }, (_, k) => `<rect x="140" y="${210 + k * 116}" width="1320" height="112" rx="6" fill="${['#caa472', '#c49c68', '#cea978', '#c69f6c', '#c8a270'][k]}"/>`).join('');
  const grain = Array.from({ length: 42 }, (_, k) => `<path d="M150 ${222 + k * 13.4}C500 ${216 + k * 13.4 + (k % 5) * 3} 1000 ${230 + k * 13.4 - (k % 7) * 2} 1450 ${221 + k * 13.4}" stroke="#a97f4c" stroke-opacity=".35" stroke-width="${1 + (k % 3)}" fill="none"/>`).join('');
  const paint = '#20304f';
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${(width * 3) / 4}" viewBox="0 0 1600 1200"><rect width="1600" height="1200" fill="#8d9a86"/><g transform="rotate(-1.2 800 600)">${planks}${grain}${centred('Landing stage', 800, 430, 170, paint)}${centred('boats for hire by the hour', 800, 560, 82, paint, 700)}
<path fill="${paint}" d="M520 640L1080 640C1050 710 1000 740 930 746L690 746C610 738 550 700 520 640Z"/><path fill="${paint}" d="M600 620C640 560 660 600 700 610C760 580 800 600 840 612L1000 616L1000 630L600 630Z"/><circle cx="420" cy="690" r="30" fill="${paint}"/><circle cx="1180" cy="690" r="30" fill="${paint}"/></g></svg>`;
}
