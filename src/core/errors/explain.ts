import type { AppError, ErrorCode, ErrorDetails } from './appError.ts';

/** What a person is told: what happened and what to do. That nothing is lost is added by the interface. */
export interface Explanation {
  readonly what: string;
  readonly todo: string;
}

type Rule = (d: ErrorDetails) => Explanation;

const named = (d: ErrorDetails): string => (d['file'] === undefined ? 'The file' : `“${d['file']}”`);

/** By how much a layout is over, in the directions in which it is. */
const overWords = (d: ErrorDetails): string =>
  [
    [d['overWidthMm'], 'wide'],
    [d['overHeightMm'], 'high'],
  ]
    .filter(([over]) => Number(over) > 0)
    .map(([over, way]) => `${over} mm too ${way}`)
    .join(' and ');

/** What a cutter tells, and what to do about it. */
const PRINTER_FAULTS: Readonly<Record<string, Explanation>> = {
  noPaper: { what: 'There is no paper in the printer.', todo: 'Lay paper in and print again.' },
  wrongSize: { what: 'The printer refuses the page: it is larger than the paper.', todo: 'Choose the paper that the page in Lay out is for, or another sheet there.' },
  notAPage: { what: 'The printer cannot read the page.', todo: 'Print again; if it happens once more, save the PDF and print that.' },
  busy: { what: 'The printer is busy.', todo: 'Wait until it is done, then print again.' },
};
const MACHINE_FAULTS: Readonly<Record<string, Explanation>> = {
  noMat: { what: 'Nothing lies in the cutter.', todo: 'Lay the film on its mat, load it, say so here, and send again.' },
  portBusy: { what: 'The cutter is busy with something else.', todo: 'Wait until it is done, or stop it, and send again.' },
  connectionLost: { what: 'The line to the cutter was lost in mid-cut.', todo: 'Connect it again; then go on where it stopped, or send only what was missed.' },
  pieceLifted: { what: 'A piece lifted from its carrier, and the cutter stopped.', todo: 'Press it flat; then go on where it stopped, or send only what was missed.' },
  outsideArea: { what: 'The cut reaches out of what the cutter can reach.', todo: 'Move its origin nearer to the corner, or lay the design out on a smaller sheet.' },
};

const RULES: { readonly [Code in ErrorCode]: Rule } = {
  emptyFile: (d) => ({ what: `${named(d)} is empty (0 bytes).`, todo: 'Ask for it again, or export it once more.' }),
  notAPicture: (d) => ({
    what: `${named(d)} is not a picture that Limner reads.`,
    todo: 'Use PNG, JPEG, WebP, GIF, BMP, TIFF, HEIC or SVG; open other files in their own program and export one of these.',
  }),
  truncated: (d) => ({ what: `${named(d)} breaks off before its end.`, todo: 'The download or upload was cut short: get the file again.' }),
  damaged: (d) => ({
    what: `${named(d)} is damaged, or written in a way that Limner does not read.`,
    todo: 'Open it in a program that shows it and save it anew as PNG, or ask for it again.',
  }),
  badDrawing: (d) => ({
    what: `${named(d)} is not a whole drawing that Limner reads${d['reason'] === undefined ? ', or nothing in it has a size' : `: ${d['reason']}`}.`,
    todo: 'Open it in the program that drew it and export it once more, as SVG or DXF, or export a PNG.',
  }),
  badFont: (d) => ({
    what: `${named(d)} is not a font that Limner reads${d['reason'] === undefined ? '' : `: ${d['reason']}`}.`,
    todo: 'Use a TTF, OTF, WOFF or WOFF2 file, or one of the fonts that are shipped.',
  }),
  badNames: (d) => ({
    what: `${named(d)} is not a list of names: ${d['reason']}.`,
    todo: 'Save it as CSV with the names of the columns in the first line and one line for each design.',
  }),
  fileTooLarge: (d) => ({
    what: `${named(d)} has ${d['megabytes']} MB; Limner reads files up to ${d['limitMegabytes']} MB.`,
    todo: 'Save it as a PNG or JPEG at the size that the work needs.',
  }),
  pictureTooLarge: (d) => ({
    what: `${named(d)} has ${d['width']} × ${d['height']} pixels; Limner works with up to ${d['limitMegapixels']} megapixels.`,
    todo: 'Shrink it first: 6,000 pixels on the long side are plenty for anything that a knife can cut.',
  }),
  pictureTooSmall: (d) => ({
    what: `${named(d)} has only ${d['width']} × ${d['height']} pixels.`,
    todo: 'There is no shape in it to cut. Ask for the drawing itself.',
  }),
  nothingToCut: () => ({
    what: 'There is nothing to cut: no piece is left at these settings.',
    todo: 'Switch off the step that clears the art, move the threshold, or let smaller pieces stay.',
  }),
  oneColour: (d) =>
    d['asked'] === 1
      ? {
          what: 'One colour was asked for, the background counted: then all of the picture is background and nothing is cut.',
          todo: 'Ask for two or more, or lift the background first.',
        }
      : { what: 'The picture is one flat colour, so there is no edge to follow.', todo: 'Choose another picture, or cut a rectangle of the size.' },
  toneIsEven: () => ({
    what: 'This tone is one even colour: there are no two in it.',
    todo: 'Part it by place: drag a frame around the areas that become another film.',
  }),
  cropEmpty: () => ({ what: 'The crop lies outside the picture, so nothing would be left.', todo: 'Drag the crop over the part to keep.' }),
  noSubject: () => ({
    what: 'No subject was found: nothing stands out from the ground by a sharp edge.',
    todo: 'Brush over what to keep, or lift the ground by pointing at it. The picture is as it was.',
  }),
  marksMissing: ({ found, needed, which }) => ({
    what: `Only ${found} of the ${needed} ring marks of the mark sheet were found${which === undefined || which === '' ? '' : `; the first that is missing is ${which}`}.`,
    todo: 'Photograph the whole sheet with no mark covered or cut off, or mark four corners of a rectangle of known size.',
  }),
  marksGlare: ({ which }) => ({
    what: `Glare covers a mark of the mark sheet: ${which}.`,
    todo: 'Turn the sheet or the lamp so that nothing shines off the paper, and photograph it again.',
  }),
  marksMisfit: ({ missMm }) => ({
    what: `The marks do not lie as on a flat sheet: one is ${missMm} mm off.`,
    todo: 'Lay the sheet flat, print it at 100 % without fitting to the page, and photograph it again.',
  }),
  photoBlurred: () => ({
    what: 'The photo is too blurred: the edges of the marks are not clear.',
    todo: 'Hold the camera still, tap on the sheet to focus, and photograph it again.',
  }),
  badCorners: () => ({
    what: 'The four corners make no rectangle seen at an angle.',
    todo: 'Give them in turn around the rectangle, clockwise from its upper left corner.',
  }),
  enlargedTooLarge: ({ times, megapixels }) => ({
    what: `Enlarged ${times} times the picture would have more than ${megapixels} million pixels.`,
    todo: 'It is large enough as it is: take the enlarging out, or crop first.',
  }),
  nothingThere: () => ({
    what: 'That place is already clear or cropped away, so there is nothing to take out.',
    todo: 'Point at a part of the art that is still there, or switch off the step before.',
  }),
  heldTooLarge: (d) => ({
    what: `The outlines edited by hand are ${d['megabytes']} MB together; a job keeps up to ${d['limitMegabytes']} MB, of ${d['films']} films.`,
    todo: 'Let go of some that you no longer need, sweep small pieces first, or raise the trace tolerance for fewer nodes. The outline is as it was.',
  }),
  filmMissing: (d) => ({ what: `This job has no film “${d['film']}” any more.`, todo: 'Choose one of the films on the rack and save its sheet again.' }),
  doesNotFit: (d) => ({
    what: `The sheet is too small: the layout is ${overWords(d)} for the cut area.`,
    todo: 'Make the design smaller, lay out fewer copies, turn it, or choose a larger sheet.',
  }),
  tooIntricate: (d) => ({
    what: `The art breaks into ${d['count']} outlines, more than the ${d['limit']} that Limner lays out.`,
    todo: 'Smooth it and sweep the specks first, take fewer tones, or move the threshold until the paper is calm.',
  }),
  mirrorMissing: () => ({
    what: 'This process is cut from the back, and the sheet is not mirrored.',
    todo: 'Mirror it, or confirm that it is meant; the ticket will say so.',
  }),
  badValue: (d) => ({ what: `${d['name']} cannot be “${d['value']}”.`, todo: `It takes ${d['takes']}.` }),
  badJob: (d) => ({
    what: `${d['file'] === undefined ? 'The job' : named(d)} cannot be read: ${d['reason']}.`,
    todo: 'Open the archive it came from, or check the file against docs/job-format.md.',
  }),
  badWorkshop: (d) => ({
    what: `${named(d)} does not hold a workshop: ${d['reason']}.`,
    todo: 'Save the workshop again where it came from. What is on your shelves stays as it is.',
  }),
  badRecipe: (d) => ({
    what: `${named(d)} is not a recipe: ${d['reason']}.`,
    todo: 'Save the recipe again where it came from, or check the file against docs/job-format.md.',
  }),
  unknownStep: (d) => ({
    what: `${named(d)} has a step that this Limner does not know: “${d['kind']}”.`,
    todo: 'Update Limner, or take that step out of the file.',
  }),
  newerVersion: (d) => ({
    what: `${named(d)} was written by a newer Limner (format ${d['version']}, this one reads up to ${d['reads']}).`,
    todo: 'Update Limner, or have it exported from there as SVG.',
  }),
  badArchive: (d) => ({ what: `${named(d)} is not a whole Limner job: ${d['reason']}.`, todo: 'Export the job again where it came from.' }),
  pictureMissing: () => ({ what: 'The job has no picture.', todo: 'Drop, choose or paste one.' }),
  storageFull: () => ({
    what: 'The browser has no room left to save this.',
    todo: 'Free space on the disk or delete jobs you no longer need; until then, keep this one as an archive file.',
  }),
  machineFault: (d) => MACHINE_FAULTS[String(d['fault'])] ?? { what: 'The cutter stopped and does not say why.', todo: 'Look at it, then go on or stop.' },
  machineGone: () => ({ what: 'The cutter does not answer.', todo: 'See that it is switched on and connected; what it has cut so far is known again once it answers.' }),
  printerFault: (d) => PRINTER_FAULTS[String(d['fault'])] ?? { what: 'The printer stopped and does not say why.', todo: 'Look at it, then print again.' },
  storageFailed: (d) => ({ what: `The browser could not save: ${d['message']}.`, todo: 'Export the job as an archive file, then load the page again.' }),
  cancelled: () => ({ what: 'Stopped.', todo: 'Start it again whenever you like.' }),
  workerLost: () => ({
    what: 'The engine stopped in the middle of this and was started again.',
    todo: 'Try once more; if it happens again, use a smaller picture.',
  }),
  notYet: (d) => ({ what: `Limner cannot do this yet: ${d['feature']}.`, todo: `${d['instead']}` }),
  cannotRead: (d) => ({ what: `${named(d)} cannot be read: ${d['message']}.`, todo: 'Check the path and that you may read it.' }),
  wouldOverwrite: (d) => ({
    what: `${named(d)} is one of the files that are read, so it is not written over.`,
    todo: 'Name another folder or file in --out, or give --force where you mean it.',
  }),
  cannotWrite: (d) => ({ what: `${named(d)} cannot be written: ${d['message']}.`, todo: 'Check that the folder exists and that you may write there.' }),
  unexpected: (d) => ({
    what: `Something went wrong inside Limner${d['at'] === undefined ? '' : ` while ${d['at']}`}: ${d['message'] ?? 'no more is known'}.`,
    todo: d['change'] === undefined ? 'Undo the last change or load the page again.' : `${d['change']}, or undo the last change.`,
  }),
};

/** The message for an error, in plain words. */
export const explain = (error: Pick<AppError, 'code' | 'details'>): Explanation => RULES[error.code](error.details);
