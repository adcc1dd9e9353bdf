/** Whether a key event goes to something that takes text, which keeps its own undo and letters. */
export const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || target.matches('textarea, select, input:not([type="checkbox"]):not([type="range"]):not([type="color"])'));

/** Whether undo belongs to what has the focus: text under way. A quantity that was taken, and a choice in a list, have nothing of their own to undo. */
export const keepsUndo = (target: EventTarget | null): boolean => isTyping(target) && !(target as HTMLElement).matches('[data-settled], [role="combobox"], select');
