import { proxy, transfer, wrap, type Remote } from 'comlink';
import { AppError, errorFromPlain } from '../core/errors/appError.ts';
import type { Engine } from './protocol.ts';
import type { Answer, RemoteEngine } from './worker.ts';

type MakeWorker = () => Worker;

const startWorker: MakeWorker = () => new Worker(new URL('./worker.ts', import.meta.url), { type: 'module', name: 'engine' });

/**
 * The engine behind a worker. When the worker is lost, everything pending ends with `workerLost` and the next call starts a new one, which knows no
 * pictures: its `pictureMissing` tells the caller to open them again.
 */
export class EngineClient implements Engine {
  private worker: Worker | undefined;
  private remote: Remote<RemoteEngine> | undefined;
  private readonly pending = new Set<(error: AppError) => void>();

  constructor(private readonly makeWorker: MakeWorker = startWorker) {}

  warm: Engine['warm'] = () => this.ask((remote) => remote.warm());
  open: Engine['open'] = (bytes, file, options) => this.ask((remote) => remote.open(transfer(bytes, [bytes.buffer]), file, options));
  propose: Engine['propose'] = (request) => this.ask((remote) => remote.propose(request));
  run: Engine['run'] = (request, onProgress) => this.ask((remote) => remote.run(request, onProgress === undefined ? undefined : proxy(onProgress)));
  reach: Engine['reach'] = (request) => this.ask((remote) => remote.reach(request));
  moment: Engine['moment'] = (request) => this.ask((remote) => remote.moment(request));
  region: Engine['region'] = (request) => this.ask((remote) => remote.region(request));
  proof: Engine['proof'] = (request) => this.ask((remote) => remote.proof(request));
  variant: Engine['variant'] = (request) => this.ask((remote) => remote.variant(request));
  parts: Engine['parts'] = (request) => this.ask((remote) => remote.parts(request));
  export: Engine['export'] = (request) => this.ask((remote) => remote.export(request));
  cancel: Engine['cancel'] = () => this.ask((remote) => remote.cancel());

  /** Ends the worker; the next call starts another. */
  stop(code: 'workerLost' | 'cancelled' = 'cancelled'): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.remote = undefined;
    for (const reject of this.pending) reject(new AppError(code));
    this.pending.clear();
  }

  private connect(): Remote<RemoteEngine> {
    if (this.remote !== undefined) return this.remote;
    this.worker = this.makeWorker();
    const lost = (): void => this.stop('workerLost');
    this.worker.addEventListener('error', lost);
    this.worker.addEventListener('messageerror', lost);
    this.remote = wrap<RemoteEngine>(this.worker);
    return this.remote;
  }

  private ask<Value>(call: (remote: Remote<RemoteEngine>) => Promise<Answer<Value>>): Promise<Value> {
    return new Promise<Value>((resolve, reject) => {
      this.pending.add(reject);
      call(this.connect())
        .then((answer) => (answer.ok ? resolve(answer.value) : reject(errorFromPlain(answer.error))), reject)
        .finally(() => this.pending.delete(reject));
    });
  }
}
