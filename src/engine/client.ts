import { proxy, transfer, wrap, type Remote } from 'comlink';
import { AppError, errorFromPlain } from '../core/errors/appError.ts';
import { CALL_NAMES, REDUCED, type CallName } from './calls.ts';
import { enginePair } from './enginePair.ts';
import { SentOutlines } from './outlinesAcross.ts';
import type { Engine } from './protocol.ts';
import type { RemoteCall } from './answerCalls.ts';
import { language } from '../core/words/say.ts';

type MakeWorker = () => Worker;

const startWorker = (name: string): Worker => new Worker(new URL('./worker.ts', import.meta.url), { type: 'module', name: `${name}-${language()}` });

export interface EngineClient extends Engine {
  /** Ends the worker; the next call starts another. */
  stop(code?: 'workerLost' | 'cancelled'): void;
}

/**
 * The engine behind a worker. When the worker is lost, everything pending ends with `workerLost` and the next call starts a new one, which knows no
 * pictures: its `pictureMissing` tells the caller to open them again.
 */
export function engineClient(makeWorker: MakeWorker): EngineClient {
  let worker: Worker | undefined;
  let remote: Remote<RemoteCall> | undefined;
  const pending = new Set<(error: AppError) => void>();
  let sent = new SentOutlines();

  function stop(code: 'workerLost' | 'cancelled' = 'cancelled'): void {
    worker?.terminate();
    worker = undefined;
    remote = undefined;
    for (const reject of pending) reject(new AppError(code));
    pending.clear();
  }

  function connect(): Remote<RemoteCall> {
    if (remote !== undefined) return remote;
    worker = makeWorker();
    sent = new SentOutlines();
    const lost = (): void => stop('workerLost');
    worker.addEventListener('error', lost);
    worker.addEventListener('messageerror', lost);
    remote = wrap<RemoteCall>(worker);
    return remote;
  }

  const ask = (name: CallName, args: readonly unknown[]): Promise<unknown> =>
    new Promise((resolve, reject) => {
      pending.add(reject);
      const there = connect();
      there(name, ...args.map((arg) => crossing(arg, sent)))
        .then((answer) => (answer.ok ? resolve(answer.value) : reject(errorFromPlain(answer.error))), reject)
        .finally(() => pending.delete(reject));
    });

  const calls = Object.fromEntries(CALL_NAMES.map((name) => [name, (...args: unknown[]) => ask(name, args)])) as unknown as Engine;
  return { ...calls, stop };
}

/** An argument as it crosses: functions are called back, bytes handed over, long outlines of a job sent once. */
function crossing(value: unknown, sent: SentOutlines): unknown {
  if (typeof value === 'function') return proxy(value as () => void);
  if (value instanceof Uint8Array) return transfer(value, [value.buffer]);
  return sent.leaving(value);
}

/** The engine of the application: a worker for previews and one for all else. */
export const browserEngine = (): EngineClient => enginePair(engineClient(() => startWorker('whole')), engineClient(() => startWorker(REDUCED)));
