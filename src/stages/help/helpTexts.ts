import { say } from '../../core/words/say.ts';

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
    [say('Start a job'), say('Drop a picture anywhere, paste one, or press “Choose a picture”. Flat art stands at once as its films; for a photo there are ways to start side by side.')],
    [say('Find a job again'), say('Type any word of it: name, keyword, customer, film, file name, what its lettering says. A scanned ticket opens its job. Narrow by process, state, blank, film, collection and date.')],
    [say('The same for another size, blank or name'), say('Press ··· on the job, then “Same again…”. What will not cut well at the new size is told before the job lies on the shelf. The job before stays as it is.')],
    [say('Thirty pictures, one recipe'), say('“Apply a recipe to many…” cleans and cuts many pictures by the settings of one job. “Several on one sheet” lays different jobs on the films that they share.')],
    [say('Collections'), say('Press ··· on the job, then “Collections…”. A job may lie in several. They go along when the job leaves as a file.')],
    [say('A job that cannot be read'), say('It is shown below the others. “Repair” makes a new job of all that can be read, with its picture; “Save as a file” keeps it as it is.')]),
  ...of('picture',
    [say('Will it cut?'), say('The first card says in plain words whether the picture is large and flat enough for the size that you want. A picture that is too small can be enlarged in Clean.')],
    [say('Ways to start'), say('Each small picture is a whole start: clean-up, films and how they meet. Press one to take it up, “As it came” to begin with nothing done. Undo brings back what was before.')],
    [say('Choose the blank and the size'), say('The card “Blank” says what it goes on and by which process; mirroring, order and checks follow. The size is of one side, the other follows. Fractions of an inch are taken: 3 1/2 in.')]),
  ...of('clean',
    [say('Take the background off'), say('Add the step “Area lift” and press on the background: what is connected and of that colour goes clear. Press and pull away to see how far another tolerance reaches, and let go where it is right.')],
    [say('White art on white paper'), say('A pull shows how far a tolerance reaches before you let go: a small one stops at a thin grey outline. The step “Fewer colours” before the lift makes every press exact.')],
    [say('The middles of letters stay filled'), say('They are not connected to the outside. Switch on “Also enclosed areas of this colour” at the lift, or press into each of them.')],
    [say('Everything but the subject'), say('“Subject lift” finds the subject of a photo. Strokes say “keep” or “clear” where it is wrong; K changes between them.')],
    [say('Specks and pinholes'), say('“Sweep” removes what is smaller than a size that you set, counted at the finished size. N and Shift+N go from place to place; X spares one.')],
    [say('A scan with shadows'), say('“Light levelling” first, then “Gap mending” where a line is broken, then “Fewer colours”.')],
    [say('A photo taken at an angle'), say('“Squaring” makes it flat and true to scale by the mark sheet, or by four corners of known distance. The mark sheet can be printed from there.')],
    [say('Change what was done before'), say('Every step stays: switch it off, open it and change it, move it earlier or later. What follows is made anew. A recipe can be kept under a name for other pictures.')]),
  ...of('separate',
    [say('How many colours'), say('The tones that were found are listed with their share. Type another number and they are counted anew; two can be merged, one parted, one held.')],
    [say('Films from the shelf'), say('Each tone takes a film by its nearest colour. Press its name to take another one from the workshop.')],
    [say('A photo'), say('“Tones of a photo” cuts it into two to six tones of lightness. “Back and detail” makes a full shape below and one layer of detail above, traced coarsely or finely.')],
    [say('How layers meet'), say('Stacked: the upper lies on a full lower one, easy to line up. Inset: each is cut out of the others, thin. Reach says how far a lower one runs under its neighbour, so that no gap shows.')],
    [say('Change an outline by hand'), say('Open “Nodes” and press one. It moves in all films that share it. What was changed by hand is held, and asked for before it is replaced.')]),
  ...of('assemble',
    [say('Add a name'), say('Press “Add”, then “Lettering”, and type. Fonts that will not cut at that height are greyed with the reason. Straight, on a circle, along a part’s edge, or filling a part.')],
    [say('What is done to a part'), say('Thickened, bordered, cut out of another, filled between lines: each is a line under the part that can be changed or switched off later.')],
    [say('One design for each name'), say('Write {Name} in the lettering, then give a list of names. A sheet is made for each line of it.')],
    [say('Which font is this?'), say('Choose a traced part that is lettering: the card names the fonts it is most like, and sets it anew in one.')],
    [say('Where it sits on the blank'), say('Drag it, or move it by arrow keys. Measures from collar and sides stand on the drawing.')]),
  ...of('layout',
    [say('Why is it mirrored?'), say('Heat-transfer film is cut from its back: pressed, it reads right. A sheet that goes against its process says so in its margin and leaves only when you confirm it.')],
    [say('What will not cut or weed'), say('Pins and the list say what, where and how small. “Mend” thickens, drops or joins the place; it can be looked at against what was there, and taken back.')],
    [say('Down to which size'), say('The card “Smallest size” finds the width from which everything cuts and weeds, and what would have to go for a smaller one.')],
    [say('Fill the sheet'), say('Type how many, or fill the page. “Nested by their outlines” lays parts closer than rows; “lay closer” looks some seconds longer.')],
    [say('Weeding box and weed lines'), say('A box gives the waste an edge to lift by, and corners to line layers up by. Weed lines part large waste into strips: drag one by its wedge, or choose it and use the arrow keys; Delete leaves it out.')],
    [say('Bridges of a stencil'), say('Every island is held by itself. Drag a bridge along the edge, or press it and use the arrow keys; Delete takes it out.')],
    [say('Glasses that taper'), say('Say in the blank how far it is once around, above and below: the design is cut as an arc, so that it lies level on it. What you see on the blank stays as you drew it.')],
    [say('Where it goes on the blank'), say('“Placement guide of card”, on the blank, cuts a card with the sheets: at a collar or at the corner of the area it shows where film is laid.')],
    [say('Printed sheets that are cut'), say('“Cut line for a cutter” runs around each motif, and “Slits through the waste” part what is left, so that it lifts in pieces.')],
    [say('One stencil, many times'), say('“Laid more than once” cuts half of what is its own mirror image, to be turned over on its holes, or gives holes by which a border is laid on a step further.')],
    [say('A sign larger than the film'), say('Tiles part it at calm places. They lie over each other a little, or edge to edge, the same in all films.')],
    [say('What is left of a film'), say('“Remnants first” cuts from what lies on the shelf before a new sheet is taken. A piece of any outline: photograph it on the mark sheet, trace it, and “Keep it as a remnant”.')],
    [say('Cut around what is stamped'), say('Photograph the work on the mark sheet: “Work on the sheet” cuts where it lies.')],
    [say('See it finished'), say('“on the blank” shows shirt, mug or soap at true scale, its films in their look and, by the play button, one after the other as they are pressed; a mug can be turned.')]),
  ...of('handoff',
    [say('Which file for which machine'), say('SVG and DXF for most cutters’ programs, R12 for old ones, PDF for printers and shops, plotter language for a cutter at a cable. All are at true size. “Look” opens a file as another program would read it.')],
    [say('For another shop, or for next year'), say('“Save job file” keeps the whole job with its pictures and versions. It opens again by dropping it.')],
    [say('Names of files'), say('The pattern takes {job}, {blank}, {process}, {width} and {date}.')]),
  ...of('machine',
    [say('Cut film after film'), say('Load the film that is named, then “Cut”. “Pen drawing first” draws it on paper to judge the size; “Test cut” tries the film.')],
    [say('It stopped in the middle'), say('“Go on” carries on with the line that it was at; “Send only what was missed” sends the rest.')],
    [say('Cut what was printed'), say('Print the page, lay it in the cutter, and look for its marks: the cut goes where the page lies, even askew. Which mark is not found is said, and why.')],
    [say('There is no cutter here'), say('The stand-in is one that is not there: everything can be tried on it, also what goes wrong.')]),
  ...of('ticket',
    [say('What the ticket is for'), say('It goes with the job through the shop: proof, films and lengths, settings, weeding, order of pressing or waits with timers. Its code finds the job again when it is scanned.')],
    [say('Timers'), say('They run on while the page is closed.')]),
  ...of('versions',
    [say('Keep the job as it is'), say('Before you try something, and when the customer has seen it. What was approved is kept by itself. A version can be compared, taken back, or made a job of its own.')]),
  ...of('workshop',
    [say('Films, materials, machines, blanks'), say('What the shop has, the same for all jobs. The cut check takes its limits from the material; a job keeps what it was made with.')]),
  ...of('keeping',
    [say('Where the jobs are'), say('In this browser, on this computer, and nowhere else. Keep copies: all as one file, or each into a folder of yours.')],
    [say('Without a network'), say('After the first visit everything is here. A newer Limner is told and waits until you take it up.')]),
  ...of('everywhere',
    [say('Undo'), say('Ctrl+Z takes back anything, also across stages; what was taken back is said. Ctrl+Shift+Z does it again.')],
    [say('Millimetres or inches'), say('The shelf’s upper right changes the unit everywhere. Lengths can be typed in either: 40 mm, 1 1/2 in.')],
    [say('Nothing is lost'), say('Every change is saved within half a second. A page that is closed or killed comes back as it was.')]),
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
  group(say('Everywhere'), ['F1', say('help')], [say('Ctrl+Z'), say('undo')], [say('Ctrl+Shift+Z, Ctrl+Y'), say('redo')], [say('Ctrl+V'), say('bring in a picture from the clipboard')], [say('Escape'), say('leave what is under way')], [say('Tab, Shift+Tab'), say('from control to control')]),
  group(say('Light table'), [say('wheel'), say('zoom to the pointer')], [say('Space and drag, middle button'), say('move the table')], [say('two fingers'), say('zoom and move, on a touch screen')], ['+, −', say('larger and smaller')], ['0', say('all of it in sight')], ['1', say('its true size')], [say('arrow keys on a divider'), say('move it')]),
  group(say('Numbers'), [say('Enter'), say('take what was typed')], [say('Up, Down'), say('one step more or less; with Shift ten')], [say('drag on the unit'), say('change it and see the effect')], [say('Escape while dragging'), say('back to what it was')]),
  group(say('Clean'), [say('Enter'), say('done with the step')], [say('O, held'), say('what was there before')], [say('N, Shift+N'), say('next and previous place that the sweep found')], ['X', say('spare the place')], ['K', say('keep or clear, with subject lift')], [say(', and .'), say('smaller and larger brush')], [say('Alt and wheel'), say('size of the brush')]),
  group(say('Nodes'), [say('arrow keys'), say('move by a tenth of a mm; with Shift by one')], [say('Delete'), say('take the node out')], [say('Escape'), say('let go')]),
  group(say('Assemble'), [say('arrow keys'), say('move by a mm; with Shift by ten')], [say('Delete'), say('take the part off')], [say('Enter'), say('close a shape of the pen; with Shift leave it open')], [say('Backspace'), say('take the pen’s last place back')], [say('Escape'), say('choose nothing')]),
  group(say('Lay out'), [say('arrow keys'), say('move a chosen bridge by a mm; with Shift by ten')], [say('Delete'), say('take a chosen bridge out')], [say('Escape'), say('leave the mend that is shown, or the bridge')]),
  group(say('Shelf'), [say('Enter in the search'), say('open the only job that is left')]),
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
