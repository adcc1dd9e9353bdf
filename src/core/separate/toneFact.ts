/** A tone of the art as the palette shows it. */
export interface ToneFact {
  /** `#rrggbb`. */
  readonly colour: string;
  /** Of the art's pixels that are there, 0 to 1. */
  readonly share: number;
  /** Film that it becomes; null for the background. */
  readonly film: string | null;
}
