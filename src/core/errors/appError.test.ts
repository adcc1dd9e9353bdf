import { describe, expect, it } from 'vitest';
import { AppError, asAppError, errorFromPlain, plainFromError } from './appError.ts';
import { explain } from './explain.ts';

describe('AppError', () => {
  it('survives the way through plain data', () => {
    const error = new AppError('pictureTooLarge', { file: 'wide.png', width: 20000, height: 20000, limitMegapixels: 100 });
    const back = errorFromPlain(structuredClone(plainFromError(error)));
    expect(back).toBeInstanceOf(AppError);
    expect(back.code).toBe('pictureTooLarge');
    expect(explain(back).what).toContain('20000 × 20000');
  });

  it('maps foreign errors once and keeps its own', () => {
    const own = new AppError('cancelled');
    expect(asAppError(own, 'unexpected')).toBe(own);
    const foreign = asAppError(new TypeError('no'), 'cannotRead');
    expect(foreign.code).toBe('cannotRead');
    expect(foreign.details['message']).toBe('no');
    expect(plainFromError(new TypeError('no')).code).toBe('unexpected');
  });

  it('names the file when it knows it', () => {
    expect(explain(new AppError('emptyFile', { file: 'buoy.png' })).what).toBe('“buoy.png” is empty (0 bytes).');
    expect(explain(new AppError('emptyFile')).what).toBe('The file is empty (0 bytes).');
  });
});
