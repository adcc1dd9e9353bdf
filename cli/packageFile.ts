import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';

const load = createRequire(import.meta.url);

/** A file of an installed package. */
export const packageFile = (name: string): Promise<Buffer> => readFile(load.resolve(name));
