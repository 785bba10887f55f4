import { transformWords, type TransformResult } from '@verdict/core/analyses';
import { formatP, formatValue } from '@verdict/core/format';
import type { Mark } from '../marks.js';
import type { Cell, Sheet } from '../picture.js';
import { inRows } from '../sheet.js';
import { cellMarks } from './sheet-cells.js';

type Side = TransformResult['before'];

/** Limits and target upright over a picture in standard scores; beyond it they stand at its edge. */
function boundMarks({ bounds, mean, sd }: Side): Mark[] {
  const rule = (at: number | null, tone: 'ochre' | 'green'): Mark[] =>
    at === null ? [] : [{ kind: 'rule', across: 'x', at: (at - mean) / sd, tone, dash: [6, 4], stays: true }];
  return [...rule(bounds.lower, 'ochre'), ...rule(bounds.target, 'green'), ...rule(bounds.upper, 'ochre')];
}

/** The approximate number of ticks. */
const TICKS = 5;

/** Ticks at round values of a scale whose picture is drawn in standard scores. */
function ticksOf({ mean, sd }: Side, [from, to]: readonly [number, number]): { at: number; words: string }[] {
  const [low, high] = [mean + sd * from, mean + sd * to];
  const rough = (high - low) / TICKS;
  const ten = 10 ** Math.floor(Math.log10(rough));
  const step = ten * [1, 2, 5, 10].find((times) => times * ten >= rough)!;
  const first = Math.ceil(low / step);
  return Array.from({ length: Math.floor(high / step) - first + 1 }, (_, k) => {
    const value = Number(((first + k) * step).toPrecision(12));
    return { at: (value - mean) / sd, words: formatValue(value) };
  });
}

/** As measured on the left, transformed on the right; plots above, histograms with the limits below. */
export function transformSheet(result: TransformResult, column: string): Sheet {
  const { before, after, n, alpha } = result;
  const radius = n <= 60 ? 3.2 : n <= 300 ? 2.4 : 1.6;
  const boxes = inRows(4, 2);
  const limited = Object.values(before.bounds).some((bound) => bound !== null);
  const p = ({ pSimulated }: Side) => (pSimulated ? `, p of A² ${formatP(pSimulated.pValue, alpha)}` : '');
  const sides = [
    { side: before, name: 'before', tinted: false },
    { side: after, name: transformWords(result), tinted: true },
  ];
  const plots = sides.map(({ side, name: of, tinted }, i): Cell => {
    const name = `${of}${p(side)}`;
    const drawn = cellMarks(side.plot, radius);
    const ticks = ticksOf(side, drawn.x);
    return { ...drawn, ticks, name, words: `Plot of ${column}, ${name}`, box: boxes[i]!, tinted };
  });
  const histograms = sides.map(({ side, name: of, tinted }, i): Cell => {
    const { marks, x, y } = cellMarks(side.histogram, radius);
    const name = `histogram${limited ? ' and limits' : ''}`;
    return {
      ...{ marks: [...marks, ...boundMarks(side)], x, y, tinted, ticks: ticksOf(side, x) },
      ...{ name, words: `Histogram of ${column}, ${of}`, box: boxes[i + 2]! },
    };
  });
  return { cells: [...plots, ...histograms] };
}
