import { readFileSync } from 'node:fs';
import ts from 'typescript';
import { parse as parseComponent } from 'vue/compiler-sfc';

/** A text that a reader may see, with the line it stands on; what is filled in is written as an ellipsis. */
export interface SourceText {
  line: number;
  text: string;
}

/** Properties whose value is read by people even where it is a single word. */
const READ = new Set(
  'label title text name meaning formula use note empty example placeholder what words one many heading unit describe description'.split(
    ' ',
  ),
);
/** Attributes that a reader sees or hears even where they are a single word. */
const SHOWN = new Set('title label alt placeholder content description aria-label lead hint'.split(' '));
/** Attributes with blanks that nobody reads. */
const WIRED = new Set('class style id d points viewBox transform href media rel accept allow'.split(' '));

const FILLED = '…';
/** Words with a blank between them, or a word that begins like a sentence. */
const reads = (text: string) =>
  /\p{L}{2,}.*\s|\s.*\p{L}{2,}/u.test(text.trim() === text ? text : ` ${text}`) && /\p{L}{2}/u.test(text);

const propertyName = (node: ts.Node): string | null => {
  const { parent } = node;
  if (parent && ts.isPropertyAssignment(parent) && parent.initializer === node) return parent.name.getText();
  if (parent && (ts.isConditionalExpression(parent) || ts.isParenthesizedExpression(parent)))
    return propertyName(parent);
  if (parent && ts.isBinaryExpression(parent) && /^(\?\?|\|\|)$/.test(parent.operatorToken.getText()))
    return propertyName(parent);
  return null;
};

/** Strings that only the program reads: modules, types, keys, cases, comparisons. */
function isWiring(node: ts.Node): boolean {
  const { parent } = node;
  return (
    ts.isImportDeclaration(parent) ||
    ts.isExportDeclaration(parent) ||
    ts.isLiteralTypeNode(parent) ||
    ts.isTemplateLiteralTypeNode(parent) ||
    ts.isCaseClause(parent) ||
    ts.isElementAccessExpression(parent) ||
    ts.isExternalModuleReference(parent) ||
    ts.isImportTypeNode(parent) ||
    (ts.isPropertyAssignment(parent) && parent.name === node) ||
    (ts.isBinaryExpression(parent) && /^[!=]==?$/.test(parent.operatorToken.getText())) ||
    (ts.isCallExpression(parent) &&
      /(\.|^)(split|join|includes|startsWith|endsWith|querySelector|querySelectorAll|getElementById|RegExp|fetch|sql|describe|import)$/.test(
        parent.expression.getText(),
      ))
  );
}

/** The texts of a module. */
export function textsOfScript(source: string, firstLine = 1): SourceText[] {
  const file = ts.createSourceFile('module.ts', source, ts.ScriptTarget.Latest, true);
  const found: SourceText[] = [];
  const lineOf = (node: ts.Node) => file.getLineAndCharacterOfPosition(node.getStart()).line + firstLine;
  const add = (node: ts.Node, text: string) => {
    if (isWiring(node)) return;
    if (reads(text) || (READ.has(propertyName(node) ?? '') && /\p{L}/u.test(text)))
      found.push({ line: lineOf(node), text });
  };
  const visit = (node: ts.Node): void => {
    if (ts.isTaggedTemplateExpression(node) && node.tag.getText() === 'sql') return;
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) add(node, node.text);
    else if (ts.isTemplateExpression(node))
      add(node, node.head.text + node.templateSpans.map(({ literal }) => FILLED + literal.text).join(''));
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

interface TemplateNode {
  type: number;
  content?: unknown;
  loc: { start: { line: number }; source: string };
  children?: TemplateNode[];
  branches?: TemplateNode[];
  props?: TemplateNode[];
  name?: string;
  value?: { content: string };
  arg?: { content?: string };
  exp?: { content?: string };
}
const [ELEMENT, TEXT, INTERPOLATION, ATTRIBUTE, DIRECTIVE] = [1, 2, 5, 6, 7];

const ofExpression = (source: string, line: number): SourceText[] => textsOfScript(`(${source})`, line);

const isRead = (name: string, text: string) => !WIRED.has(name) && (SHOWN.has(name) || reads(text));

/** One line of prose out of text nodes and what is filled in between them. */
function textsOfTemplate(node: TemplateNode): SourceText[] {
  const found: SourceText[] = [];
  for (const prop of node.props ?? []) {
    const { line } = prop.loc.start;
    if (prop.type === ATTRIBUTE && prop.value && isRead(prop.name!, prop.value.content))
      found.push({ line, text: prop.value.content });
    else if (prop.type === DIRECTIVE && prop.exp?.content && prop.name !== 'for' && prop.name !== 'slot')
      found.push(...(prop.name === 'on' ? ofHandler : ofExpression)(prop.exp.content, line));
  }
  let prose = '';
  let proseLine = 0;
  const flush = () => {
    const text = prose.replace(/\s+/g, ' ').trim();
    if (/\p{L}/u.test(text.replaceAll(FILLED, ''))) found.push({ line: proseLine, text });
    prose = '';
  };
  for (const child of node.children ?? []) {
    if (child.type === TEXT || child.type === INTERPOLATION) {
      if (!prose.trim()) proseLine = child.loc.start.line;
      if (child.type === TEXT) prose += child.content as string;
      else {
        prose += FILLED;
        found.push(...ofExpression((child.content as { content: string }).content, child.loc.start.line));
      }
    } else {
      flush();
      if (child.type === ELEMENT) found.push(...textsOfTemplate(child));
    }
  }
  flush();
  return found;
}

const ofHandler = (source: string, line: number): SourceText[] => textsOfScript(source, line);

/** The texts of a component: of its template and of its script, in the order of the file. */
export function textsOfComponent(source: string): SourceText[] {
  const { descriptor } = parseComponent(source);
  const { template, script, scriptSetup } = descriptor;
  const scripts = [script, scriptSetup].flatMap((block) =>
    block ? textsOfScript(block.content, block.loc.start.line) : [],
  );
  const shown = template?.ast ? textsOfTemplate(template.ast as unknown as TemplateNode) : [];
  return [...scripts, ...shown].sort((a, b) => a.line - b.line);
}

/** The texts of a source file. */
export const textsOfFile = (path: string): SourceText[] => {
  const source = readFileSync(path, 'utf8');
  return path.endsWith('.vue') ? textsOfComponent(source) : textsOfScript(source);
};
