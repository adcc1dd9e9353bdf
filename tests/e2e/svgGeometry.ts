/** A box in mm. */
export interface BoxMm {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** What a cut file says, read by its text alone. */
export interface CutFile {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly viewBox: readonly number[];
  readonly groups: readonly string[];
  /** Path data of the art and of the weeding boxes. */
  readonly art: readonly string[];
  readonly boxes: readonly string[];
}

export function readCutFile(svg: string): CutFile {
  const size = /width="([\d.]+)mm" height="([\d.]+)mm" viewBox="([^"]+)"/.exec(svg);
  if (size === null) throw new Error('no size in mm');
  const boxesAt = svg.search(/<g id="[^"]*-boxes"/);
  const artText = boxesAt < 0 ? svg : svg.slice(0, boxesAt);
  const paths = (text: string): string[] => [...text.matchAll(/<path d="([^"]+)"/g)].map((match) => match[1]);
  return {
    widthMm: Number(size[1]),
    heightMm: Number(size[2]),
    viewBox: size[3].split(' ').map(Number),
    groups: [...svg.matchAll(/<g id="([^"]+)"/g)].map((match) => match[1]),
    art: paths(artText),
    boxes: boxesAt < 0 ? [] : paths(svg.slice(boxesAt)),
  };
}

/** Points along path data of M, L, C and Z with absolute coordinates. */
export function pointsOf(path: string): [number, number][] {
  const points: [number, number][] = [];
  for (const [, command, rest] of path.matchAll(/([MLCZ])([^MLCZ]*)/g)) {
    const v = rest.trim() === '' ? [] : rest.trim().split(/[ ,]+/).map(Number);
    if (command === 'C') {
      const [x0, y0] = points[points.length - 1];
      for (let k = 1; k <= 24; k++) {
        const t = k / 24;
        const u = 1 - t;
        points.push([u ** 3 * x0 + 3 * u * u * t * v[0] + 3 * u * t * t * v[2] + t ** 3 * v[4], u ** 3 * y0 + 3 * u * u * t * v[1] + 3 * u * t * t * v[3] + t ** 3 * v[5]]);
      }
    } else if (command !== 'Z') points.push([v[0], v[1]]);
  }
  return points;
}

export function boxOf(paths: readonly string[]): BoxMm {
  const points = paths.flatMap(pointsOf);
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
}

/** Signed area of a ring, above 0 when it runs clockwise on screen. */
export function areaOf(path: string): number {
  const points = pointsOf(path);
  return points.reduce((sum, [x, y], k) => {
    const [px, py] = points[(k + points.length - 1) % points.length];
    return sum + px * y - x * py;
  }, 0) / 2;
}

/** Middle of the area that the rings enclose, holes taken off. */
export function centroidOf(paths: readonly string[]): [number, number] {
  let area = 0;
  let cx = 0;
  let cy = 0;
  for (const path of paths) {
    const points = pointsOf(path);
    points.forEach(([x, y], k) => {
      const [px, py] = points[(k + points.length - 1) % points.length];
      const cross = px * y - x * py;
      area += cross / 2;
      cx += ((px + x) * cross) / 6;
      cy += ((py + y) * cross) / 6;
    });
  }
  return [cx / area, cy / area];
}
