import type { Film } from '../film/film.ts';
import type { Job } from '../job/job.ts';
import type { DesignObject } from '../job/objects.ts';
import type { Operation, PieceMark } from '../operate/operation.ts';
import type { LostMark } from '../operate/pieceMarks.ts';
import { objectOf, withFilm, withObjectChanged } from './objectEdits.ts';

/** Objects that operations can be done to. */
export type OperableObject = Exclude<DesignObject, { kind: 'holes' }>;

export const operationsOf = (object: DesignObject | undefined): readonly Operation[] => (object !== undefined && 'operations' in object ? (object.operations ?? []) : []);

/** Films of operations that lie under what they are done to. */
const LIES_BELOW: readonly Operation['kind'][] = ['border', 'field', 'shadow', 'fill'];

/** The job with an object's operations. An empty list is none. */
export const withOperations = (job: Job, id: string, operations: readonly Operation[]): Job =>
  withObjectChanged<OperableObject>(job, id, ({ operations: _before, ...object }) => (operations.length === 0 ? object : { ...object, operations: [...operations] }) as OperableObject);

const change = (job: Job, id: string, make: (operations: readonly Operation[]) => readonly Operation[]): Job => withOperations(job, id, make(operationsOf(objectOf(job.objects, id))));

/** The job with one more operation on an object, the last; a film that is new goes on the rack: below all where the operation lays it below the part. */
export function withOperation(job: Job, id: string, operation: Operation, film?: Film): Job {
  const racked = film === undefined ? job : withFilm(job, film, LIES_BELOW.includes(operation.kind) ? 0 : undefined);
  return change(racked, id, (operations) => [...operations, operation]);
}

export const withOperationChanged = (job: Job, id: string, operationId: string, with_: Partial<Operation>): Job =>
  change(job, id, (operations) => operations.map((each) => (each.id === operationId ? ({ ...each, ...with_ } as Operation) : each)));

export const withoutOperation = (job: Job, id: string, operationId: string): Job => change(job, id, (operations) => operations.filter((each) => each.id !== operationId));

/** One place earlier or later. */
export const withOperationMoved = (job: Job, id: string, operationId: string, by: 1 | -1): Job =>
  change(job, id, (operations) => {
    const from = operations.findIndex((each) => each.id === operationId);
    const to = from + by;
    if (from < 0 || to < 0 || to >= operations.length) return operations;
    const moved = [...operations];
    moved.splice(to, 0, ...moved.splice(from, 1));
    return moved;
  });

/**
 * The job with pieces more for an operation of a kind that is the last of an object's, or for a new one: so that taking ten bits off one after the other is one entry.
 * @param make a new one for these pieces.
 */
export function withPiecesMore(job: Job, id: string, pieces: readonly PieceMark[], isSame: (operation: Operation) => boolean, make: () => Operation, film?: Film): Job {
  const racked = film === undefined ? job : withFilm(job, film);
  return change(racked, id, (operations) => {
    const last = operations[operations.length - 1];
    if (last === undefined || !isSame(last) || !('pieces' in last)) return [...operations, make()];
    return [...operations.slice(0, -1), { ...last, pieces: [...(last.pieces ?? []), ...pieces] } as Operation];
  });
}

/** The job with marks that found nothing set to what is nearest to them, or left out where nothing is. */
export const withNearestPieces = (job: Job, id: string, operationId: string, lost: readonly LostMark[]): Job =>
  change(job, id, (operations) =>
    operations.flatMap((operation): Operation[] => {
      if (operation.id !== operationId || !('pieces' in operation) || operation.pieces === undefined) return [operation];
      const isLost = (mark: PieceMark): LostMark | undefined => lost.find(({ mark: each }) => each.film === mark.film && each.x === mark.x && each.y === mark.y);
      const pieces = operation.pieces.flatMap((mark) => {
        const found = isLost(mark);
        return found === undefined ? [mark] : found.nearest === undefined ? [] : [found.nearest];
      });
      return pieces.length === 0 ? [] : [{ ...operation, pieces }];
    }),
  );
