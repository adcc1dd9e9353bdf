import Papa from 'papaparse';
import { AppError } from '../../core/errors/appError.ts';
import { slotName } from '../../core/edit/fillSlots.ts';
import { grouped, say } from '../../core/words/say.ts';

/** One line of a list: values by the names of its columns. */
export type NamesRow = ReadonlyMap<string, string>;

export interface NamesList {
  /** As the first line has them. */
  readonly columns: readonly string[];
  readonly rows: readonly NamesRow[];
}

const MAX_BYTES = 5_000_000;
export const MAX_ROWS = 5000;
const MOST_COLUMNS = 40;

/**
 * Reads a list of names: CSV whose first line names the columns, parted by commas, semicolons or tabs, values in quotes where they hold one (RFC 4180). Empty lines are passed over.
 * @throws AppError `badNames`, `fileTooLarge`.
 */
export function readNames(bytes: Uint8Array, file: string): NamesList {
  if (bytes.length > MAX_BYTES) throw new AppError('fileTooLarge', { file, megabytes: Math.ceil(bytes.length / 1e6), limitMegabytes: MAX_BYTES / 1e6 });
  const text = new TextDecoder().decode(bytes).replace(/^\uFEFF/, '');
  const { data, errors } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy', preview: MAX_ROWS + 2 });
  const broken = errors.find(({ type }) => type === 'Quotes');
  if (broken !== undefined) throw new AppError('badNames', { file, reason: say`line ${(broken.row ?? 0) + 1}: ${broken.message}` });
  const [head, ...lines] = data;
  if (head === undefined || lines.length === 0) throw new AppError('badNames', { file, reason: say('it needs a line that names the columns and one line for each design') });
  if (lines.length > MAX_ROWS) throw new AppError('badNames', { file, reason: say`it has more than ${grouped(MAX_ROWS)} lines` });
  const columns = head.map((each) => each.trim());
  const names = columns.map(slotName);
  if (columns.length > MOST_COLUMNS || names.some((name) => name === '') || new Set(names).size < names.length) throw new AppError('badNames', { file, reason: say('its first line does not name each column once') });
  return { columns, rows: lines.map((line) => new Map(names.map((name, k) => [name, (line[k] ?? '').trim()]))) };
}
