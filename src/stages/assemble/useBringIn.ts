import { ElMessage } from 'element-plus';
import { withDrawing } from '../../core/edit/bringEdits.ts';
import { asAppError } from '../../core/errors/appError.ts';
import type { Job } from '../../core/job/job.ts';
import { useBench } from '../../stores/bench.ts';
import { useServices } from '../../stores/services.ts';
import { useStock } from '../../stores/stock.ts';
import { tellError } from '../shared/tellError.ts';
import { chooseFiles } from '../shared/pickFiles.ts';
import type { Parts } from './useParts.ts';
import { say } from '../../core/words/say.ts';

/** Beside the design what comes in lies so far away, mm. */
const BESIDE_MM = 10;
const DRAWINGS = '.svg,.dxf,.hpgl,.plt,image/svg+xml';
const PICTURES = 'image/png,image/jpeg,image/webp,image/gif,image/bmp,image/tiff,image/heic,image/svg+xml,.svg,.heic,.heif,.tif,.tiff,.bmp';

/** Brings drawings and further pictures into the design. */
export function useBringIn(parts: Parts) {
  const bench = useBench();
  const stock = useStock();
  const { engine } = useServices();

  /** Below the design, at its left edge: in the objects' common mm. */
  function below(): { a: 1; b: 0; c: 0; d: 1; e: number; f: number } {
    const { design, originMm } = bench.result?.cut ?? {};
    return { a: 1, b: 0, c: 0, d: 1, e: -(originMm?.x ?? 0), f: (design?.heightMm ?? 0) + BESIDE_MM - (originMm?.y ?? 0) };
  }

  async function bringIn(what: 'drawing' | 'picture'): Promise<void> {
    const [file] = await chooseFiles(what === 'drawing' ? DRAWINGS : PICTURES, false);
    if (file === undefined) return;
    try {
      await (what === 'drawing' ? drawing(file) : picture(file));
    } catch (caught) {
      tellError(asAppError(caught, 'unexpected'));
    }
  }

  async function drawing(file: File): Promise<void> {
    const { layers, leftOut } = await engine.drawing(new Uint8Array(await file.arrayBuffer()), file.name);
    await stock.load();
    const id = `drawing-${crypto.randomUUID().slice(0, 8)}`;
    bench.commit(say('Drawing'), withDrawing(bench.job as Job, id, file.name, layers, stock.films, below()));
    parts.select(id);
    if (leftOut.length > 0) ElMessage({ type: 'info', message: say`Left out of ${file.name}: ${leftOut.map(({ what, count }) => `${what} (${count})`).join('; ')}.`, duration: 9000, showClose: true });
  }

  async function picture(file: File): Promise<void> {
    const id = await bench.addPicture(file, below());
    if (id !== undefined) parts.select(id);
  }

  return { bringIn };
}
