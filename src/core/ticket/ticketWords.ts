import { stateWord } from '../job/order.ts';
import { GUIDE_WORDS } from '../proof/placementGuide.ts';
import { PROCESSES } from '../process/processes.ts';
import { mm } from '../units/length.ts';
import { formatLength, trimNumber, type LengthUnit } from '../units/parseLength.ts';
import { timeWords } from '../units/timeWords.ts';
import type { ApplyStep, Ticket, TicketFilm } from './ticket.ts';

export interface TicketSection {
  readonly title: string;
  /** What something is called, and what it is. */
  readonly rows: readonly (readonly [string, string])[];
  /** Colour of the film that a section is about. */
  readonly colour?: string | undefined;
}

const RIGHTS = { unknown: 'not asked yet', ours: 'our own', allowed: 'may be used', notForSale: 'not for sale' } as const;

const counted = (count: number, one: string, many: string): string => (count === 1 ? `1 ${one}` : `${count} ${many}`);

/** What is done with one film or coat, in words; its wait is told beside it. */
export function stepWords(step: ApplyStep): string {
  switch (step.what) {
    case 'press':
      return `Press ${step.film}: ${step.press.temperatureC} °C, ${step.press.pressure} pressure, ${step.press.timeS} s, peel ${step.press.peel}`;
    case 'lay':
      return `Lay ${step.film} down`;
    case 'dry':
      return 'Dry the print';
    case 'coat':
      return `Coat ${step.coat ?? 1}, and wait`;
    case 'final':
      return 'Dry for good';
  }
}

/** A ticket in words, section by section: the same on screen and on paper. */
export function ticketWords(ticket: Ticket, unit: LengthUnit): TicketSection[] {
  const length = (value: number): string => formatLength(mm(value), unit);
  const size = (width: number, height: number): string => `${length(width)} × ${length(height)}`;
  return [orderSection(ticket), ...notesSection(ticket), makingSection(ticket, length, size), ...ticket.films.map((film) => filmSection(film, length))];
}

function orderSection({ code, customer, due, state, process, rights }: Ticket): TicketSection {
  const rows: [string, string][] = [['State', stateWord(state, process)]];
  if (customer !== '') rows.push(['Customer', customer]);
  if (due !== undefined) rows.push(['Wanted by', due]);
  if (code !== undefined) rows.push(['Code', code]);
  rows.push(['Picture', rights.note === '' ? RIGHTS[rights.use] : `${RIGHTS[rights.use]}: ${rights.note}`]);
  return { title: 'Order', rows };
}

function makingSection(ticket: Ticket, length: (mm: number) => string, size: (widthMm: number, heightMm: number) => string): TicketSection {
  const { blank, process, widthMm, heightMm, place, mirrored, againstProcess, sheet, copies, machine, laid, isBent, guideAt, films, pages, cost } = ticket;
  const off = Math.abs(place.offMiddleMm) < 0.5 ? 'in the middle' : `${length(Math.abs(place.offMiddleMm))} ${place.offMiddleMm < 0 ? 'left' : 'right'} of the middle`;
  const rows: [string, string][] = [
    ['Blank', blank],
    ['Process', PROCESSES[process].name],
    ['Finished', size(widthMm, heightMm)],
    ['Place', `${length(place.belowMm)} below the ${place.from === 'collar' ? 'collar' : 'top of its area'}, ${off}`],
    ['Mirrored', `${mirrored ? 'yes' : 'no'}, ${PROCESSES[process].lies}${againstProcess ? ': AGAINST THE PROCESS' : ''}`],
    [pages === undefined ? 'Sheet' : 'Page', `${sheet.name}, ${size(sheet.widthMm, sheet.heightMm)}`],
    pages === undefined ? ['Copies', String(copies)] : ['Printed', `${counted(pages.motifs, 'motif', 'motifs')} on ${counted(pages.count, 'page', 'pages')}, ${pages.paper}`],
  ];
  if (machine !== undefined) rows.push(['Machine', machine]);
  if (isBent === true) rows.push(['Taper', 'bent for the blank: on film it is an arc, on the blank it lies level']);
  if (guideAt !== undefined) rows.push(['Guide of card', GUIDE_WORDS[guideAt]]);
  if (laid !== undefined) rows.push(['Laid', laid.manner === 'half' ? 'half of it: paint, turn it over on its holes, paint again' : `again every ${length(laid.everyMm)}: its left holes on the marks of its right ones${laid.downMm === undefined ? '' : `; rows ${length(laid.downMm)} apart: its upper holes on the marks of its lower ones`}`]);
  if (films.length > 0) rows.push(['In all', `${counted(films.length, 'film', 'films')}, cut ${timeWords(films.reduce((sum, { cutS }) => sum + cutS, 0))}, weeded about ${timeWords(films.reduce((sum, { weeding }) => sum + weeding.takesS, 0))}`]);
  if (cost !== undefined) rows.push(['Films cost', trimNumber(cost, 2)]);
  return { title: 'Made of', rows };
}

function filmSection({ name, colour, material, sheets, lengthMm, widthMm, cost, cut, cutMm, cutS, weeding }: TicketFilm, length: (mm: number) => string): TicketSection {
  const rows: [string, string][] = [
    ['Film', material],
    ['Takes', `${length(lengthMm)} of ${length(widthMm)} wide, ${counted(sheets, 'sheet', 'sheets')}${cost === undefined ? '' : `, ${trimNumber(cost, 2)}`}`],
    ['Cut', `${cut.tool}, ${cut.forceG} g, ${cut.speedMmS} mm/s, ${counted(cut.passes, 'pass', 'passes')}: ${length(cutMm)} in ${timeWords(cutS)}`],
    ['Weed', `${counted(weeding.bits, 'bit', 'bits')} of waste${weeding.picked === 0 ? '' : `, ${weeding.picked} to pick out`}${weeding.hard === 0 ? '' : `, ${weeding.hard} hard`}, about ${timeWords(weeding.takesS)}`],
  ];
  return { title: name, rows, colour };
}

const notesSection = ({ notes }: Ticket): TicketSection[] => (notes.trim() === '' ? [] : [{ title: 'Notes', rows: notes.trim().split('\n').map((line): [string, string] => ['', line]) }]);
