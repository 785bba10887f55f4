import { cellWords, type CountFitResult } from '@verdict/core/analyses';
import { formatValue, groupThousands } from '@verdict/core/format';
import type { Mark } from '../marks.js';
import type { Axis, Hit, Panels } from '../picture.js';

/** How counts stand beside what is expected: two bars a value, or bars hanging from what is expected (Tukey 1972). */
export type CountsAs = 'beside' | 'hanging';

const briefly = (value: number) => formatValue(Number(value.toPrecision(3)));

function rect(x: [number, number], y: [number, number], tone: 'green' | 'soft'): Mark {
  return { kind: 'rect', x, y, fill: tone, stroke: tone, width: 1.2 };
}

const LEGENDS: Readonly<Record<CountsAs, NonNullable<Panels['legend']>>> = {
  beside: [
    { words: 'observed', tone: 'green', sample: 'bars' },
    { words: 'expected', tone: 'soft', sample: 'bars' },
  ],
  hanging: [
    { words: 'observed counts hanging from the expected ones; they should end at 0', tone: 'green', sample: 'bars' },
    { words: 'expected', tone: 'ink', marker: 'circle' },
  ],
};

/** The half of a bar. */
const HALF = 0.4;

/** Observed and expected counts of every value, side by side, or as square roots hanging from the expected ones, so that the misfit stands at the level 0. */
export function countPanels(result: CountFitResult, column: string, as: CountsAs): Panels {
  const { cells, unit } = result;
  const places = cells.map((_, i) => i + 1);
  const root = as === 'hanging';
  const height = (value: number) => (root ? Math.sqrt(Math.max(0, value)) : value);
  const tops = cells.flatMap(({ observed, expected }) => [height(expected), root ? 0 : observed]);
  const feet = cells.map(({ observed, expected }) => (root ? height(expected) - height(observed) : 0));
  const [lowest, highest] = [Math.min(0, ...feet), Math.max(...tops)];
  const air = (highest - lowest || 1) * 0.06;
  const bars = cells.flatMap(({ observed, expected }, i): Mark[] => {
    const x = places[i]!;
    if (root) return [rect([x - HALF, x + HALF], [feet[i]!, height(expected)], 'green')];
    return [rect([x - HALF, x], [0, observed], 'green'), rect([x, x + HALF], [0, expected], 'soft')];
  });
  const curve: Mark[] = root
    ? [
        { kind: 'line', x: places, y: cells.map(({ expected }) => height(expected)), tone: 'ink', width: 1.8 },
        {
          kind: 'points',
          x: places,
          y: cells.map(({ expected }) => height(expected)),
          tone: 'ink',
          marker: 'circle',
          radius: 3,
        },
      ]
    : [];
  const hits = cells.map((cell, i): Hit => {
    const said = `${cellWords(cell)}: ${groupThousands(cell.observed)} observed, ${briefly(cell.expected)} expected`;
    return { panel: 0, x: [places[i]! - HALF, places[i]! + HALF], y: [Math.min(0, feet[i]!), highest], words: said };
  });
  const x: Axis = {
    from: 0.3,
    to: cells.length + 0.7,
    title: unit ? `${column}, ${unit}` : column,
    ticks: cells.map((cell, i) => ({ at: places[i]!, words: cellWords(cell) })),
  };
  return {
    x,
    y: {
      from: lowest - (lowest < 0 ? air : 0),
      to: highest + air,
      title: root ? 'square root of the number' : 'number of counts',
    },
    panels: [{ name: '', marks: [...bars, ...curve, { kind: 'rule', across: 'y', at: 0, tone: 'ink' }] }],
    hits,
    legend: LEGENDS[as],
  };
}
