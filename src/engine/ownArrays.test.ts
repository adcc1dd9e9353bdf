import { describe, expect, it } from 'vitest';
import { withOwnArrays } from './ownArrays.ts';

const large = (): Float64Array => Float64Array.from({ length: 40_000 }, (_, k) => k);

describe('an answer that is handed over', () => {
  it('has copies of its large arrays, one for each, and leaves what is kept whole', () => {
    const curves = { kind: 'curves', coords: large(), verbs: new Uint8Array(9) };
    const answer = { films: [{ name: 'Navy', curves }], design: { layers: [{ curves }] }, small: { side: 3 } };
    const before = structuredClone(answer);
    const { value, buffers } = withOwnArrays(answer, new Set());
    const own = value as typeof answer;
    expect(own).toEqual(before);
    expect([buffers.length, own.films[0].curves === own.design.layers[0].curves, own.small === answer.small, own.films[0].curves.verbs === curves.verbs]).toEqual([1, true, true, true]);
    const arrived = structuredClone(own, { transfer: buffers as ArrayBuffer[] });
    expect(arrived).toEqual(before);
    expect(answer).toEqual(before);
  });

  it('is itself where nothing of it is large, or is handed over anyway', () => {
    const view = { data: new Uint8Array(600_000) };
    for (const answer of [undefined, 7, { list: [1, { a: new Int32Array(8) }] }]) expect(withOwnArrays(answer, new Set()).value).toBe(answer);
    expect(withOwnArrays(view, new Set([view.data.buffer]))).toEqual({ value: view, buffers: [] });
  });
});
