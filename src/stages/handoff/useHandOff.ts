import { ElMessage, ElMessageBox } from 'element-plus';
import { zipSync } from 'fflate';
import { computed, ref } from 'vue';
import { withSettings } from '../../core/edit/objectEdits.ts';
import { AppError, asAppError } from '../../core/errors/appError.ts';
import { explain } from '../../core/errors/explain.ts';
import { fileNameOf } from '../../core/job/fileName.ts';
import { FILE_KINDS, PRINTED_FILES, USUAL_FILES, type FileKind, type HandOff } from '../../core/job/handOff.ts';
import type { Job } from '../../core/job/job.ts';
import { assertFits } from '../../core/layout/laySheet.ts';
import { mirroringOf } from '../../core/layout/mirroringOf.ts';
import { PROCESSES } from '../../core/process/processes.ts';
import { misfitOf } from '../../core/run/isLaidOut.ts';
import type { ExportKind } from '../../engine/protocol.ts';
import { useBench } from '../../stores/bench.ts';
import { useShelf } from '../../stores/shelf.ts';
import { download } from '../shared/download.ts';
import { tellError } from '../shared/tellError.ts';
import { today } from '../shared/today.ts';
import { FILE_WORDS } from './fileKinds.ts';
import { say } from '../../core/words/say.ts';

/** What leaves: whether it may, which files are chosen, and handing them to the browser's downloads. */
export function useHandOff() {
  const bench = useBench();
  const shelf = useShelf();
  const job = computed(() => bench.job as Job);
  const cut = computed(() => bench.result?.cut);
  const handing = ref(false);
  const kinds = computed(() => job.value.handOff.files ?? (PROCESSES[job.value.process].isPrinted ? PRINTED_FILES : USUAL_FILES));
  const name = computed(() => fileNameOf(job.value, cut.value?.design.widthMm ?? 0, today()));
  const change = (label: string, changes: Partial<HandOff>): void => bench.commit(label, { ...job.value, handOff: withSettings(job.value.handOff, changes) });
  const choose = (kind: FileKind, on: boolean): void => change(say('Files to save'), { files: FILE_KINDS.filter((each) => (each === kind ? on : kinds.value.includes(each))) });

  /** Why the sheets cannot leave as they are; undefined when they can. */
  const blocked = computed(() => {
    if (bench.result?.problem !== undefined) return explain(bench.result.problem);
    if (bench.error !== undefined && bench.error.code !== 'workerLost') return explain(bench.error);
    if (cut.value === undefined) return { what: say('There is no sheet yet.'), todo: job.value.pictures.length === 0 ? say('Bring in a picture first.') : say('It is being made.') };
    const error = misfitOf(cut.value);
    return error === undefined ? undefined : explain(error);
  });

  /** A sheet that goes against its process leaves only when that is confirmed. */
  async function mayLeave(): Promise<boolean> {
    const { mirrored, against } = mirroringOf(job.value.layout, job.value.process);
    if (!against) return true;
    const { name: process, lies } = PROCESSES[job.value.process];
    const words = say`${process} is ${lies}, but the sheet is ${mirrored ? say('mirrored.') : say('not mirrored: pressed, it will read backwards.')}`;
    const answer = await ElMessageBox.confirm(words, say('Against the process'), { confirmButtonText: say('Export anyway'), cancelButtonText: say('Back'), type: 'warning' }).catch(() => 'cancel');
    return answer === 'confirm';
  }

  async function hand(work: () => Promise<string>): Promise<void> {
    handing.value = true;
    try {
      ElMessage.success({ message: say`${await work()} is in your downloads.`, grouping: true });
    } catch (error) {
      tellError(asAppError(error, 'unexpected'));
    } finally {
      handing.value = false;
    }
  }

  /** Hands over the files of some kinds: one as it is, several in a zip. */
  async function handFiles(wanted: readonly FileKind[]): Promise<void> {
    const of = bench.ofJob();
    if (of === undefined || cut.value === undefined || !(await mayLeave())) return;
    await hand(async () => {
      const files = await bench.files({ ...of, kinds: wanted, name: name.value, date: today() });
      const [only] = files;
      if (only === undefined) throw new AppError('nothingToCut');
      if (files.length === 1) {
        download(only.name, only.bytes, FILE_WORDS[only.kind].mime);
        return only.name;
      }
      const zip = `${name.value}${wanted.length === 1 ? `, ${FILE_WORDS[wanted[0]].short}` : ''}.zip`;
      download(zip, new Uint8Array(zipSync(Object.fromEntries(files.map((file) => [file.name, [file.bytes, { level: file.kind === 'png' || file.kind === 'pdf' ? 0 : 6 }]])))), 'application/zip');
      return zip;
    });
  }

  /** Hands over one file of what is on the table. */
  async function handOne(fileName: string, kind: ExportKind, mime: string, of: { filmId?: string; sheet?: number } = {}): Promise<void> {
    const asked = bench.ofJob();
    if (asked === undefined || cut.value === undefined || (kind !== 'png' && kind !== 'testSvg' && !(await mayLeave()))) return;
    await hand(async () => {
      if (kind !== 'png' && kind !== 'testSvg' && cut.value?.print === undefined) for (const each of cut.value?.sheets ?? []) assertFits(each);
      download(fileName, await bench.exportFile({ ...asked, kind, ...of }), mime);
      return fileName;
    });
  }

  const handArchive = (): Promise<void> =>
    hand(async () => {
      await bench.saveNow();
      const archive = bench.entry === undefined ? undefined : await shelf.archiveOf(bench.entry.id);
      if (archive === undefined) throw new AppError('badJob', { reason: say('it is not on the shelf') });
      download(archive.fileName, archive.bytes, 'application/zip');
      return archive.fileName;
    });

  return { job, cut, hand, handing, kinds, name, change, choose, blocked, handFiles, handOne, handArchive };
}
