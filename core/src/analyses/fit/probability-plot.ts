import { z } from 'zod';
import { formatFigure, formatPercent, groupThousands } from '../../numeric/format.js';
import { ordered } from '../../numeric/ordered.js';
import { normalQuantile } from '../../numeric/standard-normal.js';
import { centralMoments } from '../../numeric/sums.js';
import { plottingPositions, type PositionRule } from '../../probability-plot/positions.js';
import { bandRanks, calibrateBand, outsideBand } from '../../probability-plot/whole-plot-band.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis, type Note, type SentencePart } from '../../road/analysis.js';
import { unavailable, unreadableNote, whyNot } from '../../road/cautions.js';
import { chunkSizeFor } from '../../road/kernels.js';
import { orderBook } from '../../road/order-book.js';
import { choice, confidence, replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { affordableReplicates, columnSetting } from '../../road/settings.js';

const NO_BAND = { field: 'band', is: 'none' } as const;
const positions = choice(
  'positions',
  'plotting positions',
  [
    { value: 'midpoint', text: 'midpoint positions' },
    { value: 'blom', text: 'Blom positions' },
    { value: 'benard', text: 'Benard positions' },
    { value: 'weibull', text: 'Weibull positions' },
    { value: 'median-rank', text: 'exact median ranks' },
  ] satisfies { value: PositionRule; text: string }[],
  'midpoint',
);
const band = choice(
  'band',
  'band',
  [
    { value: 'whole-plot', text: 'a whole-plot band' },
    { value: 'none', text: 'no band' },
  ],
  'whole-plot',
);
const ofBand = confidence('confidence of the band');
const replicates = replicatesOf('replicates for the band');
const seed = seedOf('seed of the band');

const request = z.strictObject({
  column: columnSetting,
  positions: positions.schema,
  band: band.schema,
  confidence: ofBand.schema,
  replicates: replicates.schema,
  seed: seed.schema,
});
type Request = z.infer<typeof request>;

/** A column of the table: typed while it travels between threads, an array once it came over the wire. */
type Column = readonly number[] | Float64Array | Int32Array;

export interface ProbabilityPlotResult {
  available: true;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  /** The fitted line: expected = mean + sd · score; sd with divisor n − 1, as in the test beside it. */
  mean: number;
  sd: number;
  /** Correlation of the readings with the scores. */
  correlation: number;
  /** The table behind the plot, sorted by reading: row (from 1), reading, cumulated share p and its normal score. */
  rows: Column;
  readings: Column;
  positions: Column;
  scores: Column;
  band: {
    /** Indices into the table at which the band was calibrated, and its limits there in the unit of the readings. */
    ranks: number[];
    lower: number[];
    upper: number[];
    confidence: number;
    coverage: number;
    replicates: number;
    seed: number;
    /** Rows of the first 20 readings outside the band, and how many there are in all. */
    outside: number[];
    outsideCount: number;
  } | null;
  notes: Note[];
}

const MOST_ROWS_NAMED = 20;

const method: SentencePart[] = [
  'Plot ',
  { subject: true },
  ' at ',
  positions.field,
  ' against a normal distribution fitted to the readings, with ',
  band.field,
  { text: ' at ', hideWhen: NO_BAND },
  { ...ofBand.field, hideWhen: NO_BAND },
  { text: ', from ', hideWhen: NO_BAND },
  { ...replicates.field, hideWhen: NO_BAND },
  { text: ' replicates, seed ', hideWhen: NO_BAND },
  { ...seed.field, hideWhen: NO_BAND },
  '.',
];

function correlationOf(x: Float64Array, y: Float64Array): number {
  const mx = centralMoments(x);
  const my = centralMoments(y);
  let products = 0;
  for (let i = 0; i < x.length; i++) products += (x[i]! - mx.mean) * (y[i]! - my.mean);
  return products / Math.sqrt(mx.s2 * my.s2);
}

function plotWithoutBand(settings: Request, sample: Sample): ProbabilityPlotResult {
  const { values, missing, setAside, unit, resolution } = sample;
  const n = values.length;
  const { sorted, order } = ordered(values);
  const positions = plottingPositions(n, settings.positions);
  const scores = positions.map(normalQuantile);
  const { mean, s2 } = centralMoments(values);
  return {
    available: true,
    n,
    missing,
    setAside,
    unit,
    resolution,
    mean,
    sd: Math.sqrt(s2 / (n - 1)),
    correlation: correlationOf(sorted, scores),
    rows: Int32Array.from(order, (i) => sample.rows[i]!),
    readings: sorted,
    positions,
    scores,
    band: null,
    notes: unreadableNote(sample),
  };
}

/** The band needs every replicate at each of its places at once: so many numbers are held, 32 MB. */
const MOST_NUMBERS = 4_000_000;
const mostReplicates = (n: number) => Math.floor(MOST_NUMBERS / Math.max(1, bandRanks(n).length));

function withBand(plot: ProbabilityPlotResult, chunks: Float64Array[], ranks: number[], settings: Request) {
  const { confidence, seed } = settings;
  const standard = calibrateBand(chunks, ranks, confidence);
  const lower = standard.lower.map((z) => plot.mean + plot.sd * z);
  const upper = standard.upper.map((z) => plot.mean + plot.sd * z);
  const outsideAt = outsideBand(plot.readings, plot.scores, { ranks, lower, upper }, plot.sd);
  const outside = outsideAt.slice(0, MOST_ROWS_NAMED).map((i) => plot.rows[i]!);
  const notes = [...plot.notes];
  if (standard.coverage < confidence) {
    const text = `With ${settings.replicates} replicates the band reaches only ${formatPercent(standard.coverage, 3)}. Raise the replicates.`;
    notes.push({ code: 'few-replicates', text });
  }
  if (settings.replicates === mostReplicates(plot.n)) {
    const text = `The band holds all its replicates at once: of ${groupThousands(plot.n)} readings at most ${groupThousands(settings.replicates)} are run.`;
    notes.push({ code: 'most-replicates', text });
  }
  const coverage = standard.coverage;
  const replicates = settings.replicates!;
  return {
    ...plot,
    notes,
    band: { ranks, lower, upper, confidence, coverage, replicates, seed, outside, outsideCount: outsideAt.length },
  };
}

/** The normal probability plot with its whole-plot band (STATISTICS section 4). */
export const probabilityPlotAnalysis = defineAnalysis<Request, ProbabilityPlotResult>({
  id: 'probability-plot',
  version: 3,
  name: 'Probability plot',
  title: 'normal probability plot with fitted line and whole-plot band',
  request,
  method,
  resolve: (settings, sample) => ({
    ...settings,
    replicates: Math.min(
      settings.replicates ?? affordableReplicates(sample.values.length, 10_000, 2_000),
      mostReplicates(sample.values.length),
    ),
  }),
  *run(asked, sample) {
    const reason = whyNot(sample, 3, 'the plot (a line through two points always fits)');
    if (reason) return unavailable(sample, reason);
    const settings = this.resolve(asked, sample);
    const plot = plotWithoutBand(settings, sample);
    if (settings.band === 'none') return plot;
    const ranks = bandRanks(plot.n);
    const book = orderBook(settings.seed, chunkSizeFor(plot.n));
    book.add({ kernel: 'ordered-scores', input: { n: plot.n, ranks } }, settings.replicates!);
    const [chunks] = yield { partial: plot, orders: book.orders };
    return withBand(plot, chunks!, ranks, settings);
  },
  finding: ({ n, mean, sd, resolution, unit, band }) => {
    const of = unit ? `\u00a0${unit}` : '';
    const line = `mean ${formatFigure(mean, 'location', resolution)} and sd ${formatFigure(sd, 'spread', resolution)}${of}`;
    if (!band) return [{ text: `${groupThousands(n)} readings plotted against a normal with ${line}.` }];
    const { outsideCount, confidence } = band;
    const where =
      outsideCount === 0
        ? 'No reading lies'
        : outsideCount === 1
          ? 'One reading lies'
          : `${groupThousands(outsideCount)} readings lie`;
    return [
      { text: `${where} outside`, strong: true },
      {
        text: ` the band that ${formatPercent(confidence)} of normal samples of ${groupThousands(n)} stay wholly inside; line at ${line}.`,
      },
    ];
  },
});
