import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';

const load = createRequire(import.meta.url);

/** Where a file of an installed package lies. */
export const packagePath = (name: string): string => load.resolve(name);

/** A file of an installed package. */
export const packageFile = (name: string): Promise<Buffer> => readFile(packagePath(name));
