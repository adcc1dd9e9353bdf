/** What the file chooser offers. */
const ACCEPT = 'image/png,image/jpeg,image/webp,image/gif,image/bmp,image/tiff,image/heic,image/svg+xml,.svg,.heic,.heif,.tif,.tiff,.bmp,.limner';

/** Event on the window that carries chosen files. */
export const CHOSEN_FILES = 'limner:files';

/** Opens the file chooser; what is chosen goes the same way as a drop or a paste. */
export function pickFiles(): void {
  const input = document.createElement('input');
  input.type = 'file';
  input.multiple = true;
  input.accept = ACCEPT;
  input.addEventListener('change', () => {
    const files = [...(input.files ?? [])];
    if (files.length > 0) window.dispatchEvent(new CustomEvent(CHOSEN_FILES, { detail: files }));
  });
  input.click();
}
