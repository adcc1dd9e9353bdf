import type { InjectionKey, Ref } from 'vue';

/** Whether the shelf is being filled: while it is, it is not called empty. */
export const FILLING: InjectionKey<Readonly<Ref<boolean>>> = Symbol('filling');

/** What the file chooser offers. */
const ACCEPT = 'image/png,image/jpeg,image/webp,image/gif,image/bmp,image/tiff,image/heic,image/svg+xml,.svg,.heic,.heif,.tif,.tiff,.bmp,.limner,.zip';

/** Event on the window that carries chosen files. */
export const CHOSEN_FILES = 'limner:files';

/** Opens the file chooser and gives what is chosen; nothing when it is left. */
export function chooseFiles(accept = ACCEPT, several = true): Promise<File[]> {
  const input = document.createElement('input');
  input.type = 'file';
  input.multiple = several;
  input.accept = accept;
  return new Promise((resolve) => {
    input.addEventListener('change', () => resolve([...(input.files ?? [])]));
    input.addEventListener('cancel', () => resolve([]));
    input.click();
  });
}

/** Opens the file chooser; what is chosen goes the same way as a drop or a paste. */
export async function pickFiles(): Promise<void> {
  const files = await chooseFiles();
  if (files.length > 0) window.dispatchEvent(new CustomEvent(CHOSEN_FILES, { detail: files }));
}
