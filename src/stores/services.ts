import { inject, type App, type InjectionKey } from 'vue';
import type { Engine } from '../engine/protocol.ts';
import { LocalSignal, type JobSignal } from '../storage/jobSignal.ts';
import type { JobStorage } from '../storage/ports.ts';

/** What stores call: the engine and the storage, given once when the application starts, doubles in tests. */
export interface Services {
  readonly engine: Engine;
  readonly storage: JobStorage;
  /** Other tabs; alone when absent. */
  readonly signal?: JobSignal;
}

const KEY: InjectionKey<Services> = Symbol('services');

export const provideServices = (app: App, services: Services): void => void app.provide(KEY, services);

/** The services; called while a store is set up. */
export function useServices(): Required<Services> {
  const services = inject(KEY);
  if (services === undefined) throw new TypeError('services were not provided');
  return { signal: new LocalSignal(), ...services };
}
