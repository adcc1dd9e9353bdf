import { artFromPicture } from '../src/core/raster/art.ts';
import { oneTone } from '../src/core/separate/oneTone.ts';
import { outlineOf, DEFAULT_OUTLINE } from '../src/core/outline/traceOutline.ts';
import { isolines } from '../src/core/outline/isoline.ts';
import { nodeCount, type Curves, LINE } from '../src/core/outline/curves.ts';
import { oneColourDrawings } from './drawings.ts';
import { chordsOf, edgeError } from './truth.ts';
import { CONDITIONS, pictureOf } from './degrade.ts';
export function pathOf(c: Curves): string {
  let d = '';
  for (let k = 0; k < c.parent.length; k++) {
    let at = c.coordStart[k];
    d += `M${c.coords[at]} ${c.coords[at+1]}`; at += 2;
    for (let v = c.verbStart[k]; v < c.verbStart[k+1]; v++) {
      const m = c.verbs[v] === LINE ? 2 : 6;
      d += (m===2?'L':'C') + Array.from(c.coords.subarray(at, at+m)).join(' '); at += m;
    }
    d += 'Z';
  }
  return d;
}
const follow = Number(process.argv[2] ?? DEFAULT_OUTLINE.followPx);
const med = (a:number[]) => [...a].sort((x,y)=>x-y)[a.length>>1];
for (const cond of CONDITIONS) {
  const ms:number[]=[], es:number[]=[], ps:number[]=[], ns:number[]=[]; const iso:number[]=[];
  for (const d of oneColourDrawings()) {
    const pic = await pictureOf(d, cond);
    const scale = pic.width / d.size;
    const t0 = performance.now();
    const tone = oneTone(artFromPicture(pic), {source:'threshold', threshold:'auto', inkIs:'auto'});
    const c = outlineOf(tone.share, {...DEFAULT_OUTLINE, followPx: follow});
    const t = performance.now()-t0;
    const truth = chordsOf(d.path, scale);
    const e = edgeError(chordsOf(pathOf(c), 1), truth);
    const il = isolines(tone.share).rings; let p='';
    for (let k=0;k<il.starts.length-1;k++){ if (il.starts[k+1]-il.starts[k]<8) continue; p+='M'+Array.from(il.points.subarray(il.starts[k]*2, il.starts[k+1]*2)).join(' ')+'Z'; }
    const ie = edgeError(chordsOf(p,1), truth);
    if (process.argv[3]) console.log(cond.padEnd(8), d.name.padEnd(18), e.mean.toFixed(3), e.p95.toFixed(3), 'iso', ie.mean.toFixed(3), ie.p95.toFixed(3), 'nodes', nodeCount(c), 'truth', (d.path.match(/[LCQAqlZ]/g)??[]).length, t.toFixed(1));
    ms.push(t); es.push(e.mean); ps.push(e.p95); ns.push(nodeCount(c)); iso.push(ie.mean);
  }
  console.log(cond.padEnd(8), 'median', med(es).toFixed(3), med(ps).toFixed(3), 'nodes', med(ns), ns.reduce((a,b)=>a+b), 'iso', med(iso).toFixed(3), 'ms', med(ms).toFixed(1));
}
