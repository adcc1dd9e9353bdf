/** Where an article belongs: a stage or page, or everywhere. */
export type HelpPlace = 'shelf' | 'picture' | 'clean' | 'separate' | 'assemble' | 'layout' | 'handoff' | 'machine' | 'ticket' | 'versions' | 'workshop' | 'keeping' | 'everywhere';

/** A piece of help: what one would ask, and what to do. */
export interface HelpText {
  readonly place: HelpPlace;
  readonly title: string;
  readonly words: string;
}

const of = (place: HelpPlace, ...texts: readonly (readonly [title: string, words: string])[]): HelpText[] => texts.map(([title, words]) => ({ place, title, words }));

/** All help there is. It comes with the application, so that it is there without a network. */
export const HELP_TEXTS: readonly HelpText[] = [
  ...of('shelf',
    ['Start a job', 'Drop a picture anywhere, paste one, or press “Choose a picture”. Flat art stands at once as its films; for a photo there are ways to start side by side.'],
    ['Find a job again', 'Type any word of it: name, keyword, customer, film, file name, what its lettering says. A scanned ticket opens its job. Narrow by process, state, blank, film, collection and date.'],
    ['The same for another size, blank or name', 'Press ··· on the job, then “Same again…”. What will not cut well at the new size is told before the job lies on the shelf. The job before stays as it is.'],
    ['Thirty pictures, one recipe', '“Apply a recipe to many…” cleans and cuts many pictures by the settings of one job. “Several on one sheet” lays different jobs on the films that they share.'],
    ['Collections', 'Press ··· on the job, then “Collections…”. A job may lie in several. They go along when the job leaves as a file.'],
    ['A job that cannot be read', 'It is shown below the others. “Repair” makes a new job of all that can be read, with its picture; “Save as a file” keeps it as it is.']),
  ...of('picture',
    ['Will it cut?', 'The first card says in plain words whether the picture is large and flat enough for the size that you want. A picture that is too small can be enlarged in Clean.'],
    ['Ways to start', 'Each small picture is a whole start: clean-up, films and how they meet. Press one to take it up, “As it came” to begin with nothing done. Undo brings back what was before.'],
    ['Choose the blank and the size', 'The card “Blank” says what it goes on and by which process; mirroring, order and checks follow. The size is of one side, the other follows. Fractions of an inch are taken: 3 1/2 in.']),
  ...of('clean',
    ['Take the background off', 'Add the step “Area lift” and press on the background: what is connected and of that colour goes clear. Press and pull away to see how far another tolerance reaches, and let go where it is right.'],
    ['White art on white paper', 'A pull shows how far a tolerance reaches before you let go: a small one stops at a thin grey outline. The step “Fewer colours” before the lift makes every press exact.'],
    ['The middles of letters stay filled', 'They are not connected to the outside. Switch on “Also enclosed areas of this colour” at the lift, or press into each of them.'],
    ['Everything but the subject', '“Subject lift” finds the subject of a photo. Strokes say “keep” or “clear” where it is wrong; K changes between them.'],
    ['Specks and pinholes', '“Sweep” removes what is smaller than a size that you set, counted at the finished size. N and Shift+N go from place to place; X spares one.'],
    ['A scan with shadows', '“Light levelling” first, then “Gap mending” where a line is broken, then “Fewer colours”.'],
    ['A photo taken at an angle', '“Squaring” makes it flat and true to scale by the mark sheet, or by four corners of known distance. The mark sheet can be printed from there.'],
    ['Change what was done before', 'Every step stays: switch it off, open it and change it, move it earlier or later. What follows is made anew. A recipe can be kept under a name for other pictures.']),
  ...of('separate',
    ['How many colours', 'The tones that were found are listed with their share. Type another number and they are counted anew; two can be merged, one parted, one held.'],
    ['Films from the shelf', 'Each tone takes a film by its nearest colour. Press its name to take another one from the workshop.'],
    ['A photo', '“Tones of a photo” cuts it into two to six tones of lightness. “Back and detail” makes a full shape below and one layer of detail above, traced coarsely or finely.'],
    ['How layers meet', 'Stacked: the upper lies on a full lower one, easy to line up. Inset: each is cut out of the others, thin. Reach says how far a lower one runs under its neighbour, so that no gap shows.'],
    ['Change an outline by hand', 'Open “Nodes” and press one. It moves in all films that share it. What was changed by hand is held, and asked for before it is replaced.']),
  ...of('assemble',
    ['Add a name', 'Press “Add”, then “Lettering”, and type. Fonts that will not cut at that height are greyed with the reason. Straight, on a circle, along a part’s edge, or filling a part.'],
    ['What is done to a part', 'Thickened, bordered, cut out of another, filled between lines: each is a line under the part that can be changed or switched off later.'],
    ['One design for each name', 'Write {Name} in the lettering, then give a list of names. A sheet is made for each line of it.'],
    ['Which font is this?', 'Choose a traced part that is lettering: the card names the fonts it is most like, and sets it anew in one.'],
    ['Where it sits on the blank', 'Drag it, or move it by arrow keys. Measures from collar and sides stand on the drawing.']),
  ...of('layout',
    ['Why is it mirrored?', 'Heat-transfer film is cut from its back: pressed, it reads right. A sheet that goes against its process says so in its margin and leaves only when you confirm it.'],
    ['What will not cut or weed', 'Pins and the list say what, where and how small. “Mend” thickens, drops or joins the place; it can be looked at against what was there, and taken back.'],
    ['Down to which size', 'The card “Smallest size” finds the width from which everything cuts and weeds, and what would have to go for a smaller one.'],
    ['Fill the sheet', 'Type how many, or fill the page. “Nested by their outlines” lays parts closer than rows; “lay closer” looks some seconds longer.'],
    ['Weeding box and weed lines', 'A box gives the waste an edge to lift by, and corners to line layers up by. Weed lines part large waste into strips: drag one by its wedge, or choose it and use the arrow keys; Delete leaves it out.'],
    ['Bridges of a stencil', 'Every island is held by itself. Drag a bridge along the edge, or press it and use the arrow keys; Delete takes it out.'],
    ['Glasses that taper', 'Say in the blank how far it is once around, above and below: the design is cut as an arc, so that it lies level on it. What you see on the blank stays as you drew it.'],
    ['Where it goes on the blank', '“Placement guide of card”, on the blank, cuts a card with the sheets: at a collar or at the corner of the area it shows where film is laid.'],
    ['Printed sheets that are cut', '“Cut line for a cutter” runs around each motif, and “Slits through the waste” part what is left, so that it lifts in pieces.'],
    ['One stencil, many times', '“Laid more than once” cuts half of what is its own mirror image, to be turned over on its holes, or gives holes by which a border is laid on a step further.'],
    ['A sign larger than the film', 'Tiles part it at calm places. They lie over each other a little, or edge to edge, the same in all films.'],
    ['What is left of a film', '“Remnants first” cuts from what lies on the shelf before a new sheet is taken. A piece of any outline: photograph it on the mark sheet, trace it, and “Keep it as a remnant”.'],
    ['Cut around what is stamped', 'Photograph the work on the mark sheet: “Work on the sheet” cuts where it lies.'],
    ['See it finished', '“on the blank” shows shirt, mug or soap at true scale, its films in their look and, by the play button, one after the other as they are pressed; a mug can be turned.']),
  ...of('handoff',
    ['Which file for which machine', 'SVG and DXF for most cutters’ programs, R12 for old ones, PDF for printers and shops, plotter language for a cutter at a cable. All are at true size. “Look” opens a file as another program would read it.'],
    ['For another shop, or for next year', '“Save job file” keeps the whole job with its pictures and versions. It opens again by dropping it.'],
    ['Names of files', 'The pattern takes {job}, {blank}, {process}, {width} and {date}.']),
  ...of('machine',
    ['Cut film after film', 'Load the film that is named, then “Cut”. “Pen drawing first” draws it on paper to judge the size; “Test cut” tries the film.'],
    ['It stopped in the middle', '“Go on” carries on with the line that it was at; “Send only what was missed” sends the rest.'],
    ['Cut what was printed', 'Print the page, lay it in the cutter, and look for its marks: the cut goes where the page lies, even askew. Which mark is not found is said, and why.'],
    ['There is no cutter here', 'The stand-in is one that is not there: everything can be tried on it, also what goes wrong.']),
  ...of('ticket',
    ['What the ticket is for', 'It goes with the job through the shop: proof, films and lengths, settings, weeding, order of pressing or waits with timers. Its code finds the job again when it is scanned.'],
    ['Timers', 'They run on while the page is closed.']),
  ...of('versions',
    ['Keep the job as it is', 'Before you try something, and when the customer has seen it. What was approved is kept by itself. A version can be compared, taken back, or made a job of its own.']),
  ...of('workshop',
    ['Films, materials, machines, blanks', 'What the shop has, the same for all jobs. The cut check takes its limits from the material; a job keeps what it was made with.']),
  ...of('keeping',
    ['Where the jobs are', 'In this browser, on this computer, and nowhere else. Keep copies: all as one file, or each into a folder of yours.'],
    ['Without a network', 'After the first visit everything is here. A newer Limner is told and waits until you take it up.']),
  ...of('everywhere',
    ['Undo', 'Ctrl+Z takes back anything, also across stages; what was taken back is said. Ctrl+Shift+Z does it again.'],
    ['Millimetres or inches', 'The shelf’s upper right changes the unit everywhere. Lengths can be typed in either: 40 mm, 1 1/2 in.'],
    ['Nothing is lost', 'Every change is saved within half a second. A page that is closed or killed comes back as it was.']),
];

/** What some keys do. */
export interface KeyText {
  readonly keys: string;
  readonly does: string;
}
export interface KeyGroup {
  readonly title: string;
  readonly keys: readonly KeyText[];
}

const group = (title: string, ...keys: readonly (readonly [string, string])[]): KeyGroup => ({ title, keys: keys.map(([pressed, does]) => ({ keys: pressed, does })) });

/** All keys that do something. */
export const KEY_GROUPS: readonly KeyGroup[] = [
  group('Everywhere', ['F1', 'help'], ['Ctrl+Z', 'undo'], ['Ctrl+Shift+Z, Ctrl+Y', 'redo'], ['Ctrl+V', 'bring in a picture from the clipboard'], ['Escape', 'leave what is under way'], ['Tab, Shift+Tab', 'from control to control']),
  group('Light table', ['wheel', 'zoom to the pointer'], ['Space and drag, middle button', 'move the table'], ['two fingers', 'zoom and move, on a touch screen'], ['+, −', 'larger and smaller'], ['0', 'all of it in sight'], ['1', 'its true size'], ['arrow keys on a divider', 'move it']),
  group('Numbers', ['Enter', 'take what was typed'], ['Up, Down', 'one step more or less; with Shift ten'], ['drag on the unit', 'change it and see the effect'], ['Escape while dragging', 'back to what it was']),
  group('Clean', ['Enter', 'done with the step'], ['O, held', 'what was there before'], ['N, Shift+N', 'next and previous place that the sweep found'], ['X', 'spare the place'], ['K', 'keep or clear, with subject lift'], [', and .', 'smaller and larger brush'], ['Alt and wheel', 'size of the brush']),
  group('Nodes', ['arrow keys', 'move by a tenth of a mm; with Shift by one'], ['Delete', 'take the node out'], ['Escape', 'let go']),
  group('Assemble', ['arrow keys', 'move by a mm; with Shift by ten'], ['Delete', 'take the part off'], ['Enter', 'close a shape of the pen; with Shift leave it open'], ['Backspace', 'take the pen’s last place back'], ['Escape', 'choose nothing']),
  group('Lay out', ['arrow keys', 'move a chosen bridge by a mm; with Shift by ten'], ['Delete', 'take a chosen bridge out'], ['Escape', 'leave the mend that is shown, or the bridge']),
  group('Shelf', ['Enter in the search', 'open the only job that is left']),
];

/** Letters that count when one searches. */
const plain = (text: string): string => text.toLowerCase().normalize('NFD').replace(/\p{M}/gu, '');

/** Help that holds every word that was typed, that of the place first; all help of the place, and then the rest, when nothing was. */
export function findHelp(typed: string, place: HelpPlace): HelpText[] {
  const words = plain(typed).split(/\s+/).filter((word) => word !== '');
  const rank = (text: HelpText): number => {
    if (text.place === place) return 0;
    return text.place === 'everywhere' ? 1 : 2;
  };
  const inTitle = (text: HelpText): number => (words.some((word) => plain(text.title).includes(word)) ? 0 : 1);
  const found = HELP_TEXTS.filter((text) => words.every((word) => plain(`${text.title} ${text.words} ${text.place}`).includes(word)));
  return words.length === 0 ? [...found].sort((a, b) => rank(a) - rank(b)) : [...found].sort((a, b) => inTitle(a) - inTitle(b) || rank(a) - rank(b));
}

/** Keys whose doing or name holds every word that was typed. */
export function findKeys(typed: string): KeyGroup[] {
  const words = plain(typed).split(/\s+/).filter((word) => word !== '');
  return KEY_GROUPS.map(({ title, keys }) => ({ title, keys: keys.filter(({ keys: pressed, does }) => words.every((word) => plain(`${title} ${pressed} ${does}`).includes(word))) })).filter(({ keys }) => keys.length > 0);
}
