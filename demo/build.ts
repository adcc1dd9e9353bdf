import { mkdir, writeFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { ARCHIVE_ENDING, writeArchive } from '../src/formats/archive/archive.ts';
import { FIRST_OBJECT_ID, withPicture } from '../src/core/job/tracedPart.ts';
import { pictureIdOf } from '../src/formats/picture/pictureId.ts';
import { decodeFile } from '../cli/decodeFile.ts';
import { demoJobs, type DemoName } from './jobs.ts';
import { demoPictures } from './rasters.ts';

/** Draws the demo's pictures and packs its jobs to public/demo, which the application offers on its first start. */
const folder = fileURLToPath(new URL('../public/demo/', import.meta.url));
await mkdir(`${folder}pictures`, { recursive: true });
const pictures = await demoPictures();
const jobs = demoJobs();
const list: string[] = [];
for (const name of Object.keys(jobs) as DemoName[]) {
  const { fileName, bytes } = pictures[name === 'oneFilm' ? 'crest' : name];
  const { picture, statedDpi } = await decodeFile(bytes, fileName);
  const id = await pictureIdOf(bytes);
  const job = withPicture(jobs[name], FIRST_OBJECT_ID, { id, fileName, widthPx: picture.width, heightPx: picture.height, ...(statedDpi === undefined ? {} : { statedDpi }) });
  await writeFile(`${folder}pictures/${fileName}`, bytes);
  await writeFile(`${folder}${name}${ARCHIVE_ENDING}`, await writeArchive({ job, pictures: new Map([[id, bytes]]) }));
  await writeFile(`${folder}${name}.json`, JSON.stringify(job, null, 1));
  list.push(`${name}${ARCHIVE_ENDING}`);
}
await writeFile(`${folder}index.json`, JSON.stringify(list));
process.stdout.write(`${list.length} demo jobs in public/demo\n`);
