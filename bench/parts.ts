import { freshProcess } from './freshProcess.ts';

/** Joining, cutting out and offsetting of everything beside the polygon library on the same outlines as chords within a hundredth of a millimetre; bundled as the application is, in a process of its own. */
export async function benchParts(): Promise<void> {
  console.log(await (await freshProcess('partsOne.ts'))());
}
