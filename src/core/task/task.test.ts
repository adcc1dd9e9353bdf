import { expect, it } from 'vitest';
import { finish, within, type Task } from './task.ts';

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
