import { ElMessage } from 'element-plus';
import type { AppError } from '../../core/errors/appError.ts';
import { explain } from '../../core/errors/explain.ts';
import { say } from '../../core/words/say.ts';

/** One clear message: what happened, that nothing is lost, what to do. */
export function tellError(error: AppError): void {
  if (error.code === 'cancelled') return;
  const { what, todo } = explain(error);
  ElMessage({ type: 'warning', message: say`${what} Nothing is lost. ${todo}`, duration: 12_000, showClose: true, grouping: true, customClass: 'app-error' });
}
