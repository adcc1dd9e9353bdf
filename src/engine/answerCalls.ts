import { expose, transfer } from 'comlink';
import { plainFromError, type PlainError } from '../core/errors/appError.ts';
import { decodeInBrowser } from '../formats/picture/decodeInBrowser.ts';
import { browserTools } from './browserTools.ts';
import { HANDED_OVER, REDUCED, type CallName } from './calls.ts';
import { LocalEngine } from './localEngine.ts';
import { KnownOutlines } from './outlinesAcross.ts';
import { withOwnArrays } from './ownArrays.ts';

/** What crosses instead of a thrown error, whose class and code would be lost. */
export type Answer = { readonly ok: true; readonly value: unknown } | { readonly ok: false; readonly error: PlainError };

/** Does a call by its name; arguments and answer have passed the types on the other side. */
export type RemoteCall = (name: CallName, ...args: unknown[]) => Promise<Answer>;

/** Has an engine answer what comes in from the page. @param engineName tells which of the pair it is. */
export function answerCalls(engineName: string): void {
  const engine = new LocalEngine(decodeInBrowser, {
    // eslint-disable-next-line no-console -- seen by who develops, in no build
    onFault: import.meta.env.DEV ? (words) => console.error(words) : undefined,
    reducedOnly: engineName === REDUCED,
    tools: browserTools,
  });
  const outlines = new KnownOutlines();
  const call: RemoteCall = async (name, ...args) => {
    try {
      const given = args.map((arg) => outlines.arrived(arg));
      const value = await (engine[name] as (...given: unknown[]) => Promise<unknown>).apply(engine, given);
      const buffers = (HANDED_OVER[name] as (answer: unknown) => (ArrayBufferLike | undefined)[])(value).filter((buffer) => buffer !== undefined);
      const own = withOwnArrays(value, new Set(buffers));
      return transfer({ ok: true, value: own.value } as const, [...buffers, ...own.buffers] as ArrayBuffer[]);
    } catch (error) {
      return { ok: false, error: plainFromError(error) };
    }
  };
  expose(call);
}
