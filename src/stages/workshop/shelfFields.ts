import { FORM_WORDS } from '../../core/process/blanks.ts';
import { LOOK_WORDS, PEEL_WORDS, PRESSURE_WORDS, TOOL_WORDS } from '../../core/process/material.ts';
import { PROCESSES } from '../../core/process/processes.ts';
import { say } from '../../core/words/say.ts';

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
const length = (path: string, label: string, more: Partial<ShelfField> = {}): ShelfField => ({ path: path.split('.'), label, kind: 'length', least: 0, most: 10_000, ...more });
const number = (path: string, label: string, suffix: string, most: number, more: Partial<ShelfField> = {}): ShelfField => ({ path: path.split('.'), label, kind: 'number', suffix, least: 0, most, digits: 1, ...more });
const choice = (path: string, label: string, choices: Readonly<Record<string, string>>, more: Partial<ShelfField> = {}): ShelfField => ({ path: path.split('.'), label, kind: 'choice', choices, ...more });
const isBy = (process: string) => (entry: unknown): boolean => valueAt(entry, ['process']) === process;
const isA = (kind: string) => (entry: unknown): boolean => valueAt(entry, ['kind']) === kind;
const name: ShelfField = { path: ['name'], label: say('Name'), kind: 'text' };

export const MATERIAL_FIELDS: readonly FieldGroup[] = [
  {
    title: say('What it is'),
    fields: [
      name,
      choice('process', say('Used for'), PROCESS_NAMES),
      choice('look', say('Looks'), LOOK_WORDS),
      length('widthMm', say('Width'), { least: 10 }),
      length('lengthMm', say('Length of a sheet'), { most: 20_000, none: say('comes from a roll') }),
      number('thicknessMm', say('Thickness'), 'mm', 50, { least: 0.01, step: 0.01, digits: 2 }),
      number('pricePerM2', say('Price of a square metre'), '', 100_000, { digits: 2, none: say('not written down') }),
      { path: ['takesFilm'], label: say('Another film holds on it'), kind: 'switch' },
    ],
  },
  {
    title: say('Smallest that cuts and weeds well'),
    fields: [
      length('least.stripMm', say('Strip'), { most: 50, step: 0.1 }),
      length('least.gapMm', say('Gap'), { most: 50, step: 0.1 }),
      number('least.pieceMm2', say('Piece'), 'mm²', 10_000),
      number('least.tipDeg', say('Tip'), '°', 90, { digits: 0 }),
    ],
  },
  {
    title: say('Cut'),
    fields: [
      choice('cut.tool', say('Tool'), TOOL_WORDS),
      number('cut.forceG', say('Force'), 'g', 10_000, { step: 5, digits: 0 }),
      number('cut.speedMmS', say('Speed'), 'mm/s', 3000, { least: 1, step: 10, digits: 0 }),
      number('cut.passes', say('Passes'), '', 10, { least: 1, digits: 0 }),
      number('cut.bladeOffsetMm', say('Blade offset'), 'mm', 2, { step: 0.05, digits: 2 }),
      length('cut.overcutMm', say('Overcut'), { most: 10, step: 0.1 }),
    ],
  },
  {
    title: say('Press'),
    fields: [
      number('press.temperatureC', say('Temperature'), '°C', 260, { least: 20, step: 5, digits: 0, isOf: isBy('htv') }),
      number('press.timeS', say('Time'), 's', 600, { least: 1, digits: 0, isOf: isBy('htv') }),
      choice('press.pressure', say('Pressure'), PRESSURE_WORDS, { isOf: isBy('htv') }),
      choice('press.peel', say('Peel'), PEEL_WORDS, { isOf: isBy('htv') }),
    ],
  },
  {
    title: say('Seal and dry'),
    fields: [
      choice('seal.ink', say('Printed with'), { inkJet: 'ink-jet', laser: say('laser') }, { isOf: isBy('waterslide') }),
      number('seal.dryMin', say('Dry first'), 'min', 10_000, { digits: 0, isOf: isBy('waterslide') }),
      number('seal.coats', say('Coats'), '', 20, { digits: 0, isOf: isBy('waterslide') }),
      number('seal.coatMin', say('After each coat'), 'min', 10_000, { digits: 0, isOf: isBy('waterslide') }),
      number('seal.finalH', say('After the last'), 'h', 1000, { isOf: isBy('waterslide') }),
    ],
  },
];

export const MACHINE_FIELDS: readonly FieldGroup[] = [
  { title: say('What it is'), fields: [name, choice('kind', say('Kind'), { cutter: say('cutter'), printer: say('printer') }), { path: ['isRoll'], label: say('Film runs through from a roll'), kind: 'switch', isOf: isA('cutter') }] },
  {
    title: say('What lies in it'),
    fields: [
      { path: ['sheet', 'name'], label: say('Called'), kind: 'text' },
      length('sheet.widthMm', say('Width'), { least: 1 }),
      length('sheet.heightMm', say('Length'), { least: 1 }),
      choice('sheet.origin', say('Counts from'), { topLeft: say('upper left'), topRight: say('upper right'), bottomLeft: say('lower left'), bottomRight: say('lower right') }),
      length('sheet.marginMm.left', say('Out of reach, left')),
      length('sheet.marginMm.right', say('right')),
      length('sheet.marginMm.top', say('top')),
      length('sheet.marginMm.bottom', say('bottom')),
    ],
  },
  {
    title: say('How it works'),
    fields: [
      { path: ['readsMarks'], label: say('Finds printed marks'), kind: 'switch', isOf: isA('cutter') },
      { path: ['printsWhite'], label: say('Prints white'), kind: 'switch', isOf: isA('printer') },
      number('speedMmS', say('Fastest'), 'mm/s', 5000, { least: 1, step: 10, digits: 0, isOf: isA('cutter') }),
      number('accelerationMmS2', say('Gets faster by'), 'mm/s²', 100_000, { least: 10, step: 100, digits: 0, isOf: isA('cutter') }),
      number('liftS', say('Lift and lower'), 's', 10, { digits: 2, step: 0.01, isOf: isA('cutter') }),
    ],
  },
];

const isForm = (...forms: readonly string[]) => (entry: unknown): boolean => forms.includes(String(valueAt(entry, ['blank', 'form'])));
export const BLANK_FIELDS: readonly FieldGroup[] = [
  {
    title: say('What it is'),
    fields: [
      { path: ['blank', 'name'], label: say('Name'), kind: 'text' },
      choice('blank.form', say('Form'), FORM_WORDS, { none: 'board' }),
      { path: ['blank', 'colour'], label: say('Colour'), kind: 'colour' },
      { path: ['blank', 'round'], label: say('Area is round or oval'), kind: 'switch' },
    ],
  },
  {
    title: say('Measures'),
    fields: [
      length('blank.widthMm', say('Printable width'), { least: 1 }),
      length('blank.heightMm', say('Printable height'), { least: 1 }),
      length('blank.belowCollarMm', say('Below the collar'), { most: 1000, none: say('not measured'), isOf: isForm('shirt') }),
      length('blank.aroundMm', say('Once around'), { none: say('from the printable width'), isOf: isForm('mug', 'glass') }),
      length('blank.aroundBelowMm', say('Once around, lower edge'), { none: say('as above: it does not taper'), isOf: isForm('mug', 'glass') }),
    ],
  },
  { title: say('Usually'), fields: [choice('process', say('Decorated by'), PROCESS_NAMES), length('widthMm', say('Finished width'), { least: 1 })] },
];

export const FILM_FIELDS = (materials: Readonly<Record<string, string>>): readonly FieldGroup[] => [
  { title: say('What it is'), fields: [name, { path: ['colour'], label: say('Colour'), kind: 'colour' }, choice('material', say('Made of'), { '': say('not written down'), ...materials }, { none: say('not written down') })] },
];
