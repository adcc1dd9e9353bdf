import { onScopeDispose, watch, type WatchSource } from 'vue';

/**
 * Makes something anew some time after what it follows from has changed last: changes that come close together make it once.
 * @param waitMs from a change to the making. @param make is told how to ask whether it is still the latest; what is no longer so is left alone.
 */
export function useMadeAnew(sources: WatchSource<unknown>[], waitMs: () => number, make: (isLatest: () => boolean) => Promise<void>): void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let turn = 0;
  const start = (): void => {
    const mine = ++turn;
    void make(() => mine === turn);
  };
  watch(sources, () => {
    clearTimeout(timer);
    timer = setTimeout(start, waitMs());
  }, { immediate: true });
  onScopeDispose(() => {
    clearTimeout(timer);
    turn++;
  });
}
