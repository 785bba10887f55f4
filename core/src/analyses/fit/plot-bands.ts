import { familyScale } from '../../probability-plot/family-scale.js';
import { lineBand } from '../../probability-plot/fit-intervals.js';
import { pointwiseBand, readingOfShare } from '../../probability-plot/fitted-band.js';
import { bandRanks, calibrateBand, outsideBand } from '../../probability-plot/whole-plot-band.js';
import { distribution, familyByName } from '../../distributions/registry.js';
import { formatPercent, groupThousands } from '../../numeric/format.js';
import type { Note } from '../../road/analysis.js';
import { fittedTo, type PlottedBand, type ProbabilityPlotResult } from './plot-result.js';
import type { PlotRequest } from './plot-settings.js';

const MOST_ROWS_NAMED = 20;

const lawOf = ({ law }: Pick<ProbabilityPlotResult, 'law'>) => distribution(familyByName(law.family), law.parameters);

/** Indices of the readings outside a band, judged on the family's own scale, where its limits run straight from rank to rank. */
export function outsideOf(
  { readings, scores, law }: Pick<ProbabilityPlotResult, 'readings' | 'scores' | 'law'>,
  { ranks, lower, upper, kind }: Pick<PlottedBand, 'ranks' | 'lower' | 'upper' | 'kind'>,
): number[] {
  if (kind === 'line') return [];
  const { placeOf, slope } = familyScale(familyByName(law.family), law.parameters);
  const limits = { ranks, lower: lower.map(placeOf), upper: upper.map(placeOf) };
  return outsideBand(Float64Array.from(readings, placeOf), scores, limits, slope);
}

function banded(
  plot: ProbabilityPlotResult,
  { kind, confidence, simulated }: Pick<PlottedBand, 'kind' | 'confidence' | 'simulated'>,
  limits: { ranks: number[]; lower: number[]; upper: number[] },
): ProbabilityPlotResult {
  const outsideAt = outsideOf(plot, { kind, ...limits });
  const outside = outsideAt.slice(0, MOST_ROWS_NAMED).map((i) => plot.rows[i]!);
  return { ...plot, band: { kind, ...limits, confidence, simulated, outside, outsideCount: outsideAt.length } };
}

/** The bands that need no simulation: for each reading alone, and on the line. */
export function withFormulaBand(
  plot: ProbabilityPlotResult,
  kind: 'pointwise' | 'line',
  confidence: number,
): ProbabilityPlotResult {
  const ranks = bandRanks(plot.readings.length);
  if (kind === 'pointwise') {
    return banded(
      plot,
      { kind, confidence, simulated: null },
      { ranks, ...pointwiseBand(lawOf(plot), plot.n, ranks, confidence) },
    );
  }
  const shares = ranks.map((rank) => plot.positions[rank]!);
  const limits = lineBand(plot.law.family, plot.law, shares, confidence, fittedTo(plot));
  if (limits) return banded(plot, { kind, confidence, simulated: null }, { ranks, ...limits });
  const why =
    plot.law.estimated.length === 0
      ? 'all parameters are given, so the line has no uncertainty'
      : 'its parameters have no standard errors';
  return {
    ...plot,
    notes: [...plot.notes, { code: 'no-line-band', text: `The band of the line is not available: ${why}.` }],
  };
}

/** The whole-plot band needs every replicate at each of its places at once: so many numbers are held, 32 MB. */
const MOST_NUMBERS = 4_000_000;
export const mostReplicates = (n: number) => Math.floor(MOST_NUMBERS / Math.max(1, bandRanks(n).length));

/** The whole-plot band out of its replicates: scores of a normal, shares of any other family. */
export function withWholePlotBand(
  plot: ProbabilityPlotResult,
  chunks: Float64Array[],
  settings: PlotRequest,
  of: 'scores' | 'shares',
): ProbabilityPlotResult {
  const { confidence, seed } = settings;
  const replicates = settings.replicates!;
  const ranks = bandRanks(plot.n);
  const standard = calibrateBand(chunks, ranks, confidence);
  const law = lawOf(plot);
  const { intercept, slope } = familyScale(familyByName(plot.law.family), plot.law.parameters);
  const reading = (value: number) => (of === 'scores' ? intercept + slope * value : readingOfShare(law, value));
  const limits = { ranks, lower: standard.lower.map(reading), upper: standard.upper.map(reading) };
  const { coverage } = standard;
  const notes: Note[] = [...plot.notes];
  if (coverage < confidence) {
    const text = `With ${groupThousands(replicates)} replicates the band reaches only ${formatPercent(coverage, 3)}. Use more replicates.`;
    notes.push({ code: 'few-replicates', text });
  }
  if (replicates === mostReplicates(plot.n)) {
    const text = `The band holds all its replicates at once: of ${groupThousands(plot.n)} readings at most ${groupThousands(replicates)} are run.`;
    notes.push({ code: 'most-replicates', text });
  }
  const simulated = { coverage, replicates, seed };
  return banded({ ...plot, notes }, { kind: 'whole-plot', confidence, simulated }, limits);
}
