import type { MachineState } from '../../src/machines/machinePort.ts';
import type { Trace } from './standInCutter.ts';

const STROKES: Readonly<Record<Trace['as'], string>> = { cut: '#241b2f', scored: '#b9751a', drawn: '#2f5d8a' };
const number = (value: number): string => String(Math.round(value * 1000) / 1000);

/** What a cutter's tools left on the sheet, as SVG at true size: what was cut through dark, what was only scored ochre and broken, what was drawn blue. */
export function cutterPicture({ widthMm, heightMm }: MachineState['area'], traces: readonly Trace[]): string {
  const paths = traces.map(({ points, as }) => `<path data-as="${as}" d="${points.map(({ x, y }, k) => `${k === 0 ? 'M' : 'L'}${number(x)} ${number(heightMm - y)}`).join('')}" stroke="${STROKES[as]}"${as === 'scored' ? ' stroke-dasharray="1.5 1"' : ''}/>`);
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}mm" height="${heightMm}mm" viewBox="0 0 ${widthMm} ${heightMm}"><rect width="100%" height="100%" fill="#fffdf8"/><g fill="none" stroke-width="0.3">\n${paths.join('\n')}\n</g></svg>\n`;
}
