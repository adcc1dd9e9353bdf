import { expose, transfer } from 'comlink';
import { plainFromError, type PlainError } from '../core/errors/appError.ts';
import { decodeInBrowser } from '../formats/picture/decodeInBrowser.ts';
import { LocalEngine } from './localEngine.ts';
import type { Engine } from './protocol.ts';

/** What crosses instead of a thrown error, whose class and code would be lost. */
export type Answer<Value> = { readonly ok: true; readonly value: Value } | { readonly ok: false; readonly error: PlainError };

// eslint-disable-next-line no-console -- seen by who develops, in no build
const engine = new LocalEngine(decodeInBrowser, import.meta.env.DEV ? (words) => console.error(words) : undefined);

async function answer<Value>(work: Promise<Value>, buffers: (value: Value) => ArrayBufferLike[] = () => []): Promise<Answer<Value>> {
  try {
    const value = await work;
    return transfer({ ok: true, value } as const, buffers(value) as ArrayBuffer[]);
  } catch (error) {
    return { ok: false, error: plainFromError(error) };
  }
}

const remote = {
  warm: () => answer(engine.warm()),
  open: (...args: Parameters<Engine['open']>) => answer(engine.open(...args), (opened) => [opened.view.data.buffer]),
  propose: (...args: Parameters<Engine['propose']>) => answer(engine.propose(...args)),
  run: (...args: Parameters<Engine['run']>) => answer(engine.run(...args), ({ clean, base }) => [clean.view, base?.view].flatMap((view) => (view === undefined ? [] : [view.data.buffer]))),
  reach: (...args: Parameters<Engine['reach']>) => answer(engine.reach(...args), (reach) => [reach.levels.buffer]),
  moment: (...args: Parameters<Engine['moment']>) => answer(engine.moment(...args), ({ view }) => (view === undefined ? [] : [view.data.buffer])),
  region: (...args: Parameters<Engine['region']>) => answer(engine.region(...args), (picture) => [picture.data.buffer]),
  proof: (...args: Parameters<Engine['proof']>) => answer(engine.proof(...args), ({ composed, difference }) => [composed.data.buffer, difference.data.buffer]),
  variant: (...args: Parameters<Engine['variant']>) => answer(engine.variant(...args)),
  parts: (...args: Parameters<Engine['parts']>) => answer(engine.parts(...args)),
  export: (...args: Parameters<Engine['export']>) => answer(engine.export(...args), (bytes) => [bytes.buffer]),
  cancel: () => answer(engine.cancel()),
};
export type RemoteEngine = typeof remote;

expose(remote);
