declare module 'fontkit' {
  export interface PathCommand {
    readonly command: 'moveTo' | 'lineTo' | 'quadraticCurveTo' | 'bezierCurveTo' | 'closePath';
    readonly args: readonly number[];
  }
  export interface Font {
    readonly unitsPerEm: number;
    layout(text: string): {
      readonly glyphs: readonly { readonly path: { readonly commands: readonly PathCommand[] } }[];
      readonly positions: readonly { readonly xAdvance: number }[];
    };
  }
  export function openSync(path: string): Font;
}
