import type { PartInDesign } from '../assemble/composeDesign.ts';
import type { Finding } from '../check/cutCheck.ts';
import { boundsOf } from '../outline/curves.ts';
import type { DesignObject } from '../job/objects.ts';

/**
 * Letterings that were turned over, by themselves or with what they lie in: they read backwards on the blank, however the sheet is mirrored. Each is told in the middle of the part of the design that shows it.
 * @returns `size` is the number of signs that read so.
 */
export function backwardsText(objects: readonly DesignObject[], parts: readonly PartInDesign[]): Finding[] {
  const partOf = new Map(parts.map((part) => [part.id, part]));
  return objects.flatMap((object) => within(object, 1, undefined, partOf));
}

function within(object: DesignObject, around: number, shownBy: PartInDesign | undefined, partOf: ReadonlyMap<string, PartInDesign>): Finding[] {
  const part = shownBy ?? partOf.get(object.id);
  const turned = 'placement' in object && object.placement !== undefined ? around * Math.sign(object.placement.a * object.placement.d - object.placement.b * object.placement.c) : around;
  if (object.kind === 'group') return object.objects.flatMap((inner) => within(inner, turned, part, partOf));
  if (object.kind !== 'lettering' || turned > 0) return [];
  const layer = part?.layers.find(({ curves }) => boundsOf(curves) !== undefined);
  const bounds = layer === undefined ? undefined : boundsOf(layer.curves);
  const signs = object.lettering.text.replace(/\s/g, '').length;
  if (layer === undefined || bounds === undefined || signs === 0) return [];
  return [{ kind: 'backwards', filmId: layer.filmId, xMm: (bounds.left + bounds.right) / 2, yMm: (bounds.top + bounds.bottom) / 2, size: signs }];
}
