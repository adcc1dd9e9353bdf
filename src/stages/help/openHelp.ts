import type { InjectionKey } from 'vue';

/** Opens the help on where one is. */
export const OPEN_HELP: InjectionKey<() => void> = Symbol('open help');
