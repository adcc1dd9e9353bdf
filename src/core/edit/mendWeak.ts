import type { PartInDesign } from '../assemble/composeDesign.ts';
import type { Finding } from '../check/cutCheck.ts';
import { placed, type Affine } from '../geometry/affine.ts';
import { plainObjects } from '../job/objects.ts';
import type { Job } from '../job/job.ts';
import { materialOf } from '../job/materials.ts';
import type { Operation, PieceMark } from '../operate/operation.ts';
import { pieceAt } from '../operate/piecesIndex.ts';
import { PROCESSES } from '../process/processes.ts';
import { operationsOf, withOperation, withOperationChanged } from './operationEdits.ts';
import { objectOf } from './objectEdits.ts';

/** How a weak place can be mended. */
export const MEND_WAYS = { thicken: 'Thicken', open: 'Open', close: 'Close', round: 'Round off', smooth: 'Smooth', drop: 'Drop', fill: 'Fill', join: 'Join' } as const;
export type MendWay = keyof typeof MEND_WAYS;

/** The ways in which a kind of finding can be mended by an operation, the usual one first. */
export function mendWays(kind: Finding['kind']): readonly MendWay[] {
  switch (kind) {
    case 'thin':
      return ['thicken'];
    case 'narrowGap':
      return ['open', 'close'];
    case 'sharp':
      return ['round'];
    case 'smallPiece':
      return ['drop'];
    case 'smallHole':
      return ['fill'];
    case 'jagged':
      return ['smooth'];
    case 'cutTwice':
      return ['join'];
    default:
      return [];
  }
}

/** Limits are met with so much to spare, mm and as a share. */
const SPARE_MM = 0.005;
/** Tips are rounded by this share of the thinnest strip. */
const TIP_SHARE = 0.4;

/** A part of a design with the way to the frame that its marks are in. */
export type MarkedPart = PartInDesign & { readonly toMarks: Affine };

type MendOperation = Extract<Operation, { kind: 'mend' }>;

/**
 * The job with findings of one kind mended, as operations of the parts that they are of; places that lie in no part that operations can be done to are left.
 * @param all the whole kind on its films, wherever it is by then, and not only these places.
 * @returns undefined where nothing of it can be mended so.
 */
export function withWeakMended(job: Job, parts: readonly MarkedPart[], findings: readonly Finding[], way: MendWay, { all, newId }: { readonly all: boolean; readonly newId: () => string }): Job | undefined {
  const operable = new Set(plainObjects(job.objects).filter(({ kind }) => kind !== 'base' && kind !== 'holes').map(({ id }) => id));
  const places = new Map<string, { readonly part: MarkedPart; readonly film: string; readonly found: Finding[] }>();
  for (const finding of findings) {
    const part = partOf(parts.filter(({ id }) => operable.has(id)), finding);
    if (part === undefined || finding.filmId === undefined) continue;
    const key = `${part.id} ${finding.filmId}`;
    const own = places.get(key) ?? { part, film: finding.filmId, found: [] };
    own.found.push(finding);
    places.set(key, own);
  }
  if (places.size === 0) return undefined;
  let next = job;
  for (const { part, film, found } of places.values()) {
    const at = all ? undefined : found.map(({ xMm, yMm }): PieceMark => ({ film, ...placed(part.toMarks, xMm, yMm) }));
    next = withOne(next, part.id, operationFor(job, film, way, found, at, newId()));
  }
  return next;
}

/** The part whose outlines lie at a finding, the uppermost first: beside one where the place is one of the waste. */
function partOf(parts: readonly MarkedPart[], { filmId, xMm, yMm, size, kind }: Finding): MarkedPart | undefined {
  const slackMm = kind === 'smallPiece' || kind === 'smallHole' || kind === 'cutTwice' ? Math.sqrt(size) + 0.1 : kind === 'sharp' ? 0.1 : size + 0.1;
  return [...parts].reverse().find(({ layers, cutsOut }) => cutsOut !== true && layers.some((layer) => layer.filmId === filmId && pieceAt(layer.curves, xMm, yMm, slackMm) >= 0));
}

function operationFor(job: Job, film: string, way: MendWay, found: readonly Finding[], at: PieceMark[] | undefined, id: string): Operation {
  const { least } = materialOf(job, film);
  const isOpening = PROCESSES[job.process].artIsOpening;
  const base: MendOperation = { kind: 'mend', id, only: film, ...(at === undefined ? {} : { at }) };
  const rounded = (value: number): number => Math.round((value + SPARE_MM) * 1000) / 1000;
  switch (way) {
    case 'thicken':
      // Of a stencil the film is what lies between the openings.
      return isOpening ? { ...base, openGapMm: rounded(least.stripMm) } : { ...base, stripMm: rounded(least.stripMm) };
    case 'open':
      return isOpening ? { ...base, stripMm: rounded(least.gapMm) } : { ...base, openGapMm: rounded(least.gapMm) };
    case 'close':
      return { ...base, closeGapMm: rounded(least.gapMm) };
    case 'round':
      return { ...base, tipDeg: least.tipDeg, radiusMm: rounded(least.stripMm * TIP_SHARE) };
    case 'drop':
    case 'fill':
      return { ...base, leastMm2: Math.ceil(Math.max(...found.map(({ size }) => size)) * 100 + 1) / 100 };
    case 'smooth':
      return { kind: 'tidy', id, withinMm: Math.min(2, Math.max(0.02, Math.max(...found.map(({ size }) => size)))), leastMm2: 0, gapMm: 0, straight: false };
    case 'join':
      return { kind: 'join', id };
  }
}

/** A mend that is like the last operation of a part but for its places is one with it. */
function withOne(job: Job, id: string, operation: Operation): Job {
  const last = operationsOf(objectOf(job.objects, id)).at(-1);
  if (operation.kind !== 'mend' || operation.at === undefined || last?.kind !== 'mend' || last.at === undefined) return withOperation(job, id, operation);
  const settings = ({ id: _, at: __, ...rest }: MendOperation): string => JSON.stringify(rest);
  return settings(last) === settings(operation) ? withOperationChanged(job, id, last.id, { at: [...last.at, ...operation.at] }) : withOperation(job, id, operation);
}
