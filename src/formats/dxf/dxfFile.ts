import { AppError } from '../../core/errors/appError.ts';
import { say } from '../../core/words/say.ts';

/** A group of a DXF file: its code says what the value is. */
export interface DxfGroup {
  readonly code: number;
  readonly value: string;
}

/** An entity: its kind and its groups in their order; a polyline of the old kind has its vertices with it. */
export interface DxfEntity {
  readonly kind: string;
  readonly groups: readonly DxfGroup[];
  readonly vertices: readonly DxfEntity[];
}

export interface DxfBlock {
  readonly x: number;
  readonly y: number;
  readonly entities: readonly DxfEntity[];
}

/** What of a DXF file holds outlines. */
export interface DxfFile {
  /** Variables of the header by their names, each with its groups. */
  readonly header: ReadonlyMap<string, readonly DxfGroup[]>;
  /** Colour numbers of the layers, and true colours where they have one. */
  readonly layerColours: ReadonlyMap<string, { readonly index: number; readonly rgb: number | undefined }>;
  readonly blocks: ReadonlyMap<string, DxfBlock>;
  readonly entities: readonly DxfEntity[];
}

const MOST_GROUPS = 8_000_000;

/** A number of an entity's groups; the first with the code. */
export function numberOf({ groups }: Pick<DxfEntity, 'groups'>, code: number, otherwise: number): number {
  const value = groups.find((group) => group.code === code)?.value;
  const number = value === undefined ? Number.NaN : Number(value);
  return Number.isFinite(number) ? number : otherwise;
}

export const textOf = ({ groups }: Pick<DxfEntity, 'groups'>, code: number): string | undefined => groups.find((group) => group.code === code)?.value;

/** All numbers with a code, in their order. */
export const numbersOf = ({ groups }: Pick<DxfEntity, 'groups'>, code: number): number[] => groups.flatMap((group) => (group.code === code && Number.isFinite(Number(group.value)) ? [Number(group.value)] : []));

/**
 * Reads the sections of a text DXF (Autodesk, "DXF Reference") in one pass: what is cut off or damaged ends what it is in.
 * @throws AppError `badDrawing` for what is no DXF, `tooIntricate`.
 */
export function dxfFile(text: string, file: string): DxfFile {
  const groups = groupsOf(text, file);
  const header = new Map<string, DxfGroup[]>();
  const layerColours = new Map<string, { index: number; rgb: number | undefined }>();
  const blocks = new Map<string, DxfBlock>();
  let entities: readonly DxfEntity[] = [];
  for (const { name, from, to } of sectionsOf(groups)) {
    if (name === 'HEADER') readHeader(groups, from, to, header);
    else if (name === 'TABLES') for (const entity of entitiesOf(groups, from, to)) if (entity.kind === 'LAYER') layerColours.set(textOf(entity, 2) ?? '', { index: Math.abs(numberOf(entity, 62, 7)), rgb: trueColour(entity) });
    if (name === 'BLOCKS') readBlocks(entitiesOf(groups, from, to), blocks);
    else if (name === 'ENTITIES') entities = withVertices(entitiesOf(groups, from, to));
  }
  return { header, layerColours, blocks, entities };
}

export function trueColour(entity: Pick<DxfEntity, 'groups'>): number | undefined {
  const rgb = numberOf(entity, 420, -1);
  return rgb < 0 ? undefined : rgb & 0xffffff;
}

function groupsOf(text: string, file: string): DxfGroup[] {
  const lines = text.split(/\r\n|\r|\n/);
  if (lines.length / 2 > MOST_GROUPS) throw new AppError('tooIntricate', { count: Math.floor(lines.length / 2), limit: MOST_GROUPS });
  const groups: DxfGroup[] = [];
  for (let k = 0; k + 1 < lines.length; k += 2) {
    const code = Number(lines[k].trim());
    // A line that is no code: everything after it would be read out of step.
    if (lines[k].trim() === '' || !Number.isInteger(code)) break;
    groups.push({ code, value: lines[k + 1].trim() });
  }
  if (!groups.some(({ code, value }) => code === 0 && value === 'SECTION')) throw new AppError('badDrawing', { file, reason: say('it has no sections of a DXF') });
  return groups;
}

function sectionsOf(groups: readonly DxfGroup[]): { name: string; from: number; to: number }[] {
  const sections: { name: string; from: number; to: number }[] = [];
  for (let k = 0; k < groups.length; k++) {
    if (groups[k].code !== 0 || groups[k].value !== 'SECTION') continue;
    let to = k + 2;
    while (to < groups.length && !(groups[to].code === 0 && (groups[to].value === 'ENDSEC' || groups[to].value === 'SECTION'))) to++;
    sections.push({ name: groups[k + 1]?.value ?? '', from: k + 2, to });
    k = to - 1;
  }
  return sections;
}

function readHeader(groups: readonly DxfGroup[], from: number, to: number, header: Map<string, DxfGroup[]>): void {
  let own: DxfGroup[] | undefined;
  for (let k = from; k < to; k++) {
    if (groups[k].code === 9) header.set(groups[k].value, (own = []));
    else own?.push(groups[k]);
  }
}

function entitiesOf(groups: readonly DxfGroup[], from: number, to: number): DxfEntity[] {
  const entities: { kind: string; groups: DxfGroup[]; vertices: DxfEntity[] }[] = [];
  for (let k = from; k < to; k++) {
    if (groups[k].code === 0) entities.push({ kind: groups[k].value, groups: [], vertices: [] });
    else entities[entities.length - 1]?.groups.push(groups[k]);
  }
  return entities;
}

/** Gives polylines of the old kind their vertices, which come after them. */
function withVertices(entities: readonly DxfEntity[]): DxfEntity[] {
  const out: DxfEntity[] = [];
  let vertices: DxfEntity[] | undefined;
  for (const entity of entities) {
    if (entity.kind === 'VERTEX') vertices?.push(entity);
    else if (entity.kind === 'POLYLINE') out.push({ ...entity, vertices: (vertices = []) });
    else {
      vertices = undefined;
      if (entity.kind !== 'SEQEND') out.push(entity);
    }
  }
  return out;
}

function readBlocks(entities: readonly DxfEntity[], blocks: Map<string, DxfBlock>): void {
  let inside: DxfEntity[] | undefined;
  let begun: DxfEntity | undefined;
  for (const entity of entities) {
    if (entity.kind === 'BLOCK') {
      begun = entity;
      inside = [];
    } else if (entity.kind === 'ENDBLK') {
      if (begun !== undefined && inside !== undefined) blocks.set(textOf(begun, 2) ?? '', { x: numberOf(begun, 10, 0), y: numberOf(begun, 20, 0), entities: withVertices(inside) });
      begun = inside = undefined;
    } else inside?.push(entity);
  }
}
