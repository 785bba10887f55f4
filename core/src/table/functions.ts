import { exp, log } from '../numeric/elementary.js';
import { roundTo } from '../numeric/round-to.js';
import { settled } from '../numeric/settled.js';

const LN_10 = 2.302585092994046;
const LN_2 = 0.6931471805599453;

/** log of x to a base, exact where x is a whole power of it: the quotient of two logarithms is a unit off at 1000. */
function logTo(x: number, base: 2 | 10, lnBase: number): number {
  const quotient = log(x) / lnBase;
  const whole = Math.round(quotient);
  if (Math.abs(quotient - whole) > 1e-9) return quotient;
  return (base === 10 ? Number(`1e${whole}`) : 2 ** whole) === x ? whole : quotient;
}

/**
 * x to the power y, in basic operations so that every engine gives the same bits: whole powers up to 64 by repeated squaring, halves by
 * the root, anything else as e^(y·ln x), with a relative error that grows with |y·ln x| to about 1e-13 at the ends of the range.
 */
export function power(x: number, y: number): number {
  if (Number.isInteger(y) && Math.abs(y) <= 64) {
    let result = 1;
    let square = x;
    for (let k = Math.abs(y); k > 0; k >>= 1) {
      if (k & 1) result *= square;
      square *= square;
    }
    return y < 0 ? 1 / result : result;
  }
  if (y === 0.5) return Math.sqrt(x);
  if (x < 0 && Number.isInteger(y)) return (y % 2 === 0 ? 1 : -1) * exp(y * log(-x));
  if (x === 0) return y > 0 ? 0 : NaN;
  return exp(y * log(x));
}

export interface FormulaFunction {
  least: number;
  most: number;
  /** How it is written, for the error and the list of suggestions. */
  written: string;
  does: string;
}

const one = (written: string, does: string): FormulaFunction => ({ least: 1, most: 1, written, does });

/** The functions of formulas. Those over a column take all its readings that count. */
export const FUNCTIONS = {
  abs: one('abs(x)', 'absolute value'),
  sqrt: one('sqrt(x)', 'square root'),
  exp: one('exp(x)', 'e to the power x'),
  ln: one('ln(x)', 'natural logarithm'),
  log10: one('log10(x)', 'logarithm to base 10'),
  log2: one('log2(x)', 'logarithm to base 2'),
  floor: one('floor(x)', 'round down'),
  ceil: one('ceil(x)', 'round up'),
  round: {
    least: 1,
    most: 2,
    written: 'round(x, step)',
    does: 'round to a multiple of step; without a step, to a whole number',
  },
  min: { least: 2, most: 20, written: 'min(a, b, …)', does: 'minimum of the values' },
  max: { least: 2, most: 20, written: 'max(a, b, …)', does: 'maximum of the values' },
  if: { least: 3, most: 3, written: 'if(condition, then, else)', does: 'one of two values' },
  mean: one('mean(column)', 'mean of the whole column'),
  median: one('median(column)', 'median of the whole column'),
  sd: one('sd(column)', 'standard deviation of the whole column, divisor n − 1'),
} satisfies Record<string, FormulaFunction>;
export type FunctionName = keyof typeof FUNCTIONS;

export const isFunctionName = (name: string): name is FunctionName => Object.hasOwn(FUNCTIONS, name);

/** The functions that work row by row on one number. */
export const OF_ONE: Partial<Record<FunctionName, (x: number) => number>> = {
  abs: Math.abs,
  sqrt: Math.sqrt,
  exp,
  ln: log,
  log10: (x) => logTo(x, 10, LN_10),
  log2: (x) => logTo(x, 2, LN_2),
  floor: Math.floor,
  ceil: Math.ceil,
};

const said = (holds: boolean) => (holds ? 1 : 0);

/** Operators and functions on two numbers. NaN stands for a missing reading and stays missing. */
export const OF_TWO: Readonly<Record<string, (a: number, b: number) => number>> = {
  add: (a, b) => settled(a + b, Math.max(Math.abs(a), Math.abs(b))),
  subtract: (a, b) => settled(a - b, Math.max(Math.abs(a), Math.abs(b))),
  multiply: (a, b) => a * b,
  divide: (a, b) => a / b,
  pow: power,
  mod: (a, b) => a - b * Math.floor(a / b),
  smaller: (a, b) => said(a < b),
  smallerEq: (a, b) => said(a <= b),
  larger: (a, b) => said(a > b),
  largerEq: (a, b) => said(a >= b),
  equal: (a, b) => said(a === b),
  unequal: (a, b) => said(a !== b),
  and: (a, b) => said(a !== 0 && b !== 0),
  or: (a, b) => said(a !== 0 || b !== 0),
  xor: (a, b) => said((a !== 0) !== (b !== 0)),
  min: (a, b) => (a < b ? a : b),
  max: (a, b) => (a > b ? a : b),
  round: roundTo,
};
