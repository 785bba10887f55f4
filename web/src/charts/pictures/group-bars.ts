import type { OutlyingGroupsResult } from '@verdict/core/analyses';
import { formatFigure, formatPercent } from '@verdict/core/format';
import type { Mark } from '../marks.js';
import type { Hit, Panels } from '../picture.js';

const WIDTH = 0.34;

/** h or k of every group as bars, with the critical values at the level and at 1 %. */
export function groupBars({ groups, levels, by }: OutlyingGroupsResult, of: 'h' | 'k'): Panels | null {
  const critical = of === 'h' ? 'hCritical' : 'kCritical';
  const known = groups.flatMap((group, i) => (group[of] === null ? [] : [{ ...group, at: i + 1, value: group[of] }]));
  if (known.length === 0) return null;
  const both = of === 'h';
  const bars = known.map(({ at, value, [critical]: limits }): Mark => {
    const tone = Math.abs(value) > limits![0]! ? 'ochre' : 'green';
    return {
      kind: 'rect',
      x: [at - WIDTH, at + WIDTH],
      y: [Math.min(0, value), Math.max(0, value)],
      fill: tone,
      stroke: tone,
    };
  });
  // Groups of different size have limits of their own.
  const lines = levels.flatMap((_, k): Mark[] =>
    known.flatMap(({ at, [critical]: limits }): Mark[] => {
      const line = (y: number): Mark => ({
        ...{ kind: 'line', x: [at - 0.5, at + 0.5], y: [y, y], tone: 'ochre', width: 1.4 },
        ...(k === 0 ? { dash: [6, 4] } : {}),
      });
      return both ? [line(limits![k]!), line(-limits![k]!)] : [line(limits![k]!)];
    }),
  );
  const highest = known.reduce((most, { value, [critical]: limits }) => Math.max(most, Math.abs(value), ...limits!), 0);
  const hits = known.map(({ name, n, at, value, [critical]: limits }): Hit => {
    const told = limits!.map((limit, k) => `${formatFigure(limit, 'statistic')} at ${formatPercent(levels[k]!)}`);
    const words = `${name}, ${n} readings: ${of} ${formatFigure(value, 'statistic')}, critical value ${told.join(', ')}`;
    return { panel: 0, x: [at - 0.5, at + 0.5], y: [-highest, highest], words };
  });
  return {
    x: {
      from: 0.4,
      to: groups.length + 0.6,
      title: by,
      ticks: groups.map(({ name }, i) => ({ at: i + 1, words: name })),
    },
    y: {
      ...{ from: both ? -highest * 1.1 : 0, to: highest * 1.1 },
      title: both ? 'h: mean in SDs of the means' : 'k: SD relative to the pooled SD',
    },
    panels: [
      {
        name: '',
        marks: [...bars, { kind: 'rule', across: 'y', at: both ? 0 : 1, tone: 'ink' }, ...lines],
      },
    ],
    hits,
    legend: levels.map((level, k) => ({
      ...{ words: `critical value at ${formatPercent(level)}`, tone: 'ochre' },
      ...(k === 0 ? { dash: [6, 4] } : {}),
    })),
  };
}
