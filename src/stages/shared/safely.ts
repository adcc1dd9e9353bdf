import { asAppError } from '../../core/errors/appError.ts';
import { tellError } from './tellError.ts';

/** Does something that a person asked for; what goes wrong is told, but for what was stopped. */
export async function safely(work: () => unknown): Promise<void> {
  try {
    await work();
  } catch (caught) {
    const error = asAppError(caught, 'unexpected');
    if (error.code !== 'cancelled') tellError(error);
  }
}
