import type { AppError, ErrorCode, ErrorDetails } from './appError.ts';
import { say } from '../words/say.ts';

/** What a person is told: what happened and what to do. That nothing is lost is added by the interface. */
export interface Explanation {
  readonly what: string;
  readonly todo: string;
}

type Rule = (d: ErrorDetails) => Explanation;

const named = (d: ErrorDetails): string => (d['file'] === undefined ? say('The file') : say`“${d['file']}”`);

/** By how much a layout is over, in the directions in which it is. */
const overWords = (d: ErrorDetails): string =>
  [
    [d['overWidthMm'], say('wide')],
    [d['overHeightMm'], say('high')],
  ]
    .filter(([over]) => Number(over) > 0)
    .map(([over, way]) => say`${over} mm too ${way}`)
    .join(say(' and '));

/** What a cutter tells, and what to do about it. */
const PRINTER_FAULTS: Readonly<Record<string, Explanation>> = {
  noPaper: { what: say('There is no paper in the printer.'), todo: say('Lay paper in and print again.') },
  wrongSize: { what: say('The printer refuses the page: it is larger than the paper.'), todo: say('Choose the paper that the page in Lay out is for, or another sheet there.') },
  notAPage: { what: say('The printer cannot read the page.'), todo: say('Print again; if it happens once more, save the PDF and print that.') },
  busy: { what: say('The printer is busy.'), todo: say('Wait until it is done, then print again.') },
};
const MACHINE_FAULTS: Readonly<Record<string, Explanation>> = {
  noMat: { what: say('Nothing lies in the cutter.'), todo: say('Lay the film on its mat, load it, say so here, and send again.') },
  portBusy: { what: say('The cutter is busy with something else.'), todo: say('Wait until it is done, or stop it, and send again.') },
  connectionLost: { what: say('The line to the cutter was lost in mid-cut.'), todo: say('Connect it again; then go on where it stopped, or send only what was missed.') },
  pieceLifted: { what: say('A piece lifted from its carrier, and the cutter stopped.'), todo: say('Press it flat; then go on where it stopped, or send only what was missed.') },
  outsideArea: { what: say('The cut reaches out of what the cutter can reach.'), todo: say('Move its origin nearer to the corner, or lay the design out on a smaller sheet.') },
};

const RULES: { readonly [Code in ErrorCode]: Rule } = {
  emptyFile: (d) => ({ what: say`${named(d)} is empty (0 bytes).`, todo: say('Ask for it again, or export it once more.') }),
  notAPicture: (d) => ({
    what: say`${named(d)} is not a picture that Limner reads.`,
    todo: say('Use PNG, JPEG, WebP, GIF, BMP, TIFF, HEIC or SVG; open other files in their own program and export one of these.'),
  }),
  truncated: (d) => ({ what: say`${named(d)} breaks off before its end.`, todo: say('The download or upload was cut short: get the file again.') }),
  damaged: (d) => ({
    what: say`${named(d)} is damaged, or written in a way that Limner does not read.`,
    todo: say('Open it in a program that shows it and save it anew as PNG, or ask for it again.'),
  }),
  badDrawing: (d) => ({
    what: say`${named(d)} is not a whole drawing that Limner reads${d['reason'] === undefined ? say(', or nothing in it has a size') : `: ${d['reason']}`}.`,
    todo: say('Open it in the program that drew it and export it once more, as SVG or DXF, or export a PNG.'),
  }),
  badFont: (d) => ({
    what: say`${named(d)} is not a font that Limner reads${d['reason'] === undefined ? '' : `: ${d['reason']}`}.`,
    todo: say('Use a TTF, OTF, WOFF or WOFF2 file, or one of the fonts that are shipped.'),
  }),
  badNames: (d) => ({
    what: say`${named(d)} is not a list of names: ${d['reason']}.`,
    todo: say('Save it as CSV with the names of the columns in the first line and one line for each design.'),
  }),
  fileTooLarge: (d) => ({
    what: say`${named(d)} has ${d['megabytes']} MB; Limner reads files up to ${d['limitMegabytes']} MB.`,
    todo: say('Save it as a PNG or JPEG at the size that the work needs.'),
  }),
  pictureTooLarge: (d) => ({
    what: say`${named(d)} has ${d['width']} × ${d['height']} pixels; Limner works with up to ${d['limitMegapixels']} megapixels.`,
    todo: say('Shrink it first: 6,000 pixels on the long side are plenty for anything that a knife can cut.'),
  }),
  pictureTooSmall: (d) => ({
    what: say`${named(d)} has only ${d['width']} × ${d['height']} pixels.`,
    todo: say('There is no shape in it to cut. Ask for the drawing itself.'),
  }),
  nothingToCut: () => ({
    what: say('There is nothing to cut: no piece is left at these settings.'),
    todo: say('Switch off the step that clears the art, move the threshold, or let smaller pieces stay.'),
  }),
  oneColour: (d) =>
    d['asked'] === 1
      ? {
          what: say('One colour was asked for, the background counted: then all of the picture is background and nothing is cut.'),
          todo: say('Ask for two or more, or lift the background first.'),
        }
      : { what: say('The picture is one flat colour, so there is no edge to follow.'), todo: say('Choose another picture, or cut a rectangle of the size.') },
  toneIsEven: () => ({
    what: say('This tone is one even colour: there are no two in it.'),
    todo: say('Part it by place: drag a frame around the areas that become another film.'),
  }),
  cropEmpty: () => ({ what: say('The crop lies outside the picture, so nothing would be left.'), todo: say('Drag the crop over the part to keep.') }),
  noSubject: () => ({
    what: say('No subject was found: nothing stands out from the ground by a sharp edge.'),
    todo: say('Brush over what to keep, or lift the ground by pointing at it. The picture is as it was.'),
  }),
  marksMissing: ({ found, needed, which }) => ({
    what: say`Only ${found} of the ${needed} ring marks of the mark sheet were found${which === undefined || which === '' ? '' : say`; the first that is missing is ${which}`}.`,
    todo: say('Photograph the whole sheet with no mark covered or cut off, or mark four corners of a rectangle of known size.'),
  }),
  marksGlare: ({ which }) => ({
    what: say`Glare covers a mark of the mark sheet: ${which}.`,
    todo: say('Turn the sheet or the lamp so that nothing shines off the paper, and photograph it again.'),
  }),
  marksMisfit: ({ missMm }) => ({
    what: say`The marks do not lie as on a flat sheet: one is ${missMm} mm off.`,
    todo: say('Lay the sheet flat, print it at 100 % without fitting to the page, and photograph it again.'),
  }),
  photoBlurred: () => ({
    what: say('The photo is too blurred: the edges of the marks are not clear.'),
    todo: say('Hold the camera still, tap on the sheet to focus, and photograph it again.'),
  }),
  badCorners: () => ({
    what: say('The four corners make no rectangle seen at an angle.'),
    todo: say('Give them in turn around the rectangle, clockwise from its upper left corner.'),
  }),
  enlargedTooLarge: ({ times, megapixels }) => ({
    what: say`Enlarged ${times} times the picture would have more than ${megapixels} million pixels.`,
    todo: say('It is large enough as it is: take the enlarging out, or crop first.'),
  }),
  nothingThere: () => ({
    what: say('That place is already clear or cropped away, so there is nothing to take out.'),
    todo: say('Point at a part of the art that is still there, or switch off the step before.'),
  }),
  heldTooLarge: (d) => ({
    what: say`The outlines edited by hand are ${d['megabytes']} MB together; a job keeps up to ${d['limitMegabytes']} MB, of ${d['films']} films.`,
    todo: say('Let go of some that you no longer need, sweep small pieces first, or raise the trace tolerance for fewer nodes. The outline is as it was.'),
  }),
  filmMissing: (d) => ({ what: say`This job has no film “${d['film']}” any more.`, todo: say('Choose one of the films on the rack and save its sheet again.') }),
  doesNotFit: (d) => ({
    what: say`The sheet is too small: the layout is ${overWords(d)} for the cut area.`,
    todo: say('Make the design smaller, lay out fewer copies, turn it, or choose a larger sheet.'),
  }),
  tooIntricate: (d) => ({
    what: say`The art breaks into ${d['count']} outlines, more than the ${d['limit']} that Limner lays out.`,
    todo: say('Smooth it and sweep the specks first, take fewer tones, or move the threshold until the paper is calm.'),
  }),
  mirrorMissing: () => ({
    what: say('This process is cut from the back, and the sheet is not mirrored.'),
    todo: say('Mirror it, or confirm that it is meant; the ticket will say so.'),
  }),
  badValue: (d) => ({ what: say`${d['name']} cannot be “${d['value']}”.`, todo: say`It takes ${d['takes']}.` }),
  badJob: (d) => ({
    what: say`${d['file'] === undefined ? say('The job') : named(d)} cannot be read: ${d['reason']}.`,
    todo: say('Open the archive it came from, or check the file against docs/job-format.md.'),
  }),
  badWorkshop: (d) => ({
    what: say`${named(d)} does not hold a workshop: ${d['reason']}.`,
    todo: say('Save the workshop again where it came from. What is on your shelves stays as it is.'),
  }),
  badRecipe: (d) => ({
    what: say`${named(d)} is not a recipe: ${d['reason']}.`,
    todo: say('Save the recipe again where it came from, or check the file against docs/job-format.md.'),
  }),
  unknownStep: (d) => ({
    what: say`${named(d)} has a step that this Limner does not know: “${d['kind']}”.`,
    todo: say('Update Limner, or take that step out of the file.'),
  }),
  newerVersion: (d) => ({
    what: say`${named(d)} was written by a newer Limner (format ${d['version']}, this one reads up to ${d['reads']}).`,
    todo: say('Update Limner, or have it exported from there as SVG.'),
  }),
  badArchive: (d) => ({ what: say`${named(d)} is not a whole Limner job: ${d['reason']}.`, todo: say('Export the job again where it came from.') }),
  pictureMissing: () => ({ what: say('The job has no picture.'), todo: say('Drop, choose or paste one.') }),
  storageFull: () => ({
    what: say('The browser has no room left to save this.'),
    todo: say('Free space on the disk or delete jobs you no longer need; until then, keep this one as an archive file.'),
  }),
  machineFault: (d) => MACHINE_FAULTS[String(d['fault'])] ?? { what: say('The cutter stopped and does not say why.'), todo: say('Look at it, then go on or stop.') },
  machineGone: () => ({ what: say('The cutter does not answer.'), todo: say('See that it is switched on and connected; what it has cut so far is known again once it answers.') }),
  printerFault: (d) => PRINTER_FAULTS[String(d['fault'])] ?? { what: say('The printer stopped and does not say why.'), todo: say('Look at it, then print again.') },
  storageFailed: (d) => ({ what: say`The browser could not save: ${d['message']}.`, todo: say('Export the job as an archive file, then load the page again.') }),
  cancelled: () => ({ what: say('Stopped.'), todo: say('Start it again whenever you like.') }),
  workerLost: () => ({
    what: say('The engine stopped in the middle of this and was started again.'),
    todo: say('Try once more; if it happens again, use a smaller picture.'),
  }),
  notYet: (d) => ({ what: say`Limner cannot do this yet: ${d['feature']}.`, todo: `${d['instead']}` }),
  cannotRead: (d) => ({ what: say`${named(d)} cannot be read: ${d['message']}.`, todo: say('Check the path and that you may read it.') }),
  wouldOverwrite: (d) => ({
    what: say`${named(d)} is one of the files that are read, so it is not written over.`,
    todo: say('Name another folder or file in --out, or give --force where you mean it.'),
  }),
  cannotWrite: (d) => ({ what: say`${named(d)} cannot be written: ${d['message']}.`, todo: say('Check that the folder exists and that you may write there.') }),
  unexpected: (d) => ({
    what: say`Something went wrong inside Limner${d['at'] === undefined ? '' : say` while ${d['at']}`}: ${d['message'] ?? say('no more is known')}.`,
    todo: d['change'] === undefined ? say('Undo the last change or load the page again.') : say`${d['change']}, or undo the last change.`,
  }),
};

/** The message for an error, in plain words. */
export const explain = (error: Pick<AppError, 'code' | 'details'>): Explanation => RULES[error.code](error.details);
