import { z } from 'zod';
import { PROCESSES, type Process } from '../process/processes.ts';
import { say } from '../words/say.ts';

/** How far an order has come. */
export const ORDER_STATES = ['asked', 'approved', 'cut', 'pressed'] as const;
export type OrderState = (typeof ORDER_STATES)[number];

/** Letters and digits that cannot be taken for each other (D. Crockford, "Base 32", 2002). */
const CODE_SIGNS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
const CODE_LENGTH = 8;
const codeSchema = z.string().regex(new RegExp(`^[${CODE_SIGNS}]{${CODE_LENGTH}}$`));

/** What an order is about apart from its design. */
export const orderSchema = z.strictObject({
  /** Under which the job is found again, also by what a scanner reads off its ticket. */
  code: codeSchema.optional(),
  state: z.enum(ORDER_STATES).optional(),
  customer: z.string().max(200).optional(),
  /** When it is wanted, as `2026-11-28`. */
  due: z.iso.date().optional(),
  notes: z.string().max(4000).optional(),
});
export type Order = z.infer<typeof orderSchema>;

/** A code from so many bytes of chance. @param bytes at least eight. */
export const orderCode = (bytes: ArrayLike<number>): string => Array.from({ length: CODE_LENGTH }, (_, k) => CODE_SIGNS[bytes[k] % CODE_SIGNS.length]).join('');

/** What the states are called where a job is made in a process. */
export function stateWord(state: OrderState, process: Process): string {
  if (state === 'cut') return PROCESSES[process].isPrinted ? say('printed') : say('cut');
  if (state !== 'pressed') return state === 'asked' ? say('asked') : say('approved');
  return process === 'htv' ? say('pressed') : process === 'stencil' ? say('painted') : say('applied');
}
