import { binHeights, type HistogramResult } from '@verdict/core/analyses';
import { formatPercentOf, formatValue, groupThousands } from '@verdict/core/format';
import type { Mark } from '../marks.js';
import type { Hit, Panels } from '../picture.js';
import { boundMarks, curvePoints, valueAxis, type Setting } from '../value-axis.js';

const HEIGHTS = { count: 'readings', share: 'proportion of the readings', density: 'density' } as const;

/** What a bar is, in words: its ends and what it holds. */
function barWords({ edges, unit }: HistogramResult, counts: readonly number[], bar: number): string {
  const n = counts.reduce((a, b) => a + b, 0) || 1;
  const count = counts[bar]!;
  const last = bar === counts.length - 1;
  const ends = `${formatValue(edges[bar]!)} to ${last ? '' : 'below '}${formatValue(edges[bar + 1]!)}${unit ? ` ${unit}` : ''}`;
  const readings = count === 1 ? '1 reading' : `${groupThousands(count)} readings`;
  return `${ends}: ${readings}, ${formatPercentOf(count / n, undefined, 3)}`;
}

/** Bars with their true edges from 0 up, one panel for each part over common axes, the fitted curve on the scale of the bars. */
export function histogramPanels(result: HistogramResult, setting: Setting, chosen: ReadonlySet<number>): Panels {
  const { edges, parts, width, scale, grouped } = result;
  const x = valueAxis(result, edges[0]!, edges.at(-1)!, setting);
  const hits: Hit[] = [];
  let top = 0;
  const panels = parts.map(({ name, n, counts, curve }, panel) => {
    const heights = binHeights(edges, counts, scale);
    const points = curvePoints(curve, x, 'density');
    const factor = scale === 'count' ? n * width : scale === 'share' ? width : 1;
    const y = points?.y.map((density) => Math.min(density * factor, Number.MAX_VALUE / 2)) ?? [];
    for (const height of heights) if (height > top) top = height;
    for (const height of y) if (height > top) top = height;
    counts.forEach((_, bar) => {
      const words = `${grouped ? `${name}, ` : ''}${barWords(result, counts, bar)}`;
      hits.push({ panel, x: [edges[bar]!, edges[bar + 1]!], y: [0, heights[bar]!], words, bar });
    });
    const marks: Mark[] = [{ kind: 'bars', edges, heights, tone: 'green', chosen }];
    if (points) marks.push({ kind: 'line', x: points.x, y, tone: 'ink', width: 1.8 });
    return {
      name: grouped ? `${name}, ${groupThousands(n)}` : '',
      marks: [...marks, ...boundMarks(result, x, setting, 'x')],
    };
  });
  const title = setting.titles.heightTitle ?? HEIGHTS[scale];
  return { x, y: { from: 0, to: top * (grouped ? 1.25 : 1.08) || 1, title, whole: scale === 'count' }, panels, hits };
}
