import { BLANK_FORMS } from '../../core/process/blanks.ts';
import { LOOKS } from '../../core/process/material.ts';
import { PROCESSES } from '../../core/process/processes.ts';

/** One value of an entry on a shelf: where it stands in it, and how it is shown and set. */
export interface ShelfField {
  /** Names of the entries that lead to it, one in the other. */
  readonly path: readonly string[];
  readonly label: string;
  readonly kind: 'text' | 'colour' | 'length' | 'number' | 'choice' | 'switch';
  readonly choices?: Readonly<Record<string, string>>;
  readonly suffix?: string;
  readonly least?: number;
  readonly most?: number;
  readonly step?: number;
  readonly digits?: number;
  /** What it means to have none: then 0, or nothing, takes the value away. */
  readonly none?: string;
  /** Whether it is of any meaning for an entry; always when absent. */
  readonly isOf?: (entry: unknown) => boolean;
}

/** Fields under one heading. */
export interface FieldGroup {
  readonly title: string;
  readonly fields: readonly ShelfField[];
}

export function valueAt(entry: unknown, path: readonly string[]): unknown {
  return path.reduce<unknown>((value, name) => (typeof value === 'object' && value !== null ? (value as Record<string, unknown>)[name] : undefined), entry);
}

/** The entry with one value of it changed; taken away when it is undefined. */
export function withValue<T>(entry: T, [name, ...rest]: readonly string[], value: unknown): T {
  const { [name]: before, ...others } = entry as Record<string, unknown>;
  const next = rest.length === 0 ? value : withValue(before ?? {}, rest, value);
  return (next === undefined ? others : { ...others, [name]: next }) as T;
}

const PROCESS_NAMES = Object.fromEntries(Object.entries(PROCESSES).map(([process, { name }]) => [process, name]));
const asNamed = (names: readonly string[]): Record<string, string> => Object.fromEntries(names.map((name) => [name, name]));
const length = (path: string, label: string, more: Partial<ShelfField> = {}): ShelfField => ({ path: path.split('.'), label, kind: 'length', least: 0, most: 10_000, ...more });
const number = (path: string, label: string, suffix: string, most: number, more: Partial<ShelfField> = {}): ShelfField => ({ path: path.split('.'), label, kind: 'number', suffix, least: 0, most, digits: 1, ...more });
const choice = (path: string, label: string, choices: Readonly<Record<string, string>>, more: Partial<ShelfField> = {}): ShelfField => ({ path: path.split('.'), label, kind: 'choice', choices, ...more });
const isBy = (process: string) => (entry: unknown): boolean => valueAt(entry, ['process']) === process;
const isA = (kind: string) => (entry: unknown): boolean => valueAt(entry, ['kind']) === kind;
const name: ShelfField = { path: ['name'], label: 'Name', kind: 'text' };

export const MATERIAL_FIELDS: readonly FieldGroup[] = [
  {
    title: 'What it is',
    fields: [
      name,
      choice('process', 'Used for', PROCESS_NAMES),
      choice('look', 'Looks', asNamed(LOOKS)),
      length('widthMm', 'Width', { least: 10 }),
      length('lengthMm', 'Length of a sheet', { most: 20_000, none: 'comes from a roll' }),
      number('thicknessMm', 'Thickness', 'mm', 50, { least: 0.01, step: 0.01, digits: 2 }),
      number('pricePerM2', 'Price of a square metre', '', 100_000, { digits: 2, none: 'not written down' }),
      { path: ['takesFilm'], label: 'Another film holds on it', kind: 'switch' },
    ],
  },
  {
    title: 'Smallest that cuts and weeds well',
    fields: [
      length('least.stripMm', 'Strip', { most: 50, step: 0.1 }),
      length('least.gapMm', 'Gap', { most: 50, step: 0.1 }),
      number('least.pieceMm2', 'Piece', 'mm²', 10_000),
      number('least.tipDeg', 'Tip', '°', 90, { digits: 0 }),
    ],
  },
  {
    title: 'Cut',
    fields: [
      choice('cut.tool', 'Tool', { knife: 'knife', pen: 'pen' }),
      number('cut.forceG', 'Force', 'g', 10_000, { step: 5, digits: 0 }),
      number('cut.speedMmS', 'Speed', 'mm/s', 3000, { least: 1, step: 10, digits: 0 }),
      number('cut.passes', 'Passes', '', 10, { least: 1, digits: 0 }),
      number('cut.bladeOffsetMm', 'Blade offset', 'mm', 2, { step: 0.05, digits: 2 }),
      length('cut.overcutMm', 'Overcut', { most: 10, step: 0.1 }),
    ],
  },
  {
    title: 'Press',
    fields: [
      number('press.temperatureC', 'Temperature', '°C', 260, { least: 20, step: 5, digits: 0, isOf: isBy('htv') }),
      number('press.timeS', 'Time', 's', 600, { least: 1, digits: 0, isOf: isBy('htv') }),
      choice('press.pressure', 'Pressure', asNamed(['light', 'medium', 'firm']), { isOf: isBy('htv') }),
      choice('press.peel', 'Peel', asNamed(['hot', 'warm', 'cold']), { isOf: isBy('htv') }),
    ],
  },
  {
    title: 'Seal and dry',
    fields: [
      choice('seal.ink', 'Printed with', { inkJet: 'ink-jet', laser: 'laser' }, { isOf: isBy('waterslide') }),
      number('seal.dryMin', 'Dry first', 'min', 10_000, { digits: 0, isOf: isBy('waterslide') }),
      number('seal.coats', 'Coats', '', 20, { digits: 0, isOf: isBy('waterslide') }),
      number('seal.coatMin', 'After each coat', 'min', 10_000, { digits: 0, isOf: isBy('waterslide') }),
      number('seal.finalH', 'After the last', 'h', 1000, { isOf: isBy('waterslide') }),
    ],
  },
];

export const MACHINE_FIELDS: readonly FieldGroup[] = [
  { title: 'What it is', fields: [name, choice('kind', 'Kind', { cutter: 'cutter', printer: 'printer' }), { path: ['isRoll'], label: 'Film runs through from a roll', kind: 'switch', isOf: isA('cutter') }] },
  {
    title: 'What lies in it',
    fields: [
      { path: ['sheet', 'name'], label: 'Called', kind: 'text' },
      length('sheet.widthMm', 'Width', { least: 1 }),
      length('sheet.heightMm', 'Length', { least: 1 }),
      choice('sheet.origin', 'Counts from', { topLeft: 'upper left', topRight: 'upper right', bottomLeft: 'lower left', bottomRight: 'lower right' }),
      length('sheet.marginMm.left', 'Out of reach, left'),
      length('sheet.marginMm.right', 'right'),
      length('sheet.marginMm.top', 'top'),
      length('sheet.marginMm.bottom', 'bottom'),
    ],
  },
  {
    title: 'How it works',
    fields: [
      { path: ['readsMarks'], label: 'Finds printed marks', kind: 'switch', isOf: isA('cutter') },
      { path: ['printsWhite'], label: 'Prints white', kind: 'switch', isOf: isA('printer') },
      number('speedMmS', 'Fastest', 'mm/s', 5000, { least: 1, step: 10, digits: 0, isOf: isA('cutter') }),
      number('accelerationMmS2', 'Gets faster by', 'mm/s²', 100_000, { least: 10, step: 100, digits: 0, isOf: isA('cutter') }),
      number('liftS', 'Lift and lower', 's', 10, { digits: 2, step: 0.01, isOf: isA('cutter') }),
    ],
  },
];

const isForm = (...forms: readonly string[]) => (entry: unknown): boolean => forms.includes(String(valueAt(entry, ['blank', 'form'])));
export const BLANK_FIELDS: readonly FieldGroup[] = [
  {
    title: 'What it is',
    fields: [
      { path: ['blank', 'name'], label: 'Name', kind: 'text' },
      choice('blank.form', 'Form', asNamed(BLANK_FORMS), { none: 'board' }),
      { path: ['blank', 'colour'], label: 'Colour', kind: 'colour' },
      { path: ['blank', 'round'], label: 'Area is round or oval', kind: 'switch' },
    ],
  },
  {
    title: 'Measures',
    fields: [
      length('blank.widthMm', 'Printable width', { least: 1 }),
      length('blank.heightMm', 'Printable height', { least: 1 }),
      length('blank.belowCollarMm', 'Below the collar', { most: 1000, none: 'not measured', isOf: isForm('shirt') }),
      length('blank.aroundMm', 'Once around', { none: 'from the printable width', isOf: isForm('mug', 'glass') }),
      length('blank.aroundBelowMm', 'Once around, lower edge', { none: 'as above: it does not taper', isOf: isForm('mug', 'glass') }),
    ],
  },
  { title: 'Usually', fields: [choice('process', 'Decorated by', PROCESS_NAMES), length('widthMm', 'Finished width', { least: 1 })] },
];

export const FILM_FIELDS = (materials: Readonly<Record<string, string>>): readonly FieldGroup[] => [
  { title: 'What it is', fields: [name, { path: ['colour'], label: 'Colour', kind: 'colour' }, choice('material', 'Made of', { '': 'not written down', ...materials }, { none: 'not written down' })] },
];
