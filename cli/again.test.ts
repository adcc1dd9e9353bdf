import { readFile, writeFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import { letteringsOf } from '../src/core/edit/fillSlots.ts';
import { newJob } from '../src/core/job/newJob.ts';
import { tracedPart, withPicture } from '../src/core/job/tracedPart.ts';
import { readArchive, writeArchive } from '../src/formats/archive/archive.ts';
import { pictureIdOf } from '../src/formats/picture/pictureId.ts';
import { limner, ownFolder } from '../tests/fixtures/command.ts';
import { sizedJob } from '../tests/fixtures/jobWith.ts';
import { discFiles } from '../tests/fixtures/files.ts';

describe('limner again', () => {
  it('writes the job for another size and blank with other words, tells what is worse, and keeps the old one', async () => {
    const at = await ownFolder();
    const bytes = new Uint8Array((await discFiles()).png);
    const id = await pictureIdOf(bytes);
    const bare = sizedJob(newJob('Disc', 'htv'), 60);
    const job = withPicture({ ...bare, objects: [...bare.objects, { kind: 'lettering', id: 'name', film: bare.films[0].id, placement: { a: 1, b: 0, c: 0, d: 1, e: 30, f: 80 }, lettering: { text: 'Row', font: 'Archivo Black', heightMm: 12 } }] }, tracedPart(bare).id, { id, fileName: 'disc.png', widthPx: 4, heightPx: 4 });
    await writeFile(at('disc.limner'), await writeArchive({ job, pictures: new Map([[id, bytes]]) }));
    const made = await limner('again', at('disc.limner'), '--out', at('small.limner'), '--width', '4mm', '--blank', 'shirt, child', '--name', 'Disc for a child', '--text', 'Oar');
    expect(made).toMatchObject({ code: 0, err: '' });
    expect(made.out).toMatch(/^Disc for a child: 4\.0 × [\d.]+ mm on Shirt, child\n[1-9]\d* places? to look at \(\d places? to look at before\)\n {2}\S/);
    const next = await readArchive(await readFile(at('small.limner')), 'small.limner');
    expect(next.job).toMatchObject({ name: 'Disc for a child', blank: { name: 'Shirt, child' } });
    expect(letteringsOf(next.job).map(({ lettering }) => lettering.text)).toEqual(['Oar']);
    expect([...next.pictures.keys()]).toEqual([id]);
    expect((await limner('again', at('disc.limner'), '--out', at('disc.limner'))).code).toBe(1);
    expect(await limner('again', at('disc.limner'), '--out', at('x.limner'), '--blank', 'canoe')).toMatchObject({ code: 2, err: expect.stringContaining('Soap bar') });
    expect(await limner('again', at('disc.limner'), '--out', at('x.limner'), '--text', 'a|b')).toMatchObject({ code: 2, err: expect.stringContaining('at most one text') });
  }, 60_000);

  it('makes the crest of the demo as small as a badge: films of which reach goes far for their size come to an end', async () => {
    const at = await ownFolder();
    const crest = fileURLToPath(new URL('../public/demo/crest.limner', import.meta.url));
    const made = await limner('again', crest, '--out', at('badge.limner'), '--width', '40mm');
    expect(made).toMatchObject({ code: 0, err: '' });
    expect(made.out).toMatch(/^Crew crest: 40\.0 × 52\.\d mm/);
  }, 60_000);
});
