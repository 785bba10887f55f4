import type { EmpiricalResult } from '@verdict/core/analyses';
import { formatPercentOf, groupThousands } from '@verdict/core/format';
import type { LegendEntry } from '../legend.js';
import { markerOf, type Mark, type Tone } from '../marks.js';
import type { Axis, Hit, Panels } from '../picture.js';
import { boundMarks, curveName, curvePoints, readingWords, valueAxis, type Setting } from '../value-axis.js';

type Part = EmpiricalResult['parts'][number];
/** More parts than markers would be told apart by nothing: they get panels of their own. */
const MOST_IN_ONE = 4;
/** A step narrower than this share of the axis is no step on the screen. */
const CELLS = 1_500;

/** The indices of the steps that can be told apart on the screen; the outermost are always among them. */
export function visibleSteps(values: readonly number[]): number[] {
  const [first, last] = [values[0]!, values.at(-1)!];
  if (values.length <= CELLS) return [...values.keys()];
  let cell = -1;
  return [...values.keys()].filter((i) => {
    const own = Math.floor(((values[i]! - first) / (last - first)) * CELLS);
    // The last of each cell: there the curve is as high as it gets in it.
    const next = i + 1 < values.length ? Math.floor(((values[i + 1]! - first) / (last - first)) * CELLS) : Infinity;
    if (own === next && cell !== -1) return false;
    cell = own;
    return true;
  });
}

function stepMarks({ values, atOrBelow, n, curve }: Part, x: Axis, tone: Tone, dash: readonly number[]): Mark[] {
  const at = visibleSteps(values);
  const marks: Mark[] = [
    {
      ...{ kind: 'line', stepped: true, tone, width: 1.8 },
      x: [x.from, ...at.map((i) => values[i]!), x.to],
      y: [0, ...at.map((i) => atOrBelow[i]! / n), 1],
    },
  ];
  const points = curvePoints(curve, x, 'cumulative');
  if (points)
    marks.unshift({ kind: 'line', x: points.x, y: points.y, tone: dash.length ? tone : 'green', width: 1.6, dash });
  return marks;
}

/** The shares at or below each value, as steps from 0 to 1, with the fitted curve. */
export function stepsPanels(result: EmpiricalResult, setting: Setting): Panels {
  const { parts, grouped } = result;
  const least = Math.min(...parts.map(({ values }) => values[0]!));
  const greatest = Math.max(...parts.map(({ values }) => values.at(-1)!));
  const x = valueAxis(result, least, greatest, setting);
  const together = grouped && parts.length <= MOST_IN_ONE;
  const hits = parts.flatMap((part, i): Hit[] =>
    visibleSteps(part.values).map((k) => {
      const [value, count] = [part.values[k]!, part.atOrBelow[k]!];
      const share = formatPercentOf(count / part.n, undefined, 3);
      const words = `${grouped ? `${part.name}, ` : ''}${readingWords(result, value)}: ${share} at or below, ${groupThousands(count)} of ${groupThousands(part.n)}`;
      return { panel: together ? 0 : i, x: [value, value], y: [count / part.n, count / part.n], words };
    }),
  );
  const bounds = boundMarks(result, x, setting, 'x');
  const y: Axis = { from: 0, to: 1, title: setting.titles.heightTitle ?? 'proportion at or below' };
  if (together) {
    const marks = parts.flatMap((part, i): Mark[] => {
      const tone = { series: i };
      const own = stepMarks(part, x, tone, [2, 3]);
      // Markers along the curve: colour alone does not tell groups apart.
      const some = Array.from({ length: 5 }, (_, k) => Math.round(((k + 0.5) / 5) * (part.values.length - 1)));
      const at = { x: some.map((k) => part.values[k]!), y: some.map((k) => part.atOrBelow[k]! / part.n) };
      return [...own, { kind: 'points', ...at, tone, marker: markerOf(i), radius: 4 }];
    });
    const legend = parts.map(({ name, n }, i): LegendEntry => ({
      words: `${name}, ${groupThousands(n)}`,
      tone: { series: i },
      marker: markerOf(i),
    }));
    return { x, y, panels: [{ name: '', marks: [...marks, ...bounds] }], hits, legend };
  }
  const panels = parts.map((part) => {
    const marks: Mark[] = [...stepMarks(part, x, 'ink', []), ...bounds];
    return { name: grouped ? `${part.name}, ${groupThousands(part.n)}` : '', marks };
  });
  const curve = grouped ? '' : curveName(parts[0]!.curve);
  const legend: LegendEntry[] = [
    { words: 'readings', tone: 'ink' },
    { words: curve, tone: 'green' },
  ];
  return { x, y, panels, hits, legend: curve ? legend : [] };
}
