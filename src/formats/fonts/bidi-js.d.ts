/** What is used of the library that tells which way writing runs. */
declare module 'bidi-js' {
  interface Bidi {
    getEmbeddingLevels(text: string): { readonly levels: Uint8Array };
    /** The sign that stands for one that runs from the right, or null where it is its own. */
    getMirroredCharacter(character: string): string | null;
  }
  export default function bidiFactory(): Bidi;
}
