import { describe, expect, it } from 'vitest';
import { decodeFile } from '../../cli/decodeFile.ts';
import { discFiles } from '../../tests/fixtures/files.ts';
import { newJob } from '../core/job/newJob.ts';
import { LocalEngine } from './localEngine.ts';
import { warmUp } from './warmUp.ts';

const files = await discFiles();

describe('warming up', () => {
  it('goes through to the films of its own drawing', async () => {
    let asked = 0;
    await warmUp(() => ++asked > 0);
    // It gave way before it proposed, cleaned and cut, however fast the machine is.
    expect(asked).toBeGreaterThanOrEqual(3);
  });

  it('ends without a fault as soon as it is not wanted', async () => {
    let asked = 0;
    await warmUp(() => ++asked < 3);
    expect(asked).toBe(3);
  });

  it('gives way to a picture that is opened, and is not begun again once a job was run', async () => {
    const engine = new LocalEngine(decodeFile);
    const warming = engine.warm();
    const { pictureKey, widthPx } = await engine.open(files.png.slice(), 'disc.png');
    await warming;
    expect(widthPx).toBeGreaterThan(0);
    await engine.run({ pictureKey, job: newJob('disc'), quality: 'final' });
    const turns = { taken: 0 };
    const counting = setInterval(() => turns.taken++, 0);
    await engine.warm();
    clearInterval(counting);
    expect(turns.taken).toBe(0);
  });
});
