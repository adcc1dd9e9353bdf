import type { FontFace } from './fontFace.ts';
import { say } from '../words/say.ts';

/** In what manner a font is drawn. */
export const MANNERS = ['block', 'slab', 'condensed', 'round', 'script', 'brush', 'hand', 'stencil', 'athletic', 'serif', 'deco', 'blackletter'] as const;
export type Manner = (typeof MANNERS)[number];
export const MANNER_WORDS: Readonly<Record<Manner, string>> = {
  ...{ block: say('block'), slab: say('slab'), condensed: say('condensed'), round: say('round'), script: say('script'), brush: say('brush') },
  ...{ hand: say('hand'), stencil: say('stencil'), athletic: say('athletic'), serif: say('serif'), deco: say('deco'), blackletter: say('blackletter') },
};

/** A font that is shipped: open, under the SIL Open Font License. */
export interface ShippedFont {
  readonly name: string;
  readonly manner: Manner;
  /** Of its package and its files. */
  readonly family: string;
  readonly weight: number;
  /** Width of its thinnest strokes, as a share of the height of its capitals: a tenth of all are thinner. */
  readonly thinnest: number;
}

/** Whether a font has every letter of a text; blanks between them do not count. */
export const hasLetters = (face: FontFace, text: string): boolean => text.split(/\r?\n/).every((line) => face.shape(line).every(({ isMissing, text: letter }) => !isMissing || letter.trim() === ''));

const font = (name: string, manner: Manner, thinnest: number, weight = 400, family = name.toLowerCase().replaceAll(' ', '-')): ShippedFont => ({ name, manner, family, weight, thinnest });

export const SHIPPED_FONTS: readonly ShippedFont[] = [
  font('Archivo Black', 'block', 0.14),
  font('Hanken Grotesk', 'block', 0.10, 700),
  font('Montserrat', 'block', 0.14, 800),
  font('Poppins', 'block', 0.15, 700),
  font('Rubik', 'block', 0.14, 700),
  font('Alfa Slab One', 'slab', 0.14),
  font('Bevan', 'slab', 0.11),
  font('Josefin Slab', 'slab', 0.10, 700),
  font('Zilla Slab', 'slab', 0.08, 700),
  font('Barlow Condensed', 'condensed', 0.12, 700),
  font('Bebas Neue', 'condensed', 0.10),
  font('Fjalla One', 'condensed', 0.09),
  font('League Gothic', 'condensed', 0.09),
  font('Oswald', 'condensed', 0.09, 700),
  font('Fredoka', 'round', 0.22, 700),
  font('Nunito', 'round', 0.11, 800),
  font('Quicksand', 'round', 0.13, 700),
  font('Varela Round', 'round', 0.09),
  font('Dancing Script', 'script', 0.04, 700),
  font('Great Vibes', 'script', 0.02),
  font('Lobster', 'script', 0.05),
  font('Pacifico', 'script', 0.08),
  font('Sacramento', 'script', 0.03),
  font('Caveat Brush', 'brush', 0.09),
  font('Kaushan Script', 'brush', 0.05),
  font('Amatic SC', 'hand', 0.05, 700),
  font('Caveat', 'hand', 0.08, 700),
  font('Indie Flower', 'hand', 0.06),
  font('Patrick Hand', 'hand', 0.10),
  font('Shadows Into Light', 'hand', 0.06),
  font('Allerta Stencil', 'stencil', 0.22),
  font('Black Ops One', 'stencil', 0.40),
  font('Saira Stencil One', 'stencil', 0.40),
  font('Stardos Stencil', 'stencil', 0.29, 700),
  font('Alumni Sans Collegiate One', 'athletic', 0.01),
  font('Graduate', 'athletic', 0.11),
  font('Squada One', 'athletic', 0.11),
  font('Abril Fatface', 'serif', 0.02),
  font('Cormorant Garamond', 'serif', 0.03, 700),
  font('Lora', 'serif', 0.09, 700),
  font('Playfair Display', 'serif', 0.03, 700),
  font('Limelight', 'deco', 0.04),
  font('Monoton', 'deco', 0.04),
  font('Poiret One', 'deco', 0.03),
  font('Righteous', 'deco', 0.17),
  font('Grenze Gotisch', 'blackletter', 0.05, 700),
  font('New Rocker', 'blackletter', 0.07),
  font('Pirata One', 'blackletter', 0.06),
  font('UnifrakturMaguntia', 'blackletter', 0.02, 400, 'unifrakturmaguntia'),
];

/** The font of a name, however it is written. */
export const fontNamed = (name: string): ShippedFont | undefined => SHIPPED_FONTS.find((each) => each.name.toLowerCase().replaceAll(' ', '') === name.trim().toLowerCase().replace(/[\s_-]/g, ''));

/** Whether the strokes of a font are broad enough to be cut and weeded, at a height of its capitals. Of a font that is not shipped nothing is known. */
export const cutsWell = ({ thinnest }: Pick<ShippedFont, 'thinnest'>, capitalMm: number, leastStripMm: number): boolean => thinnest * capitalMm >= leastStripMm;
