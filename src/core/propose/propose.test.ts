import { describe, expect, it } from 'vitest';
import { tracedPart } from '../job/tracedPart.ts';
import { jobWith } from '../../../tests/fixtures/jobWith.ts';
import { paintedArt, randomFrom } from '../../../tests/fixtures/shapes.ts';
import type { Rgb } from '../colour/oklab.ts';
import { makeRgba8, type Rgba8 } from '../raster/raster.ts';
import { finish } from '../task/task.ts';
import { jobSchema, type Job } from '../job/job.ts';
import { newJob } from '../job/newJob.ts';
import { asCame, isAsCame, isStartedWith, propose, proposedJob, startedWith } from './propose.ts';
import type { Proposals } from './proposal.ts';
import { applyRecipe } from '../run/applyRecipe.ts';
import { artFromPicture } from '../raster/art.ts';
import { outlinePart } from '../run/outlinePart.ts';
import { USUAL_STOCK } from '../film/stock.ts';

const WHITE: Rgb = { r: 255, g: 255, b: 255 };
const BLUE: Rgb = { r: 36, g: 80, b: 154 };
const RED: Rgb = { r: 179, g: 38, b: 46 };
const CREAM: Rgb = { r: 245, g: 233, b: 209 };
const INK: Rgb = { r: 28, g: 27, b: 34 };

const picture = (width: number, height: number, paint: (x: number, y: number) => Rgb): Rgba8 => paintedArt(width, height, paint).colour;
const look = (of: Rgba8, job: Job = newJob('Dropped')): Proposals => finish(propose(job, of, USUAL_STOCK));
const filmsOf = (job: Job, of: Rgba8): { name: string; colour: string }[] => {
  const { art } = finish(
    applyRecipe({
      picture: artFromPicture(of),
      pictureKey: 'p',
      recipe: tracedPart(job).recipe,
      finished: { by: 'width', sizeMm: tracedPart(job).size.sizeMm, turnDeg: 0 },
    }),
  );
  return finish(outlinePart(tracedPart(job), art)).films.map(({ film: { name, colour } }) => ({ name, colour }));
};

/** A boat in a ring on white paper, with cream inside of the ring. */
const crest = picture(200, 220, (x, y) => {
  const off = Math.hypot(x - 100, y - 100);
  if (y > 110 && y < 140 && Math.abs(x - 100) < 50) return RED;
  return off < 70 ? CREAM : off < 85 ? BLUE : WHITE;
});

describe('proposals', () => {
  it('start flat art whole: a film for each tone as it lies on the shelf, the ground left out', () => {
    const { isSure, proposals } = look(crest);
    expect([isSure, proposals[0].title]).toEqual([true, '3 films, one for each tone']);
    const job = startedWith(newJob('Dropped'), proposals[0]);
    expect(jobSchema.safeParse(job).success).toBe(true);
    // Cream on white paper is a tone of its own: the two meet at an edge.
    expect(
      filmsOf(job, crest)
        .map(({ name }) => name)
        .sort(),
    ).toEqual(['Pennant red', 'Regatta blue', 'Sail cream']);
    expect(tracedPart(job).separation).toMatchObject({ way: 'flat', count: 4, meet: 'inset' });
  });

  it('are known in a job that took one up, also after its steps got ids of their own, and undone to the picture as it came', () => {
    const [first] = look(crest).proposals;
    const fresh = newJob('Dropped');
    const started = startedWith(fresh, first);
    expect([isStartedWith(started, first), isStartedWith(fresh, first), isAsCame(started), isAsCame(fresh)]).toEqual([true, false, false, true]);
    expect(isStartedWith(jobWith(started, { recipe: tracedPart(started).recipe.map((step) => ({ ...step, id: `own-${step.id}` })) }), first)).toBe(true);
    expect(isStartedWith({ ...started, process: 'panel' }, first)).toBe(false);
    const back = asCame(started);
    expect([isAsCame(back), back.films, back.blank]).toEqual([true, fresh.films, started.blank]);
  });

  it('leave a faint pencil line under a drawing in ink out of the films, and not a line in a colour', () => {
    const drawn = (line: Rgb): Proposals =>
      look(
        picture(320, 320, (x, y) =>
          Math.abs(Math.hypot(x - 160, y - 160) - 110) < 6 || Math.abs(x - 160) < 5 || Math.abs(y - 160) < 5
            ? INK
            : Math.abs(y - 40 - 0.1 * x) < 2
              ? line
              : WHITE,
        ),
      );
    expect(drawn({ r: 169, g: 165, b: 162 }).proposals[0].title).toBe('One film');
    // Nor a pale watermark, however much there is of it; it is offered.
    const marked = look(
      picture(320, 320, (x, y) => (Math.abs(Math.hypot(x - 160, y - 160) - 110) < 6 || Math.abs(x - 160) < 5 ? INK : Math.abs(((x + y) % 80) - 40) < 4 ? { r: 236, g: 236, b: 236 } : WHITE)),
    ).proposals;
    expect(marked.map(({ title }) => title).slice(0, 2)).toEqual(['One film', '2 films, one for each tone']);
    expect(drawn(RED).proposals[0].title).toBe('2 films, one for each tone');
  });

  it('propose one film for a drawing in one ink, in the ink of the shelf', () => {
    const ring = picture(160, 160, (x, y) => (Math.abs(Math.hypot(x - 80, y - 80) - 50) < 4 ? INK : WHITE));
    const { isSure, proposals } = look(ring);
    expect([isSure, proposals[0].title]).toEqual([true, 'One film']);
    expect(filmsOf(startedWith(newJob('Dropped'), proposals[0]), ring)).toEqual([{ name: 'Tar black', colour: '#1c1b22' }]);
  });

  it('offer white art that a line encloses as a film', () => {
    const sail = picture(200, 200, (x, y) =>
      Math.abs(Math.max(Math.abs(x - 100), Math.abs(y - 70)) - 40) < 4 ? INK : y > 140 && y < 170 && Math.abs(x - 100) < 70 ? RED : WHITE,
    );
    const { proposals } = look(sail);
    expect(proposals.map(({ title }) => title)).toEqual(['2 films, one for each tone', 'With white as a film']);
    expect(filmsOf(startedWith(newJob('Dropped'), proposals[0]), sail)).toHaveLength(2);
    expect(filmsOf(startedWith(newJob('Dropped'), proposals[1]), sail).map(({ name }) => name)).toContain('Foam white');
  });

  it('propose one film for a stamp whose ink did not cover everywhere', () => {
    const worn = (x: number, y: number): number => Math.max(0.5, Math.min(1, 0.9 + 0.4 * Math.sin(x * 0.31 + 3 * Math.sin(y * 0.17)) * Math.cos(y * 0.23 + 2 * Math.sin(x * 0.11))));
    const stamp = picture(400, 400, (x, y) => {
      const ink = Math.abs(Math.hypot(x - 200, y - 200) - 150) < 9 || (Math.abs(y - 200) < 26 && Math.abs(x - 200) < 90) ? worn(x, y) : 0;
      return { r: 244 - 200 * ink, g: 240 - 190 * ink, b: 232 - 120 * ink };
    });
    const { proposals } = look(stamp);
    expect(proposals[0].title).toBe('One film');
    expect(filmsOf(startedWith(newJob('Dropped'), proposals[0]), stamp)).toHaveLength(1);
  });

  it('are not sure of a ground where the art fills its frame, and offer it with and without', () => {
    const stripes = picture(180, 180, (x, y) => (y < 45 ? BLUE : y < 110 ? CREAM : x < 100 ? RED : INK));
    const { isSure, proposals } = look(stripes);
    expect(isSure).toBe(false);
    expect(proposals).toHaveLength(2);
    const counts = proposals.map((proposal) => filmsOf(startedWith(newJob('Dropped'), proposal), stripes).length);
    expect(counts).toEqual([4, 3]);
  });

  it('do not take a photo for flat art: print it, or one film, or shades', () => {
    const random = randomFrom(4);
    const data = new Uint8Array(160 * 120 * 4).map((_, i) => (i % 4 === 3 ? 255 : 60 + 80 * Math.sin(i / 900) + 60 * Math.cos(i / 37_000) + 22 * random()));
    const { isSure, proposals } = look(makeRgba8(160, 120, data, true));
    expect(isSure).toBe(false);
    expect(proposals.map(({ start }) => [start.process, start.separation.way])).toEqual([
      ['waterslide', 'oneTone'],
      ['htv', 'oneTone'],
      ['htv', 'tones'],
    ]);
    // On a job that is printed all of it is printed first, not what is dark alone.
    const printed = look(makeRgba8(160, 120, data, true), newJob('Mug', 'waterslide')).proposals;
    expect(printed.map(({ title, start }) => [title, start.process])).toEqual([
      ['Print it', 'waterslide'],
      ['Print its subject', 'waterslide'],
      ['One film of what is dark', 'waterslide'],
    ]);
    expect(printed[0].start).toMatchObject({ recipe: [], separation: { way: 'oneTone', source: 'notClear' } });
  });

  it('bring art with shaded areas to a film for each area, and print it without its ground where it is printed', () => {
    const mix = (a: Rgb, b: Rgb, share: number): Rgb => ({ r: a.r + (b.r - a.r) * share, g: a.g + (b.g - a.g) * share, b: a.b + (b.b - a.b) * share });
    const glossy = picture(300, 300, (x, y) => {
      if (y > 200 && y < 235 && Math.abs(x - 150) < 80) return RED;
      return Math.hypot(x - 150, y - 150) > 130 ? WHITE : mix({ r: 150, g: 205, b: 235 }, { r: 30, g: 50, b: 95 }, (y - 20) / 260);
    });
    const { isSure, proposals } = look(glossy);
    expect([isSure, proposals[0].title, proposals.map(({ title }) => title).includes('Print it')]).toEqual([false, '2 films, one for each colour', true]);
    const films = filmsOf(startedWith(newJob('Dropped'), proposals[0]), glossy);
    expect(films.map(({ name }) => name)).toEqual([expect.stringMatching(/blue/i), expect.stringMatching(/red/i)]);
    const printed = look(glossy, newJob('Mug', 'waterslide')).proposals;
    expect(printed.map(({ title }) => title)).toEqual(expect.arrayContaining(['Print it without its ground', 'Print it']));
  });

  it('lift squares that stand for clear, and keep white art on them as a film', () => {
    const pasted = picture(260, 260, (x, y) => {
      const off = Math.hypot(x - 130, y - 130);
      if (off < 90) return Math.abs(x - 130) < 30 && Math.abs(y - 110) < 40 ? WHITE : BLUE;
      return (Math.floor(x / 10) + Math.floor(y / 10)) & 1 ? { r: 204, g: 204, b: 204 } : WHITE;
    });
    const { isSure, proposals } = look(pasted);
    expect([isSure, proposals[0].title, proposals[0].words]).toEqual([true, '2 films, one for each tone', expect.stringContaining('stand for clear')]);
    expect(proposals[0].start.recipe.map(({ kind }) => kind)).toEqual(['areaLift', 'sweep']);
    const films = filmsOf(startedWith(newJob('Dropped'), proposals[0]), pasted);
    expect(films.map(({ name }) => name).sort()).toEqual(['Foam white', 'Regatta blue']);
  });

  it('bring a drawing in colours on unevenly lit paper to its films, the light levelled', () => {
    const lit = (tone: Rgb, x: number, y: number): Rgb => {
      const light = 1 - 0.35 * ((x + y) / 520);
      return { r: tone.r * light, g: tone.g * light, b: tone.b * light };
    };
    const drawn = picture(280, 240, (x, y) => {
      const tone = y > 150 && y < 190 && Math.abs(x - 140) < 90 ? RED : x > 60 && x < 130 && y > 50 && y < 140 ? BLUE : x > 145 && x < 200 && y > 70 && y < 140 ? { r: 228, g: 180, b: 60 } : { r: 244, g: 240, b: 230 };
      return lit(tone, x, y);
    });
    const { isSure, proposals } = look(drawn);
    expect([isSure, proposals[0].title, proposals[0].start.recipe.map(({ kind }) => kind)]).toEqual([true, '3 films, one for each tone', ['lightLevelling', 'sweep']]);
    expect(filmsOf(startedWith(newJob('Dropped'), proposals[0]), drawn)).toHaveLength(3);
  });

  it('offer flat art that was photographed on woven cloth as its few colours', () => {
    const on = (tone: Rgb, x: number, y: number): Rgb => {
      const light = 1.06 - 0.3 * Math.hypot(x / 360 - 0.35, y / 300 - 0.35) + 0.06 * Math.sin(x / 8) + 0.035 * Math.sin(x / 1.6) * Math.sin(y / 1.6);
      return { r: Math.min(255, tone.r * light), g: Math.min(255, tone.g * light), b: Math.min(255, tone.b * light) };
    };
    const cloth = picture(360, 300, (x, y) => {
      const off = Math.hypot(x - 180, y - 150);
      const sail = y > 80 && y < 165 && Math.abs(x - 180) < (y - 80) * 0.7;
      const hull = y > 180 && y < 210 && Math.abs(x - 180) < 70;
      return on(off > 120 ? { r: 91, g: 100, b: 112 } : off > 100 || hull ? CREAM : sail ? { r: 224, g: 159, b: 62 } : { r: 32, g: 80, b: 79 }, x, y);
    });
    const { proposals } = look(cloth);
    expect(proposals[0].title).toBe('3 films, one for each colour');
    expect(filmsOf(startedWith(newJob('Dropped'), proposals[0]), cloth)).toHaveLength(3);
  });

  it('keep tall art on its blank, and leave a job as it is where there is nothing to cut', () => {
    const tall = picture(60, 300, (x, y) => (Math.abs(x - 30) < 20 && Math.abs(y - 150) < 130 ? RED : WHITE));
    const proposed = proposedJob(newJob('Tall'), tall, USUAL_STOCK);
    const { size } = tracedPart(proposed);
    expect(size.sizeMm * (260 / 40)).toBeLessThanOrEqual(proposed.blank.heightMm + 7);
    expect(tracedPart(proposedJob(newJob('Tall'), tall, USUAL_STOCK, 120)).size).toMatchObject({ by: 'width', sizeMm: 120, turnDeg: 0 });
    const plain = picture(50, 50, () => RED);
    expect(look(plain).proposals).toEqual([]);
    expect(proposedJob(newJob('Plain'), plain, USUAL_STOCK)).toEqual(newJob('Plain'));
  });
});
