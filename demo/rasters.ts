import { randomFrom } from '../src/core/task/randomFrom.ts';
import sharp, { type Sharp } from 'sharp';
import { buoy, crest, duck, heron, lettering, lighthouse, sign } from './art.ts';

/** A drawing turned into the kind of file that a customer sends. */
export interface DemoPicture {
  readonly fileName: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

interface Wear {
  /** Noise, standard deviation in levels of 255. */
  readonly noise: number;
  /** How much darker the far corner is than the near one, 0 to 1. */
  readonly falloff: number;
  readonly seed: number;
}

/** Renders a drawing and wears it as light, paper and sensor do. */
async function worn(svg: string, { noise, falloff, seed }: Wear): Promise<Sharp> {
  const { data, info } = await sharp(Buffer.from(svg)).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const { width, height } = info;
  const random = randomFrom(seed);
  // Summing four even values is near enough to a bell curve and much faster than one.
  const bell = Float64Array.from({ length: 4096 }, () => (random() + random() + random() + random() - 2) * 1.73 * noise);
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const light = 1 - falloff * ((x / width) * 0.6 + (y / height) * 0.4) ** 1.5;
      const shift = bell[(random() * 4096) | 0];
      for (let c = 0; c < 3; c++, i++) data[i] = Math.max(0, Math.min(255, Math.round(data[i] * light + shift)));
    }
  }
  return sharp(data, { raw: { width, height, channels: 3 } });
}

const bytesOf = async (image: Sharp): Promise<Uint8Array<ArrayBuffer>> => new Uint8Array(await image.toBuffer());

/** All demo pictures by name. */
export async function demoPictures(): Promise<Record<'crest' | 'buoy' | 'lettering' | 'heron' | 'duck' | 'lighthouse' | 'sign', DemoPicture>> {
  const small = sharp(Buffer.from(heron())).resize(300, 300);
  const photo = await (await worn(sign(4000), { noise: 6, falloff: 0.35, seed: 6 })).png({ compressionLevel: 0 }).toBuffer();
  return {
    crest: { fileName: 'crew-crest.jpg', bytes: await bytesOf((await worn(crest(), { noise: 1.5, falloff: 0, seed: 1 })).jpeg({ quality: 82 })) },
    buoy: { fileName: 'bell-buoy-scan.jpg', bytes: await bytesOf((await worn(buoy(), { noise: 4, falloff: 0.28, seed: 2 })).withMetadata({ density: 200 }).jpeg({ quality: 75 })) },
    lettering: { fileName: 'bread-and-rope.png', bytes: await bytesOf(sharp(Buffer.from(lettering())).png()) },
    heron: { fileName: 'heron-mark.png', bytes: await bytesOf(small.flatten({ background: '#fff' }).png()) },
    duck: { fileName: 'duck.gif', bytes: await bytesOf(sharp(Buffer.from(duck())).gif({ colours: 16 })) },
    lighthouse: { fileName: 'lighthouse.jpg', bytes: await bytesOf((await worn(lighthouse(), { noise: 2, falloff: 0.1, seed: 5 })).jpeg({ quality: 88 })) },
    // Taken upright: the sensor lies, the tag says so.
    sign: { fileName: 'landing-stage-sign.jpg', bytes: await bytesOf(sharp(photo).blur(0.8).rotate(-90).withMetadata({ orientation: 6 }).jpeg({ quality: 84 })) },
  };
}
