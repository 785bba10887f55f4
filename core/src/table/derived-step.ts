import type { MathNode } from 'mathjs/number';
import { familyByName } from '../distributions/registry.js';
import { recogniseKind, type ColumnKind } from '../readings/kind.js';
import { PLAIN_FORMAT } from '../readings/number-format.js';
import { recogniseResolution } from '../readings/resolution.js';
import type { Derivation } from './derivation.js';
import type { AnyNode } from './evaluate.js';
import { readFormula } from './formula.js';
import { decimalsWritten } from '../numeric/round-to.js';
import type { TableColumn } from './table.js';

/** The step of a source column, null where it has none. */
type StepOfColumn = (id: string) => number | null;

/** A number of a formula, or the step that what stands there keeps to; null where it keeps to none. */
type Stepped = { constant: number } | { step: number } | null;

const stepOf = (part: Stepped): number | null =>
  part === null ? null : 'step' in part ? part.step : Number(`1e-${decimalsWritten(part.constant)}`);

/** The coarsest step that both keep to: the finer where the other is a multiple of it, else one unit of the last decimal of either. */
function commonStep(parts: readonly Stepped[]): Stepped {
  let common: number | null = null;
  for (const part of parts) {
    if (part && 'constant' in part && common !== null && isMultiple(part.constant, common)) continue;
    const step = stepOf(part);
    if (step === null) return null;
    if (common === null || isMultiple(common, step)) common = step;
    else if (!isMultiple(step, common))
      common = Number(`1e-${Math.max(decimalsWritten(step), decimalsWritten(common))}`);
  }
  return common === null ? null : { step: common };
}

function isMultiple(x: number, step: number): boolean {
  const times = x / step;
  return Math.abs(times - Math.round(times)) <= 4 * Number.EPSILON * Math.abs(times);
}

const product = (a: number, b: number) => Number((a * b).toPrecision(15));

function ofProduct([a, b]: readonly Stepped[]): Stepped {
  if (!a || !b) return null;
  if ('constant' in a && 'constant' in b) return { constant: product(a.constant, b.constant) };
  const [x, y] = [a, b].map((part) => ('constant' in part ? Math.abs(part.constant) : part.step));
  return x === 0 || y === 0 ? null : { step: product(x!, y!) };
}

const WHOLE: Stepped = { step: 1 };
const TRUTHS = new Set(['smaller', 'smallerEq', 'larger', 'largerEq', 'equal', 'unequal', 'and', 'or', 'xor', 'not']);

/** The step that a formula keeps to, by its operations; the constants count as they are written. */
function ofNode(node: MathNode, column: (k: number) => number | null): Stepped {
  const part = node as unknown as AnyNode;
  const of = (inner: MathNode) => ofNode(inner, column);
  const called = (name: string, args: MathNode[]): Stepped => {
    if (TRUTHS.has(name) || name === 'floor' || name === 'ceil') return WHOLE;
    const parts = args.map(of);
    if (['add', 'subtract', 'mod', 'min', 'max'].includes(name)) return commonStep(parts);
    if (['unaryMinus', 'unaryPlus', 'abs'].includes(name)) return parts[0]!;
    if (name === 'multiply') return ofProduct(parts);
    if (name === 'if') return commonStep(parts.slice(1));
    if (name !== 'round') return null;
    const step = parts[1];
    return args.length === 1 ? WHOLE : step && 'constant' in step ? { step: step.constant } : null;
  };
  switch (part.type) {
    case 'ConstantNode':
      return typeof part.value === 'number' ? { constant: part.value } : null;
    case 'SymbolNode': {
      if (part.name === 'row') return WHOLE;
      const step = /^c_\d+$/.test(part.name) ? column(Number(part.name.slice(2))) : null;
      return step === null ? null : { step };
    }
    case 'ParenthesisNode':
      return of(part.content);
    case 'OperatorNode':
      return called(part.fn, part.args);
    case 'ConditionalNode':
      return commonStep([of(part.trueExpr), of(part.falseExpr)]);
    case 'RelationalNode':
      return WHOLE;
    default:
      return called(part.fn.name, part.args);
  }
}

/** The step by what the column follows from: its family, its formula, the steps of its sources. */
export function stepByDerivation(
  derivation: Derivation,
  columns: readonly TableColumn[],
  stepOfColumn: StepOfColumn,
): number | null {
  switch (derivation.kind) {
    case 'made-up':
      return derivation.step ?? (familyByName(derivation.family).discrete ? 1 : null);
    case 'rounded':
      return derivation.step;
    case 'formula': {
      const read = readFormula(derivation.expression, columns);
      const step = read.ok ? stepOf(ofNode(read.node, (k) => stepOfColumn(read.uses[k]!))) : null;
      return step !== null && step > 0 && Number.isFinite(step) ? step : null;
    }
    default:
      return null;
  }
}

/**
 * The step that a worked-out column keeps to: by what it follows from, else what its values show as written digits would (all whole numbers,
 * ranks with halves). Null for values of any size, such as standard scores.
 */
export function derivedStep(
  derivation: Derivation,
  values: Float64Array,
  columns: readonly TableColumn[],
  stepOfColumn: StepOfColumn,
): number | null {
  const step = stepByDerivation(derivation, columns, stepOfColumn);
  if (step !== null) return step;
  const present = values.filter((x) => !Number.isNaN(x));
  return present.length < 2 ? null : recogniseResolution(present, Array.from(present, decimalsWritten));
}

/** What kind of column worked-out values make: counts where they are counts of things, else a measure. */
export function derivedKind(derivation: Derivation, cells: readonly string[], unit: string): ColumnKind {
  if (derivation.kind === 'made-up' && familyByName(derivation.family).discrete) {
    return cells.every((text) => !text.startsWith('-')) ? 'count' : 'measure';
  }
  const found = derivation.kind === 'formula' ? recogniseKind(cells, PLAIN_FORMAT, unit) : 'measure';
  return found === 'count' ? 'count' : 'measure';
}
