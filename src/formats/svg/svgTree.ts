import { SaxesParser } from 'saxes';
import { AppError } from '../../core/errors/appError.ts';
import { grouped, say } from '../../core/words/say.ts';

/** An element of a drawing. */
export interface SvgNode {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly SvgNode[];
  /** Text directly in it. */
  readonly text: string;
}

const MAX_BYTES = 20_000_000;
const MAX_DEPTH = 200;
const MAX_ELEMENTS = 200_000;

interface OpenNode {
  readonly name: string;
  readonly attributes: Record<string, string>;
  readonly children: SvgNode[];
  text: string;
}

/**
 * Reads an SVG file as a tree of elements, names without their prefixes. Nothing is fetched, run or expanded: an entity that XML does not have is a fault.
 * @throws AppError `fileTooLarge`, `badDrawing`.
 */
export function svgTree(bytes: Uint8Array, file: string): SvgNode {
  if (bytes.length > MAX_BYTES) throw new AppError('fileTooLarge', { file, megabytes: Math.ceil(bytes.length / 1e6), limitMegabytes: MAX_BYTES / 1e6 });
  const parser = new SaxesParser();
  const open: OpenNode[] = [];
  let root: SvgNode | undefined;
  let elements = 0;
  const refuse = (reason: string): never => {
    throw new AppError('badDrawing', { file, reason });
  };
  parser.on('error', (error) => refuse(error.message));
  parser.on('opentag', ({ name, attributes }) => {
    if (open.length >= MAX_DEPTH) refuse(say`its elements lie more than ${MAX_DEPTH} deep in each other`);
    if (++elements > MAX_ELEMENTS) refuse(say`it has more than ${grouped(MAX_ELEMENTS)} elements`);
    const own = Object.fromEntries(Object.entries(attributes as Record<string, string>).map(([key, value]) => [key === 'xlink:href' ? 'href' : key, value]));
    open.push({ name: name.slice(name.indexOf(':') + 1), attributes: own, children: [], text: '' });
  });
  parser.on('text', (text) => {
    const last = open[open.length - 1];
    if (last !== undefined) last.text += text;
  });
  parser.on('cdata', (text) => {
    const last = open[open.length - 1];
    if (last !== undefined) last.text += text;
  });
  parser.on('closetag', () => {
    const done = open.pop();
    if (done === undefined) return;
    const around = open[open.length - 1];
    if (around === undefined) root ??= done;
    else around.children.push(done);
  });
  parser.write(new TextDecoder().decode(bytes)).close();
  if (root?.name !== 'svg') throw new AppError('badDrawing', { file, reason: say('its first element is not svg') });
  return root;
}
