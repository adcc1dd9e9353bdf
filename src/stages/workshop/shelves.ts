import type { StockFilm } from '../../core/film/stock.ts';
import type { Machine } from '../../core/layout/machine.ts';
import { usualMaterial, type Material } from '../../core/process/material.ts';
import { PROCESSES } from '../../core/process/processes.ts';
import { USUAL_WORKSHOP, type Workshop, type WorkshopFile } from '../../core/workshop/workshop.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength, type LengthUnit } from '../../core/units/parseLength.ts';
import { BLANK_FIELDS, FILM_FIELDS, MACHINE_FIELDS, MATERIAL_FIELDS, type FieldGroup } from './shelfFields.ts';
import { inSentence, say } from '../../core/words/say.ts';

export const SHELF_NAMES = { films: say('Films'), materials: say('Materials'), machines: say('Cutters and printers'), blanks: say('Blanks') } as const;
export type ShelfName = keyof typeof SHELF_NAMES;
export type ShelfRow = WorkshopFile[ShelfName][number];

export const SHELF_ABOUT: Readonly<Record<ShelfName, string>> = {
  films: say('colours of film that lie on the shelf; what each is made of decides how fine it cuts'),
  materials: say('what films are made of: limits, cutting, pressing, sealing'),
  machines: say('what lies in each, what it reaches, how fast it goes'),
  blanks: say('what is decorated, with its printable area and measures'),
};

/** What all entries are known by: the first of their name and number, unlike all that are there. */
export const newId = (shelf: ShelfName, taken: number): string => `own-${shelf}-${Date.now().toString(36)}-${taken}`;

/** Name of an entry, and what is said of it beside. */
export function rowWords(row: ShelfRow, unit: LengthUnit, materials: readonly Material[]): { readonly name: string; readonly about: string; readonly colour?: string } {
  const length = (value: number): string => formatLength(mm(value), unit);
  if ('blank' in row) return { name: row.blank.name, about: `${length(row.blank.widthMm)} × ${length(row.blank.heightMm)}, ${inSentence(PROCESSES[row.process].name)}`, colour: row.blank.colour };
  if ('sheet' in row) return { name: row.name, about: `${row.sheet.name}, ${length(row.sheet.widthMm)} × ${length(row.sheet.heightMm)}` };
  if ('least' in row) return { name: row.name, about: say`${inSentence(PROCESSES[row.process].name)}, strips from ${length(row.least.stripMm)}` };
  return { name: row.name, about: materials.find(({ id }) => id === row.material)?.name ?? say('material not written down'), colour: row.colour };
}

export function fieldsOf(shelf: ShelfName, materials: readonly Material[]): readonly FieldGroup[] {
  if (shelf === 'films') return FILM_FIELDS(Object.fromEntries(materials.map(({ id, name }) => [id, name])));
  return shelf === 'materials' ? MATERIAL_FIELDS : shelf === 'machines' ? MACHINE_FIELDS : BLANK_FIELDS;
}

/** A new entry, to be changed: like the one that is chosen, or the first usual one. */
export function freshRow(shelf: ShelfName, id: string, like: ShelfRow | undefined): ShelfRow {
  if (shelf === 'films') return { ...(like as StockFilm | undefined), id, name: say('New film'), colour: '#9e2f4b' };
  if (shelf === 'materials') return { ...((like as Material | undefined) ?? USUAL_WORKSHOP.materials[0]), id, name: say('New material') };
  if (shelf === 'machines') return { ...((like as Machine | undefined) ?? USUAL_WORKSHOP.machines[0]), id, name: say('New machine') };
  const choice = (like as Workshop['blanks'][number] | undefined) ?? USUAL_WORKSHOP.blanks[0];
  return { ...choice, blank: { ...choice.blank, name: say('New blank') } };
}

/** The entry whole again after one value of it changed: a material for another process has what that process asks for. */
export function completedRow(row: ShelfRow): ShelfRow {
  if (!('least' in row)) return row;
  const { press, seal } = usualMaterial(row.process);
  return { ...row, ...(press === undefined ? {} : { press: { ...press, ...row.press } }), ...(seal === undefined ? {} : { seal: { ...seal, ...row.seal } }) };
}
