import { beforeEach, describe, expect, it } from 'vitest';
import { codeOf } from '../../tests/fixtures/errorCode.ts';
import { isAppError } from '../../src/core/errors/appError.ts';
import { cutterPicture } from './cutterPicture.ts';
import { StandInCutter } from './standInCutter.ts';

/** Three squares of 40 mm, one after the other, at 100 mm/s: 1.6 s each, and the ways between. */
const squares = `IN;PA;SP1;VS10;FS90;${[0, 1, 2].map((k) => [[0, 0], [1600, 0], [1600, 1600], [0, 1600], [0, 0]].map(([x, y]) => `${x + 2400 * k},${y}`)).map(([first, ...rest]) => `PU${first};PD${rest.join(',')};`).join('')}PU0,0;SP0;`;
const AREA = { widthMm: 305, heightMm: 610 };

let now = 0;
let cutter: StandInCutter;
beforeEach(() => {
  now = 1000;
  cutter = new StandInCutter(AREA, () => now, 1);
  cutter.load({ film: 'Navy', needsG: 60 });
});
const wait = (seconds: number): void => void (now += seconds * 1000);
const faultOf = (work: () => void): unknown => {
  try {
    work();
  } catch (error) {
    return isAppError(error) ? error.details['fault'] : error;
  }
  return undefined;
};

describe('the stand-in cutter', () => {
  it('goes along a program in its own time, and keeps what was cut', () => {
    cutter.send(squares);
    expect(cutter.state()).toMatchObject({ status: 'cutting', tool: 'knife', program: { strokes: 3, done: 0, share: 0 } });
    // Lift and one side: it is at a corner.
    wait(0.05 + 0.4);
    expect(cutter.state().at.xMm).toBeCloseTo(40, 6);
    expect(cutter.state().at.yMm).toBeCloseTo(0, 6);
    wait(1.3);
    expect(cutter.state().program?.done).toBe(1);
    wait(60);
    expect(cutter.state()).toMatchObject({ status: 'idle', program: { done: 3, share: 1, leftS: 0 } });
    expect(cutter.traces.map(({ as }) => as)).toEqual(['cut', 'cut', 'cut']);
    expect(cutterPicture(AREA, cutter.traces)).toContain('<path data-as="cut" d="M0 610L40 610L40 570L0 570L0 610"');
  });

  it('stands still while it is paused, goes on from there, and begins no other program meanwhile', () => {
    cutter.send(squares);
    wait(1);
    cutter.pause();
    const { at } = cutter.state();
    wait(100);
    expect(cutter.state()).toMatchObject({ status: 'paused', at });
    cutter.resume();
    expect(faultOf(() => cutter.send(squares))).toBe('portBusy');
    wait(60);
    expect(cutter.state().program?.done).toBe(3);
  });

  it('cuts where its origin is, and refuses what it cannot reach', () => {
    cutter.setOrigin({ xMm: 100, yMm: 200 });
    cutter.send(squares);
    wait(60);
    cutter.state();
    expect(cutter.traces[0].points[0]).toEqual({ x: 100, y: 200 });
    cutter.setOrigin({ xMm: 200, yMm: 0 });
    expect(faultOf(() => cutter.send(squares))).toBe('outsideArea');
    expect(faultOf(() => cutter.setOrigin({ xMm: 400, yMm: 0 }))).toBe('outsideArea');
  });

  it('says that it is drawing a sheet in and looking for marks, each for its time, whatever the speed is then', () => {
    expect(cutter.state().status).toBe('loading');
    wait(2.1);
    expect(cutter.state().status).toBe('idle');
    cutter.look(10, 10, () => 0.5);
    expect(cutter.state().status).toBe('readingMarks');
    wait(1.6);
    cutter.hurry(0.1);
    expect(cutter.state().status).toBe('idle');
  });

  it('only scores what its knife is too light for, and draws with a pen', () => {
    cutter.send(squares.replace('FS90', 'FS40'));
    wait(60);
    cutter.state();
    expect(new Set(cutter.traces.map(({ as }) => as))).toEqual(new Set(['scored']));
    cutter.load({ film: 'Paper', needsG: 60 });
    cutter.send(squares.replace('SP1', 'SP2'));
    wait(60);
    expect(cutter.state().status).toBe('idle');
    expect(new Set(cutter.traces.map(({ as }) => as))).toEqual(new Set(['drawn']));
  });

  it('fails as it is told to: nothing loaded, busy, a piece lifted, the line lost, a blunt blade', () => {
    cutter.fail('noMat');
    expect(faultOf(() => cutter.send(squares))).toBe('noMat');
    cutter.fail('portBusy');
    expect(faultOf(() => cutter.send(squares))).toBe('portBusy');
    expect(faultOf(() => cutter.send(squares))).toBe('portBusy');
    wait(4);
    cutter.fail('pieceLifted', 0.5);
    cutter.send(squares);
    wait(60);
    expect(cutter.state()).toMatchObject({ status: 'fault', fault: 'pieceLifted', program: { done: 1 } });
    // What it was at is done from its beginning.
    cutter.resume();
    wait(60);
    expect(cutter.state()).toMatchObject({ status: 'idle', program: { done: 3 } });
    cutter.fail('connectionLost', 0.9);
    cutter.send(squares);
    wait(60);
    expect(cutter.state()).toMatchObject({ status: 'fault', fault: 'connectionLost' });
    expect(cutter.answers).toBe(false);
    wait(4);
    expect(cutter.answers).toBe(true);
    cutter.load({ film: 'Navy', needsG: 60 });
    cutter.fail('bladeBlunt', 0.5);
    cutter.send(squares);
    wait(2.7);
    cutter.state();
    wait(60);
    expect(cutter.state().status).toBe('idle');
    expect(cutter.traces.map(({ as }) => as)).toEqual(['cut', 'scored', 'scored']);
  });

  it('takes nothing that is no plotter language, and nothing without a load', () => {
    expect(codeOf(() => cutter.send('<svg/>'))).toBe('badDrawing');
    expect(faultOf(() => new StandInCutter(AREA, () => now).send(squares))).toBe('noMat');
  });
});
