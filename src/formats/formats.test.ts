import { readFileSync } from 'node:fs';
import { decode } from 'fast-png';
import { strToU8, unzipSync, zipSync } from 'fflate';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { codeOf } from '../../tests/fixtures/errorCode.ts';
import { discFiles, discPicture, hugePng } from '../../tests/fixtures/files.ts';
import { polygon } from '../../tests/fixtures/shapes.ts';
import { newJob } from '../core/job/newJob.ts';
import { makeDesign } from '../core/assemble/design.ts';
import { cutPlanOf } from '../core/layout/cutPlan.ts';
import { laySheet } from '../core/layout/laySheet.ts';
import { outlineOf } from '../core/outline/traceOutline.ts';
import { JOB_VERSION } from '../core/job/job.ts';
import { FIRST_OBJECT_ID, tracedPart, withPart, withPicture, withPictureIds } from '../core/job/tracedPart.ts';
import { holdOutlines } from '../core/edit/paletteEdits.ts';
import { readArchive, writeArchive } from './archive/archive.ts';
import { pictureIdOf } from './picture/pictureId.ts';
import { checkFileSize, checkPicture, type PictureType } from './picture/checkPicture.ts';
import { statedDpi } from './picture/statedDpi.ts';
import { writePng } from './picture/writePng.ts';
import { ringPathData } from '../core/outline/pathData.ts';
import { escapeXml, idFromName, writeOutlineSvg, writeSheetSvg } from './svg/writeSvg.ts';

const files = await discFiles();

describe('checkPicture', () => {
  it('knows every type it reads and its size', () => {
    for (const [type, bytes] of Object.entries(files)) {
      // A HEIC head tells the coded size, which is whole blocks; only its decoder knows how much of the last is shown.
      const heightPx = type === 'heic' ? 64 : 60;
      expect(checkPicture(bytes, `disc.${type}`)).toEqual({ type, widthPx: 80, heightPx });
    }
  });

  it('says what is wrong before anything is decoded', () => {
    expect(codeOf(() => checkPicture(new Uint8Array(0), 'x.png'))).toBe('emptyFile');
    expect(codeOf(() => checkPicture(strToU8('a letter, not a picture, long enough to look at'), 'x.png'))).toBe('notAPicture');
    expect(codeOf(() => checkPicture(hugePng(20_000, 20_000), 'x.png'))).toBe('pictureTooLarge');
    expect(codeOf(() => checkPicture(hugePng(40_000, 10), 'x.png'))).toBe('pictureTooLarge');
    expect(codeOf(() => checkPicture(hugePng(1, 1), 'x.png'))).toBe('pictureTooSmall');
    expect(codeOf(() => checkFileSize(200_000_000, 'x.png'))).toBe('fileTooLarge');
    for (const type of ['png', 'jpg', 'webp', 'gif', 'bmp', 'heic'] as const) {
      const bytes = files[type];
      expect(codeOf(() => checkPicture(bytes.slice(0, Math.floor(bytes.length * 0.6)), `half.${type}`))).toBe('truncated');
    }
  });

  it('ends with its own error or a head on any mutilated file', () => {
    const types = Object.keys(files) as PictureType[];
    fc.assert(
      fc.property(fc.constantFrom(...types), fc.array(fc.tuple(fc.nat(400), fc.nat(255)), { maxLength: 12 }), fc.nat(100), (type, changes, keep) => {
        const bytes = files[type].slice(0, Math.max(1, Math.floor((files[type].length * keep) / 100)));
        for (const [at, value] of changes) if (at < bytes.length) bytes[at] = value;
        codeOf(() => statedDpi(bytes, checkPicture(bytes, 'x').type));
      }),
      { seed: 111, numRuns: 500 },
    );
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 300 }), (bytes) => void expect(codeOf(() => checkPicture(bytes, 'x'))).not.toBe('fine')),
      { seed: 112, numRuns: 300 },
    );
  });
});

describe('physical resolution', () => {
  it('is read from the file', () => {
    expect(statedDpi(files.png, 'png')).toBeCloseTo(150, 0);
    expect(statedDpi(files.jpg, 'jpg')).toBeCloseTo(300, 0);
    expect(statedDpi(files.tiff, 'tiff')).toBeCloseTo(72, 0);
    expect(statedDpi(files.bmp, 'bmp')).toBeCloseTo(100, 0);
    expect(statedDpi(files.gif, 'gif')).toBeUndefined();
  });

  it('is written into a PNG that opens again with the same pixels', () => {
    const bytes = writePng(discPicture, 11.811);
    expect(statedDpi(bytes, 'png')).toBeCloseTo(300, 0);
    const back = decode(bytes);
    expect([back.width, back.height]).toEqual([80, 60]);
    expect(Buffer.compare(Buffer.from(back.data.buffer as ArrayBuffer), Buffer.from(discPicture.data))).toBe(0);
    expect(statedDpi(writePng(discPicture), 'png')).toBeUndefined();
  });
});

describe('SVG', () => {
  const outline = outlineOf(polygon(60, 80, [[10, 10], [22, 10], [22, 58], [48, 58], [48, 70], [10, 70]]));
  const film = { id: 'film-1', name: 'Harbour navy', colour: '#22375f' };

  it('closes a ring with Z and not with a line as well', () => {
    const data = ringPathData(outline, 0);
    expect(data.match(/L/g)).toHaveLength(outline.verbs.length - 1);
    expect(data.endsWith('Z')).toBe(true);
  });

  it('has the sheet’s true size, one named group for the film, and lines or shapes', () => {
    const sheet = laySheet(makeDesign([{ filmId: 'film-1', curves: outline }], { by: 'width', sizeMm: 40, turnDeg: 0 }), 'film-1', { ...newJob('x').layout, mirrored: true });
    const lines = writeSheetSvg(cutPlanOf(sheet, film), 'Crest & “crew”', 'lines');
    expect(lines).toContain('width="305mm" height="610mm" viewBox="0 0 305 610"');
    expect(lines).toContain('<g id="harbour-navy">\n<title>Harbour navy</title>');
    expect(lines).toContain('Crest &#38; “crew”');
    expect(lines).toMatch(/<g id="harbour-navy-art" fill="none" stroke="#22375f"/);
    const shapes = writeSheetSvg(cutPlanOf(sheet, film), 'x', 'shapes');
    expect(shapes).toMatch(/<g id="harbour-navy-art" fill="#22375f" fill-rule="nonzero"/);
    expect(writeOutlineSvg([{ film, curves: outline }], 60, 80, 'x')).toContain('viewBox="0 0 60 80"');
  });

  it('lets no name break the file', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 40 }), (name) => {
        expect(escapeXml(name)).not.toMatch(/[<>"'\u0000-\u0008]/);
        expect(idFromName(name)).toMatch(/^[a-z][a-z0-9-]*$/);
      }),
      { seed: 113 },
    );
  });
});

describe('archive', () => {
  const job = { ...withPicture(newJob('Crew crest'), FIRST_OBJECT_ID, { id: 'crest', fileName: 'crest.png', widthPx: 80, heightPx: 60 }), keywords: ['crew'] };
  const codeOfReading = async (bytes: Uint8Array): Promise<string> => {
    try {
      await readArchive(bytes, 'x');
      return 'fine';
    } catch (error) {
      return codeOf(() => {
        throw error;
      });
    }
  };

  it('opens again as what was written, its picture known by its bytes', async () => {
    const picture = new Uint8Array(files.png);
    const back = await readArchive(await writeArchive({ job, pictures: new Map([['crest', picture]]) }), 'crest.limner');
    const id = await pictureIdOf(picture);
    expect(id).toMatch(/^[0-9a-f]{64}$/);
    expect(back.job).toEqual(withPictureIds(job, new Map([['crest', id]])));
    expect(Buffer.compare(back.pictures.get(id)!, files.png)).toBe(0);
    expect((await readArchive(await writeArchive({ job, pictures: new Map() }), 'x')).pictures.size).toBe(0);
  });

  it('knows pictures by their bytes, whatever the file calls them', async () => {
    const [png, gif] = [new Uint8Array(files.png), new Uint8Array(files.gif)];
    const two = withPicture({ ...job, objects: [...job.objects, { ...job.objects[0], id: 'sponsor' }] }, 'sponsor', { id: await pictureIdOf(png), fileName: 'logo.gif', widthPx: 8, heightPx: 8 });
    const back = await readArchive(await writeArchive({ job: two, pictures: new Map([['crest', png], [await pictureIdOf(png), gif]]) }), 'x');
    expect([...back.pictures.keys()]).toEqual([await pictureIdOf(png), await pictureIdOf(gif)]);
    expect(back.job.objects.map((object) => object.kind === 'traced' && object.picture)).toEqual([await pictureIdOf(png), await pictureIdOf(gif)]);
  });

  it.each(['version1-heron.limner', 'version3-heron.limner'])('opens one from before there were several pictures: %s', async (name) => {
    const { job: heron, pictures } = await readArchive(new Uint8Array(readFileSync(new URL(`../../tests/fixtures/jobs/${name}`, import.meta.url))), name);
    expect(heron).toMatchObject({ version: JOB_VERSION, name: 'Heron glasses', pictures: [{ fileName: 'heron-mark.png' }] });
    const [{ id }] = heron.pictures;
    expect([tracedPart(heron).picture, await pictureIdOf(pictures.get(id)!)]).toEqual([id, id]);
  });

  it('holds versions; one that cannot be read keeps nobody from the job', async () => {
    const picture = new Uint8Array(files.png);
    const id = await pictureIdOf(picture);
    const versions = [{ at: 5, note: 'before', job: { ...job, name: 'Older' } }, { at: 4, note: '', job: { ...job, version: 9 } as never }];
    const whole = await writeArchive({ job: newJob('Crest'), pictures: new Map([['crest', picture]]), versions });
    const back = await readArchive(whole, 'x');
    expect(back.versions).toEqual([{ at: 5, note: 'before', job: withPictureIds({ ...job, name: 'Older' }, new Map([['crest', id]])) }]);
    expect([...back.pictures.keys()]).toEqual([id]);
    const broken = zipSync({ ...unzipSync(whole), 'versions.json': strToU8('{"a":') });
    expect(await readArchive(broken, 'x')).toEqual({ job: newJob('Crest'), pictures: new Map() });
  });

  it('holds long outlines as bytes beside the job, once for all that share them', async () => {
    const path = `M0 0${Array.from({ length: 3000 }, (_, k) => `L${k % 9}.25 ${k}`).join('')}Z`;
    const held = withPart(job, holdOutlines(tracedPart(job), [{ film: job.films[0].id, from: 'mark', path }]));
    const whole = await writeArchive({ job: held, pictures: new Map(), versions: [{ at: 5, note: 'before', job: held }] });
    const entries = unzipSync(whole);
    const outlines = Object.keys(entries).filter((name) => name.startsWith('outlines/'));
    expect([outlines.length, entries['job.json'].length < 20_000]).toEqual([1, true]);
    const back = await readArchive(whole, 'x');
    expect([tracedPart(back.job).outline.held?.[0].path === path, back.versions?.map((version) => tracedPart(version.job).outline.held?.[0].path === path)]).toEqual([true, [true]]);
    const { [outlines[0]]: _lost, ...rest } = entries;
    expect(await codeOfReading(zipSync(rest))).toBe('badJob');
    expect(await codeOfReading(zipSync({ ...rest, [outlines[0]]: strToU8('no path') }))).toBe('badJob');
  });

  it('says what is wrong with a file that is none', async () => {
    expect(await codeOfReading(new Uint8Array(0))).toBe('emptyFile');
    expect(await codeOfReading(files.png)).toBe('badArchive');
    expect(await codeOfReading((await writeArchive({ job, pictures: new Map() })).slice(0, 200))).toBe('badArchive');
    expect(await codeOfReading(zipSync({ 'notes.txt': strToU8('hello') }))).toBe('badArchive');
    expect(await codeOfReading(zipSync({ 'job.json': strToU8('{') }))).toBe('badArchive');
    expect(await codeOfReading(zipSync({ 'job.json': strToU8(JSON.stringify({ ...job, version: 9 })) }))).toBe('newerVersion');
  });

  it('never throws anything but its own error on mutilated archives', async () => {
    const whole = await writeArchive({ job, pictures: new Map([['crest', new Uint8Array(files.gif)]]) });
    await fc.assert(
      fc.asyncProperty(fc.array(fc.tuple(fc.nat(whole.length - 1), fc.nat(255)), { minLength: 1, maxLength: 8 }), async (changes) => {
        const bytes = whole.slice();
        for (const [at, value] of changes) bytes[at] = value;
        await codeOfReading(bytes);
      }),
      { seed: 114, numRuns: 300 },
    );
  });
});
