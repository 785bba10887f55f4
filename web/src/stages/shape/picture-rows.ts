import type { Rows } from '../../workbench/rows.js';
import type { Shown } from './pictures.js';

/** The table behind a picture: bins and counts, quartiles and whiskers, steps, stacks, leaves, or readings in their rows. */
export function pictureRows(shown: Shown): Rows {
  switch (shown.id) {
    case 'histogram': {
      const { edges, parts, grouped } = shown.result;
      const heads = grouped ? parts.map(({ name }) => name) : ['readings'];
      const bins = edges.slice(0, -1).map((from, i) => [from, edges[i + 1]!, ...parts.map(({ counts }) => counts[i]!)]);
      return [['from', 'to below', ...heads], ...bins];
    }
    case 'box':
      return [
        [
          'name',
          'n',
          'lower whisker',
          'lower quartile',
          'median',
          'upper quartile',
          'upper whisker',
          'mean',
          'outside',
        ],
        ...shown.result.parts.map((part) => {
          const { name, n, whiskers, q1, median, q3, mean, outside } = part;
          const named = outside.map(({ row, value }) => `row ${row}: ${value}`).join('; ');
          return [name, n, whiskers[0], q1, median, q3, whiskers[1], mean, named];
        }),
      ];
    case 'stem-and-leaf':
      return [
        ['name', 'depth', 'stem', 'leaves'],
        ...shown.result.parts.flatMap(({ name, lines }) =>
          lines.map(({ depth, stem, leaves }) => [name, depth, stem, leaves]),
        ),
      ];
    case 'empirical':
      return [
        ['name', 'value', 'readings at or below', 'share'],
        ...shown.result.parts.flatMap(({ name, n, values, atOrBelow }) =>
          values.map((value, i) => [name, value, atOrBelow[i]!, atOrBelow[i]! / n]),
        ),
      ];
    case 'dots':
      return [
        ['name', 'about', 'readings'],
        ...shown.result.parts.flatMap(({ name, at, counts }) => at.map((value, i) => [name, value, counts[i]!])),
      ];
    case 'in-order':
      return [
        ['name', 'row', 'reading'],
        ...shown.result.parts.flatMap(({ name, rows, values }) => rows.map((row, i) => [name, row, values[i]!])),
      ];
  }
}
