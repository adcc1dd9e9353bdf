import { sha256Of } from '../sha256.ts';

/** What a picture file is known by: the SHA-256 of its bytes. */
export const pictureIdOf = (bytes: Uint8Array<ArrayBuffer>): Promise<string> => sha256Of(bytes);
