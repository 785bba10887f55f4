import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative, sep } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';
import type { Plugin } from 'vite';
import type { AnalysisEntry, Methods, MethodEntry, MethodItem } from '../src/help/methods.js';

const CORE = fileURLToPath(new URL('../../core/src', import.meta.url));

/** The chapters of the page, each a folder of the core, in the order of the work. */
const CHAPTERS = [
  ['describe', 'Centre, spread, order and shape'],
  ['distributions/families', 'Families of distributions'],
  ['distributions/fit', 'Estimating the parameters of a family'],
  ['probability-plot', 'Probability plots'],
  ['goodness-of-fit', 'Goodness of fit'],
  ['transform', 'Transformations'],
  ['outliers', 'Outliers'],
  ['claims', 'Claims'],
  ['resampling', 'Bootstrap and permutation'],
  ['simulation', 'Simulation'],
  ['random', 'Random numbers'],
  ['numeric', 'Special functions'],
] as const;

const filesIn = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true })
    .flatMap((entry) => {
      const path = join(folder, entry.name);
      return entry.isDirectory() ? filesIn(path) : path.endsWith('.ts') ? [path] : [];
    })
    .sort();

const titleOf = (name: string) => name.replace(/-/g, ' ').replace(/^./, (first) => first.toUpperCase());
const idOf = (path: string) => relative(CORE, path).replace(/\.ts$/, '').split(sep).join('/');

/** The text of a doc comment: lines joined as they are read, with what it returns and throws in lines of their own. */
function textOf(comment: string): string[] {
  const lines = comment
    .replace(/^\/\*\*|\*\/$/g, '')
    .split('\n')
    .map((line) => line.replace(/^\s*\* ?/, '').trim());
  const said: string[] = [''];
  for (const line of lines) {
    if (line === '' || line.startsWith('@') || line.startsWith('- ')) said.push('');
    const last = said.length - 1;
    const plain = line
      .replace(/^@param (\w+) ?-? ?/, '$1: ')
      .replace(/^@returns? ?/, 'Returns ')
      .replace(/^@throws? ?/, 'Throws ');
    said[last] = `${said[last]} ${plain}`.trim();
  }
  return said.filter(Boolean);
}

function signatureOf(source: ts.SourceFile, node: ts.Node): { name: string; parameters: string } | null {
  const listed = (parameters: ts.NodeArray<ts.ParameterDeclaration>) =>
    `(${parameters.map(({ name }) => (ts.isIdentifier(name) ? name.text : '…')).join(', ')})`;
  if (ts.isFunctionDeclaration(node) && node.name) return { name: node.name.text, parameters: listed(node.parameters) };
  if (!ts.isVariableStatement(node)) return null;
  const [one] = node.declarationList.declarations;
  if (!one || !ts.isIdentifier(one.name)) return null;
  const value = one.initializer;
  const isFunction = value && (ts.isArrowFunction(value) || ts.isFunctionExpression(value));
  return { name: one.name.text, parameters: isFunction ? listed(value.parameters) : '' };
}

const isExported = (node: ts.Node) =>
  ts.canHaveModifiers(node) && !!ts.getModifiers(node)?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword);

/** What of a file has a doc comment of its own; of a family also what is not exported, since the family is made of it. */
function itemsOf(source: ts.SourceFile, all: boolean): MethodItem[] {
  return source.statements.flatMap((node) => {
    const signature = all || isExported(node) ? signatureOf(source, node) : null;
    const comments = ts.getLeadingCommentRanges(source.text, node.getFullStart()) ?? [];
    const last = comments.at(-1);
    const comment = last && source.text.slice(last.pos, last.end);
    return signature && comment?.startsWith('/**') ? [{ ...signature, text: textOf(comment) }] : [];
  });
}

const parsed = (path: string) =>
  ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.ES2022, false, ts.ScriptKind.TS);

/** The files that a file imports, by their paths. */
function importsOf(source: ts.SourceFile): string[] {
  return source.statements.flatMap((node) => {
    if (!ts.isImportDeclaration(node) || node.importClause?.isTypeOnly) return [];
    const { text } = node.moduleSpecifier as ts.StringLiteral;
    return text.startsWith('.') ? [join(dirname(source.fileName), text.replace(/\.js$/, '.ts'))] : [];
  });
}

/** What an analysis is worked out with: what its own files import, and no further. */
function workedWith(path: string, known: ReadonlySet<string>): string[] {
  const seen = new Set<string>();
  const found = new Set<string>();
  const look = (file: string): void => {
    if (seen.has(file)) return;
    seen.add(file);
    for (const imported of importsOf(parsed(file))) {
      const id = idOf(imported);
      if (known.has(id)) found.add(id);
      else if (id.startsWith('analyses/')) look(imported);
    }
  };
  look(path);
  return [...found].sort();
}

function analysesOf(known: ReadonlySet<string>): AnalysisEntry[] {
  return filesIn(join(CORE, 'analyses')).flatMap((path) => {
    const source = parsed(path);
    const [, id] = /defineAnalysis[\s\S]*?\(\s*\{\s*id: '([\w-]+)'/.exec(source.text) ?? [];
    if (!id) return [];
    const [own] = itemsOf(source, false).filter(({ name }) => name.endsWith('Analysis'));
    return [{ id, text: own?.text ?? [], with: workedWith(path, known) }];
  });
}

/** One entry a method, from the doc comments of the core itself. */
export function methodsOf(): Methods {
  const chapters = CHAPTERS.map(([folder, title]) => {
    const entries = filesIn(join(CORE, folder)).flatMap((path): MethodEntry[] => {
      const id = idOf(path);
      const items = itemsOf(parsed(path), folder === 'distributions/families');
      return items.length ? [{ id, title: titleOf(id.split('/').at(-1)!), items }] : [];
    });
    return { title, entries };
  });
  const known = new Set(chapters.flatMap(({ entries }) => entries.map(({ id }) => id)));
  return { chapters, analyses: analysesOf(known) };
}

const NAME = 'virtual:methods';

/** Makes the methods of the core a module of the page: `virtual:methods`. */
export const methods = (): Plugin => ({
  name: 'methods-of-the-core',
  resolveId: (id) => (id === NAME ? `\0${NAME}` : null),
  load: (id) => (id === `\0${NAME}` ? `export default ${JSON.stringify(methodsOf())}` : null),
});
