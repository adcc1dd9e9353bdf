import { computed, ref, shallowRef, watch, type Ref } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import type { FileKind } from '../../core/job/handOff.ts';
import type { FileLook } from '../../engine/fileLook.ts';
import { useBench } from '../../stores/bench.ts';
import { pathFromCurves } from '../../ui/draw/curvePath.ts';
import { strokeCutLine } from '../../ui/draw/cutLines.ts';
import { toScreenX, toScreenY, type Viewport } from '../../ui/viewport.ts';
import { tellError } from '../shared/tellError.ts';
import { today } from '../shared/today.ts';
import { useMadeAnew } from '../shared/useMadeAnew.ts';
import { byteWords } from '../shared/byteWords.ts';
import { FILE_WORDS } from './fileKinds.ts';
import { pictureLook, type PictureLook } from './pictureLook.ts';
import { say } from '../../core/words/say.ts';

const WAIT_MS = 150;

/** What is in the files of a kind, made and read back while one looks into them. @param at which of several files is on the table, from 0. */
export function useFileLook(name: Ref<string>, at: Ref<number>) {
  const bench = useBench();
  const kind = ref<FileKind>();
  const look = shallowRef<{ readonly kind: FileKind; readonly at: number; readonly found: FileLook }>();
  /** Which of several pictures, or pages, is on the table, from 0. */
  const pictureAt = ref(0);
  watch(kind, () => (pictureAt.value = 0));
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
  /** The picture that is on the table, or the page. */
  const drawn = shallowRef<PictureLook & { readonly of: number }>();
  useMadeAnew([look, pictureAt], () => 0, async (isLatest) => {
    const { kind: of, found } = look.value ?? {};
    const bytes = of === 'png' ? found?.drawn?.[pictureAt.value] : found?.drawn?.[0];
    if (bytes === undefined || (of !== 'png' && of !== 'pdf')) {
      drawn.value = undefined;
      return;
    }
    const at = pictureAt.value;
    try {
      const made = await pictureLook(of, bytes, at);
      if (isLatest()) drawn.value = { ...made, of: at };
    } catch (caught) {
      if (!isLatest()) return;
      kind.value = undefined;
      tellError(asAppError(caught, 'unexpected'));
    }
  });
  /** How many pictures or pages there are to look at; none of other files. */
  const pictures = computed(() => (shown.value?.kind === 'png' ? shown.value.found.files.length : (drawn.value?.pages ?? 0)));
  /** What is in the file, in a line. */
  const words = computed(() => {
    if (shown.value === undefined) return kind.value === undefined ? '' : say`${FILE_WORDS[kind.value].name}: being made`;
    const { found } = shown.value;
    const { files, lines } = found;
    const own = files[shown.value.kind === 'png' ? Math.min(drawn.value?.of ?? 0, files.length - 1) : Math.min(shown.value.at, files.length - 1)];
    const size = byteWords(own.byteCount);
    if (drawn.value !== undefined) return [`${own.name}: ${size}`, `${Math.round(drawn.value.widthMm)} × ${Math.round(drawn.value.heightMm)} mm`, ...(drawn.value.words === '' ? [] : [drawn.value.words])].join(', ');
    return lines === undefined ? `${own.name}: ${size}` : say`${own.name}: ${size}, ${lines.nodes} nodes as it is read back`;
  });
  function draw(context: CanvasRenderingContext2D, view: Viewport): void {
    if (drawn.value !== undefined) {
      const { picture, widthMm, heightMm } = drawn.value;
      context.imageSmoothingQuality = 'high';
      context.drawImage(picture, toScreenX(view, 0), toScreenY(view, 0), widthMm * view.scale, heightMm * view.scale);
    } else if (path.value !== undefined) strokeCutLine(context, path.value, view);
  }
  const toggle = (wanted: FileKind): void => void (kind.value = kind.value === wanted ? undefined : wanted);
  return { kind, words, path, drawn, pictures, pictureAt, draw, toggle };
}
