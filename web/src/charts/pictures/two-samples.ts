import type { TwoSamplesResult } from '@verdict/core/analyses';
import { formatFigure, formatPercentOf } from '@verdict/core/format';
import type { Hit, Panels } from '../picture.js';

const AIR = 0.05;

/** Quantiles of one sample against those of another, both axes over the same range: on the line where the two are alike. */
export function twoSamplesPanels({ samples, quantiles, unit, resolution }: TwoSamplesResult): Panels {
  const { first, second, shares } = quantiles;
  const all = [...first, ...second];
  const least = all.reduce((a, b) => Math.min(a, b), Infinity);
  const greatest = all.reduce((a, b) => Math.max(a, b), -Infinity);
  const air = (greatest - least || Math.abs(least) || 1) * AIR;
  const [from, to] = [least - air, greatest + air];
  const told = (value: number) => `${formatFigure(value, 'location', resolution)}${unit ? ` ${unit}` : ''}`;
  const [a, b] = samples;
  const hits = shares.map((share, i): Hit => ({
    panel: 0,
    x: [first[i]!, first[i]!],
    y: [second[i]!, second[i]!],
    words: `${formatPercentOf(share, undefined, 3)} lie below ${told(first[i]!)} of ${a.name} and ${told(second[i]!)} of ${b.name}`,
  }));
  const title = (name: string) => (unit ? `${name}, ${unit}` : name);
  return {
    x: { from, to, title: title(a.name) },
    y: { from, to, title: title(b.name) },
    panels: [
      {
        name: '',
        marks: [
          { kind: 'line', x: [from, to], y: [from, to], tone: 'green', width: 2 },
          {
            kind: 'points',
            x: first,
            y: second,
            tone: 'ink',
            marker: 'circle',
            radius: shares.length > 300 ? 2.5 : 4,
          },
        ],
      },
    ],
    hits,
    legend: [{ words: 'equal quantiles', tone: 'green' }],
  };
}
