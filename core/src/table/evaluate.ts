import type { MathNode } from 'mathjs/number';
import { describe } from '../describe/describe.js';
import { CONSTANTS } from './formula.js';
import { roundTo } from '../numeric/round-to.js';
import { OF_ONE, OF_TWO, type FunctionName } from './functions.js';

/** A column of numbers (NaN: missing), a column of words, or one of either for all rows. */
export type Operand = Float64Array | readonly string[] | number | string;

/** What a formula may look at. */
export interface Surroundings {
  rowCount: number;
  /** Column k of the formula: numbers by row, or words for a label column; one of either for all rows. */
  column(k: number): Operand;
}

/** A formula that parses but makes no sense for these columns, such as a label times 2. */
export class FormulaError extends Error {}

/** What the parser's nodes hold, all kinds in one. */
export interface AnyNode {
  type: string;
  fn: string & { name: string };
  args: MathNode[];
  value: unknown;
  name: string;
  content: MathNode;
  condition: MathNode;
  trueExpr: MathNode;
  falseExpr: MathNode;
  conditionals: string[];
  params: MathNode[];
}

const isWords = (operand: Operand): operand is readonly string[] | string =>
  typeof operand === 'string' || Array.isArray(operand);

function numbers(operand: Operand, of: string): Float64Array | number {
  if (isWords(operand)) throw new FormulaError(`${of} takes numbers; a label can only be compared with == and !=.`);
  return operand;
}

function each(rowCount: number, x: Float64Array | number, f: (x: number) => number): Float64Array | number {
  if (typeof x === 'number') return f(x);
  const result = new Float64Array(rowCount);
  for (let i = 0; i < rowCount; i++) result[i] = Number.isNaN(x[i]!) ? NaN : f(x[i]!);
  return result;
}

function pairs(
  rowCount: number,
  a: Float64Array | number,
  b: Float64Array | number,
  f: (a: number, b: number) => number,
): Float64Array | number {
  if (typeof a === 'number' && typeof b === 'number') return f(a, b);
  const result = new Float64Array(rowCount);
  for (let i = 0; i < rowCount; i++) {
    const x = typeof a === 'number' ? a : a[i]!;
    const y = typeof b === 'number' ? b : b[i]!;
    result[i] = Number.isNaN(x) || Number.isNaN(y) ? NaN : f(x, y);
  }
  return result;
}

function compareWords(rowCount: number, a: Operand, b: Operand, fn: string): Float64Array {
  if (!isWords(a) || !isWords(b) || (fn !== 'equal' && fn !== 'unequal')) {
    throw new FormulaError('Compare a label with == or != and a word in quotes: kiln == "north".');
  }
  const result = new Float64Array(rowCount);
  for (let i = 0; i < rowCount; i++) {
    const x = (typeof a === 'string' ? a : a[i]!).trim();
    const y = (typeof b === 'string' ? b : b[i]!).trim();
    result[i] = x === '' || y === '' ? NaN : (x === y) === (fn === 'equal') ? 1 : 0;
  }
  return result;
}

function choose(rowCount: number, test: Float64Array | number, yes: Operand, no: Operand): Operand {
  if (isWords(yes) !== isWords(no))
    throw new FormulaError('Both results of if() must be numbers, or both must be words.');
  const at = (operand: Operand, i: number) => (typeof operand === 'object' ? operand[i]! : operand);
  const holds = (i: number) => (typeof test === 'number' ? test : test[i]!);
  const rows = Array.from({ length: rowCount }, (_, i) => i);
  if (isWords(yes)) return rows.map((i) => (Number.isNaN(holds(i)) ? '' : String(at(holds(i) ? yes : no, i))));
  return Float64Array.from(rows, (i) => (Number.isNaN(holds(i)) ? NaN : Number(at(holds(i) ? yes : no, i))));
}

function overColumn(fn: 'mean' | 'median' | 'sd', operand: Float64Array | number): number {
  const values = typeof operand === 'number' ? Float64Array.of(operand) : operand.filter((x) => !Number.isNaN(x));
  return values.length === 0 ? NaN : (describe(values)[fn] ?? NaN);
}

function call(name: FunctionName, args: readonly Operand[], rowCount: number): Operand {
  if (name === 'if') return choose(rowCount, numbers(args[0]!, 'The condition'), args[1]!, args[2]!);
  const given = args.map((arg) => numbers(arg, name));
  const [first] = given;
  if (name === 'mean' || name === 'median' || name === 'sd') return overColumn(name, first!);
  const ofOne = OF_ONE[name];
  if (ofOne) return each(rowCount, first!, ofOne);
  if (name === 'round' && given.length === 1) return each(rowCount, first!, (x) => roundTo(x, 1));
  return given.slice(1).reduce((a, b) => pairs(rowCount, a, b, OF_TWO[name]!), first!);
}

/** Works out a parsed formula for every row. Throws FormulaError where labels and numbers are mixed up. */
export function evaluate(node: MathNode, around: Surroundings): Operand {
  const { rowCount } = around;
  const part = node as unknown as AnyNode;
  const of = (inner: MathNode) => evaluate(inner, around);
  const two = (fn: string, a: Operand, b: Operand) =>
    isWords(a) || isWords(b)
      ? compareWords(rowCount, a, b, fn)
      : pairs(rowCount, a as Float64Array | number, b as Float64Array | number, OF_TWO[fn]!);
  switch (part.type) {
    case 'ConstantNode':
      return typeof part.value === 'string' ? part.value : Number(part.value);
    case 'SymbolNode':
      if (part.name.startsWith('c_')) return around.column(Number(part.name.slice(2)));
      if (part.name === 'row') return Float64Array.from({ length: rowCount }, (_, i) => i + 1);
      return CONSTANTS[part.name] ?? NaN;
    case 'ParenthesisNode':
      return of(part.content);
    case 'OperatorNode': {
      const args = part.args.map(of);
      if (part.fn === 'unaryMinus') return each(rowCount, numbers(args[0]!, '−'), (x) => -x);
      if (part.fn === 'unaryPlus') return numbers(args[0]!, '+');
      if (part.fn === 'not') return each(rowCount, numbers(args[0]!, 'not'), (x) => (x === 0 ? 1 : 0));
      return two(part.fn, args[0]!, args[1]!);
    }
    case 'ConditionalNode':
      return choose(rowCount, numbers(of(part.condition), 'The condition'), of(part.trueExpr), of(part.falseExpr));
    case 'RelationalNode': {
      const params = part.params.map(of);
      const links = part.conditionals.map((fn, i) => numbers(two(fn, params[i]!, params[i + 1]!), fn));
      return links.reduce((a, b) => pairs(rowCount, a, b, OF_TWO.and!));
    }
    default:
      return call((part as unknown as { fn: { name: FunctionName } }).fn.name, part.args.map(of), rowCount);
  }
}
