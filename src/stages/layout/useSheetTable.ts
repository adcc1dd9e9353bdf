import { computed, ref } from 'vue';
import { oneFilmOf } from '../../core/film/filmRoles.ts';
import type { Job } from '../../core/job/job.ts';
import { PROCESSES } from '../../core/process/processes.ts';
import { mirroringOf } from '../../core/layout/mirroringOf.ts';
import { useBench } from '../../stores/bench.ts';
import { useRack } from '../../stores/rack.ts';
import { useSettings } from '../../stores/settings.ts';
import { backdropPaint } from '../../ui/backdrops.ts';
import { pathFromCurves, pathOfCopies } from '../../ui/draw/curvePath.ts';
import { say } from '../../core/words/say.ts';

/** The job's sheet, ready to be drawn. Used wherever the sheet is looked at. */
export function useSheetTable() {
  const bench = useBench();
  const settings = useSettings();
  const rack = useRack();
  const job = computed(() => bench.job as Job);
  const cut = computed(() => bench.result?.cut);
  const film = computed(() => rack.roll?.film ?? oneFilmOf(job.value.films));
  /** All sheets of the film on the table, and which of them is looked at, from 0. */
  const sheets = computed(() => cut.value?.sheets.filter(({ filmId }) => filmId === film.value.id) ?? []);
  const sheetAt = ref(0);
  const sheet = computed(() => sheets.value[Math.min(sheetAt.value, Math.max(0, sheets.value.length - 1))]);
  const parts = computed(() => new Map(sheet.value?.parts.map(({ id, curves }) => [id, pathFromCurves(curves)])));
  const path = computed(() => (sheet.value === undefined ? undefined : pathOfCopies(sheet.value.placements.map(({ partId, at }) => ({ path: parts.value.get(partId) as Path2D, at })))));
  const mirroring = computed(() => mirroringOf(job.value.layout, job.value.process));
  const paint = computed(() => ({
    film: film.value.colour,
    clear: backdropPaint('hatch', job.value.blank.colour, [film.value.colour], settings.isDark),
    artIsOpening: PROCESSES[job.value.process].artIsOpening,
  }));
  /** Room under the sheet for the mirror band. */
  const box = computed(() => ({ x: 0, y: 0, width: (sheet.value ?? job.value.layout.sheet).widthMm, height: (sheet.value ?? job.value.layout.sheet).heightMm * (mirroring.value.mirrored ? 1.06 : 1) }));
  const bandWords = computed(() => (mirroring.value.mirrored ? say('reads backwards · cut from the back · carrier side down') : say(say('NOT MIRRORED · although this process is cut from the back'))));
  const hasBand = computed(() => mirroring.value.mirrored || mirroring.value.against);
  return { job, cut, sheet, sheets, sheetAt, film, path, mirroring, paint, box, bandWords, hasBand };
}
