import { fitCost } from '../../distributions/fit/fit-cost.js';
import { fittedLaw, type PlottedLaw } from '../../distributions/fit/fitted-law.js';
import { isRefusal } from '../../distributions/family.js';
import type { Fitting } from '../../distributions/fit/refit.js';
import { distribution, familyByName } from '../../distributions/registry.js';
import { COARSE, roundingOf } from '../../goodness-of-fit/rounding.js';
import type { RoundedNormal } from '../../goodness-of-fit/rounded-normal.js';
import { quartilesOfSorted } from '../../describe/quantiles.js';
import { formatPercent } from '../../numeric/format.js';
import { article, plural } from '../../numeric/grammar.js';
import { ordered } from '../../numeric/ordered.js';
import { centralMoments } from '../../numeric/sums.js';
import { familyScale, type FamilyScale } from '../../probability-plot/family-scale.js';
import { intervalOfShare } from '../../probability-plot/fit-intervals.js';
import type { FittedTo } from '../../probability-plot/likelihood-region.js';
import { bandRanks } from '../../probability-plot/whole-plot-band.js';
import type { Sample } from '../../readings/sample.js';
import {
  defineAnalysis,
  type Answers,
  type Note,
  type Piece,
  type Step,
  type Unavailable,
} from '../../road/analysis.js';
import { confidenceNote, unavailable, unreadableNotes, whyNot } from '../../road/cautions.js';
import { subjectWords } from '../../road/groups.js';
import { foundParts, isInParts, runInParts, type InParts } from '../../road/in-parts.js';
import { chunkSizeFor, type KernelOrder } from '../../road/kernels.js';
import { orderBook } from '../../road/order-book.js';
import { affordableReplicates } from '../../road/settings.js';
import { beyondWords, boundsOf, censoredNote } from '../../road/beyond-limits.js';
import { positionsAmong } from './positions-among.js';
import { fittingOf } from './family-settings.js';
import { lawWords } from './law-words.js';
import { mostReplicates, withFormulaBand, withWholePlotBand } from './plot-bands.js';
import { bandsFinding, noneWords } from './parts-words.js';
import { looksOrders, readShapes, shapesFrom } from './plot-shapes.js';
import type { ProbabilityPlotResult } from './plot-result.js';
import { plotRequest, plotSentence, type PlotRequest } from './plot-settings.js';

export type { ProbabilityPlotResult } from './plot-result.js';

/** Slope and means of y over x. */
function regression(x: Float64Array, y: Float64Array) {
  const mx = centralMoments(x);
  const my = centralMoments(y);
  let products = 0;
  for (let i = 0; i < x.length; i++) products += (x[i]! - mx.mean) * (y[i]! - my.mean);
  const slope = products / mx.s2;
  return { slope, intercept: my.mean - slope * mx.mean, correlation: products / Math.sqrt(mx.s2 * my.s2) };
}

/** The places at a quarter and three quarters of all, between the places of known readings at these shares; no numbers beyond them. */
function quartilesAt(places: Float64Array, positions: Float64Array): [number, number] {
  const at = (share: number) => {
    const above = positions.findIndex((p) => p >= share);
    if (above < 1) return NaN;
    const part = (share - positions[above - 1]!) / (positions[above]! - positions[above - 1]!);
    return places[above - 1]! + part * (places[above]! - places[above - 1]!);
  };
  return [at(0.25), at(0.75)];
}

/** The line over the plot: that of the distribution, through the quartiles of readings and scores, or by least squares of places on scores. */
function lineOf(
  { line: by }: PlotRequest,
  scale: FamilyScale,
  scores: Float64Array,
  places: Float64Array,
  positions: Float64Array | null,
) {
  if (by === 'fit') return { by, intercept: scale.intercept, slope: scale.slope };
  if (by === 'least-squares') {
    const { slope, intercept } = regression(scores, places);
    return { by, intercept, slope };
  }
  const [q1, q3] = positions ? quartilesAt(places, positions) : quartilesOfSorted(places, 7);
  if (!(q3 > q1)) return { by: 'fit' as const, intercept: scale.intercept, slope: scale.slope };
  const [low, high] = [scale.scoreOf(0.25, 0.75), scale.scoreOf(0.75, 0.25)];
  const slope = (q3 - q1) / (high - low);
  return { by, intercept: q1 - slope * low, slope };
}

/** The share of the distribution outside the limits of the column. */
function limitsOf(settings: PlotRequest, law: PlottedLaw, fitted: FittedTo): ProbabilityPlotResult['limits'] {
  const { confidence } = settings;
  const lowerLimit = settings.lowerLimit ?? null;
  const upperLimit = settings.upperLimit ?? null;
  const base = { lower: lowerLimit, target: settings.target ?? null, upper: upperLimit, confidence };
  if (lowerLimit === null && upperLimit === null) return { ...base, outside: null, interval: null };
  const own = distribution(familyByName(law.family), law.parameters);
  const share =
    (lowerLimit === null ? 0 : own.cumulative(lowerLimit)) + (upperLimit === null ? 0 : own.survival(upperLimit));
  const limits = { below: lowerLimit, above: upperLimit };
  return { ...base, outside: share, interval: intervalOfShare(law.family, law, limits, confidence, fitted) };
}

const ONLY_ON_LINE: Note = {
  code: 'only-on-line',
  text: 'The band is that of the line, because the other bands need readings without detection limits.',
};

function plotWithoutBand(settings: PlotRequest, sample: Sample, fitting: Fitting): ProbabilityPlotResult | string {
  const { values, missing, setAside, unit, resolution, censored } = sample;
  const found = fittedLaw(values, fitting, boundsOf(censored));
  if (isRefusal(found)) return found.refused;
  const { notes, ...law } = found;
  const scale = familyScale(familyByName(law.family), law.parameters);
  const { sorted, order } = ordered(values);
  const placed = positionsAmong(sample, sorted, settings.positions);
  if (isRefusal(placed)) return placed.refused;
  const { n, ranks, positions } = placed;
  const scores = positions.map((p) => scale.scoreOf(p));
  const places = sorted.map(scale.placeOf);
  const shapes = ranks ? null : readShapes(sorted, law, resolution, settings.alpha);
  return {
    available: true,
    n,
    missing,
    setAside,
    unit,
    resolution,
    ...(censored && ranks ? { censored, ranks } : {}),
    law,
    axis: settings.axis,
    sides: settings.sides,
    line: lineOf(settings, scale, scores, places, ranks && positions),
    correlation: regression(scores, places).correlation,
    rows: Int32Array.from(order, (i) => sample.rows[i]!),
    readings: sorted,
    positions,
    scores,
    band: null,
    ...(shapes ? { shapes } : {}),
    limits: limitsOf(settings, law, { sorted, censored: boundsOf(censored) }),
    notes: [
      ...notes,
      ...(settings.band === 'none' ? [] : confidenceNote(settings.confidence)),
      ...unreadableNotes(sample),
      ...censoredNote(sample),
      ...(ranks && settings.band !== 'none' ? [ONLY_ON_LINE] : []),
    ],
  };
}

/** A normal with mean and sd estimated is the same plot for all of them: its replicates need no family. */
const isPlainNormal = ({ family, given }: Fitting) => family === 'normal' && Object.keys(given).length === 0;

/** How many a pointwise band is expected to leave out: fewer where it was fitted to these readings. */
const chanceWords = (expected: number, claimed: boolean) =>
  `${claimed ? 'about' : 'at most about'} ${Number(expected.toPrecision(2))} expected by chance`;

function finding(result: ProbabilityPlotResult): Piece[] {
  const { n, law, band } = result;
  const { title } = familyByName(law.family);
  if (!band || band.kind === 'line') {
    const beyond = result.censored ? ` (${beyondWords(result)})` : '';
    return [
      {
        text: `${plural(n, 'reading')}${beyond} plotted against ${article(title)} distribution with ${lawWords(result)}.`,
      },
    ];
  }
  const { outsideCount, confidence, kind } = band;
  const where = outsideCount === 0 ? 'No readings' : plural(outsideCount, 'reading');
  const claimed = law.estimated.length === 0;
  const of = claimed ? `samples from the claimed ${title} distribution` : `${title} samples of this size`;
  const words =
    kind === 'whole-plot'
      ? ` the simultaneous band (${formatPercent(band.simulated?.coverage ?? confidence, 3)} of ${of} lie entirely within it). Line: ${lawWords(result)}.`
      : ` the ${formatPercent(confidence)} pointwise band (${chanceWords(n * (1 - confidence), claimed)}). Line: ${lawWords(result)}.`;
  return [{ text: `${where} outside`, strong: true, code: 'evidence' }, { text: words }];
}

/** How clean samples are rounded, where the steps of the readings are coarse. */
function roundedAs({ values, resolution }: Sample): { step: number | null; rounding: RoundedNormal | null } {
  const { n, s2 } = centralMoments(values);
  const sd = Math.sqrt(s2 / (n - 1));
  if (resolution === null || !(sd < COARSE * resolution)) return { step: null, rounding: null };
  return { step: resolution, rounding: roundingOf(values, resolution, sd)?.population ?? null };
}

/** The samples of the whole-plot band: rounded as the readings are where their steps are coarse. */
function bandOrders(
  settings: PlotRequest,
  sample: Sample,
  plot: ProbabilityPlotResult,
  fitting: Fitting,
): KernelOrder[] {
  const { n } = plot;
  const ranks = bandRanks(n);
  const plain = isPlainNormal(fitting);
  const { step, rounding } = roundedAs(sample);
  const book = orderBook(settings.seed, chunkSizeFor(plain ? n : n * fitCost(fitting).times));
  if (plain) book.add({ kernel: 'ordered-scores', input: { n, ranks, rounding } }, settings.replicates!);
  else {
    const input = { n, ranks, fitting, parameters: plot.law.parameters, step };
    book.add({ kernel: 'ordered-shares', input }, settings.replicates!);
  }
  return book.orders;
}

/** The plot of one column or part, then its band and its patterns. */
function* plotted(
  settings: PlotRequest,
  sample: Sample,
): Generator<Step<ProbabilityPlotResult | Unavailable>, ProbabilityPlotResult | Unavailable, Answers> {
  const reason = whyNot(sample, 3, 'a probability plot');
  if (reason) return unavailable(sample, reason);
  const fitting = fittingOf(settings);
  const plot = plotWithoutBand(settings, sample, fitting);
  if (typeof plot === 'string') return unavailable(sample, plot);
  const { band, confidence } = settings;
  const banded = band === 'pointwise' || band === 'line' ? withFormulaBand(plot, band, confidence) : plot;
  const orders = band === 'whole-plot' ? bandOrders(settings, sample, plot, fitting) : [];
  const replicates = settings.replicates!;
  const sorted = plot.readings as Float64Array;
  const judging = plot.shapes === undefined && !plot.censored;
  const { step } = roundedAs(sample);
  const looks = judging
    ? looksOrders(sorted, plot.law, step, sample.resolution, { fitting, seed: settings.seed, replicates })
    : [];
  if (orders.length + looks.length === 0) return banded;
  const answers = yield { partial: banded, orders: [...orders, ...looks] };
  const shapes = judging
    ? shapesFrom(sorted, plot.law, sample.resolution, settings.alpha, answers[orders.length]!)
    : plot.shapes;
  const whole = { ...banded, ...(shapes ? { shapes } : {}) };
  if (orders.length === 0) return whole;
  return withWholePlotBand(whole, answers[0]!, settings, isPlainNormal(fitting) ? 'scores' : 'shares');
}

/** The probability plot of any continuous family, estimated or claimed, of each part by itself where the column is split, with its line and a band (STATISTICS section 4). */
export const probabilityPlotAnalysis = defineAnalysis<
  PlotRequest,
  ProbabilityPlotResult | InParts<ProbabilityPlotResult>
>({
  id: 'probability-plot',
  version: 6,
  name: 'Probability plot',
  title: 'probability plot of any distribution with a line and a band',
  request: plotRequest,
  method: plotSentence,
  resolve: (settings, sample) => {
    const n = sample.values.length;
    const { censored } = sample;
    const cost = fitCost(fittingOf(settings));
    const parts = sample.groups?.samples.length ?? 1;
    const most = Math.min(
      Math.floor(mostReplicates(n) / parts),
      settings.replicates ?? affordableReplicates(n, cost.replicates, 1_000),
    );
    const band = censored && settings.band !== 'none' ? 'line' : settings.band;
    return { ...settings, band, replicates: most };
  },
  subject: subjectWords,
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    return sample.groups
      ? yield* runInParts(sample, (part) => plotted(settings, part))
      : yield* plotted(settings, sample);
  },
  finding(result) {
    if (!isInParts(result)) return finding(result);
    const [first] = foundParts(result);
    if (!first) return [{ text: noneWords(result, 'plotted') }];
    const { title } = familyByName(first.result.law.family);
    return bandsFinding(result, `${article(title)}`, first.result.law.estimated.length > 0);
  },
});
