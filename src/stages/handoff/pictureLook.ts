import { statedDpi } from '../../formats/picture/statedDpi.ts';
import { say } from '../../core/words/say.ts';

const MM_PER_INCH = 25.4;
/** What states no resolution is shown as on a screen, dots per inch. */
const SCREEN_DPI = 96;

/** A picture or a page that is in a file, at its true size. */
export interface PictureLook {
  readonly picture: CanvasImageSource;
  readonly widthMm: number;
  readonly heightMm: number;
  /** Pages of its file; 1 of a picture. */
  readonly pages: number;
  /** What is in it beside its size. */
  readonly words: string;
}

/** What another program would show of a PNG or a PDF that was made. @param page of a PDF, from 0. */
export async function pictureLook(kind: 'png' | 'pdf', bytes: Uint8Array<ArrayBuffer>, page: number): Promise<PictureLook> {
  if (kind === 'pdf') {
    // As large as half of the application: loaded when somebody looks.
    const { pdfPage } = await import('./pdfPage.ts');
    const { layers, ...found } = await pdfPage(bytes, page);
    return { ...found, words: layers.length === 0 ? '' : say`layers ${layers.join(', ')}` };
  }
  const picture = await createImageBitmap(new Blob([bytes], { type: 'image/png' }));
  const stated = statedDpi(bytes, 'png');
  const perPx = MM_PER_INCH / (stated ?? SCREEN_DPI);
  return { picture, widthMm: picture.width * perPx, heightMm: picture.height * perPx, pages: 1, words: `${picture.width} × ${picture.height} px${stated === undefined ? '' : say`, ${Math.round(stated)} dots per inch`}` };
}
