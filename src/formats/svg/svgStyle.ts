import { formatHex, parse } from 'culori';
import type { OffsetCorners, StrokeEnds } from '../../core/combine/offsetCurves.ts';
import { lengthOf } from './svgLength.ts';
import type { SvgNode } from './svgTree.ts';

/** How an element is painted; what it does not say is that of the element around it. */
export interface SvgPaint {
  /** `#rrggbb`, or undefined where it is not filled. */
  readonly fill: string | undefined;
  readonly stroke: string | undefined;
  readonly strokeWidth: number;
  readonly strokeCorners: OffsetCorners;
  readonly strokeEnds: StrokeEnds;
  readonly evenOdd: boolean;
  readonly isShown: boolean;
}

export const FIRST_PAINT: SvgPaint = { fill: '#000000', stroke: undefined, strokeWidth: 1, strokeCorners: 'sharp', strokeEnds: 'flat', evenOdd: false, isShown: true };

const CORNERS: Readonly<Record<string, OffsetCorners>> = { round: 'round', miter: 'sharp', bevel: 'flat' };
const ENDS: Readonly<Record<string, StrokeEnds>> = { round: 'round', butt: 'flat', square: 'square' };

/** Rules of the style sheets in a drawing: by element, class or id, as drawing programs write them. */
export interface StyleRules {
  readonly of: ReadonlyMap<string, Readonly<Record<string, string>>>;
  /** Selectors of other kinds, which are left out. */
  readonly others: number;
}

const SELECTOR = /^(?:[a-zA-Z]+|[.#][\w-]+)$/;
const MOST_RULES = 5000;

export function styleRules(root: SvgNode): StyleRules {
  const of = new Map<string, Record<string, string>>();
  let others = 0;
  const visit = (node: SvgNode): void => {
    if (node.name === 'style') {
      for (const [, selectors, body] of node.text.replace(/\/\*[\s\S]*?\*\//g, '').matchAll(/([^{}]+)\{([^{}]*)\}/g)) {
        for (const selector of selectors.split(',').map((each) => each.trim())) {
          if (!SELECTOR.test(selector) || of.size >= MOST_RULES) others++;
          else of.set(selector, { ...of.get(selector), ...declarations(body) });
        }
      }
    }
    node.children.forEach(visit);
  };
  visit(root);
  return { of, others };
}

export const declarations = (text: string): Record<string, string> =>
  Object.fromEntries(
    text.split(';').flatMap((each) => {
      const colon = each.indexOf(':');
      return colon < 0 ? [] : [[each.slice(0, colon).trim(), each.slice(colon + 1).replace(/!important/, '').trim()] as const];
    }),
  );

/** The paint of an element: attributes first, then rules by element, class and id, then what its own style says (CSS 2.2, 6.4). */
export function paintOf({ name, attributes }: SvgNode, around: SvgPaint, { of }: StyleRules): SvgPaint {
  const classes = (attributes['class'] ?? '').split(/\s+/).filter((each) => each !== '');
  const said: Record<string, string | undefined> = {
    ...attributes,
    ...of.get(name),
    ...Object.assign({}, ...classes.map((each) => of.get(`.${each}`) ?? {})),
    ...of.get(`#${attributes['id'] ?? ''}`),
    ...declarations(attributes['style'] ?? ''),
  };
  return {
    fill: colourOf(said['fill'], around.fill, said['color']),
    stroke: colourOf(said['stroke'], around.stroke, said['color']),
    strokeWidth: lengthOf(said['stroke-width'], around.strokeWidth),
    strokeCorners: CORNERS[said['stroke-linejoin'] ?? ''] ?? around.strokeCorners,
    strokeEnds: ENDS[said['stroke-linecap'] ?? ''] ?? around.strokeEnds,
    evenOdd: said['fill-rule'] === undefined ? around.evenOdd : said['fill-rule'] === 'evenodd',
    isShown: around.isShown && said['display'] !== 'none' && said['visibility'] !== 'hidden' && said['opacity'] !== '0',
  };
}

/** Gradients and patterns are black: they have no one colour. */
function colourOf(said: string | undefined, around: string | undefined, current: string | undefined): string | undefined {
  if (said === undefined || said === 'inherit') return around;
  if (said === 'none' || said === 'transparent') return undefined;
  const named = said === 'currentColor' || said === 'context-fill' ? (current ?? '#000000') : said;
  return formatHex(parse(named)) ?? '#000000';
}
