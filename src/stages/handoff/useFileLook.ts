import { computed, ref, shallowRef, type Ref } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import type { FileKind } from '../../core/job/handOff.ts';
import type { FileLook } from '../../engine/fileLook.ts';
import { useBench } from '../../stores/bench.ts';
import { pathFromCurves } from '../../ui/draw/curvePath.ts';
import { strokeCutLine } from '../../ui/draw/cutLines.ts';
import type { Viewport } from '../../ui/viewport.ts';
import { tellError } from '../shared/tellError.ts';
import { today } from '../shared/today.ts';
import { useMadeAnew } from '../shared/useMadeAnew.ts';
import { byteWords } from '../shared/byteWords.ts';
import { FILE_WORDS } from './fileKinds.ts';

const WAIT_MS = 150;

/** What is in the files of a kind, made and read back while one looks into them. @param at which of several files is on the table, from 0. */
export function useFileLook(name: Ref<string>, at: Ref<number>) {
  const bench = useBench();
  const kind = ref<FileKind>();
  const look = shallowRef<{ readonly kind: FileKind; readonly at: number; readonly found: FileLook }>();
  useMadeAnew([kind, at, name, () => bench.result], () => WAIT_MS, async (isLatest) => {
    const of = bench.ofJob();
    if (kind.value === undefined || of === undefined || bench.result?.cut === undefined) {
      look.value = undefined;
      return;
    }
    const asked = { kind: kind.value, at: at.value };
    try {
      const found = await bench.lookInto({ ...of, ...asked, name: name.value, date: today() });
      if (isLatest()) look.value = { ...asked, found };
    } catch (caught) {
      const error = asAppError(caught, 'unexpected');
      if (!isLatest() || error.code === 'cancelled') return;
      look.value = undefined;
      kind.value = undefined;
      tellError(error);
    }
  });
  const shown = computed(() => (look.value !== undefined && look.value.kind === kind.value ? look.value : undefined));
  const path = computed(() => (shown.value?.found.lines === undefined ? undefined : pathFromCurves(shown.value.found.lines.curves)));
  /** What is in the file, in a line. */
  const words = computed(() => {
    if (shown.value === undefined) return kind.value === undefined ? '' : `${FILE_WORDS[kind.value].name}: being made`;
    const { found } = shown.value;
    const { files, lines } = found;
    const own = files[Math.min(shown.value.at, files.length - 1)];
    const size = byteWords(own.byteCount);
    return lines === undefined ? files.map((file) => `${file.name}, ${byteWords(file.byteCount)}`).join(' · ') : `${own.name}: ${size}, ${lines.nodes} nodes as it is read back`;
  });
  function draw(context: CanvasRenderingContext2D, view: Viewport): void {
    if (path.value !== undefined) strokeCutLine(context, path.value, view);
  }
  const toggle = (wanted: FileKind): void => void (kind.value = kind.value === wanted ? undefined : wanted);
  return { kind, words, path, draw, toggle };
}
