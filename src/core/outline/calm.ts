/**
 * Calms the points of an edge over a width: each becomes the mean of those around it, weighted by a Gaussian of their distance along the edge, applied twice so
 * that rounds do not shrink ("twicing": J. W. Tukey, "Exploratory data analysis", 1977, 16B). Towards the ends of an open edge the width narrows, so that they
 * stay where they are.
 * @param along distance along the edge to each point. @param sigmaPx of the Gaussian; 0 or less leaves the points alone.
 */
export function calmed(x: Float64Array, y: Float64Array, along: Float64Array, closed: boolean, sigmaPx: number): { x: Float64Array; y: Float64Array } {
  if (!(sigmaPx > 0) || x.length < 3) return { x, y };
  const mean = (values: Float64Array): Float64Array => meanAlong(values, along, closed, sigmaPx);
  const twice = (values: Float64Array): Float64Array => {
    const once = mean(values);
    const rest = mean(values.map((value, k) => value - once[k]));
    return once.map((value, k) => value + rest[k]);
  };
  return { x: twice(x), y: twice(y) };
}

function meanAlong(values: Float64Array, along: Float64Array, closed: boolean, sigmaPx: number): Float64Array {
  const n = values.length;
  const total = along[n - 1];
  const out = new Float64Array(n);
  // A closed edge has its first point as its last one too.
  const span = closed ? n - 1 : n;
  const at = (k: number): number => (k < 0 ? along[k + span] - total : k >= n ? along[k - span] + total : along[k]);
  for (let k = 0; k < n; k++) {
    const room = closed ? Math.min(3 * sigmaPx, total / 4) : Math.min(3 * sigmaPx, along[k], total - along[k]);
    const sigma = Math.min(sigmaPx, room / 2);
    let weight = 1;
    let sum = values[k];
    for (const step of [-1, 1]) {
      for (let j = k + step; closed ? Math.abs(j - k) < span : j >= 0 && j < n; j += step) {
        const off = Math.abs(at(j) - along[k]);
        // Both sides end at the same distance, whatever its last digits.
        if (off > room * (1 + 1e-9)) break;
        const w = sigma > 0 ? Math.exp(-(off * off) / (2 * sigma * sigma)) : 0;
        weight += w;
        sum += w * values[j < 0 ? j + span : j >= n ? j - span : j];
      }
    }
    out[k] = sum / weight;
  }
  return out;
}
