import { create, parseDependencies, type MathNode } from 'mathjs/number';
import { FUNCTIONS, isFunctionName } from './functions.js';

/** Only the parser of the library is used: what it reads is worked out by evaluate.ts, from a closed list of operations. */
const { parse } = create(parseDependencies!, {}) as unknown as { parse: (text: string) => MathNode };

export interface NamedColumn {
  id: string;
  name: string;
  kind?: string;
}

/** What is wrong with a formula, and at which character of the typed text (from 0). */
export interface FormulaFault {
  ok: false;
  at: number;
  message: string;
}

export interface ReadFormula {
  ok: true;
  /** The formula with every column as [id]: what is stored. */
  stored: string;
  /** The ids of the columns it looks at. */
  uses: string[];
  /** The parsed expression; column k of `uses` is the symbol `c_k`. */
  node: MathNode;
}

/** Words that are no columns unless a column bears the name. */
export const CONSTANTS: Readonly<Record<string, number>> = { pi: Math.PI, e: Math.E };
const WORDS = new Set(['and', 'or', 'not', 'xor', 'mod', 'row', ...Object.keys(CONSTANTS)]);

const TOKEN =
  /"[^"]*"?|'[^']*'?|\[[^\]]*\]?|(?<![\p{L}\p{N}_.])[\p{L}_][\p{L}\p{N}_]*|\d+(?:\.\d*)?(?:[eE][+-]?\d+)?/gu;

interface Piece {
  typed: number;
  symbolic: number;
}

interface Rewritten {
  symbolic: string;
  stored: string;
  uses: string[];
  /** Where each piece begins in the typed text and in the symbolic one. */
  pieces: Piece[];
}

const fault = (at: number, message: string): FormulaFault => ({ ok: false, at, message });

const sameName = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();

function nearestName(word: string, columns: readonly NamedColumn[]): string {
  const close = columns.find(({ name }) => name.toLowerCase().startsWith(word.toLowerCase().slice(0, 3)));
  return close ? ` Was ${bracketed(close.name)} meant?` : '';
}

/** Replaces the columns of a typed formula by symbols for the parser and by ids for the store. */
function rewrite(typed: string, columns: readonly NamedColumn[]): Rewritten | FormulaFault {
  const found: Rewritten = { symbolic: '', stored: '', uses: [], pieces: [] };
  let done = 0;
  const plain = (to: number) => {
    found.pieces.push({ typed: done, symbolic: found.symbolic.length });
    found.symbolic += typed.slice(done, to);
    found.stored += typed.slice(done, to);
    done = to;
  };
  for (const match of typed.matchAll(TOKEN)) {
    const [token] = match;
    const at = match.index;
    const inBrackets = token.startsWith('[');
    if (!inBrackets && !/^[\p{L}_]/u.test(token)) continue;
    if (inBrackets && !token.endsWith(']')) return fault(at, 'The bracket “[” is not closed.');
    const name = inBrackets ? token.slice(1, -1) : token;
    const called = !inBrackets && /^\s*\(/.test(typed.slice(at + token.length));
    const column = called ? undefined : columns.find((c) => c.id === name || sameName(c.name, name));
    if (!column) {
      if (!inBrackets && WORDS.has(token)) continue;
      if (called && !isFunctionName(token)) return fault(at, unknownFunction(token));
      if (called) continue;
      return fault(at, `There is no column “${name}”.${nearestName(name, columns)}`);
    }
    plain(at);
    if (!found.uses.includes(column.id)) found.uses.push(column.id);
    found.pieces.push({ typed: at, symbolic: found.symbolic.length });
    found.symbolic += `c_${found.uses.indexOf(column.id)}`;
    found.stored += `[${column.id}]`;
    done = at + token.length;
  }
  plain(typed.length);
  return found;
}

function unknownFunction(name: string): string {
  if (name === 'log') return '“log” is ambiguous. Write ln or log10.';
  return `There is no function “${name}”. There are ${Object.keys(FUNCTIONS).join(', ')}.`;
}

/** The typed place of a place in the symbolic text. */
function typedPlace({ pieces }: Rewritten, symbolic: number, length: number): number {
  const piece = [...pieces].reverse().find((p) => p.symbolic <= symbolic) ?? { typed: 0, symbolic: 0 };
  return Math.max(0, Math.min(length, piece.typed + symbolic - piece.symbolic));
}

const OPERATORS = new Set([
  ...['add', 'subtract', 'multiply', 'divide', 'pow', 'mod', 'unaryMinus', 'unaryPlus'],
  ...['smaller', 'smallerEq', 'larger', 'largerEq', 'equal', 'unequal', 'and', 'or', 'xor', 'not'],
]);

const NODES = new Set([
  'ConstantNode',
  'SymbolNode',
  'ParenthesisNode',
  'OperatorNode',
  'ConditionalNode',
  'RelationalNode',
  'FunctionNode',
]);

/** What in the parsed expression is outside the closed list, with a text to look for its place; null when nothing is. */
function objection(node: MathNode): { near: string; message: string } | null {
  let first: { near: string; message: string } | null = null;
  node.traverse((part: MathNode) => {
    first ??= partObjection(part);
  });
  return first;
}

interface AnyNode {
  type: string;
  op?: string;
  fn?: string | { name: string };
  args?: MathNode[];
}

function partObjection(part: MathNode): { near: string; message: string } | null {
  const { type, op, fn, args = [] } = part as unknown as AnyNode;
  if (type === 'AssignmentNode' || type === 'FunctionAssignmentNode') {
    return { near: '=', message: 'A formula cannot contain =. To compare, write ==.' };
  }
  if (type === 'BlockNode') return { near: ';', message: 'A formula must be a single expression.' };
  if (!NODES.has(type)) return { near: '', message: 'This kind of expression is not allowed in a formula.' };
  if (type === 'OperatorNode' && !OPERATORS.has(fn as string)) {
    return { near: op ?? '', message: `The operator “${op}” is not allowed in a formula.` };
  }
  if (type === 'FunctionNode') {
    const name = (fn as { name: string }).name;
    const known = isFunctionName(name) ? FUNCTIONS[name] : null;
    if (!known) return { near: name, message: unknownFunction(name) };
    if (args.length < known.least || args.length > known.most) {
      return { near: name, message: `${name} is written ${known.written}.` };
    }
  }
  return null;
}

/**
 * Reads a formula over columns. Columns are written by name, in square brackets where the name is no single word: `[breaking force] / 2`.
 * A fault says the character it is at.
 */
export function readFormula(typed: string, columns: readonly NamedColumn[]): ReadFormula | FormulaFault {
  if (typed.trim() === '') return fault(0, 'The formula is empty.');
  const rewritten = rewrite(typed, columns);
  if ('ok' in rewritten) return rewritten;
  let node: MathNode;
  try {
    node = parse(rewritten.symbolic);
  } catch (error) {
    const { char = 1, message } = error as Error & { char?: number };
    const said = message.replace(/ \(char \d+\)$/, '');
    return fault(typedPlace(rewritten, char - 1, typed.length), `The formula cannot be read at: ${said}.`);
  }
  const wrong = objection(node);
  if (wrong) return fault(Math.max(0, typed.indexOf(wrong.near)), wrong.message);
  return { ok: true, stored: rewritten.stored, uses: rewritten.uses, node };
}

const isWord = (name: string) => /^[\p{L}_][\p{L}\p{N}_]*$/u.test(name) && !WORDS.has(name);

/** A column's name as a formula writes it. */
export const bracketed = (name: string): string => (isWord(name) ? name : `[${name}]`);

/** A stored formula with the present names of its columns. */
export function shownFormula(stored: string, columns: readonly NamedColumn[]): string {
  return stored.replace(/\[([^\][]+)\]/g, (_, id) => {
    const column = columns.find((c) => c.id === id);
    return column ? bracketed(column.name) : '[removed column]';
  });
}
