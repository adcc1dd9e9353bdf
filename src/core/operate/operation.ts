import { z } from 'zod';
import { CORNER_MANNERS } from '../combine/roundCorners.ts';
import { OFFSET_CORNERS } from '../combine/offsetCurves.ts';
import { filmId } from '../film/film.ts';
import { say } from '../words/say.ts';

/** Operations on one part. */
export const MAX_OPERATIONS = 60;
/** Pieces that one operation is for. */
export const MAX_MARKS = 2000;
/** Copies that a part is laid down in. */
const MAX_COPIES = 2000;

const place = z.number().min(-1e6).max(1e6);

/** A piece of a part: the film that it lies on and a place in it. Of traced art in px of the picture, so that it is the same piece at every size; of other parts in their own mm. */
export const pieceMarkSchema = z.strictObject({ film: filmId, x: place, y: place });
export type PieceMark = z.infer<typeof pieceMarkSchema>;

const marks = z.array(pieceMarkSchema).min(1).max(MAX_MARKS);
const common = {
  id: z.string().min(1).max(40),
  /** It is when absent. */
  enabled: z.boolean().optional(),
};
/** Only for these pieces; for all of the part when absent. */
const some = { pieces: marks.optional() };
const widthMm = z.number().min(0.02).max(500);
const distanceMm = z.number().min(-500).max(500);

/**
 * What is done to a part after it is there, in this order and again whenever what lies under it changes. Lengths are in mm of the finished design.
 */
export const operationSchema = z.discriminatedUnion('kind', [
  /** Outlines further out, or further in below 0; openings stay open. */
  z.strictObject({ kind: z.literal('thicken'), ...common, ...some, byMm: z.number().min(-50).max(50) }),
  /** A film around and below the part. */
  z.strictObject({ kind: z.literal('border'), ...common, ...some, film: filmId, widthMm, corners: z.enum(OFFSET_CORNERS), openings: z.enum(['kept', 'filled']) }),
  /** A line that follows the outermost edge, `awayMm` outside of it, or inside below 0. */
  z.strictObject({ kind: z.literal('edgeLine'), ...common, ...some, film: filmId, awayMm: distanceMm, widthMm, corners: z.enum(OFFSET_CORNERS) }),
  /** A field behind the part, which is laid on it or knocked out of it. */
  z.strictObject({
    kind: z.literal('field'),
    ...common,
    film: filmId,
    form: z.enum(['rectangle', 'bar', 'round']),
    paddingMm: z.number().min(0).max(500),
    cornerMm: z.number().min(0).max(500),
    knocksOut: z.boolean(),
  }),
  /** The part once more below it and out of place, with all between them when it is long. */
  z.strictObject({ kind: z.literal('shadow'), ...common, film: filmId, xMm: distanceMm, yMm: distanceMm, isLong: z.boolean() }),
  z.strictObject({ kind: z.literal('corners'), ...common, ...some, radiusMm: widthMm, manner: z.enum(CORNER_MANNERS) }),
  /** What overlaps on one film as one outline. */
  z.strictObject({ kind: z.literal('join'), ...common }),
  /** The outline as a line of a width. */
  z.strictObject({ kind: z.literal('line'), ...common, ...some, widthMm, corners: z.enum(OFFSET_CORNERS), ends: z.enum(['round', 'flat', 'square']) }),
  /** Cut in two along a line through two places, in the part's own frame as marks are. */
  z.strictObject({ kind: z.literal('split'), ...common, from: z.strictObject({ x: place, y: place }), to: z.strictObject({ x: place, y: place }), gapMm: z.number().min(0).max(100) }),
  z.strictObject({ kind: z.literal('takeOff'), ...common, pieces: marks }),
  /** Pieces on another film. */
  z.strictObject({ kind: z.literal('film'), ...common, pieces: marks, film: filmId }),
  /** What the part's lines enclose around these places, filled with a film below them. */
  z.strictObject({
    kind: z.literal('fill'),
    ...common,
    film: filmId,
    at: z.array(z.strictObject({ x: place, y: place })).max(MAX_MARKS),
    reachMm: z.number().min(0).max(20),
    /** Gaps in the lines up to this width do not leak. */
    gapMm: z.number().min(0).max(20),
  }),
  /** Fewer nodes, small bits gone, narrow gaps closed. */
  z.strictObject({
    kind: z.literal('tidy'),
    ...common,
    ...some,
    withinMm: z.number().min(0.005).max(2),
    leastMm2: z.number().min(0).max(10_000),
    gapMm: z.number().min(0).max(10),
    straight: z.boolean(),
    /** Corners that are nearly square become so; not when absent. */
    square: z.boolean().optional(),
    /** Strokes up to this width become even; none when absent. */
    strokesMm: z.number().min(0).max(50).optional(),
  }),
  /** What will not cut or weed well brought to what the film takes; each only as far as it is given. */
  z.strictObject({
    kind: z.literal('mend'),
    ...common,
    /** Only on this film; on all when absent. */
    only: filmId.optional(),
    /** Only there; wherever it is too weak when absent. */
    at: marks.optional(),
    stripMm: z.number().min(0).max(50).optional(),
    openGapMm: z.number().min(0).max(50).optional(),
    closeGapMm: z.number().min(0).max(50).optional(),
    leastMm2: z.number().min(0).max(10_000).optional(),
    tipDeg: z.number().min(0).max(90).optional(),
    radiusMm: z.number().min(0).max(50).optional(),
    /** Teeth with sides up to this are smoothed, and crowded nodes become few. */
    teethMm: z.number().min(0).max(50).optional(),
  }),
  /** Copies in columns and rows; a step is from one to the next. */
  z.strictObject({
    kind: z.literal('rows'),
    ...common,
    columns: z.number().int().min(1).max(200),
    rows: z.number().int().min(1).max(200),
    xMm: distanceMm,
    yMm: distanceMm,
  }).refine(({ columns, rows }) => columns * rows <= MAX_COPIES, say`at most ${MAX_COPIES} copies`),
  /** Copies around a centre below the part. */
  z.strictObject({ kind: z.literal('around'), ...common, count: z.number().int().min(2).max(360), radiusMm: z.number().min(0).max(5000), turns: z.boolean() }),
  /** What is cut lies further out; the line itself is marked on it. */
  z.strictObject({ kind: z.literal('allowance'), ...common, ...some, widthMm, corners: z.enum(OFFSET_CORNERS) }),
]);
export type Operation = z.infer<typeof operationSchema>;
export type OperationKind = Operation['kind'];

export const operationsSchema = z.array(operationSchema).max(MAX_OPERATIONS);
