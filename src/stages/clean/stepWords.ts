import type { StepReport } from '../../core/run/applyRecipe.ts';
import type { Step } from '../../core/clean/recipe.ts';
import { mm } from '../../core/units/length.ts';
import { explain } from '../../core/errors/explain.ts';
import { formatArea, formatLength, trimNumber, type LengthUnit } from '../../core/units/parseLength.ts';

const count = (value: number | undefined, one: string, many: string): string => `${(value ?? 0).toLocaleString('en')} ${value === 1 ? one : many}`;

/** One line on what a step does in this part, from its settings and what it reported. */
export function stepWords(step: Step, report: StepReport | undefined, unit: LengthUnit = 'mm'): string {
  if (report?.skipped !== undefined) return `skipped: ${explain({ code: report.skipped, details: {} }).what}`;
  return report === undefined ? settingsWords(step, unit) : reportWords(step, report.facts, unit);
}

/** What a step is set to, while it is not known yet what it does. */
function settingsWords(step: Step, unit: LengthUnit): string {
  switch (step.kind) {
    case 'levels':
      return step.points === 'auto' ? 'black and white found by itself' : reportWords(step, {}, unit);
    case 'lightLevelling':
      return `strength ${Math.round(step.strength * 100)} %`;
    case 'smoothing':
      return `differences up to ${Math.round(step.strength)}`;
    case 'fewerColours':
      return step.tones === 'auto' ? 'tones found by itself' : count(step.tones, 'tone', 'tones');
    case 'gapMending':
      return `gaps up to ${trimNumber(step.widestPx, 1)} px`;
    case 'linePick':
      return `detail ${Math.round(step.detail * 100)} %`;
    case 'subjectLift':
      return step.strokes.length > 0 ? count(step.strokes.length, 'stroke', 'strokes') : 'all but the subject';
    case 'areaLift':
      return step.tolerance === 'auto' ? 'tolerance found by itself' : `tolerance ${trimNumber(step.tolerance, 1)}`;
    case 'sweep':
      return `specks under ${formatArea(step.speckMm2, unit)}`;
    default:
      return reportWords(step, {}, unit);
  }
}

function reportWords(step: Step, facts: StepReport['facts'], unit: LengthUnit): string {
  switch (step.kind) {
    case 'squaring':
      if (facts['pxPerMm'] === undefined) return step.marks.by === 'sheet' ? 'by the mark sheet' : 'by four corners';
      return `${formatLength(mm(facts['widthMm'] ?? 0), unit).replace(/ [a-z]+$/, '')} × ${formatLength(mm(facts['heightMm'] ?? 0), unit)}, ${step.marks.by === 'sheet' ? `true to ${formatLength(mm(facts['worstMissMm'] ?? 0), unit, 2)}` : 'by four corners'}`;
    case 'turn': {
      const parts = [step.mirrored ? 'mirrored' : undefined, step.quarters === 0 ? undefined : `${step.quarters * 90}°`, step.angleDeg === 0 ? undefined : `straightened by ${trimNumber(step.angleDeg, 1)}°`];
      return parts.filter((part) => part !== undefined).join(', ') || 'as it came';
    }
    case 'enlarging':
      return `${step.times} times as large`;
    case 'edgeTidying':
      return `jags of ${trimNumber(step.amountPx, 1)} px`;
    case 'crop':
      return `${Math.round(step.rect.widthPx).toLocaleString('en')} × ${Math.round(step.rect.heightPx).toLocaleString('en')} px`;
    case 'levels': {
      const ends = step.points === 'auto' ? `found: ${facts['black'] ?? 0} to ${facts['white'] ?? 255}` : `${Math.round(step.points.black)} to ${Math.round(step.points.white)}`;
      return [ends, step.saturation === 0 ? 'grey' : undefined, step.invert ? 'inverted' : undefined].filter((part) => part !== undefined).join(', ');
    }
    case 'lightLevelling':
      return `light fell off by ${facts['fallOffPercent'] ?? 0} %`;
    case 'smoothing':
      return `noise ${trimNumber(facts['noiseBefore'] ?? 0, 1)} to ${trimNumber(facts['noiseAfter'] ?? 0, 1)}`;
    case 'fewerColours':
      return step.tones === 'auto' ? `found: ${count(facts['tones'], 'tone', 'tones')}` : count(facts['tones'] ?? step.tones, 'tone', 'tones');
    case 'gapMending':
      return `${count(facts['joints'], 'break', 'breaks')} closed`;
    case 'linePick':
      return `${trimNumber(facts['inkPercent'] ?? 0, 1)} % is ink`;
    case 'subjectLift':
      return [facts['unsure'] === 1 && step.strokes.length === 0 ? 'not sure what the subject is: brush over it' : `${facts['liftedPercent'] ?? 0} % of the picture lifted`, step.strokes.length > 0 ? count(step.strokes.length, 'stroke', 'strokes') : undefined].filter((part) => part !== undefined).join(', ');
    case 'areaLift': {
      if (facts['offArt'] === 1) return 'its point is not on the art any more';
      const tolerance = step.tolerance === 'auto' ? `found: ${trimNumber(facts['tolerance'] ?? 0, 1)}` : `tolerance ${trimNumber(step.tolerance, 1)}`;
      return step.enclosed ? `${tolerance} · ${count(facts['enclosed'], 'enclosed area', 'enclosed areas')}` : tolerance;
    }
    case 'colourLift':
      return `${step.colour}, tolerance ${trimNumber(step.tolerance, 1)}`;
    case 'rubOut':
    case 'bringBack':
    case 'drawIn':
      return count(step.strokes.length, 'stroke', 'strokes');
    case 'sweep':
      return `specks under ${formatArea(step.speckMm2, unit)} · ${(facts['specks'] ?? 0).toLocaleString('en')} found`;
  }
}
