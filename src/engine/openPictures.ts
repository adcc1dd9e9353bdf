import { lookAt } from '../core/check/lookAt.ts';
import { AppError } from '../core/errors/appError.ts';
import type { Rgba8 } from '../core/raster/raster.ts';
import { shrinkToSide } from '../core/raster/shrink.ts';
import type { DecodePicture } from '../formats/picture/decodedPicture.ts';
import { pictureIdOf } from '../formats/picture/pictureId.ts';
import { pictureKeyOf, type OpenedPicture, type OpenOptions } from './protocol.ts';

/** Long side of the picture on which previews are computed, px. */
const PREVIEW_SIDE_PX = 800;
/** Pictures kept decoded: the newest, and older ones as long as all take no more than this, bytes. */
const KEPT_BYTES = 104_000_000;
/** The same where only reduced ones are kept: with what both engines keep of their runs all is below 400 MB. */
const KEPT_REDUCED_BYTES = 16_000_000;

export interface OpenPicture {
  /** What was said of it on opening, without what is shown. */
  readonly facts: Omit<OpenedPicture, 'view'>;
  /** The whole one; the reduced one where only that is kept. */
  readonly final: Rgba8;
  readonly preview: Rgba8;
  readonly previewScale: number;
}

/** The pictures that an engine has decoded, by their keys, newest last. */
export class OpenPictures {
  private readonly pictures = new Map<string, OpenPicture>();

  constructor(
    private readonly decode: DecodePicture,
    private readonly reducedOnly: boolean,
  ) {}

  /** Decodes a file, unless it was before: a picture that was dropped is opened again by its job a moment later. */
  async open(bytes: Uint8Array<ArrayBuffer>, file: string, { id, ...options }: OpenOptions): Promise<OpenPicture> {
    const pictureId = id ?? (await pictureIdOf(bytes));
    const known = this.pictures.get(pictureKeyOf({ id: pictureId, drawnSidePx: options.drawnSidePx }));
    if (known !== undefined) return known;
    const { picture, ...decoded } = await this.decode(bytes, file, options);
    const pictureKey = pictureKeyOf({ id: pictureId, drawnSidePx: decoded.drawnSidePx });
    const preview = shrinkToSide(picture, PREVIEW_SIDE_PX);
    const facts = { ...decoded, pictureId, pictureKey, widthPx: picture.width, heightPx: picture.height, look: lookAt(picture) };
    const opened = { facts, final: this.reducedOnly ? preview : picture, preview, previewScale: preview.width / picture.width };
    this.pictures.delete(pictureKey);
    this.pictures.set(pictureKey, opened);
    this.dropOldest(pictureKey);
    return opened;
  }

  /** @throws AppError `pictureMissing` when it is not open. */
  get(pictureKey: string): OpenPicture {
    const picture = this.pictures.get(pictureKey);
    if (picture === undefined) throw new AppError('pictureMissing');
    return picture;
  }

  private dropOldest(newest: string): void {
    const room = this.reducedOnly ? KEPT_REDUCED_BYTES : KEPT_BYTES;
    let bytes = 0;
    for (const { final, preview } of this.pictures.values()) bytes += final.data.byteLength + preview.data.byteLength;
    for (const [oldest, { final, preview }] of this.pictures) {
      if (oldest === newest || bytes <= room) return;
      this.pictures.delete(oldest);
      bytes -= final.data.byteLength + preview.data.byteLength;
    }
  }
}
