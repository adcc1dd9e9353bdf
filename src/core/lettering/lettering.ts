import { z } from 'zod';

/** Letters of one lettering. */
export const MAX_LETTERS = 1000;

/** How a text is set. All lengths at the size at which it is cut. */
export const letteringSchema = z.strictObject({
  text: z.string().min(1).max(MAX_LETTERS),
  /** Name of a shipped font. */
  font: z.string().min(1).max(120),
  /** Height of a capital, mm. */
  heightMm: z.number().min(0.5).max(2000),
  /** Between letters, beside what the font has, share of the height. */
  spacing: z.number().min(-0.5).max(5).optional(),
  /** From line to line, share of the height. */
  lineSpacing: z.number().min(0.5).max(10).optional(),
  align: z.enum(['left', 'middle', 'right']).optional(),
  /** On a circle: the feet of the letters stand on it, outside of it or, along the bottom, inside. */
  around: z.strictObject({ diameterMm: z.number().min(1).max(5000), side: z.enum(['top', 'bottom']) }).optional(),
  /** On the outermost outline of another part of the design, which it follows. */
  along: z
    .strictObject({
      part: z.string().min(1).max(40),
      /** Which way the heads of the letters point. */
      heads: z.enum(['out', 'in']),
      /** Where the middle of the text is: share of the outline's length, clockwise from above its middle. */
      at: z.number().min(0).max(1),
      /** How far outside of the outline the feet stand, inside below 0, mm. */
      awayMm: z.number().min(-500).max(500),
    })
    .optional(),
  /** As large as it can be inside of another part of the design, and no nearer to its edge than this, mm. */
  into: z.strictObject({ part: z.string().min(1).max(40), paddingMm: z.number().min(0).max(500) }).optional(),
  /** Made as wide as this by narrowing or spreading the letters, mm. */
  widthMm: z.number().min(0.5).max(10_000).optional(),
  /** No wider than this, mm: a longer text is made smaller, or narrower alone, or goes on two lines and is smaller only where these are still too long. */
  mostWidthMm: z.number().min(0.5).max(10_000).optional(),
  whenWider: z.enum(['smaller', 'narrower', 'twoLines']).optional(),
  /** Outlines moved outwards, or inwards below 0, mm. */
  thickenMm: z.number().min(-20).max(20).optional(),
  /** Letters that touch are cut as one. */
  join: z.boolean().optional(),
});
export type Lettering = z.infer<typeof letteringSchema>;

export const DEFAULT_LETTERING = { spacing: 0, lineSpacing: 1.6, align: 'middle' } as const satisfies Partial<Lettering>;
