import { expect, it } from 'vitest';
import { byRows, finish, within, type Task } from './task.ts';

function* three(): Task<string> {
  yield 0;
  yield 0.5;
  yield 1;
  return 'done';
}

it('runs a task to its result', () => {
  expect(finish(three())).toBe('done');
});

it('scales the progress of a part', () => {
  expect([...within(three(), 0.2, 0.6)]).toEqual([0.2, 0.4, 0.6]);
  expect(finish(within(three(), 0, 1))).toBe('done');
});

it('gives way every so many rows', () => {
  const seen: number[] = [];
  const turns = [...byRows(400, (y) => void seen.push(y))];
  expect(seen).toEqual(Array.from({ length: 400 }, (_, y) => y));
  expect(turns).toEqual([127 / 400, 255 / 400, 383 / 400]);
  expect([...byRows(0, () => void seen.push(0)), ...byRows(-2, () => void seen.push(0))]).toEqual([]);
  expect(seen).toHaveLength(400);
});
