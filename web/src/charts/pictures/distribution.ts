import type { DistributionPicture, DistributionResult } from '@verdict/core/analyses';
import { distributionName } from '@verdict/core/distributions';
import { formatValue, groupThousands } from '@verdict/core/format';
import type { LegendEntry } from '../legend.js';
import type { Mark } from '../marks.js';
import type { Panels } from '../picture.js';

const HEIGHTS = { density: 'density', probability: 'probability', cumulative: 'proportion at or below' } as const;

function curveMarks({ curve, over, shaded }: DistributionPicture): Mark[] {
  const { x, y, stepped } = curve;
  const own: Mark = curve.bars
    ? { kind: 'columns', x, y, filled: shaded, tone: 'green' }
    : { kind: 'line', x, y, stepped, tone: 'green', width: 2 };
  if (!over) return [own];
  const second: Mark = over.bars
    ? { kind: 'points', x: over.x, y: over.y, tone: 'ochre', marker: 'diamond', radius: 3.4 }
    : { kind: 'line', x: over.x, y: over.y, stepped: over.stepped, tone: 'ochre', width: 2, dash: [7, 4] };
  return [own, second];
}

/** The readings under the curve: bars side by side, whose edges meet. */
function readingsMarks({ bars }: DistributionPicture): Mark[] {
  if (bars.length === 0) return [];
  const edges = [...bars.map(({ from }) => from), bars.at(-1)!.to];
  return [{ kind: 'bars', edges, heights: bars.map(({ height }) => height), tone: 'soft' }];
}

function limitMarks({ lower, upper }: DistributionResult): Mark[] {
  return ([lower, upper] as const).flatMap((at, i): Mark[] => {
    if (at === null) return [];
    const wordsAt = i === 0 ? 'start' : 'end';
    return [{ kind: 'rule', across: 'x', at, tone: 'green', words: formatValue(at), wordsAt, stays: true }];
  });
}

/** What is drawn in which colour, where there is more than one thing. */
function legendOf(picture: DistributionPicture, result: DistributionResult, over: DistributionResult | null) {
  const own: LegendEntry = {
    words: distributionName(result.family, result.parameters),
    tone: 'green',
    sample: picture.curve.bars ? 'area' : 'line',
  };
  const entries = [own];
  if (over) {
    const words = distributionName(over.family, over.parameters);
    const marked = picture.over?.bars === true;
    entries.push({ words, tone: 'ochre', ...(marked ? { sample: 'marker', marker: 'diamond' } : { dash: [7, 4] }) });
  }
  const { readings } = result;
  if (readings) {
    const words = `${groupThousands(readings.n)} readings of ${readings.column}`;
    entries.push({ words, tone: 'soft', sample: 'bars' });
  }
  return entries.length > 1 ? entries : [];
}

/** The curve of a distribution with the asked region shaded, its limits, and the answer over it. */
export function distributionPanels(
  picture: DistributionPicture,
  result: DistributionResult,
  over: DistributionResult | null,
  axis: string,
): Panels {
  const { window, view, top, discrete, areas, answer } = picture;
  const height = view === 'cumulative' ? HEIGHTS.cumulative : discrete ? HEIGHTS.probability : HEIGHTS.density;
  const shades = areas.map(({ x, y }): Mark => ({ kind: 'area', x, y, fill: 'green' }));
  return {
    x: { ...window, title: axis, whole: discrete },
    y: { from: 0, to: top, title: height },
    panels: [
      { name: '', marks: [...readingsMarks(picture), ...shades, ...curveMarks(picture), ...limitMarks(result)] },
    ],
    hits: [],
    legend: legendOf(picture, result, over),
    caption: answer,
  };
}
