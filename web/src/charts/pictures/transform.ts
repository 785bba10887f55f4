import { transformWords, type TransformResult } from '@verdict/core/analyses';
import { formatP } from '@verdict/core/format';
import type { Mark } from '../marks.js';
import type { Cell, Sheet } from '../picture.js';
import { inRows } from '../sheet.js';
import { cellMarks } from './sheet-cells.js';

type Side = TransformResult['before'];

/** Limits and target upright over a picture in standard scores; beyond it they stand at its edge. */
function boundMarks({ bounds, mean, sd }: Side): Mark[] {
  const rule = (at: number | null, target: boolean): Mark[] =>
    at === null
      ? []
      : [
          {
            ...{ kind: 'rule', across: 'x', at: (at - mean) / sd, tone: target ? 'green' : 'ochre', stays: true },
            ...(target ? { dash: [4, 3] } : {}),
          },
        ];
  return [...rule(bounds.lower, false), ...rule(bounds.target, true), ...rule(bounds.upper, false)];
}

/** As measured on the left, transformed on the right; plots above, histograms with the limits below. */
export function transformSheet(result: TransformResult, column: string): Sheet {
  const { before, after, n, alpha } = result;
  const radius = n <= 60 ? 3.2 : n <= 300 ? 2.4 : 1.6;
  const boxes = inRows(4, 2);
  const limited = Object.values(before.bounds).some((bound) => bound !== null);
  const p = ({ pSimulated }: Side) => (pSimulated ? `, p of A² ${formatP(pSimulated.pValue, alpha)}` : '');
  const sides = [
    { side: before, words: `${column} as measured`, tinted: false },
    { side: after, words: `${column} after ${transformWords(result)}`, tinted: true },
  ];
  const plots = sides.map(({ side, words, tinted }, i): Cell => {
    const name = `${words}${p(side)}`;
    return { ...cellMarks(side.plot, radius), name, words: `Plot of ${name}`, box: boxes[i]!, tinted };
  });
  const histograms = sides.map(({ side, words, tinted }, i): Cell => {
    const { marks, x, y } = cellMarks(side.histogram, radius);
    const name = `histogram${limited ? ' and limits' : ''}`;
    return {
      ...{ marks: [...marks, ...boundMarks(side)], x, y, tinted },
      ...{ name, words: `Histogram of ${words}`, box: boxes[i + 2]! },
    };
  });
  return { cells: [...plots, ...histograms] };
}
