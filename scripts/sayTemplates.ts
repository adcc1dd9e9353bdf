/**
 * Texts in templates stay as they are read. This takes them to `say` (src/core/words) when a component is compiled: what an element says between two others
 * becomes one text, `{{ … }}` in it being filled in, and so do the attributes in which a person reads something.
 */
import { NodeTypes, type AttributeNode, type DirectiveNode, type ElementNode, type InterpolationNode, type NodeTransform, type SimpleExpressionNode, type SourceLocation, type TemplateChildNode, type TextNode } from '@vue/compiler-dom';

/** Attributes whose words are read or heard. */
const READ = new Set(['label', 'title', 'aria-label', 'about', 'placeholder', 'suffix', 'alt', 'folded-as', 'of', 'words', 'aside', 'content']);
const hasWords = (text: string): boolean => /\p{L}{2}/u.test(text);

export interface Said {
  /** The English text, `{0}` for what is filled in. */
  readonly text: string;
  /** Source of what is filled in. */
  readonly values: readonly string[];
  readonly loc: SourceLocation;
}

type Piece = TextNode | InterpolationNode;
/** Texts and values that follow each other. */
type Run = readonly Piece[];
const isPiece = (node: TemplateChildNode): node is Piece => node.type === NodeTypes.TEXT || node.type === NodeTypes.INTERPOLATION;
const isRun = (one: Run | TemplateChildNode): one is Run => Array.isArray(one);
const sourceOf = (node: InterpolationNode): string => node.content.loc.source;

/** What a run of texts and values says; undefined when no word of it is written there. */
function saidBy(run: Run): Said | undefined {
  if (!run.some((node) => node.type === NodeTypes.TEXT && hasWords(node.content))) return undefined;
  const values = run.filter((node) => node.type === NodeTypes.INTERPOLATION).map(sourceOf);
  let place = 0;
  const text = run.map((node) => (node.type === NodeTypes.TEXT ? node.content : `{${place++}}`)).join('');
  return { text: text.trim().replaceAll(/\s+/g, ' '), values, loc: run[0].loc };
}

/** Children by runs: texts and values that follow each other, and single nodes of other kinds. */
function runsOf(children: readonly TemplateChildNode[]): (Run | TemplateChildNode)[] {
  const runs: (Piece[] | TemplateChildNode)[] = [];
  for (const child of children) {
    const last = runs.at(-1);
    if (!isPiece(child)) runs.push(child);
    else if (Array.isArray(last)) last.push(child);
    else runs.push([child]);
  }
  return runs;
}

const isRead = (prop: AttributeNode | DirectiveNode): prop is AttributeNode => prop.type === NodeTypes.ATTRIBUTE && READ.has(prop.name) && hasWords(prop.value?.content ?? '');

/** What an element says itself: between its children, and in its attributes. */
export function saidIn(children: readonly TemplateChildNode[], props: readonly (AttributeNode | DirectiveNode)[]): Said[] {
  const between = runsOf(children).map((run) => (isRun(run) ? saidBy(run) : undefined)).filter((said) => said !== undefined);
  return [...between, ...props.filter(isRead).map((prop) => ({ text: prop.value?.content ?? '', values: [], loc: prop.loc }))];
}

const expression = (content: string, loc: SourceLocation, isStatic = false): SimpleExpressionNode => ({ type: NodeTypes.SIMPLE_EXPRESSION, content, isStatic, constType: isStatic ? 3 : 0, loc });

/** A run as one value: the spaces around it stay, what is filled in is compiled as it would be alone. */
function asOne(run: Run): readonly TemplateChildNode[] {
  const said = saidBy(run);
  if (said === undefined) return run;
  const before = run[0].type === NodeTypes.TEXT && /^\s/.test(run[0].content) ? '" " + ' : '';
  const last = run.at(-1) as Piece;
  const after = last.type === NodeTypes.TEXT && /\s$/.test(last.content) ? ' + " "' : '';
  return [{ type: NodeTypes.INTERPOLATION, content: expression(`${before}$say(${[JSON.stringify(said.text), ...said.values.map((value) => `(${value})`)].join(', ')})${after}`, said.loc), loc: said.loc }];
}

function bound(prop: AttributeNode): DirectiveNode {
  // The attributes of an element are compiled before it comes here: the name is written as it is then.
  const exp = expression(`_ctx.$say(${JSON.stringify(prop.value?.content)})`, prop.loc);
  return { type: NodeTypes.DIRECTIVE, name: 'bind', rawName: `:${prop.name}`, arg: expression(prop.name, prop.loc, true), exp, modifiers: [], loc: prop.loc };
}

export const sayTemplates: NodeTransform = (node) => {
  if (node.type !== NodeTypes.ELEMENT && node.type !== NodeTypes.ROOT && node.type !== NodeTypes.IF_BRANCH && node.type !== NodeTypes.FOR) return;
  if (node.type === NodeTypes.ELEMENT) (node as ElementNode).props = node.props.map((prop) => (isRead(prop) ? bound(prop) : prop));
  // In place: a loop and what it was made of hold the same children.
  const children = node.children as TemplateChildNode[];
  children.splice(0, children.length, ...runsOf(children).flatMap((run) => (isRun(run) ? asOne(run) : [run])));
};
