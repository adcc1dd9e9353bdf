import type { PartInDesign } from '../assemble/composeDesign.ts';
import type { Finding } from '../check/cutCheck.ts';
import { followedBy, IDENTITY, mirrorAbout, placed, type Affine } from '../geometry/affine.ts';
import { plainObjects } from '../job/objects.ts';
import type { Job } from '../job/job.ts';
import { materialOf } from '../job/materials.ts';
import type { Operation, PieceMark } from '../operate/operation.ts';
import { boundsOf, type Curves } from '../outline/curves.ts';
import { pieceAt } from '../operate/piecesIndex.ts';
import { PROCESSES } from '../process/processes.ts';
import { operationsOf, withOperation, withOperationChanged, type OperableObject } from './operationEdits.ts';
import { objectOf, withObjectChanged } from './objectEdits.ts';
import { say } from '../words/say.ts';

/** How a weak place can be mended. */
export const MEND_WAYS = { thicken: say('Thicken'), open: say('Open'), close: say('Close'), round: say('Round off'), smooth: say('Smooth'), drop: say('Drop'), fill: say('Fill'), join: say('Join'), turnOver: say('Turn over') } as const;
export type MendWay = keyof typeof MEND_WAYS;

/** The ways in which a kind of finding can be mended, the usual one first: all by an operation, but for what is turned over. */
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
    case 'crowded':
      return ['smooth'];
    case 'cutTwice':
      return ['join'];
    case 'backwards':
      return ['turnOver'];
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
  const operable = new Set(plainObjects(job.objects).filter(({ kind }) => kind !== 'holes').map(({ id }) => id));
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
  if (way === 'turnOver') {
    for (const { part, found } of places.values()) next = withTurnedOver(next, part, found[0]);
    return next === job ? undefined : next;
  }
  for (const { part, film, found } of places.values()) {
    const at = all ? undefined : found.map(({ xMm, yMm }): PieceMark => ({ film, ...placed(part.toMarks, xMm, yMm) }));
    next = withOne(next, part.id, operationFor(job, film, way, found, at, newId()));
  }
  return next;
}

/** The part whose outlines lie at a finding, the uppermost first: beside one where the place is one of the waste. */
function partOf(parts: readonly MarkedPart[], { filmId, xMm, yMm, size, kind }: Finding): MarkedPart | undefined {
  const slackMm = kind === 'smallPiece' || kind === 'smallHole' || kind === 'cutTwice' ? Math.sqrt(size) + 0.1 : kind === 'sharp' || kind === 'crowded' ? 0.1 : size + 0.1;
  if (kind === 'backwards') return parts.find(({ layers }) => layers.some((layer) => layer.filmId === filmId && isMiddle(layer.curves, xMm, yMm)));
  return [...parts].reverse().find(({ layers, cutsOut }) => cutsOut !== true && layers.some((layer) => layer.filmId === filmId && pieceAt(layer.curves, xMm, yMm, slackMm) >= 0));
}

/** What reads backwards is told at the middle of its part, which may lie between two letters. */
function isMiddle(curves: Curves, x: number, y: number): boolean {
  const bounds = boundsOf(curves);
  return bounds !== undefined && Math.hypot((bounds.left + bounds.right) / 2 - x, (bounds.top + bounds.bottom) / 2 - y) < 1e-6;
}

/** The job with a part that lies the wrong way round turned over where it is; one that holds what does, but lies right itself, is left. */
function withTurnedOver(job: Job, { id, toMarks }: MarkedPart, { xMm, yMm }: Finding): Job {
  return withObjectChanged<OperableObject>(job, id, (object) => {
    if (object.kind === 'base') return object;
    const placement = object.placement ?? IDENTITY;
    return placement.a * placement.d > placement.b * placement.c ? object : { ...object, placement: { ...followedBy(mirrorAbout(placed(toMarks, xMm, yMm).x), placement) } };
  });
}

function operationFor(job: Job, film: string, way: Exclude<MendWay, 'turnOver'>, found: readonly Finding[], at: PieceMark[] | undefined, id: string): Operation {
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
      return { ...base, teethMm: rounded(least.stripMm) };
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
