import { isAppError } from '../core/errors/appError.ts';
import { bytesOf } from '../core/task/bytesOf.ts';
import { canonicalJson } from '../core/task/hash.ts';
import type { Job } from '../core/job/job.ts';
import { makeRgba8, type Rgba8 } from '../core/raster/raster.ts';
import type { OpenedPicture, RunResult } from '../engine/protocol.ts';
import { sha256Of } from '../formats/sha256.ts';
import type { JobStorage, ShelfEntry } from '../storage/ports.ts';
import { language } from '../core/words/say.ts';

/** A reduced picture under the key of what it shows. */
export interface KeyedView {
  readonly key: string;
  readonly pixels: Rgba8;
}

/** All that is shown of a job while nothing changes. */
export interface Shown {
  readonly picture: OpenedPicture;
  readonly result: RunResult;
  readonly clean: KeyedView;
  readonly base?: KeyedView;
}

interface PackedPixels {
  readonly width: number;
  readonly height: number;
  readonly deflated: Uint8Array<ArrayBuffer>;
}
interface PackedView {
  readonly key: string;
  readonly pixels: PackedPixels;
}
interface PackedShown {
  readonly picture: Omit<OpenedPicture, 'view'> & { readonly view: PackedPixels };
  readonly result: RunResult;
  readonly clean: PackedView;
  readonly base?: PackedView;
}

/** Keeps what is shown of each job beside it. A failure costs only the time to make it anew, so that none is told. */
export class KeptResults {
  constructor(
    private readonly storage: JobStorage,
    /** Results of another build are made anew; without one nothing is kept. */
    private readonly build: string | undefined,
  ) {}

  /** What was kept of this job as it is now. */
  async read(id: string, entry: Promise<ShelfEntry | undefined>): Promise<Shown | undefined> {
    if (this.build === undefined) return undefined;
    const [row, found] = await Promise.all([this.storage.kept(id).catch(onlyKnown), entry]);
    if (row === undefined || found === undefined || row.key !== (await this.keyOf(found.job))) return undefined;
    return unpacked(row.value as PackedShown);
  }

  async write(id: string, job: Job, shown: Shown): Promise<void> {
    if (this.build === undefined) return;
    const value = await packed(shown);
    await this.storage.keep({ jobId: id, key: await this.keyOf(job), bytes: bytesOf(value), usedAt: Date.now(), value }).catch(onlyKnown);
  }

  /** Of all settings but those that no result follows from; results hold words, so that those of another language are made anew. */
  private async keyOf(job: Job): Promise<string> {
    const { name: _name, keywords: _keywords, collections: _collections, rights: _rights, handOff: _handOff, order: _order, names: _names, guides: _guides, ...followed } = (await this.storage.keyed(job)) as Job;
    return sha256Of(new TextEncoder().encode(canonicalJson([this.build, language(), followed])));
  }
}

function onlyKnown(error: unknown): undefined {
  if (!isAppError(error)) throw error;
  return undefined;
}

async function packed({ picture, result, clean, base }: Shown): Promise<PackedShown> {
  const { view: _clean, ...cleanFacts } = result.clean;
  const { base: shownBase, ...rest } = result;
  const { view: _base, ...baseFacts } = shownBase ?? {};
  return {
    picture: { ...picture, view: await deflatedPixels(picture.view) },
    result: { ...rest, clean: cleanFacts, ...(shownBase === undefined ? {} : { base: baseFacts as RunResult['base'] }) } as RunResult,
    clean: { key: clean.key, pixels: await deflatedPixels(clean.pixels) },
    ...(base === undefined ? {} : { base: { key: base.key, pixels: await deflatedPixels(base.pixels) } }),
  };
}

async function unpacked({ picture, result, clean, base }: PackedShown): Promise<Shown> {
  const [view, cleanPixels, basePixels] = await Promise.all([picture.view, clean.pixels, base?.pixels].map((pixels) => (pixels === undefined ? undefined : inflatedPixels(pixels))));
  return {
    picture: { ...picture, view: view as Rgba8 },
    result,
    clean: { key: clean.key, pixels: cleanPixels as Rgba8 },
    ...(base === undefined || basePixels === undefined ? {} : { base: { key: base.key, pixels: basePixels } }),
  };
}

async function deflatedPixels({ width, height, data }: Rgba8): Promise<PackedPixels> {
  return { width, height, deflated: await through(data, new CompressionStream('deflate-raw')) };
}

async function inflatedPixels({ width, height, deflated }: PackedPixels): Promise<Rgba8> {
  return makeRgba8(width, height, await through(deflated, new DecompressionStream('deflate-raw')));
}

async function through(bytes: Uint8Array | Uint8ClampedArray, stream: CompressionStream | DecompressionStream): Promise<Uint8Array<ArrayBuffer>> {
  const input = new Blob([bytes as Uint8Array<ArrayBuffer>]).stream().pipeThrough(stream);
  return new Uint8Array(await new Response(input).arrayBuffer());
}
