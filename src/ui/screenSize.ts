import type { InjectionKey, Ref } from 'vue';

/** How large this screen is: what "true size" on the light table needs. */
export interface ScreenSize {
  readonly pxPerMm: Readonly<Ref<number>>;
  /** False while the figure is the usual 96 dots per inch and nobody has held a ruler to the screen. */
  readonly isMeasured: Readonly<Ref<boolean>>;
  /** Asks for it, then calls back. */
  measure(then: () => void): void;
}

export const SCREEN_SIZE: InjectionKey<ScreenSize> = Symbol('screen size');
