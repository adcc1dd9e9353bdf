import { AppError, isAppError } from '../../core/errors/appError.ts';

/** What decoders say of a file that ends too early. */
const ENDS_EARLY = /premature|truncat|unexpected end|end of (file|data|stream)|too (short|small)|out of (bounds|range)/i;

/** The failure of a decoder as what is known of it: a file that breaks off, or one that is damaged in some other way. Errors of ours pass on as they are. */
export function decoderError(error: unknown, file: string): AppError {
  if (isAppError(error)) return error;
  const message = error instanceof Error ? error.message : String(error);
  return new AppError(error instanceof RangeError || ENDS_EARLY.test(message) ? 'truncated' : 'damaged', { file }, error);
}
