import type { Rgba8 } from '../raster/raster.ts';
import { SIGMA_KERNEL } from './sigmaKernel.ts';

/** What is used of WebAssembly, which is no part of the language's own library. */
interface Wasm {
  validate(bytes: Uint8Array): boolean;
  readonly Module: new (bytes: Uint8Array) => object;
  readonly Instance: new (module: object) => { readonly exports: KernelExports };
}

interface KernelExports {
  readonly memory: { readonly buffer: ArrayBuffer; grow(pages: number): number };
  filterRow(from: number, to: number, stride: number, count: number, reach: number, alone: number, offsets: number, neighbours: number): void;
}

const PAGE_BYTES = 65_536;
/** Where the offsets stand in the kernel's memory, and the rows after them. */
const OFFSETS_AT = 64;
const ROWS_AT = 1024;
/** The last group of four pixels may read and write so far beyond its row, bytes. */
const SLACK_BYTES = 64;

/** The inside of the sigma filter in WebAssembly with SIMD, band by band: six times as fast as in TypeScript. One instance serves one picture. */
export class SigmaBands {
  private constructor(
    private readonly kernel: KernelExports,
    private readonly picture: Rgba8,
    private readonly neighbours: number,
    private readonly margin: number,
    private readonly mostRows: number,
  ) {}

  /** @param offsets dx and dy of the neighbours, by turns. @param margin rows and columns that they reach. @returns undefined where SIMD is not to be had. */
  static start(picture: Rgba8, offsets: Int8Array, margin: number, mostRows: number): SigmaBands | undefined {
    // eslint-disable-next-line no-restricted-globals -- every place in which core runs has WebAssembly, but the language's own library does not name it
    const { WebAssembly: wasm } = globalThis as unknown as { WebAssembly?: Wasm };
    const bytes = Uint8Array.from(SIGMA_KERNEL.match(/../g) ?? [], (digits) => Number.parseInt(digits, 16));
    if (wasm?.validate(bytes) !== true) return undefined;
    const kernel = new wasm.Instance(new wasm.Module(bytes)).exports;
    const stride = picture.width * 4;
    const needed = ROWS_AT + (2 * mostRows + 2 * margin) * stride + 2 * SLACK_BYTES;
    kernel.memory.grow(Math.ceil(needed / PAGE_BYTES));
    const table = new Int32Array(kernel.memory.buffer, OFFSETS_AT, offsets.length / 2);
    for (let k = 0; k < table.length; k++) table[k] = offsets[2 * k] * 4 + offsets[2 * k + 1] * stride;
    return new SigmaBands(kernel, picture, table.length, margin, mostRows);
  }

  /** Filters rows `from` to `to`, all of whose neighbours exist, but for `margin` pixels at both ends. */
  filter(out: Uint8Array, from: number, to: number, reach: number, alone: boolean): void {
    const { kernel, margin, neighbours } = this;
    const { data, width } = this.picture;
    const stride = width * 4;
    const memory = new Uint8Array(kernel.memory.buffer);
    const outAt = ROWS_AT + (this.mostRows + 2 * margin) * stride + SLACK_BYTES;
    memory.set(data.subarray((from - margin) * stride, (to + margin) * stride), ROWS_AT);
    const count = width - 2 * margin;
    for (let y = from; y < to; y++) {
      const row = (y - from) * stride + margin * 4;
      kernel.filterRow(ROWS_AT + row + margin * stride, outAt + row, stride, (count + 3) & ~3, reach, alone ? 1 : 0, OFFSETS_AT, neighbours);
      out.set(memory.subarray(outAt + row, outAt + row + count * 4), y * stride + margin * 4);
    }
  }
}
