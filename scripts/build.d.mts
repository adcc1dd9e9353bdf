/** Builds the application when its sources are newer than the build, or there is none. */
export function ensureBuild(): void;
/** Bundles a program for Node with what it imports into one file of a folder, all but the packages that are loaded apart. */
export function bundleProgram(entry: string, outDir: string, output: { readonly entryFileNames: string; readonly format?: 'cjs' | 'es' }, loadedApart?: readonly string[]): Promise<void>;
