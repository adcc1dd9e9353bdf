import type { EngineClient } from './client.ts';
import type { Engine } from './protocol.ts';

/** Which of the two does what. */
const OF_REDUCED = {
  run: ({ quality }: Parameters<Engine['run']>[0]) => quality === 'preview',
  variant: ({ size }: Parameters<Engine['variant']>[0]) => size === 'small',
  export: ({ kind }: Parameters<Engine['export']>[0]) => kind === 'thumbnail',
};

/**
 * Two engines as one, so that both cores are used and what is looked at while something is changed never waits for the whole picture: `reduced` makes previews,
 * moments and thumbnails, `whole` all that needs every pixel. Both open every picture; calls of the reduced one wait until it has done so.
 */
export function enginePair(whole: EngineClient, reduced: EngineClient): EngineClient {
  let opening: Promise<unknown> = Promise.resolve();
  /** The reduced engine as soon as it knows the pictures that were opened. */
  async function whenOpened(): Promise<EngineClient> {
    await opening;
    return reduced;
  }
  return {
    async warm() {
      await whole.warm();
      await reduced.warm();
    },
    open(bytes, file, options) {
      // What is wrong with a file is said by the other one; the next call that misses the picture asks for it again.
      const also = reduced.open(bytes.slice(), file, options).catch(() => undefined);
      opening = Promise.all([opening, also]);
      return whole.open(bytes, file, options);
    },
    propose: (request) => whole.propose(request),
    run: async (request, onProgress) => (OF_REDUCED.run(request) ? (await whenOpened()).run(request, onProgress) : whole.run(request, onProgress)),
    prepare: (request) => whole.prepare(request),
    reach: async (request) => (await whenOpened()).reach(request),
    moment: async (request) => (await whenOpened()).moment(request),
    region: (request) => whole.region(request),
    proof: (request) => whole.proof(request),
    prints: async (request) => (await whenOpened()).prints(request),
    onBlank: (request) => whole.onBlank(request),
    onArea: (request) => whole.onArea(request),
    proofPng: (request) => whole.proofPng(request),
    files: (request) => whole.files(request),
    lookInto: (request) => whole.lookInto(request),
    ticket: (request) => whole.ticket(request),
    ticketPdf: (request) => whole.ticketPdf(request),
    program: (request) => whole.program(request),
    printedProgram: (request) => whole.printedProgram(request),
    nest: (request, onProgress) => whole.nest(request, onProgress),
    sheetPlan: (request) => whole.sheetPlan(request),
    workingSize: (request) => whole.workingSize(request),
    stockOutline: (request) => whole.stockOutline(request),
    nestedRoom: (request) => whole.nestedRoom(request),
    together: (request, onProgress) => whole.together(request, onProgress),
    variant: async (request) => (OF_REDUCED.variant(request) ? (await whenOpened()).variant(request) : whole.variant(request)),
    parts: (request) => whole.parts(request),
    export: async (request) => (OF_REDUCED.export(request) ? (await whenOpened()).export(request) : whole.export(request)),
    drawing: (bytes, file) => reduced.drawing(bytes, file),
    fontName: (bytes, file) => reduced.fontName(bytes, file),
    fontsLike: (letters) => reduced.fontsLike(letters),
    fontsWith: (text) => reduced.fontsWith(text),
    async cancel() {
      await Promise.all([whole.cancel(), reduced.cancel()]);
    },
    stop(code) {
      whole.stop(code);
      reduced.stop(code);
    },
  };
}
