/** In what manner a font is drawn. */
export const MANNERS = ['block', 'slab', 'condensed', 'round', 'script', 'brush', 'hand', 'stencil', 'athletic', 'serif', 'deco', 'blackletter'] as const;
export type Manner = (typeof MANNERS)[number];

/** A font that is shipped: open, under the SIL Open Font License. */
export interface ShippedFont {
  readonly name: string;
  readonly manner: Manner;
  /** Of its package and its files. */
  readonly family: string;
  readonly weight: number;
}

const font = (name: string, manner: Manner, weight = 400, family = name.toLowerCase().replaceAll(' ', '-')): ShippedFont => ({ name, manner, family, weight });

export const SHIPPED_FONTS: readonly ShippedFont[] = [
  font('Archivo Black', 'block'),
  font('Hanken Grotesk', 'block', 700),
  font('Montserrat', 'block', 800),
  font('Poppins', 'block', 700),
  font('Rubik', 'block', 700),
  font('Alfa Slab One', 'slab'),
  font('Bevan', 'slab'),
  font('Josefin Slab', 'slab', 700),
  font('Zilla Slab', 'slab', 700),
  font('Barlow Condensed', 'condensed', 700),
  font('Bebas Neue', 'condensed'),
  font('Fjalla One', 'condensed'),
  font('League Gothic', 'condensed'),
  font('Oswald', 'condensed', 700),
  font('Fredoka', 'round', 700),
  font('Nunito', 'round', 800),
  font('Quicksand', 'round', 700),
  font('Varela Round', 'round'),
  font('Dancing Script', 'script', 700),
  font('Great Vibes', 'script'),
  font('Lobster', 'script'),
  font('Pacifico', 'script'),
  font('Sacramento', 'script'),
  font('Caveat Brush', 'brush'),
  font('Kaushan Script', 'brush'),
  font('Amatic SC', 'hand', 700),
  font('Caveat', 'hand', 700),
  font('Indie Flower', 'hand'),
  font('Patrick Hand', 'hand'),
  font('Shadows Into Light', 'hand'),
  font('Allerta Stencil', 'stencil'),
  font('Black Ops One', 'stencil'),
  font('Saira Stencil One', 'stencil'),
  font('Stardos Stencil', 'stencil', 700),
  font('Alumni Sans Collegiate One', 'athletic'),
  font('Graduate', 'athletic'),
  font('Squada One', 'athletic'),
  font('Abril Fatface', 'serif'),
  font('Cormorant Garamond', 'serif', 700),
  font('Lora', 'serif', 700),
  font('Playfair Display', 'serif', 700),
  font('Limelight', 'deco'),
  font('Monoton', 'deco'),
  font('Poiret One', 'deco'),
  font('Righteous', 'deco'),
  font('Grenze Gotisch', 'blackletter', 700),
  font('New Rocker', 'blackletter'),
  font('Pirata One', 'blackletter'),
  font('UnifrakturMaguntia', 'blackletter', 400, 'unifrakturmaguntia'),
];

/** The font of a name, however it is written. */
export const fontNamed = (name: string): ShippedFont | undefined => SHIPPED_FONTS.find((each) => each.name.toLowerCase().replaceAll(' ', '') === name.trim().toLowerCase().replace(/[\s_-]/g, ''));
