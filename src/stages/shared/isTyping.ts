/** Whether a key event goes to something that takes text, which keeps its own undo and letters. */
export const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || target.matches('textarea, select, input:not([type="checkbox"]):not([type="range"]):not([type="color"])'));
