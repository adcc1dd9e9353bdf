import { DxfText } from './dxfText.ts';

/** A layer as the table names it. */
export interface DxfLayerRecord {
  readonly name: string;
  /** Number in the format's fixed palette, and 0xrrggbb. */
  readonly index: number;
  readonly rgb: number;
}

/** Corners of the sheet, mm, y up. */
export interface DxfExtent {
  readonly widthMm: number;
  readonly heightMm: number;
}

/**
 * A whole DXF file of release 2000 (AC1015, Autodesk's published reference) around the entities of its model space: header, tables, blocks and objects, every
 * record with a handle and its owner, as strict readers want them.
 * @param draw puts the entities; it is given the handle of the block that owns them.
 */
export function dxfFile(layers: readonly DxfLayerRecord[], extent: DxfExtent, draw: (text: DxfText, owner: string) => void): string {
  const text = new DxfText();
  const names = { model: text.handle(), paper: text.handle(), root: text.handle(), groups: text.handle(), layouts: text.handle(), modelLayout: text.handle(), paperLayout: text.handle() };
  const body = new DxfText();
  // Handles come from one place, whichever part is written first.
  body.handle = () => text.handle();
  tables(body, layers, extent, names);
  blocks(body, names);
  body.put(0, 'SECTION', 2, 'ENTITIES');
  draw(body, names.model);
  body.put(0, 'ENDSEC');
  objects(body, names);
  body.put(0, 'EOF');
  text.put(0, 'SECTION', 2, 'HEADER', 9, '$ACADVER', 1, 'AC1015', 9, '$DWGCODEPAGE', 3, 'ANSI_1252', 9, '$INSUNITS', 70, 4, 9, '$MEASUREMENT', 70, 1, 9, '$EXTMIN', 10, 0, 20, 0, 30, 0, 9, '$EXTMAX', 10, extent.widthMm, 20, extent.heightMm, 30, 0, 9, '$HANDSEED', 5, text.handle(), 0, 'ENDSEC');
  text.put(0, 'SECTION', 2, 'CLASSES', 0, 'ENDSEC');
  text.append(body);
  return text.toString();
}

interface Handles {
  readonly model: string;
  readonly paper: string;
  readonly root: string;
  readonly groups: string;
  readonly layouts: string;
  readonly modelLayout: string;
  readonly paperLayout: string;
}

function tables(text: DxfText, layers: readonly DxfLayerRecord[], extent: DxfExtent, names: Handles): void {
  const table = (name: string, records: readonly ((owner: string) => void)[], extra: readonly (string | number)[] = []): void => {
    const owner = text.handle();
    text.put(0, 'TABLE', 2, name, 5, owner, 330, '0', 100, 'AcDbSymbolTable', 70, records.length, ...extra);
    for (const record of records) record(owner);
    text.put(0, 'ENDTAB');
  };
  const record = (kind: string, subclass: string, handleCode: number, ...pairs: readonly (string | number)[]) => (owner: string): void =>
    text.put(0, kind, handleCode, text.handle(), 330, owner, 100, 'AcDbSymbolTableRecord', 100, subclass, ...pairs);
  const lineType = (name: string) => record('LTYPE', 'AcDbLinetypeTableRecord', 5, 2, name, 70, 0, 3, '', 72, 65, 73, 0, 40, 0);
  const layer = ({ name, index, rgb }: DxfLayerRecord) => record('LAYER', 'AcDbLayerTableRecord', 5, 2, name, 70, 0, 62, index, 420, rgb, 6, 'Continuous');
  text.put(0, 'SECTION', 2, 'TABLES');
  const { widthMm, heightMm } = extent;
  table('VPORT', [record('VPORT', 'AcDbViewportTableRecord', 5, 2, '*Active', 70, 0, 10, 0, 20, 0, 11, 1, 21, 1, 12, widthMm / 2, 22, heightMm / 2, 13, 0, 23, 0, 14, 10, 24, 10, 15, 10, 25, 10, 16, 0, 26, 0, 36, 1, 17, 0, 27, 0, 37, 0, 40, heightMm, 41, widthMm / heightMm, 42, 50, 43, 0, 44, 0, 50, 0, 51, 0, 71, 0, 72, 1000, 73, 1, 74, 3, 75, 0, 76, 0, 77, 0, 78, 0)]);
  table('LTYPE', [lineType('ByBlock'), lineType('ByLayer'), lineType('Continuous')]);
  table('LAYER', [layer({ name: '0', index: 7, rgb: 0xffffff }), ...layers.map(layer)]);
  table('STYLE', [record('STYLE', 'AcDbTextStyleTableRecord', 5, 2, 'Standard', 70, 0, 40, 0, 41, 1, 50, 0, 71, 0, 42, 2.5, 3, 'txt', 4, '')]);
  table('VIEW', []);
  table('UCS', []);
  table('APPID', [record('APPID', 'AcDbRegAppTableRecord', 5, 2, 'ACAD', 70, 0)]);
  table('DIMSTYLE', [record('DIMSTYLE', 'AcDbDimStyleTableRecord', 105, 2, 'Standard', 70, 0)], [100, 'AcDbDimStyleTable']);
  // Entities name these two as their owners, so that their handles are known beforehand.
  const block = (name: string, handle: string, layout: string) => (owner: string): void => text.put(0, 'BLOCK_RECORD', 5, handle, 330, owner, 100, 'AcDbSymbolTableRecord', 100, 'AcDbBlockTableRecord', 2, name, 340, layout);
  table('BLOCK_RECORD', [block('*Model_Space', names.model, names.modelLayout), block('*Paper_Space', names.paper, names.paperLayout)]);
  text.put(0, 'ENDSEC');
}

function blocks(text: DxfText, { model, paper }: Handles): void {
  text.put(0, 'SECTION', 2, 'BLOCKS');
  for (const [name, owner] of [['*Model_Space', model], ['*Paper_Space', paper]]) {
    text.put(0, 'BLOCK', 5, text.handle(), 330, owner, 100, 'AcDbEntity', 8, '0', 100, 'AcDbBlockBegin', 2, name, 70, 0, 10, 0, 20, 0, 30, 0, 3, name, 1, '');
    text.put(0, 'ENDBLK', 5, text.handle(), 330, owner, 100, 'AcDbEntity', 8, '0', 100, 'AcDbBlockEnd');
  }
  text.put(0, 'ENDSEC');
}

function objects(text: DxfText, names: Handles): void {
  const dictionary = (handle: string, owner: string, ...entries: readonly (readonly [string, string])[]): void =>
    text.put(0, 'DICTIONARY', 5, handle, 330, owner, 100, 'AcDbDictionary', 281, 1, ...entries.flatMap(([name, at]) => [3, name, 350, at]));
  const layout = (handle: string, name: string, order: number, block: string): void =>
    text.put(0, 'LAYOUT', 5, handle, 330, names.layouts, 100, 'AcDbPlotSettings', 1, '', 2, '', 4, '', 6, '', 40, 0, 41, 0, 42, 0, 43, 0, 44, 0, 45, 0, 46, 0, 47, 0, 48, 0, 49, 0, 140, 0, 141, 0, 142, 1, 143, 1, 70, 688, 72, 1, 73, 0, 74, 5, 7, '', 75, 16, 147, 1, 148, 0, 149, 0, 100, 'AcDbLayout', 1, name, 70, 1, 71, order, 10, 0, 20, 0, 11, 420, 21, 297, 12, 0, 22, 0, 32, 0, 14, 0, 24, 0, 34, 0, 15, 0, 25, 0, 35, 0, 146, 0, 13, 0, 23, 0, 33, 0, 16, 1, 26, 0, 36, 0, 17, 0, 27, 1, 37, 0, 76, 0, 330, block);
  text.put(0, 'SECTION', 2, 'OBJECTS');
  dictionary(names.root, '0', ['ACAD_GROUP', names.groups], ['ACAD_LAYOUT', names.layouts]);
  dictionary(names.groups, names.root);
  dictionary(names.layouts, names.root, ['Model', names.modelLayout], ['Layout1', names.paperLayout]);
  layout(names.modelLayout, 'Model', 0, names.model);
  layout(names.paperLayout, 'Layout1', 1, names.paper);
  text.put(0, 'ENDSEC');
}
