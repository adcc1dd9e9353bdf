import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { asItIs, History } from './history.ts';

describe('History', () => {
  it('names what undo and redo would do', () => {
    const history = new History(1, asItIs());
    expect(history.undoLabel).toBeUndefined();
    history.commit('to two', 2);
    history.commit('to three', 3);
    expect(history.undoLabel).toBe('to three');
    history.undo();
    expect([history.present, history.undoLabel, history.redoLabel]).toEqual([2, 'to two', 'to three']);
  });

  it('makes one moment of a whole drag and none of a drag that was left', () => {
    const history = new History(0, asItIs());
    for (const value of [1, 2, 3]) history.preview(value);
    history.commit('dragged');
    history.preview(9);
    history.revert();
    expect(history.present).toBe(3);
    history.undo();
    expect(history.present).toBe(0);
    expect(history.undoLabel).toBeUndefined();
  });

  it('restores moments that are kept as what differs', () => {
    const history = new History(0, { kept: (value: number, beside: number) => value - beside, whole: (kept: number, beside: number) => beside + kept });
    for (const value of [5, 3, 11]) history.commit('change', value);
    const back = [history.present, ...[1, 2, 3].map(() => (history.undo(), history.present))];
    const forth = [1, 2, 3].map(() => (history.redo(), history.present));
    expect([back, forth, history.redo(), history.undoLabel]).toEqual([[11, 3, 5, 0], [5, 3, 11], false, 'change']);
  });

  it('restores every moment, whatever was done', () => {
    const action = fc.oneof(fc.integer().map((value) => ({ kind: 'commit' as const, value })), fc.constant({ kind: 'undo' as const }), fc.constant({ kind: 'redo' as const }), fc.integer().map((value) => ({ kind: 'preview' as const, value })));
    fc.assert(
      fc.property(fc.array(action, { maxLength: 60 }), (actions) => {
        const history = new History(0, asItIs());
        let line = [0];
        let at = 0;
        for (const a of actions) {
          if (a.kind === 'commit' && a.value !== line[at]) {
            line = [...line.slice(0, at + 1), a.value];
            at++;
            history.commit('change', a.value);
          } else if (a.kind === 'preview') history.preview(a.value);
          else if (a.kind === 'undo') {
            history.undo();
            at = Math.max(0, at - 1);
          } else if (a.kind === 'redo') {
            history.redo();
            at = Math.min(line.length - 1, at + 1);
          }
        }
        history.revert();
        expect(history.present).toBe(line[at]);
      }),
      { seed: 21 },
    );
  });
});
