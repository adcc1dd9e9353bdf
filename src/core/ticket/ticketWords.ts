import { stateWord } from '../job/order.ts';
import { GUIDE_WORDS } from '../proof/placementGuide.ts';
import { PEEL_WORDS, PRESSURE_WORDS, TOOL_WORDS } from '../process/material.ts';
import { PROCESSES } from '../process/processes.ts';
import { mm } from '../units/length.ts';
import { formatLength, numberWords, type LengthUnit } from '../units/parseLength.ts';
import { timeWords } from '../units/timeWords.ts';
import type { ApplyStep, Ticket, TicketFilm } from './ticket.ts';
import { counted, say } from '../words/say.ts';

export interface TicketSection {
  readonly title: string;
  /** What something is called, and what it is. */
  readonly rows: readonly (readonly [string, string])[];
  /** Colour of the film that a section is about. */
  readonly colour?: string | undefined;
}

const RIGHTS = { unknown: say('not asked yet'), ours: say('our own'), allowed: say('may be used'), notForSale: say('not for sale') } as const;


/** What is done with one film or coat, in words; its wait is told beside it. */
export function stepWords(step: ApplyStep): string {
  switch (step.what) {
    case 'press':
      return say`Press ${step.film}: ${step.press.temperatureC} °C, ${PRESSURE_WORDS[step.press.pressure]} pressure, ${step.press.timeS} s, peel ${PEEL_WORDS[step.press.peel]}`;
    case 'lay':
      return say`Lay ${step.film} down`;
    case 'dry':
      return say('Dry the print');
    case 'coat':
      return say`Coat ${step.coat ?? 1}, and wait`;
    case 'final':
      return say('Dry for good');
  }
}

/** A ticket in words, section by section: the same on screen and on paper. */
export function ticketWords(ticket: Ticket, unit: LengthUnit): TicketSection[] {
  const length = (value: number): string => formatLength(mm(value), unit);
  const size = (width: number, height: number): string => `${length(width)} × ${length(height)}`;
  return [orderSection(ticket), ...notesSection(ticket), makingSection(ticket, length, size), ...ticket.films.map((film) => filmSection(film, length))];
}

function orderSection({ code, customer, due, state, process, rights }: Ticket): TicketSection {
  const rows: [string, string][] = [[say('State'), stateWord(state, process)]];
  if (customer !== '') rows.push([say('Customer'), customer]);
  if (due !== undefined) rows.push([say('Wanted by'), due]);
  if (code !== undefined) rows.push([say('Code'), code]);
  rows.push([say('Picture'), rights.note === '' ? RIGHTS[rights.use] : `${RIGHTS[rights.use]}: ${rights.note}`]);
  return { title: say('Order'), rows };
}

function makingSection(ticket: Ticket, length: (mm: number) => string, size: (widthMm: number, heightMm: number) => string): TicketSection {
  const { blank, process, widthMm, heightMm, place, mirrored, againstProcess, sheet, copies, machine, laid, isBent, guideAt, films, pages, cost } = ticket;
  const off = Math.abs(place.offMiddleMm) < 0.5 ? say('in the middle') : say`${length(Math.abs(place.offMiddleMm))} ${place.offMiddleMm < 0 ? say('left') : say('right')} of the middle`;
  const rows: [string, string][] = [
    [say('Blank'), blank],
    [say('Process'), PROCESSES[process].name],
    [say('Finished'), size(widthMm, heightMm)],
    [say('Place'), say`${length(place.belowMm)} below the ${place.from === 'collar' ? say('collar') : say('top of its area')}, ${off}`],
    [say('Mirrored'), `${mirrored ? say('yes') : say('no')}, ${PROCESSES[process].lies}${againstProcess ? say(': AGAINST THE PROCESS') : ''}`],
    [pages === undefined ? say('Sheet') : say('Page'), `${sheet.name}, ${size(sheet.widthMm, sheet.heightMm)}`],
    pages === undefined ? [say('Copies'), String(copies)] : [say('Printed'), say`${counted(pages.motifs, say('motif'), say('motifs'))} on ${counted(pages.count, say('page'), say('pages'))}, ${pages.paper}`],
  ];
  if (machine !== undefined) rows.push([say('Machine'), machine]);
  if (isBent === true) rows.push([say('Taper'), say('bent for the blank: on film it is an arc, on the blank it lies level')]);
  if (guideAt !== undefined) rows.push([say('Guide of card'), GUIDE_WORDS[guideAt]]);
  if (laid !== undefined) rows.push([say('Laid'), laid.manner === 'half' ? say('half of it: paint, turn it over on its holes, paint again') : say`again every ${length(laid.everyMm)}: its left holes on the marks of its right ones${laid.downMm === undefined ? '' : say`; rows ${length(laid.downMm)} apart: its upper holes on the marks of its lower ones`}`]);
  if (films.length > 0) rows.push([say('In all'), say`${counted(films.length, say('film'), say('films'))}, cut ${timeWords(films.reduce((sum, { cutS }) => sum + cutS, 0))}, weeded about ${timeWords(films.reduce((sum, { weeding }) => sum + weeding.takesS, 0))}`]);
  if (cost !== undefined) rows.push([say('Films cost'), numberWords(cost, 2)]);
  return { title: say('Made of'), rows };
}

function filmSection({ name, colour, material, sheets, own, lengthMm, widthMm, cost, cut, cutMm, cutS, weeding }: TicketFilm, length: (mm: number) => string): TicketSection {
  const rows: [string, string][] = [
    [say('Film'), material],
    [say('Takes'), say`${length(lengthMm)} of ${length(widthMm)} wide, ${counted(sheets, say('sheet'), say('sheets'))}${cost === undefined ? '' : `, ${numberWords(cost, 2)}`}`],
    [say('Cut'), `${TOOL_WORDS[cut.tool]}, ${cut.forceG} g, ${cut.speedMmS} mm/s, ${counted(cut.passes, say('pass'), say('passes'))}: ${length(cutMm)} in ${timeWords(cutS)}`],
    [say('Weed'), say`${counted(weeding.bits, say('bit'), say('bits'))} of waste${weeding.picked === 0 ? '' : say`, ${weeding.picked} to pick out`}${weeding.hard === 0 ? '' : say`, ${weeding.hard} hard`}, about ${timeWords(weeding.takesS)}`],
  ];
  if (own !== undefined) rows.splice(1, 0, [say('By itself'), `${own.sheet}, ${counted(own.copies, say('copy'), say('copies'))}`]);
  return { title: name, rows, colour };
}

const notesSection = ({ notes }: Ticket): TicketSection[] => (notes.trim() === '' ? [] : [{ title: say('Notes'), rows: notes.trim().split('\n').map((line): [string, string] => ['', line]) }]);
