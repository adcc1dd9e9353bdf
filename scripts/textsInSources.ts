/** Finds all texts that a person reads: what `say` is given in scripts, and what is written in templates. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { NodeTypes, type ElementNode, type ExpressionNode, type RootNode, type TemplateChildNode } from '@vue/compiler-dom';
import ts from 'typescript';
import { parse } from 'vue/compiler-sfc';
import { saidIn } from './sayTemplates.ts';

export interface FoundText {
  /** The English text, as it is looked up. */
  readonly text: string;
  readonly file: string;
}

/** Texts of all sources below a folder, those of tests left out, in the order in which they stand there. */
export function textsInSources(folder: string): FoundText[] {
  return scriptsBelow(folder).flatMap(({ file, code, template }) => [...(template === undefined ? [] : inTemplate(template)), ...inScript(code)].map((text) => ({ text, file })));
}

/** The scripts of all sources, and the templates of components. */
function scriptsBelow(folder: string): { readonly file: string; readonly code: string; readonly template?: RootNode | undefined }[] {
  const files = (readdirSync(folder, { recursive: true }) as string[]).filter((name) => /\.(ts|vue)$/.test(name) && !/\.(test|d)\.ts$/.test(name)).sort();
  return files.map((file) => {
    const source = readFileSync(join(folder, file), 'utf8');
    if (!file.endsWith('.vue')) return { file, code: source };
    const { scriptSetup, script, template } = parse(source).descriptor;
    return { file, code: scriptSetup?.content ?? script?.content ?? '', template: template?.ast };
  });
}

function inTemplate(node: RootNode | ElementNode): string[] {
  const props = node.type === NodeTypes.ELEMENT ? node.props : [];
  const expressions = props.flatMap((prop) => (prop.type === NodeTypes.DIRECTIVE ? inExpression(prop.exp) : []));
  const inner = (node.children as TemplateChildNode[]).flatMap((child) => {
    if (child.type === NodeTypes.INTERPOLATION) return inExpression(child.content);
    return child.type === NodeTypes.ELEMENT ? inTemplate(child) : [];
  });
  return [...saidIn(node.children as TemplateChildNode[], props).map(({ text }) => text), ...expressions, ...inner];
}

const inExpression = (expression: ExpressionNode | undefined): string[] => (expression === undefined ? [] : inScript(`(${expression.loc.source})`));

/** What `say`, `$say` and `sayOf` are given in a script. */
function inScript(code: string): string[] {
  const found: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isTaggedTemplateExpression(node) && isSay(node.tag)) found.push(keyOf(node.template));
    if (ts.isCallExpression(node) && isSay(node.expression) && ts.isStringLiteralLike(node.arguments[0])) found.push(node.arguments[0].text);
    if (ts.isCallExpression(node) && node.expression.getText() === 'sayOf') {
      const [about, text] = node.arguments;
      if (ts.isStringLiteralLike(about) && ts.isStringLiteralLike(text)) found.push(`${text.text} (${about.text})`);
    }
    ts.forEachChild(node, visit);
  };
  visit(ts.createSourceFile('texts.ts', code, ts.ScriptTarget.Latest, true));
  return found;
}

const isSay = (node: ts.Node): boolean => ['say', '$say'].includes(node.getText());
const keyOf = (template: ts.TemplateLiteral): string => (ts.isNoSubstitutionTemplateLiteral(template) ? template.text : template.templateSpans.reduce((before, { literal }, k) => `${before}{${k}}${literal.text}`, template.head.text));

/** Sentences in the scripts below a folder that do not go through `say`. */
export const unsaidIn = (folder: string): FoundText[] => scriptsBelow(folder).flatMap(({ file, code }) => unsaid(code).map((text) => ({ text, file })));

/** Literals that read like words of a sentence and do not go through `say`. What says why a failure is of no matter is for those who read the code. */
export function unsaid(code: string): string[] {
  const found: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isTypeNode(node) || ts.isThrowStatement(node) || isReason(node)) return;
    if (ts.isStringLiteral(node) && SENTENCE.test(node.text) && !isSaid(node)) found.push(node.text);
    ts.forEachChild(node, visit);
  };
  visit(ts.createSourceFile('unsaid.ts', code, ts.ScriptTarget.Latest, true));
  return found;
}

/** Two words and more, or two and the end of a sentence; not the names of a style sheet or of a table. */
const SENTENCE = /^“?\p{L}[\p{L}’-]+,? \p{L}[\p{L}’-]+( |[.…:]?$)/u;
/** `catch(() => 'why that does not matter')`, and names of injections. */
const isReason = (node: ts.Node): boolean => ts.isCallExpression(node) && /(\.catch|Symbol)$/.test(node.expression.getText());
const isSaid = ({ parent }: ts.Node): boolean => ts.isCallExpression(parent) && /^\$?say(Of)?$/.test(parent.expression.getText());
