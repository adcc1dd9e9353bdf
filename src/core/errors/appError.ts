/** Everything that can go wrong for a person using Limner. Programming faults are RangeError or TypeError instead. */
export type ErrorCode =
  | 'emptyFile'
  | 'notAPicture'
  | 'truncated'
  | 'damaged'
  | 'badDrawing'
  | 'badFont'
  | 'badNames'
  | 'fileTooLarge'
  | 'pictureTooLarge'
  | 'pictureTooSmall'
  | 'nothingToCut'
  | 'oneColour'
  | 'toneIsEven'
  | 'cropEmpty'
  | 'noSubject'
  | 'marksMissing'
  | 'marksGlare'
  | 'marksMisfit'
  | 'photoBlurred'
  | 'badCorners'
  | 'enlargedTooLarge'
  | 'nothingThere'
  | 'doesNotFit'
  | 'filmMissing'
  | 'heldTooLarge'
  | 'tooIntricate'
  | 'mirrorMissing'
  | 'badValue'
  | 'badJob'
  | 'badRecipe'
  | 'badWorkshop'
  | 'unknownStep'
  | 'newerVersion'
  | 'badArchive'
  | 'pictureMissing'
  | 'storageFull'
  | 'storageFailed'
  | 'machineFault'
  | 'machineGone'
  | 'printerFault'
  | 'cancelled'
  | 'workerLost'
  | 'notYet'
  | 'cannotRead'
  | 'cannotWrite'
  | 'wouldOverwrite'
  | 'unexpected';

export type ErrorDetails = Readonly<Record<string, string | number | boolean>>;

/** An error that is meant to be read by the person at the bench. `details` fill the message in `explain`. */
export class AppError extends Error {
  override readonly name = 'AppError';
  readonly code: ErrorCode;
  readonly details: ErrorDetails;

  constructor(code: ErrorCode, details: ErrorDetails = {}, cause?: unknown) {
    super(`${code} ${JSON.stringify(details)}`, cause === undefined ? undefined : { cause });
    this.code = code;
    this.details = details;
  }
}

/** What crosses a worker boundary in place of an AppError, since class identity does not survive structured cloning. */
export interface PlainError {
  readonly code: ErrorCode;
  readonly details: ErrorDetails;
  readonly message: string;
}

export const isAppError = (value: unknown): value is AppError => value instanceof AppError;

export function plainFromError(error: unknown): PlainError {
  if (isAppError(error)) return { code: error.code, details: error.details, message: error.message };
  const message = error instanceof Error ? `${error.name}: ${error.message}` : String(error);
  return { code: 'unexpected', details: { message }, message };
}

export const errorFromPlain = (plain: PlainError): AppError => new AppError(plain.code, plain.details);

/** The error itself when it is an AppError, else the given code with the foreign message in its details. */
export function asAppError(error: unknown, code: ErrorCode): AppError {
  if (isAppError(error)) return error;
  return new AppError(code, { message: error instanceof Error ? error.message : String(error) }, error);
}
