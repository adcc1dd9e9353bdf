import type { Engine } from './protocol.ts';

/** What an answer of each call hands over instead of copying it. */
type HandedOver = { readonly [Call in keyof Engine]: (answer: Awaited<ReturnType<Engine[Call]>>) => (ArrayBufferLike | undefined)[] };

const nothing = (): [] => [];

/** The calls that cross to the worker: client and worker are made of this table, so that a call that lacks in it does not compile. */
export const HANDED_OVER: HandedOver = {
  warm: nothing,
  open: ({ view }) => [view.data.buffer],
  propose: nothing,
  run: ({ clean, base }) => [clean.view?.data.buffer, base?.view?.data.buffer],
  prepare: nothing,
  reach: ({ levels }) => [levels.buffer],
  moment: ({ view }) => [view?.data.buffer],
  region: ({ data }) => [data.buffer],
  proof: ({ composed, difference }) => [composed.data.buffer, difference.data.buffer],
  prints: ({ pictures }) => pictures.map(({ picture }) => picture.data.buffer),
  onBlank: ({ picture }) => [picture.data.buffer],
  onArea: ({ data }) => [data.buffer],
  proofPng: ({ buffer }) => [buffer],
  files: (files) => files.map(({ bytes }) => bytes.buffer),
  lookInto: nothing,
  ticket: ({ proof }) => [proof.data.buffer],
  ticketPdf: ({ buffer }) => [buffer],
  program: nothing,
  printedProgram: nothing,
  nest: nothing,
  sheetPlan: (plan) => (plan === undefined ? [] : [plan.way.points.buffer, plan.way.does.buffer, plan.way.atS.buffer]),
  workingSize: nothing,
  stockOutline: nothing,
  nestedRoom: nothing,
  together: nothing,
  variant: nothing,
  parts: nothing,
  export: ({ buffer }) => [buffer],
  drawing: nothing,
  fontName: nothing,
  fontsLike: nothing,
  fontsWith: nothing,
  cancel: nothing,
};

export type CallName = keyof Engine;
export const CALL_NAMES = Object.keys(HANDED_OVER) as readonly CallName[];

/** Name of a worker that is asked for previews alone. */
export const REDUCED = 'reduced';
