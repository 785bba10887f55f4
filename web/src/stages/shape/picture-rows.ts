import type {
  BoxResult,
  DotsResult,
  EmpiricalResult,
  HistogramResult,
  InOrderResult,
  StemAndLeafResult,
} from '@verdict/core/analyses';
import type { Rows } from '../../workbench/picture/rows.js';

/** The tables behind the pictures. */

export function histogramRows({ edges, parts, grouped }: HistogramResult): Rows {
  const heads = grouped ? parts.map(({ name }) => name) : ['readings'];
  const bins = edges.slice(0, -1).map((from, i) => [from, edges[i + 1]!, ...parts.map(({ counts }) => counts[i]!)]);
  return [['from', 'to below', ...heads], ...bins];
}

export const boxRows = (result: BoxResult): Rows => [
  ['name', 'n', 'lower whisker', 'lower quartile', 'median', 'upper quartile', 'upper whisker', 'mean', 'outside'],
  ...result.parts.map((part) => {
    const { name, n, whiskers, q1, median, q3, mean, outside } = part;
    const named = outside.map(({ row, value }) => `row ${row}: ${value}`).join('; ');
    return [name, n, whiskers[0], q1, median, q3, whiskers[1], mean, named];
  }),
];

export const stemRows = (result: StemAndLeafResult): Rows => [
  ['name', 'depth', 'stem', 'leaves'],
  ...result.parts.flatMap(({ name, lines }) => lines.map(({ depth, stem, leaves }) => [name, depth, stem, leaves])),
];

export const stepsRows = (result: EmpiricalResult): Rows => [
  ['name', 'value', 'readings at or below', 'share'],
  ...result.parts.flatMap(({ name, n, values, atOrBelow }) =>
    values.map((value, i) => [name, value, atOrBelow[i]!, atOrBelow[i]! / n]),
  ),
];

export const dotsRows = (result: DotsResult): Rows => [
  ['name', 'about', 'readings'],
  ...result.parts.flatMap(({ name, at, counts }) => at.map((value, i) => [name, value, counts[i]!])),
];

export const orderRows = (result: InOrderResult): Rows => [
  ['name', 'row', 'reading'],
  ...result.parts.flatMap(({ name, rows, values }) => rows.map((row, i) => [name, row, values[i]!])),
];
