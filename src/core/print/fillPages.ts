import { AppError } from '../errors/appError.ts';

/** A motif of a size, to be laid on pages. */
export interface PageItem {
  readonly widthMm: number;
  readonly heightMm: number;
}

/** Where one copy of a motif lies on its page: the upper left of the box around it. */
export interface PagePlace {
  readonly item: number;
  readonly xMm: number;
  readonly yMm: number;
  /** By a quarter, clockwise: then its width and height have changed places. */
  readonly isTurned: boolean;
}

export interface PageOptions {
  readonly gapMm: number;
  /** Of each motif; `fill`: one of each, and then more of them in turn as long as there is room on the last page. */
  readonly copies: number | 'fill';
  /** Whether copies may be turned by a quarter. */
  readonly mayTurn: boolean;
}

const SLACK_MM = 0.001;
/** No page holds more. */
const MOST_ON_PAGE = 5000;

/**
 * Lays motifs in pages of an area, by the boxes around them, from the upper left.
 * @throws AppError `doesNotFit` for a motif that is larger than the area.
 */
export function fillPages(items: readonly PageItem[], area: PageItem, options: PageOptions): PagePlace[][] {
  for (const item of items) assertFits(item, area, options.mayTurn);
  const turned = lay(items, area, options);
  if (!options.mayTurn || items.some((item) => !fitsUpright(item, area))) return turned;
  // What reads the same way round on all of the page is easier to cut out, where it is as good.
  const upright = lay(items, area, { ...options, mayTurn: false });
  const count = (pages: readonly (readonly PagePlace[])[]): number => pages.reduce((sum, places) => sum + places.length, 0);
  return upright.length < turned.length || (upright.length === turned.length && count(upright) >= count(turned)) ? upright : turned;
}

const fitsUpright = ({ widthMm, heightMm }: PageItem, area: PageItem): boolean => widthMm <= area.widthMm + SLACK_MM && heightMm <= area.heightMm + SLACK_MM;

function lay(items: readonly PageItem[], area: PageItem, options: PageOptions): PagePlace[][] {
  const { copies } = options;
  const wanted = Array.from({ length: copies === 'fill' ? 1 : copies }, () => items.map((_, k) => k)).flat();
  // Large ones first, each motif's copies together.
  if (copies !== 'fill') wanted.sort((a, b) => items[b].widthMm * items[b].heightMm - items[a].widthMm * items[a].heightMm || a - b);
  const pages: FreePage[] = [];
  for (const item of wanted) {
    if (pages.some((page) => page.lay(item, items[item], options))) continue;
    const page = new FreePage(area, options.gapMm);
    page.lay(item, items[item], options);
    pages.push(page);
  }
  const last = pages[pages.length - 1];
  if (copies === 'fill' && last !== undefined) {
    let missed = 0;
    for (let k = 0; missed < items.length && last.places.length < MOST_ON_PAGE; k++) missed = last.lay(k % items.length, items[k % items.length], options) ? 0 : missed + 1;
    if (items.length === 1) return [[last.places, ...rows(items[0], area, options)].reduce((most, each) => (each.length > most.length ? each : most))];
  }
  return pages.map(({ places }) => places);
}

/** One motif in rows: upright, and turned. */
function rows({ widthMm, heightMm }: PageItem, area: PageItem, { gapMm, mayTurn }: PageOptions): PagePlace[][] {
  return (mayTurn ? [false, true] : [false]).map((isTurned) => {
    const [width, height] = isTurned ? [heightMm, widthMm] : [widthMm, heightMm];
    const across = Math.floor((area.widthMm + gapMm + SLACK_MM) / (width + gapMm));
    const down = Math.floor((area.heightMm + gapMm + SLACK_MM) / (height + gapMm));
    return Array.from({ length: Math.min(MOST_ON_PAGE, across * down) }, (_, k) => ({ item: 0, xMm: (k % across) * (width + gapMm), yMm: Math.floor(k / across) * (height + gapMm), isTurned }));
  });
}

function assertFits({ widthMm, heightMm }: PageItem, area: PageItem, mayTurn: boolean): void {
  const over = (width: number, height: number): { width: number; height: number } => ({ width: Math.max(0, width - area.widthMm - SLACK_MM), height: Math.max(0, height - area.heightMm - SLACK_MM) });
  const ways = [over(widthMm, heightMm), ...(mayTurn ? [over(heightMm, widthMm)] : [])].sort((a, b) => a.width + a.height - b.width - b.height);
  if (ways[0].width + ways[0].height > 0) throw new AppError('doesNotFit', { overWidthMm: Math.ceil(ways[0].width * 10) / 10, overHeightMm: Math.ceil(ways[0].height * 10) / 10 });
}

interface Free {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** What is free of a page, as the largest rectangles in it (J. Jylänki, "A thousand ways to pack the bin", 2010: maximal rectangles, bottom-left). */
class FreePage {
  readonly places: PagePlace[] = [];
  private free: Free[];

  constructor({ widthMm, heightMm }: PageItem, private readonly gapMm: number) {
    this.free = [{ x: 0, y: 0, width: widthMm + gapMm + SLACK_MM, height: heightMm + gapMm + SLACK_MM }];
  }

  /** Lays a motif as high as it goes, then as far to the left; tells whether there was room. */
  lay(item: number, { widthMm, heightMm }: PageItem, { mayTurn }: Pick<PageOptions, 'mayTurn'>): boolean {
    let best: { x: number; y: number; width: number; height: number; isTurned: boolean } | undefined;
    for (const isTurned of mayTurn ? [false, true] : [false]) {
      const [width, height] = [(isTurned ? heightMm : widthMm) + this.gapMm, (isTurned ? widthMm : heightMm) + this.gapMm];
      for (const { x, y, width: freeWidth, height: freeHeight } of this.free) {
        if (freeWidth < width || freeHeight < height) continue;
        const isHigher = best === undefined || y + height < best.y + best.height - SLACK_MM || (y + height < best.y + best.height + SLACK_MM && x < best.x);
        if (isHigher) best = { x, y, width, height, isTurned };
      }
    }
    if (best === undefined) return false;
    this.places.push({ item, xMm: best.x, yMm: best.y, isTurned: best.isTurned });
    this.take(best);
    return true;
  }

  private take(box: Free): void {
    const split = this.free.flatMap((each): Free[] => {
      if (box.x >= each.x + each.width || box.x + box.width <= each.x || box.y >= each.y + each.height || box.y + box.height <= each.y) return [each];
      return [
        { ...each, width: box.x - each.x },
        { ...each, x: box.x + box.width, width: each.x + each.width - box.x - box.width },
        { ...each, height: box.y - each.y },
        { ...each, y: box.y + box.height, height: each.y + each.height - box.y - box.height },
      ].filter(({ width, height }) => width > SLACK_MM && height > SLACK_MM);
    });
    const holds = (a: Free, b: Free): boolean => a.x <= b.x && a.y <= b.y && a.x + a.width >= b.x + b.width && a.y + a.height >= b.y + b.height;
    this.free = split.filter((each, k) => !split.some((other, j) => j !== k && holds(other, each) && (!holds(each, other) || j < k)));
  }
}
