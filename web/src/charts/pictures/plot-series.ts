import { expectedReadings, plotSeries, type PlotSeries, type ProbabilityPlotResult } from '@verdict/core/analyses';
import { groupThousands } from '@verdict/core/format';
import type { InParts } from '@verdict/core/road';
import type { LegendEntry } from '../legend.js';
import { markerOf, type Mark, type Marker, type Tone } from '../marks.js';
import type { Hit, Panels } from '../picture.js';
import { axisOf, bandWords, beyondHits, limitMarks, pointWords, visibleMarks } from './probability-plot.js';

/** How one series looks: alone in its panel like any plot, among others in a colour and marker of its own. */
interface Look {
  readings: Tone;
  outside: Tone;
  line: Tone;
  band: { fill: Tone; alpha: number };
  marker: Marker;
}
const ALONE: Look = {
  readings: 'ink',
  outside: 'ochre',
  line: 'green',
  band: { fill: 'tint', alpha: 1 },
  marker: 'circle',
};
/** Four colours and four markers, told apart to the sixteenth series. */
function among(i: number): Look {
  const tone = { series: i };
  const marker = markerOf(i + Math.floor(i / 4));
  return { readings: tone, outside: tone, line: tone, band: { fill: tone, alpha: 0.12 }, marker };
}

/** Band, line, readings and readings beyond a limit of one series; those outside its band are filled. */
function seriesMarks({ plot, picture }: PlotSeries, shown: readonly number[], look: Look): Mark[] {
  const { across, up } = picture.points;
  const radius = shown.length > 300 ? 2.5 : 4;
  const points = (some: readonly number[], tone: Tone, filled: boolean): Mark => ({
    ...{ kind: 'points', tone, marker: look.marker, radius, filled },
    x: some.map((i) => across[i]!),
    y: some.map((i) => up[i]!),
  });
  const { band, line, beyond, outside } = picture;
  const beyondMark: Mark = {
    kind: 'points',
    x: beyond.across,
    y: beyond.up,
    tone: look.readings,
    marker: 'triangle',
    radius: 5,
  };
  return [
    ...(band ? [{ kind: 'area', x: band.across, y: band.up, ...look.band } as const] : []),
    { kind: 'line', x: line.across, y: line.up, tone: look.line, width: 2 },
    points(
      shown.filter((i) => !outside.has(i)),
      look.readings,
      false,
    ),
    points(
      shown.filter((i) => outside.has(i)),
      look.outside,
      true,
    ),
    ...(plot.censored ? [beyondMark] : []),
  ];
}

function seriesHits({ name, plot, picture }: PlotSeries, shown: readonly number[], panel: number): Hit[] {
  const expected = expectedReadings(plot);
  const { across, up } = picture.points;
  const own = shown.map((i): Hit => {
    const [x, y] = [across[i]!, up[i]!];
    return { panel, x: [x, x], y: [y, y], words: `${name}, ${pointWords(plot, i, expected[i]!)}`, row: plot.rows[i]! };
  });
  const beyond = beyondHits(plot, picture.beyond).map((hit) => ({ ...hit, panel, words: `${name}, ${hit.words}` }));
  return [...own, ...beyond];
}

const anyOutside = (series: readonly PlotSeries[]) => series.some(({ picture }) => picture.outside.size > 0);

function legendOf(series: readonly PlotSeries[], together: 'one' | 'apart'): LegendEntry[] {
  const banded = series.find(({ plot }) => plot.band);
  const band: LegendEntry[] = banded ? [{ words: bandWords(banded.plot), tone: 'tint', sample: 'area' }] : [];
  if (together === 'apart') {
    const outside: LegendEntry = {
      words: 'a reading outside the band',
      tone: 'ochre',
      sample: 'marker',
      marker: 'circle',
    };
    return [...band, ...(anyOutside(series) ? [outside] : [])];
  }
  const own = series.map(({ name, plot }, i): LegendEntry => {
    const { readings: tone, marker } = among(i);
    return { words: `${name}, ${groupThousands(plot.n)} readings`, tone, sample: 'line', marker };
  });
  const outside: LegendEntry = { words: 'filled: outside the band', tone: 'soft', sample: 'marker', marker: 'circle' };
  return [...own, ...band, ...(anyOutside(series) ? [outside] : [])];
}

/** Several series on common axes, in one panel or one each, and why they are not drawn as asked for. */
export function seriesDrawing(
  result: InParts<ProbabilityPlotResult>,
  together: 'one' | 'apart',
  column: string,
): { panels: Panels; caution: string | null } | null {
  const { series, caution } = plotSeries(result);
  const [first] = series;
  if (!first) return null;
  const { across, up } = first.picture;
  const limits = [...limitMarks(first.plot, across, 'x'), ...limitMarks(first.plot, up, 'y')];
  const shown = series.map(({ plot }) => visibleMarks(plot.readings, plot.scores));
  const one = together === 'one';
  const marksOf = (i: number) => seriesMarks(series[i]!, shown[i]!, one ? among(i) : ALONE);
  const panels = one
    ? [{ name: '', marks: [...limits, ...series.flatMap((_, i) => marksOf(i))] }]
    : // The words of a limit stand once above all panels.
      series.map(({ name }, i) => ({
        name,
        marks: [...(i === 0 ? limits : limits.map((mark) => ({ ...mark, words: '' }) as Mark)), ...marksOf(i)],
      }));
  return {
    caution,
    panels: {
      x: axisOf(across, first.plot, column),
      y: axisOf(up, first.plot, column),
      panels,
      hits: series.flatMap((of, i) => seriesHits(of, shown[i]!, one ? 0 : i)),
      equal: one && first.picture.equal,
      legend: legendOf(series, together),
    },
  };
}
