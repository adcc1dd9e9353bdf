import type { StepReport } from '../../core/run/applyRecipe.ts';
import type { Step } from '../../core/clean/recipe.ts';
import { mm } from '../../core/units/length.ts';
import { explain } from '../../core/errors/explain.ts';
import { formatArea, formatLength, numberWords, type LengthUnit } from '../../core/units/parseLength.ts';
import { counted, grouped, say } from '../../core/words/say.ts';


/** One line on what a step does in this part, from its settings and what it reported. */
export function stepWords(step: Step, report: StepReport | undefined, unit: LengthUnit = 'mm'): string {
  if (report?.skipped !== undefined) return say`skipped: ${explain({ code: report.skipped, details: {} }).what}`;
  return report === undefined ? settingsWords(step, unit) : reportWords(step, report.facts, unit);
}

/** What a step is set to, while it is not known yet what it does. */
function settingsWords(step: Step, unit: LengthUnit): string {
  switch (step.kind) {
    case 'levels':
      return step.points === 'auto' ? say('black and white found by itself') : reportWords(step, {}, unit);
    case 'lightLevelling':
      return say`strength ${Math.round(step.strength * 100)} %`;
    case 'smoothing':
      return say`differences up to ${Math.round(step.strength)}`;
    case 'fewerColours':
      return step.tones === 'auto' ? say('tones found by itself') : counted(step.tones, say('tone'), say('tones'));
    case 'gapMending':
      return say`gaps up to ${numberWords(step.widestPx, 1)} px`;
    case 'linePick':
      return say`detail ${Math.round(step.detail * 100)} %`;
    case 'subjectLift':
      return step.strokes.length > 0 ? counted(step.strokes.length, say('stroke'), say('strokes')) : say('all but the subject');
    case 'areaLift':
      return step.tolerance === 'auto' ? say('tolerance found by itself') : say`tolerance ${numberWords(step.tolerance, 1)}`;
    case 'sweep':
      return say`specks under ${formatArea(step.speckMm2, unit)}`;
    default:
      return reportWords(step, {}, unit);
  }
}

function reportWords(step: Step, facts: StepReport['facts'], unit: LengthUnit): string {
  switch (step.kind) {
    case 'squaring':
      if (facts['pxPerMm'] === undefined) return step.marks.by === 'sheet' ? say('by the mark sheet') : say('by four corners');
      return `${formatLength(mm(facts['widthMm'] ?? 0), unit).replace(/ [a-z]+$/, '')} × ${formatLength(mm(facts['heightMm'] ?? 0), unit)}, ${step.marks.by === 'sheet' ? say`true to ${formatLength(mm(facts['worstMissMm'] ?? 0), unit, 2)}` : say('by four corners')}`;
    case 'turn': {
      const parts = [step.mirrored ? say('mirrored') : undefined, step.quarters === 0 ? undefined : `${step.quarters * 90}°`, step.angleDeg === 0 ? undefined : say`straightened by ${numberWords(step.angleDeg, 1)}°`];
      return parts.filter((part) => part !== undefined).join(', ') || say('as it came');
    }
    case 'enlarging':
      return say`${step.times} times as large`;
    case 'edgeTidying':
      return say`jags of ${numberWords(step.amountPx, 1)} px`;
    case 'crop':
      return `${grouped(Math.round(step.rect.widthPx))} × ${grouped(Math.round(step.rect.heightPx))} px`;
    case 'levels': {
      const ends = step.points === 'auto' ? say`found: ${facts['black'] ?? 0} to ${facts['white'] ?? 255}` : say`${Math.round(step.points.black)} to ${Math.round(step.points.white)}`;
      return [ends, step.saturation === 0 ? say('grey') : undefined, step.invert ? say('inverted') : undefined].filter((part) => part !== undefined).join(', ');
    }
    case 'lightLevelling':
      return say`light fell off by ${facts['fallOffPercent'] ?? 0} %`;
    case 'smoothing':
      return say`noise ${numberWords(facts['noiseBefore'] ?? 0, 1)} to ${numberWords(facts['noiseAfter'] ?? 0, 1)}`;
    case 'fewerColours':
      return step.tones === 'auto' ? say`found: ${counted(facts['tones'] ?? 0, say('tone'), say('tones'))}` : counted(facts['tones'] ?? step.tones, say('tone'), say('tones'));
    case 'gapMending':
      return say`${counted(facts['joints'] ?? 0, say('break'), say('breaks'))} closed`;
    case 'linePick':
      return say`${numberWords(facts['inkPercent'] ?? 0, 1)} % is ink`;
    case 'subjectLift':
      return [facts['unsure'] === 1 && step.strokes.length === 0 ? say('not sure what the subject is: brush over it') : say`${facts['liftedPercent'] ?? 0} % of the picture lifted`, step.strokes.length > 0 ? counted(step.strokes.length, say('stroke'), say('strokes')) : undefined].filter((part) => part !== undefined).join(', ');
    case 'areaLift': {
      if (facts['offArt'] === 1) return say('its point is not on the art any more');
      if (facts['inSquares'] === 1) return say('squares that stand for clear');
      const tolerance = step.tolerance === 'auto' ? say`found: ${numberWords(facts['tolerance'] ?? 0, 1)}` : say`tolerance ${numberWords(step.tolerance, 1)}`;
      return step.enclosed ? `${tolerance} · ${counted(facts['enclosed'] ?? 0, say('enclosed area'), say('enclosed areas'))}` : tolerance;
    }
    case 'colourLift':
      return say`${step.colour} and up to ${numberWords(step.tolerance, 1)} from it`;
    case 'rubOut':
    case 'bringBack':
    case 'drawIn':
      return counted(step.strokes.length, say('stroke'), say('strokes'));
    case 'sweep':
      return say`specks under ${formatArea(step.speckMm2, unit)} · ${grouped(facts['specks'] ?? 0)} found`;
  }
}
