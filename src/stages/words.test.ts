import { describe, expect, it } from 'vitest';
import { tracedPart } from '../core/job/tracedPart.ts';
import { sizedJob } from '../../tests/fixtures/jobWith.ts';
import { discPicture } from '../../tests/fixtures/files.ts';
import { cutCheck, type Finding } from '../core/check/cutCheck.ts';
import { hashBytes } from '../core/task/hash.ts';
import type { Job } from '../core/job/job.ts';
import { newJob } from '../core/job/newJob.ts';
import { STEP_KINDS, STEP_NAMES, stepSchema, type Step, type StepKindName } from '../core/clean/recipe.ts';
import { finish } from '../core/task/task.ts';
import { cleanPart, cutJob } from '../core/run/runJob.ts';
import type { OpenedPicture, RunResult } from '../engine/protocol.ts';
import { loudColour, backdropPaint } from '../ui/backdrops.ts';
import { newStep } from './clean/newStep.ts';
import { STEP_GROUPS } from './clean/stepGroups.ts';
import { stepWords } from './clean/stepWords.ts';
import { findingWords } from './layout/findingWords.ts';
import { colourAt } from './shared/colourAt.ts';
import { slipTabs } from './slipTabs.ts';

const job = (change: Partial<Job> = {}): Job => ({ ...sizedJob(newJob('Disc'), 30), ...change });
const opened: OpenedPicture = { pictureId: 'disc', pictureKey: 'k', widthPx: 80, heightPx: 60, view: discPicture, look: { colours: 9, realColours: 2, hasClear: false } };

function resultOf(of: Job): RunResult {
  const part = tracedPart(of);
  const clean = finish(cleanPart(part, discPicture, hashBytes(discPicture.data as Uint8Array)));
  const cut = finish(cutJob(of, new Map([[part.id, clean]])));
  const films = cut.films.map(({ film, outline }) => ({ film, outline, mark: '', pieces: 1, nodes: 4, areaMm2: 1, cutLengthMm: 1, smallestMm2: 1, weedingS: 1 }));
  const view = { films, mostLayers: { layers: 1, share: 1, x: 0, y: 0 }, design: cut.design, place: cut.place, rack: films, sheets: cut.sheets, findings: cut.findings, parts: [], originMm: { x: 0, y: 0 }, findingsAt: [] };
  return { quality: 'final', clean: { key: clean.key, widthPx: 80, heightPx: 60, frame: clean.art.frame, steps: clean.steps }, cut: view, ms: { clean: 1, cut: 1 } };
}

const facts = (of: Job, result?: RunResult, unit: 'mm' | 'in' = 'mm', picture: OpenedPicture | undefined = opened): string[] => slipTabs({ job: of, picture, result, unit }).map((tab) => tab.fact);

describe('routing slip', () => {
  it('says one live fact a stage, before there is a picture, and with all done', () => {
    expect(slipTabs({ job: job(), picture: undefined, result: undefined, unit: 'mm' }).map((tab) => tab.fact)).toEqual(['no picture yet', 'as it came', 'one colour', 'width 30 mm', '1 copy, mirrored', 'nothing to hand off']);
    expect(facts(job(), resultOf(job()))).toEqual(['80 × 60 px', 'as it came', 'one colour · 1 piece', '30 × 30 mm', '1 copy, mirrored', 'ready']);
    expect(facts(job(), resultOf(job()), 'in')[3]).toBe('1.18 × 1.18 in');
  });

  it('counts what is to be looked at: findings, a sheet that is too small, mirroring against the process', () => {
    const large = sizedJob(job(), 900);
    const [, , , , layout, handOff] = slipTabs({ job: large, picture: opened, result: resultOf(large), unit: 'mm' });
    expect([layout.fact, handOff.fact]).toEqual(['does not fit, mirrored', 'waits for the layout']);
    expect(layout.places).toBeGreaterThanOrEqual(1);
    const against = job({ layout: { ...job().layout, mirror: 'never' } });
    // The small disc itself is a coarse picture: one place already.
    expect(slipTabs({ job: job(), picture: opened, result: resultOf(job()), unit: 'mm' })[4].places).toBe(1);
    expect(slipTabs({ job: against, picture: opened, result: resultOf(against), unit: 'mm' })[4]).toMatchObject({ fact: '1 copy, reads as it is', places: 2 });
  });
});

describe('steps', () => {
  const made: { readonly [Kind in StepKindName]: Step } = {
    ...newStep, crop: newStep.crop({ xPx: 0, yPx: 0, widthPx: 9, heightPx: 9 }), areaLift: newStep.areaLift(3, 4, 'auto'), colourLift: newStep.colourLift('#ffffff'),
    levels: newStep.levels(), lightLevelling: newStep.lightLevelling(), smoothing: newStep.smoothing(), fewerColours: newStep.fewerColours(), gapMending: newStep.gapMending(), linePick: newStep.linePick(), subjectLift: newStep.subjectLift(), squaring: newStep.squaring(), turn: newStep.turn(), enlarging: newStep.enlarging(), edgeTidying: newStep.edgeTidying(), rubOut: newStep.rubOut(), bringBack: newStep.bringBack(), drawIn: newStep.drawIn(), sweep: newStep.sweep(),
  };

  it('start with settings that can be stored, have a name, a line on what they do, and words', () => {
    for (const kind of Object.keys(STEP_KINDS) as StepKindName[]) {
      expect(stepSchema.safeParse(made[kind]).success, kind).toBe(true);
      expect(made[kind].kind).toBe(kind);
      expect(STEP_KINDS[kind].about).toMatch(/^[A-Z].*\.$/);
    }
    expect(new Set(Object.values(STEP_NAMES)).size).toBe(Object.keys(STEP_KINDS).length);
  });

  it('say what they are set to before they have run', () => {
    const words = Object.fromEntries((Object.keys(STEP_KINDS) as StepKindName[]).map((kind) => [kind, stepWords(made[kind], undefined)]));
    expect(words).toEqual({
      squaring: 'by the mark sheet', turn: 'as it came', crop: '9 × 9 px', enlarging: '2 times as large', levels: 'black and white found by itself', lightLevelling: 'strength 100 %', smoothing: 'differences up to 16',
      fewerColours: 'tones found by itself', gapMending: 'gaps up to 12 px', linePick: 'detail 40 %', subjectLift: 'all but the subject', areaLift: 'tolerance found by itself', colourLift: '#ffffff and up to 4 from it', rubOut: '0 strokes',
      drawIn: '0 strokes', bringBack: '0 strokes', sweep: 'specks under 1 mm²', edgeTidying: 'jags of 2 px',
    });
  });

  it('are each offered once', () => {
    expect(STEP_GROUPS.flatMap(({ kinds }) => kinds).sort()).toEqual(Object.keys(STEP_KINDS).sort());
  });

  it('say what they found, or why they were passed over', () => {
    expect(stepWords(made.areaLift, { id: 'x', facts: { tolerance: 3.94 } })).toBe('found: 3.9');
    expect(stepWords(made.areaLift, { id: 'x', facts: { offArt: 1 } })).toBe('its point is not on the art any more');
    expect(stepWords(made.areaLift, { id: 'x', facts: { tolerance: 0, inSquares: 1 } })).toBe('squares that stand for clear');
    expect(stepWords(made.sweep, { id: 'x', facts: { specks: 1200 } })).toBe('specks under 1 mm² · 1,200 found');
    expect(stepWords(made.gapMending, { id: 'x', facts: { joints: 1 } })).toBe('1 break closed');
    expect(stepWords(made.crop, { id: 'x', facts: {}, skipped: 'cropEmpty' })).toContain('skipped: The crop lies outside');
  });
});

describe('cut check in words', () => {
  it('says what, and how small', () => {
    const finding = (kind: Finding['kind'], size: number): Finding => ({ kind, size, xMm: 1, yMm: 2 });
    expect(findingWords(finding('smallPiece', 0.456))).toBe('Piece of 0.46 mm²: may lift with the knife');
    expect(findingWords(finding('island', 43.21))).toBe('Island of 43.2 mm²: nothing holds it, it falls out');
    expect(findingWords(finding('coarsePicture', 41.7))).toContain('Only 42 dots per inch');
    expect(cutCheck(resultOf(job()).cut!.design, { leastPieceMm2: 1e9, leastStripMm: 0.8, artIsOpening: false })[0].kind).toBe('smallPiece');
  });
});

describe('backdrops and colours', () => {
  it('take for loud what no film of the job looks like', () => {
    expect(loudColour(['#ff2fa0', '#f04090'])).not.toBe('#ff2fa0');
    expect(loudColour(['#ffe600', '#fff000', '#20e3b2', '#ff6a00'])).toBe('#7a3cff');
    expect(backdropPaint('blank', '#102030', [], false).ground).toBe('#102030');
    expect(backdropPaint('hatch', '#fff', [], true)).not.toEqual(backdropPaint('hatch', '#fff', [], false));
  });

  it('read the colour under a point, and nothing outside', () => {
    expect(colourAt(opened, { x: 40, y: 30 })).toBe('#14141a');
    expect(colourAt(opened, { x: 1, y: 1 })).toBe('#ffffff');
    expect([colourAt(opened, { x: -1, y: 5 }), colourAt(opened, { x: 5, y: 60 })]).toEqual([undefined, undefined]);
  });
});
