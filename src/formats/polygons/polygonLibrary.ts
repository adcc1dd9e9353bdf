import type { ClipType, FillRule, MainModule, Path64, Paths64 } from 'clipper2-wasm/dist/clipper2z';
import { STEPS_ON_MM } from '../../core/combine/inStrips.ts';
import type { CombineKind, MarkedRings, PolygonLibrary } from '../../core/combine/polygonLibrary.ts';

/** Numbers of a point: x, y and its mark. */
const OF_POINT = 3;

/** The polygon library (Clipper2 by Angus Johnson, compiled to WebAssembly) as the core knows it. @param module as its package gives it. */
export function polygonLibrary(module: MainModule): PolygonLibrary {
  const kinds = { join: module.ClipType.Union, cutOut: module.ClipType.Difference, common: module.ClipType.Intersection } as const;
  function run(type: ClipType, rule: FillRule, subject: MarkedRings, clip?: MarkedRings): MarkedRings {
    const [subjects, clips, out] = [pathsOf(module, subject), clip === undefined ? new module.Paths64() : pathsOf(module, clip), new module.Paths64()];
    const clipper = module.CreateClipper64(true);
    try {
      clipper.AddSubject(subjects);
      clipper.AddClip(clips);
      clipper.ExecutePath(type, rule, out);
      return ringsOf(out);
    } finally {
      for (const each of [clipper, subjects, clips, out]) each.delete();
    }
  }
  return {
    combine: (kind: CombineKind, subject: MarkedRings, clip: MarkedRings) => run(kinds[kind], module.FillRule.NonZero, subject, clip),
    settle: (rings: MarkedRings) => run(module.ClipType.Union, module.FillRule.Positive, rings),
  };
}

function pathsOf(module: MainModule, { points, marks, starts }: MarkedRings): Paths64 {
  const paths = new module.Paths64();
  for (let ring = 0; ring + 1 < starts.length; ring++) {
    const values = new BigInt64Array((starts[ring + 1] - starts[ring]) * OF_POINT);
    for (let k = starts[ring], i = 0; k < starts[ring + 1]; k++) {
      values[i++] = BigInt(Math.round(points[2 * k] * STEPS_ON_MM));
      values[i++] = BigInt(Math.round(points[2 * k + 1] * STEPS_ON_MM));
      values[i++] = BigInt(marks[k]);
    }
    const path = new module.Path64();
    path.assign(values);
    paths.push_back(path);
    path.delete();
  }
  return paths;
}

function ringsOf(paths: Paths64): MarkedRings {
  const points: number[] = [];
  const marks: number[] = [];
  const starts = [0];
  for (let ring = 0; ring < paths.size(); ring++) {
    const path: Path64 = paths.get(ring);
    const values = path.view();
    for (let i = 0; i < values.length; i += OF_POINT) {
      points.push(Number(values[i]) / STEPS_ON_MM, Number(values[i + 1]) / STEPS_ON_MM);
      marks.push(Number(values[i + 2]));
    }
    starts.push(marks.length);
    path.delete();
  }
  return { points: Float64Array.from(points), marks: Int32Array.from(marks), starts: Int32Array.from(starts) };
}
