import { familyByName } from '../../distributions/registry.js';
import { familyScale } from '../../probability-plot/family-scale.js';
import { foundParts, type InParts } from '../../road/in-parts.js';
import { plotPicture, plotTable, type PlotPicture } from './plot-picture.js';
import { commonRanges, isOnPaper } from './plot-ranges.js';
import { readPlot, type ProbabilityPlotResult } from './plot-result.js';

/** One of several series: its name, its plot, and its picture on the axes of all. */
export interface PlotSeries {
  name: string;
  plot: ProbabilityPlotResult;
  picture: PlotPicture;
}

/** Shares at which the papers of two series are compared. */
const SHARES = [0.01, 0.1, 0.5, 0.9, 0.99];

/** True where readings and shares of all series stand at the same places: their families have no shape left, and one threshold. */
function onePaper(plots: readonly ProbabilityPlotResult[]): boolean {
  const scales = plots.map(({ law }) => familyScale(familyByName(law.family), law.parameters));
  const [first] = scales;
  const same = (a: number, b: number) => Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a));
  return scales.every(
    ({ scoreOf, above }) => above === first!.above && SHARES.every((p) => same(scoreOf(p), first!.scoreOf(p))),
  );
}

/** Said where series cannot be drawn on the paper that was asked for. */
const OWN_PAPERS =
  'The scale of this distribution depends on its parameters, which differ between the groups. Each group is plotted against its own expected values.';

/** Several plots on common axes, and why these are not the ones that were asked for. */
export function plotSeries(result: InParts<ProbabilityPlotResult>): { series: PlotSeries[]; caution: string | null } {
  const found = foundParts(result).map(({ name, result: kept }) => ({ name, plot: readPlot(kept) }));
  const plots = found.map(({ plot }) => plot);
  const apart = plots.length > 0 && isOnPaper(plots[0]!) && !onePaper(plots);
  const drawn = apart ? plots.map((plot): ProbabilityPlotResult => ({ ...plot, axis: 'quantiles' })) : plots;
  const ranges = drawn.length > 0 ? commonRanges(drawn) : undefined;
  const series = found.map(({ name }, i) => ({ name, plot: drawn[i]!, picture: plotPicture(drawn[i]!, ranges) }));
  return { series, caution: apart ? OWN_PAPERS : null };
}

/** The tables behind all series, one after the other under one head, each line with the name of its series first. */
export function seriesTable(result: InParts<ProbabilityPlotResult>): (readonly (string | number)[])[] {
  const tables = foundParts(result).map(({ name, result: plot }) => ({ name, table: plotTable(plot) }));
  const [first] = tables;
  if (!first) return [];
  const lines = tables.flatMap(({ name, table }) => table.slice(1).map((line) => [name, ...line]));
  return [['series', ...first.table[0]!], ...lines];
}
