import { DOWN, RIGHT, UP, type CrackArcs } from './crackArcs.ts';

/** The vertex at which a crack ends. */
export function endOfCrack(crack: number, stride: number): number {
  const direction = crack & 3;
  return (crack >> 2) + (direction === UP ? -stride : direction === RIGHT ? 1 : direction === DOWN ? stride : -1);
}

/** The same arcs, broken at further vertices. A closed arc that has some of them begins at its first; one that has none stays as it is. */
export function splitArcs(arcs: CrackArcs, isNode: (vertex: number) => boolean): CrackArcs {
  const cracks = new Int32Array(arcs.cracks.length);
  const out = { starts: [0], left: [] as number[], right: [] as number[], from: [] as number[], to: [] as number[] };
  let n = 0;
  const end = (arc: number, from: number, to: number): void => {
    out.starts.push(n);
    out.left.push(arcs.left[arc]);
    out.right.push(arcs.right[arc]);
    out.from.push(from);
    out.to.push(to);
  };
  for (let arc = 0; arc < arcs.count; arc++) {
    const first = arcs.starts[arc];
    const length = arcs.starts[arc + 1] - first;
    const closed = arcs.from[arc] < 0;
    let turn = 0;
    if (closed) {
      while (turn < length && !isNode(arcs.cracks[first + turn] >> 2)) turn++;
      if (turn === length) turn = 0;
    }
    let from = closed ? (isNode(arcs.cracks[first + turn] >> 2) ? arcs.cracks[first + turn] >> 2 : -1) : arcs.from[arc];
    for (let k = 0; k < length; k++) {
      const crack = arcs.cracks[first + ((turn + k) % length)];
      cracks[n++] = crack;
      const at = endOfCrack(crack, arcs.stride);
      if (k === length - 1) end(arc, from, from < 0 ? -1 : at);
      else if (from >= 0 && isNode(at)) {
        end(arc, from, at);
        from = at;
      }
    }
  }
  return {
    ...arcs,
    count: out.left.length,
    starts: Int32Array.from(out.starts),
    cracks,
    left: Uint8Array.from(out.left),
    right: Uint8Array.from(out.right),
    from: Int32Array.from(out.from),
    to: Int32Array.from(out.to),
  };
}

/**
 * Says which arc of one set an arc of another runs along from end to end, both of one lattice: twice its number, one more when it runs against it; −1 when
 * along none.
 */
export function sameArcs(arcs: CrackArcs): (other: CrackArcs, arc: number) => number {
  const { starts, cracks, stride } = arcs;
  const opposite = (crack: number): number => endOfCrack(crack, stride) * 4 + ((crack + 2) & 3);
  const byFirst = new Map<number, number>();
  for (let k = 0; k < arcs.count; k++) {
    byFirst.set(cracks[starts[k]], 2 * k);
    byFirst.set(opposite(cracks[starts[k + 1] - 1]), 2 * k + 1);
  }
  return (other, arc) => {
    const first = other.starts[arc];
    const length = other.starts[arc + 1] - first;
    const half = byFirst.get(other.cracks[first]);
    if (half === undefined) return -1;
    const k = half >> 1;
    if (starts[k + 1] - starts[k] !== length || arcs.from[k] < 0 !== other.from[arc] < 0) return -1;
    for (let c = 0; c < length; c++) {
      const mine = (half & 1) === 0 ? cracks[starts[k] + c] : opposite(cracks[starts[k + 1] - 1 - c]);
      if (mine !== other.cracks[first + c]) return -1;
    }
    return half;
  };
}
